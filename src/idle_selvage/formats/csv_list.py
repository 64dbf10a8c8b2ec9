"""The list for the shop as CSV (RFC 4180), one thing a line."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

HEAD = ("kind", "name", "amount", "pre-treatment", "colour", "in the house")


def list_csv(lines: Iterable[tuple[str, str, str, str, str, str]]) -> str:
    """The list as text. A cell that a spreadsheet would take for a formula is led by an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEAD)
    for line in lines:
        writer.writerow([_plain(cell) for cell in line])
    return out.getvalue()


def _plain(cell: str) -> str:
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell
