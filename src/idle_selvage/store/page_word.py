"""The word by which our own pages are known: written into the page, sent with every change, kept over restarts."""

from __future__ import annotations

import contextlib
import os
import secrets
from pathlib import Path

NAME = "page-word"
#: So many bytes of chance.
BYTES = 24


def page_word(home: Path) -> str:
    """The word of a home folder; made when there is none, readable by its owner only. Raises :class:`OSError`."""
    path = home / NAME
    kept = read_word(home)
    if kept:
        return kept
    word = secrets.token_urlsafe(BYTES)
    # a file of that name that holds no word of ours is put away; whoever comes first has made it
    with contextlib.suppress(FileNotFoundError):
        path.unlink()
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w", encoding="ascii") as file:
        file.write(word)
    return word


def read_word(home: Path) -> str:
    """The word of a home folder, or nothing."""
    try:
        word = (home / NAME).read_text("ascii").strip()
    except (OSError, ValueError):
        return ""
    return word if len(word) >= BYTES and word.replace("-", "").replace("_", "").isalnum() else ""
