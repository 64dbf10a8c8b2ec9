"""The log: written, never changed."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .models import LogEntry


def add(session: Session, row: LogEntry) -> None:
    """Write one line. Nothing is ever changed or removed there."""
    session.add(row)


def entries(session: Session, project_id: int) -> list[LogEntry]:
    """A project's log, the newest first."""
    return list(session.scalars(select(LogEntry).where(LogEntry.project_id == project_id).order_by(LogEntry.id.desc())))


def counts(session: Session, project_ids: Iterable[int]) -> dict[int, int]:
    """How many lines each project's log has, by the project's number."""
    query = (
        select(LogEntry.project_id, func.count())
        .where(LogEntry.project_id.in_(list(project_ids)))
        .group_by(LogEntry.project_id)
    )
    return {number: lines for number, lines in session.execute(query) if number is not None}
