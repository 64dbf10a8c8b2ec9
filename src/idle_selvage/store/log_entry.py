"""The log: written, never changed."""

from __future__ import annotations

from sqlalchemy import ColumnElement, and_, func, or_, select
from sqlalchemy.orm import Session

from .journal import NUMBER, TOLD
from .models import LogEntry


def add(session: Session, row: LogEntry) -> None:
    """Write one line. Nothing is ever changed or removed there."""
    row.change_id = session.info.get(NUMBER)
    session.info[TOLD] = True
    session.add(row)


#: What is of a garment as a whole: the bench shows it.
WHOLE = ("garment-begun", "garment-away", "garment-back", "whole-taken-back", "whole-done-again")


def of_list(project_id: int | None) -> ColumnElement[bool]:
    """The lines of a garment; or (None) those of bench and cupboard: of no garment, of a cloth as such, or of a garment
    as a whole."""
    if project_id is not None:
        return LogEntry.project_id == project_id
    of_cloth = and_(LogEntry.cloth_id.is_not(None), LogEntry.use_id.is_(None))
    return or_(LogEntry.project_id.is_(None), LogEntry.kind.in_(WHOLE), of_cloth)


def entries(
    session: Session, project_id: int | None, most: int | None = None, before: int | None = None
) -> list[LogEntry]:
    """A project's log, or that of bench and cupboard, the newest first; ``before`` begins after that line."""
    query = select(LogEntry).where(of_list(project_id)).order_by(LogEntry.id.desc())
    if before is not None:
        query = query.where(LogEntry.id < before)
    return list(session.scalars(query if most is None else query.limit(most)))


def count(session: Session, project_id: int | None) -> int:
    """How many lines there are."""
    return session.scalar(select(func.count()).select_from(LogEntry).where(of_list(project_id))) or 0
