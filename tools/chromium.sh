#!/bin/sh
# The browser of the tests: Debian's own Chromium, never a download of its own.
command -v chromium >/dev/null 2>&1 && exit 0
if command -v apt-get >/dev/null 2>&1 && [ "$(id -u)" = 0 ]; then
    echo "Installing Chromium …" >&2
    apt-get update -qq >/dev/null && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null && exit 0
fi
echo "Missing: Chromium, for the browser tests. Get it with: sudo apt-get install chromium" >&2
exit 2
