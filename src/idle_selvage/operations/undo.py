"""Taking back what was done, and doing it again: one list for each garment, and one for the house (bench and cupboard).

A list is the log's lines of a garment, or those that are of no garment, of a cloth as such, or of a garment as a whole.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, select
from sqlalchemy.orm import Session, aliased

from ..core.wording import Sentence
from ..store import journal, log_entry, models
from ..store.errors import NotFound
from ..store.journal import CannotUndo
from . import log
from .refused import Refused


@dataclass(frozen=True)
class Deed:
    """A change that can be taken back or done again: its number, when it was done, and what was done."""

    change: int
    at: datetime
    what: str


@dataclass(frozen=True)
class Deeds:
    """What the next *undo* and the next *do again* are, of one list."""

    back: Deed | None
    again: Deed | None


def deeds(session: Session, project_id: int | None) -> Deeds:
    """Of a garment, or of the house (None)."""
    here = log_entry.of_list(project_id)
    back = _last(session, here, models.Change.undoes.is_(None))
    undone = aliased(models.Change)
    was_undone = select(undone.id).where(undone.id == models.Change.undoes, undone.undoes.is_(None)).exists()
    again = _last(session, here, was_undone)
    # what was done since stands in the way of doing it again
    if again is not None and back is not None and back.change > again.change:
        again = None
    return Deeds(back, again)


def take_back(session: Session, number: int) -> Deed:
    """Take one change back, or, if it took one back, do that one again. Raises NotFound and :class:`Refused`."""
    change = session.get(models.Change, number)
    lines = [] if change is None else _lines(session, [number])
    if change is None or not lines or lines[0].kind in log.NOT_TAKEN_BACK:
        raise NotFound("There is no such step to take back.")
    told = log.line_of(lines[0])
    try:
        journal.take_back(session, change)
    except CannotUndo as fault:
        raise Refused(_why_not(session, change, fault.later), code="changed_since") from None
    again = change.undoes is not None
    for line in {(one.project_id, one.cloth_id): one for one in reversed(lines)}.values():
        kind = "done-again" if again else "taken-back"
        whole = line.kind in log_entry.WHOLE
        log.note_again(session, line, f"whole-{kind}" if whole else kind, said=log.done_in(line))
    return Deed(number, told.at, log.done_in(lines[0]))


def undo(session: Session, project_id: int | None) -> Deed:
    """Take back the last thing done in a list. Raises :class:`Refused`."""
    found = deeds(session, project_id).back
    if found is None:
        raise Refused("There is nothing to take back here.", code="not_ready")
    return take_back(session, found.change)


def redo(session: Session, project_id: int | None) -> Deed:
    """Do again what was taken back last in a list. Raises :class:`Refused`."""
    found = deeds(session, project_id).again
    if found is None:
        raise Refused("There is nothing to do again here.", code="not_ready")
    return take_back(session, found.change)


def _last(session: Session, here: ColumnElement[bool], which: ColumnElement[bool]) -> Deed | None:
    query = (
        select(models.LogEntry)
        .join(models.Change, models.Change.id == models.LogEntry.change_id)
        .where(here, which, models.Change.undone_by.is_(None), models.Change.rows.any())
        .where(models.LogEntry.kind.not_in(log.NOT_TAKEN_BACK))
        .order_by(models.LogEntry.change_id.desc(), models.LogEntry.id)
        .limit(1)
    )
    row = session.scalar(query)
    if row is None or row.change_id is None:
        return None
    return Deed(row.change_id, row.at, log.done_in(row))


def _lines(session: Session, numbers: Iterable[int]) -> list[models.LogEntry]:
    query = select(models.LogEntry).where(models.LogEntry.change_id.in_(list(numbers)))
    return list(session.scalars(query.order_by(models.LogEntry.id)))


def _why_not(session: Session, change: models.Change, later: int | None) -> str:
    if change.undone_by is not None:
        return "That was taken back already."
    said = _lines(session, [later]) if later is not None else []
    if not said:
        return "What it changed was changed again since, so it cannot be taken back by itself."
    return Sentence("Something later stands on it: {said} Take that back first.", said=log.line_of(said[0]).what)
