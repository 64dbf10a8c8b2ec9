"""Asking a running server for changes as a page of its own does: with the word that is written into the page."""

from __future__ import annotations

import re
import urllib.request


def asking(address: str) -> dict[str, str]:
    """The headers of a change, for the server at an address that ends in a slash."""
    with urllib.request.urlopen(address, timeout=20) as page:
        word = re.search(r'name="page-word" content="([^"]+)"', page.read().decode())
    assert word is not None, "the page holds no word"
    return {"Content-Type": "application/json", "X-Page": word[1]}
