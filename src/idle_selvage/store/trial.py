"""Lays tried on the side, kept by their problem's fingerprint."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from . import lay_problem
from .job import OPEN
from .models import Job, Trial

#: So many are kept, the newest; each takes some tens of kilobytes.
MOST_KEPT = 400


def known(session: Session, prints: Iterable[str]) -> dict[str, Trial]:
    """The trials that are there already, by fingerprint."""
    wanted = list(dict.fromkeys(prints))
    if not wanted:
        return {}
    return {row.fingerprint: row for row in session.scalars(select(Trial).where(Trial.fingerprint.in_(wanted)))}


def length_of(row: Trial | None) -> float | None:
    """The shortest lay of a trial in mm, or None when there is none."""
    return None if row is None or not row.lays else float(row.lays[0][1]["length"])


def count(session: Session, prints: Iterable[str]) -> int:
    """How many of these are there."""
    return session.scalar(select(func.count()).select_from(Trial).where(Trial.fingerprint.in_(list(prints)))) or 0


def forget_old(session: Session) -> None:
    """Only the newest are kept."""
    old = select(Trial.fingerprint).order_by(Trial.created_at.desc(), Trial.fingerprint).offset(MOST_KEPT)
    session.execute(delete(Trial).where(Trial.fingerprint.in_(old.scalar_subquery())))
    lay_problem.forget_unasked(session)


def running(session: Session, use_id: int, what: str) -> Job | None:
    """The job that tries lays for one part of the screen, if one is under way."""
    query = select(Job).where(Job.use_id == use_id, Job.kind == "trials", Job.state.in_(OPEN), ~Job.cancel)
    return next((row for row in session.scalars(query.order_by(Job.id.desc())) if row.params["what"] == what), None)


def failed(session: Session, use_id: int, what: str) -> str:
    """Why the last try for this part of the screen failed, or nothing."""
    rows = session.scalars(
        select(Job).where(Job.use_id == use_id, Job.kind == "trials").order_by(Job.id.desc()).limit(20)
    )
    last = next((row for row in rows if row.params["what"] == what), None)
    return last.error if last is not None and last.state == "failed" else ""


def keep(session: Session, print_: str, seconds: float, **found: Any) -> Trial:
    """Store what a trial came to; of two searches of one problem the shorter lay is kept for each fold."""
    row = session.get(Trial, print_)
    if row is None:
        row = Trial(fingerprint=print_, seconds=seconds, **found)
        session.add(row)
        return row
    best: dict[str, Any] = {}
    for fold, lay in [*row.lays, *found.get("lays", [])]:
        if fold not in best or lay["length"] < best[fold]["length"]:
            best[fold] = lay
    row.lays = [[fold, lay] for fold, lay in sorted(best.items(), key=lambda item: float(item[1]["length"]))]
    row.seconds = max(row.seconds, seconds)
    row.why, row.wide, row.fault = found.get("why", ""), found.get("wide", []), found.get("fault", False)
    return row
