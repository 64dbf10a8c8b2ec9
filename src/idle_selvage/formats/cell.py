"""Cells of a table that a spreadsheet would take for a formula: led by an apostrophe, which is taken off again."""

from __future__ import annotations

#: How a formula begins, and what a spreadsheet passes over before one.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


def plain(cell: str) -> str:
    """A text as it is put into a cell; one that begins with an apostrophe gets a second one, to be read back."""
    return f"'{cell}" if cell.startswith((*FORMULA, "'")) else cell


def unplain(cell: str) -> str:
    """The text of a cell that :func:`plain` wrote."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith((*FORMULA, "'")) else cell
