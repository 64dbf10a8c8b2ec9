"""What can be taken back, and done again, as it is sent."""

from __future__ import annotations

from ...operations.undo import Deed, Deeds
from . import schemas as out


def undo_out(deeds: Deeds, done: Deed | None = None) -> out.UndoOut:
    """Of one list; ``done``: what was taken back, or done again, just now."""
    return out.UndoOut(back=_deed(deeds.back), again=_deed(deeds.again), done=_deed(done))


def _deed(deed: Deed | None) -> out.DeedOut | None:
    return None if deed is None else out.DeedOut(change=deed.change, at=deed.at, what=deed.what)
