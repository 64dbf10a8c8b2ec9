"""Long work: its rows."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import datetime
from typing import Any

from sqlalchemy import BindParameter, ColumnElement, func, select
from sqlalchemy.orm import Session, object_session

from .errors import NotFound
from .models import Job, now

#: What has not ended yet.
OPEN = ("waiting", "running")


#: Work of a kind comes after all that waits of the kinds before it: somebody looks at a laying.
KINDS = ("lay", "trials", "quiet")


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


def turn(row: Job) -> tuple[int, bool, int]:
    """By what work that waits is ordered: its kind, then what was not begun yet, then as it was asked for."""
    return KINDS.index(row.kind), row.spent > 0.0, row.id


def ahead(row: Job) -> int:
    """How much waits before a job that waits itself; 0 for any other."""
    session = object_session(row)
    if row.state != "waiting" or session is None:
        return 0
    others = session.scalars(select(Job).where(Job.state == "waiting", Job.id != row.id, Job.cancel.is_(False)))
    return sum(turn(other) < turn(row) for other in others)


def somebody_waits(session: Session, number: int, since: datetime) -> bool:
    """Whether a laying other than ``number`` was asked for before ``since`` and not begun: it has nothing to show."""
    query = select(Job.id).where(Job.state == "waiting", Job.kind == "lay", Job.spent == 0.0, Job.cancel.is_(False))
    return session.scalar(query.where(Job.id != number, Job.created_at < since).limit(1)) is not None


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
