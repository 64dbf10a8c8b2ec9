"""Debian's Chromium, and how it is started for pictures, measurements and tests."""

from __future__ import annotations

CHROMIUM = "/usr/bin/chromium"
ARGS = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
