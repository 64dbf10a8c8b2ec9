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


def running_lay(session: Session, use_id: int) -> Job | None:
    """The laying that is waiting or under way for a cloth of a garment."""
    return session.scalars(
        select(Job).where(Job.use_id == use_id, Job.kind == "lay", Job.state.in_(OPEN)).order_by(Job.id.desc())
    ).first()


def last_lays(session: Session, use_ids: Iterable[int]) -> dict[int, Job]:
    """The newest laying on each cloth of a garment, whatever became of it, by the number of its use."""
    newest = select(func.max(Job.id)).where(Job.use_id.in_(list(use_ids)), Job.kind == "lay").group_by(Job.use_id)
    return {row.use_id: row for row in session.scalars(select(Job).where(Job.id.in_(newest)))}


def finish(row: Job, state: str, error: str = "") -> None:
    """Close a job."""
    row.state = state
    row.error = error
    row.finished_at = now()
