"""The list for the shop as CSV (RFC 4180), one thing a line."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

from .cell import plain

HEAD = ("kind", "name", "amount", "pre-treatment", "colour", "in the house")


def list_csv(lines: Iterable[tuple[str, str, str, str, str, str]]) -> str:
    """The list as text. A cell that a spreadsheet would take for a formula is led by an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEAD)
    for line in lines:
        writer.writerow([plain(cell) for cell in line])
    return out.getvalue()


LOG_HEAD = ("day", "time", "garment", "cloth", "stage", "what", "taken back")


def log_csv(lines: Iterable[tuple[str, str, str, str, str, str, str]]) -> str:
    """The log as text, the newest first."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(LOG_HEAD)
    for line in lines:
        writer.writerow([plain(cell) for cell in line])
    return out.getvalue()
