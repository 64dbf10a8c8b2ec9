"""Long work: its rows."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any

from sqlalchemy import BindParameter, ColumnElement, func, select
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


def stop_quiet(session: Session) -> None:
    """Ask quiet searches to stop: somebody waits."""
    for row in session.scalars(select(Job).where(Job.kind == "quiet", Job.state.in_(OPEN))):
        row.cancel = True


def is_last_lay(use_ids: Collection[int] | BindParameter[Any]) -> ColumnElement[bool]:
    """That a job is the newest laying on its cloth of a garment, whatever became of it."""
    newest = select(func.max(Job.id)).where(Job.use_id.in_(use_ids), Job.kind == "lay").group_by(Job.use_id)
    return Job.id.in_(newest)


def last_lays(session: Session, use_ids: Iterable[int]) -> dict[int, Job]:
    """The newest laying on each cloth of a garment, by the number of its use."""
    return {row.use_id: row for row in session.scalars(select(Job).where(is_last_lay(list(use_ids))))}


def finish(row: Job, state: str, error: str = "") -> None:
    """Close a job."""
    row.state = state
    row.error = error
    row.finished_at = now()
