#!/bin/sh
# What is generated must be what the code says now; locks must name no registry.
set -eu
cd "$(dirname "$0")/.."
made=$(mktemp -d); trap 'rm -rf "$made"' EXIT
.venv/bin/python -m idle_selvage.api.document > "$made/openapi.json"
cmp -s "$made/openapi.json" docs/openapi.json || { echo "docs/openapi.json is not what the code says now: run make api." >&2; exit 1; }
tools/node.sh web/node_modules/.bin/openapi-typescript "$made/openapi.json" -o "$made/schema.d.ts" --default-non-nullable=false >/dev/null 2>&1
cmp -s "$made/schema.d.ts" web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is not what the API says now: run make api." >&2; exit 1; }
.venv/bin/python -m idle_selvage.demo.drafts | cmp -s - web/public/example-pieces.svg || { echo "web/public/example-pieces.svg is not what the drafts give now." >&2; exit 1; }
if grep -nE '"resolved"|https?://[^ "]+\.(tgz|whl|tar\.gz)|^-(-index|-extra|-find|i )' web/package-lock.json requirements*.lock; then
    echo "A lock file names where packages come from." >&2; exit 1
fi
