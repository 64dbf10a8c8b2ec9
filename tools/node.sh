#!/bin/sh
# Run a command with the Node that set-up chose: the machine's, or the one it fetched.
here=$(cd "$(dirname "$0")/.." && pwd)
[ -d "$here/.setup/node/bin" ] && PATH="$here/.setup/node/bin:$PATH" && export PATH
exec "$@"
