"""The log: written, never changed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import datetime

from sqlalchemy import ColumnElement, and_, func, or_, select
from sqlalchemy.orm import Session

from .errors import NotFound
from .journal import NUMBER, TOLD
from .models import Cloth, LogEntry, LogPhoto, Project


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


def timeline(
    session: Session,
    *,
    project_id: int | None = None,
    cloth_id: int | None = None,
    stages: Sequence[str] = (),
    since: datetime | None = None,
    until: datetime | None = None,
    before: int | None = None,
) -> Iterator[LogEntry]:
    """Every line of a garment, of a cloth whichever garment it was used in, or of all (neither given), the newest
    first, so far as it is asked for. What was done to a cloth of several garments stands once."""
    query = select(LogEntry).order_by(LogEntry.id.desc())
    if project_id is not None:
        query = query.where(LogEntry.project_id == project_id)
    if cloth_id is not None:
        query = query.where(LogEntry.cloth_id == cloth_id)
    if stages:
        query = query.where(LogEntry.stage.in_(list(stages)))
    if since is not None:
        query = query.where(LogEntry.at >= since)
    if until is not None:
        query = query.where(LogEntry.at < until)
    if before is not None:
        query = query.where(LogEntry.id < before)
    seen: tuple[int | None, str, int | None] | None = None
    for row in session.scalars(query.execution_options(yield_per=500)):
        same = (row.change_id, row.kind, row.cloth_id)
        if project_id is None and row.change_id is not None and row.use_id is None and same == seen:
            continue
        seen = same
        yield row


def photos_of(session: Session, lines: Sequence[int]) -> set[int]:
    """Which of these lines have a photo."""
    return set(session.scalars(select(LogPhoto.log_id).where(LogPhoto.log_id.in_(list(lines)))))


def photo(session: Session, line: int) -> LogPhoto:
    """The photo of a line. Raises :class:`NotFound`."""
    row = session.get(LogPhoto, line)
    if row is None:
        raise NotFound("There is no photo beside this line.")
    return row


def names(session: Session) -> tuple[dict[int, str], dict[int, str]]:
    """What garments and cloths are called, also those that were put away."""
    projects = {number: name for number, name in session.execute(select(Project.id, Project.name))}
    cloths = {number: name for number, name in session.execute(select(Cloth.id, Cloth.name))}
    return projects, cloths


def newest_line(session: Session) -> int:
    """The number of the newest line; 0 when there is none."""
    return session.scalar(select(func.max(LogEntry.id))) or 0


def lines_since(session: Session, number: int) -> list[int]:
    """The numbers of the lines after one."""
    return list(session.scalars(select(LogEntry.id).where(LogEntry.id > number)))
