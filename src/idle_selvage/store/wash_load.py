"""Loads of the washing day, their steps, and the times of past ones."""

from __future__ import annotations

from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ..core.washday.loads import PER_METRE, Bound, LoadStep, Machine, minutes_of, weighed, weight_of
from ..core.working import Figure
from .errors import NotFound
from .models import LoadTask, Wash, WashLoad, now


def loads(session: Session) -> list[WashLoad]:
    """Loads that are planned or under way, in the order of their first step; those done are left out."""
    rows = session.scalars(select(WashLoad).options(selectinload(WashLoad.steps)).order_by(WashLoad.id)).all()
    open_ = [row for row in rows if any(t.finished_at is None for t in row.steps)]
    return sorted(open_, key=lambda row: min(t.start_at for t in row.steps))


def task(session: Session, number: int) -> LoadTask:
    """A step by its number. Raises :class:`NotFound`."""
    row = session.get(LoadTask, number)
    if row is None:
        raise NotFound("There is no such step; the day may have been planned anew.")
    return row


def timed(session: Session) -> dict[str, list[float]]:
    """Minutes that steps took by what they teach, the oldest first; per metre where it depends on the length."""
    rows = session.execute(
        select(LoadTask, WashLoad.metres)
        .join(WashLoad)
        .where(LoadTask.started_at.is_not(None), LoadTask.finished_at.is_not(None))
        .order_by(LoadTask.finished_at)
    ).all()
    past: dict[str, list[float]] = {}
    for row, metres in rows:
        if row.learn == "rest" or row.started_at is None or row.finished_at is None:
            continue
        minutes = (row.finished_at - row.started_at).total_seconds() / 60.0
        if minutes < 1:
            # ticked off afterwards, not timed
            continue
        past.setdefault(row.learn, []).append(minutes / max(0.1, metres) if row.learn in PER_METRE else minutes)
    return past


def as_step(row: LoadTask) -> LoadStep:
    """The core's step."""
    bound = cast(Bound, row.bound)
    return LoadStep(row.what, cast(Machine, row.machine), row.minutes, bound, row.learn, row.each, row.times, row.own)


def planned(row: LoadTask) -> Figure:
    """How long a step was planned to take, with its working."""
    return minutes_of(row.each, row.times, row.learn in PER_METRE, row.own)


def weight(row: WashLoad) -> Figure | None:
    """What a load weighs, with its working; None for one planned before its cloths' measures were kept."""
    each = [weighed(one.length, one.width, one.mass) for one in row.cloths if one.length and one.width]
    return weight_of(each) if each and len(each) == len(row.cloths) else None


def strike_washes(session: Session, task_id: int) -> list[int]:
    """The washes a step stood for are struck out with it, what was measured after them is kept; their cloths."""
    rows = session.scalars(select(Wash).where(Wash.task_id == task_id, Wash.deleted_at.is_(None))).all()
    for row in rows:
        row.deleted_at = now()
    session.flush()
    return [row.cloth_id for row in rows]
