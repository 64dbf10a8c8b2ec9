"""Long work: its rows."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .errors import NotFound
from .models import Job, now

#: What has not ended yet.
OPEN = ("waiting", "running")


def job(session: Session, number: int) -> Job:
    """A job by its number. Raises :class:`NotFound`."""
    row = session.get(Job, number)
    if row is None:
        raise NotFound("There is no such work under way.")
    return row


def running_lay(session: Session, project_id: int) -> Job | None:
    """The laying that is waiting or under way for a project."""
    return session.scalars(
        select(Job).where(Job.project_id == project_id, Job.kind == "lay", Job.state.in_(OPEN)).order_by(Job.id.desc())
    ).first()


def last_lays(session: Session, project_ids: Iterable[int]) -> dict[int, Job]:
    """The newest laying of each project, whatever became of it, by the project's number."""
    newest = (
        select(func.max(Job.id))
        .where(Job.project_id.in_(list(project_ids)), Job.kind == "lay")
        .group_by(Job.project_id)
    )
    return {row.project_id: row for row in session.scalars(select(Job).where(Job.id.in_(newest)))}


def finish(row: Job, state: str, error: str = "") -> None:
    """Close a job."""
    row.state = state
    row.error = error
    row.finished_at = now()
