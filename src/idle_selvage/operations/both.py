"""What two pages both changed: what it is called, what it is by now, and what it would have become."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ..core.wording import Sentence
from ..core.working import length
from ..store.journal import Cell, ChangedElsewhere
from .events import ENTRIES

#: Columns that hold millimetres.
_LENGTHS = {
    "margin_low", "margin_high", "gap", "ends", "spare", "shop_step", "bought_extra", "first_end", "cut_off",
    "included", "ease", "key_a", "key_b", "seam", "length", "width", "position", "value",
}  # fmt: skip


@dataclass(frozen=True)
class Twice:
    """One entry changed in two windows."""

    path: str
    name: str
    theirs: str
    mine: str


def told(fault: ChangedElsewhere) -> tuple[Twice, ...]:
    """Every entry that was changed twice, one line each."""
    return tuple({(one.path, one.theirs, one.mine): one for one in map(_twice, fault.cells)}.values())


def _twice(cell: Cell) -> Twice:
    path = cell.column
    name = ENTRIES.get(path, path.replace("_", " "))
    return Twice(path, name, _said(cell.column, cell.theirs), _said(cell.column, cell.mine))


def _said(column: str, value: Any) -> str:
    if value is None or value in ("", []):
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float) and column in _LENGTHS:
        return Sentence("{value}", value=length(float(value)))
    if isinstance(value, Mapping) or (isinstance(value, list) and any(isinstance(one, list | dict) for one in value)):
        return "something else"
    if isinstance(value, list):
        return ", ".join(str(one) for one in value)
    return f"{value:g}" if isinstance(value, float) else str(value)
