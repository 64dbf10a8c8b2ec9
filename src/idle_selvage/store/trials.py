"""Lays tried on the side: asked for by problem, kept by its fingerprint."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from ..core.lay.problem import Problem, fingerprint, to_json
from .models.job import Job
from .models.trial import Trial

#: A trial that was searched this much shorter than asked is searched again.
SHORTER = 0.5
#: So many are kept, the newest; each takes some tens of kilobytes.
MOST_KEPT = 400


@dataclass(frozen=True)
class TrialRequest:
    """One lay to be tried. Those of a ``group`` are tried in order until one is no longer than ``enough`` mm; those
    ``after`` a group are tried only while that one has found none."""

    problem: Problem
    group: str = ""
    enough: float | None = None
    after: str = ""

    @property
    def fingerprint(self) -> str:
        return fingerprint(self.problem)


def known(session: Session, prints: Iterable[str]) -> dict[str, Trial]:
    """The trials that are there already, by fingerprint."""
    wanted = list(prints)
    return {row.fingerprint: row for row in session.scalars(select(Trial).where(Trial.fingerprint.in_(wanted)))}


def length_of(row: Trial | None) -> float | None:
    """The shortest lay of a trial in mm, or None when there is none."""
    return None if row is None or not row.lays else float(row.lays[0][1]["length"])


def lacking(session: Session, wanted: Sequence[TrialRequest], seconds: float) -> list[TrialRequest]:
    """Those that were not tried yet, or too briefly; a group that has found what is enough lacks nothing."""
    there = known(session, (w.fingerprint for w in wanted))
    content = {
        w.group
        for w in wanted
        if w.group and w.enough is not None and (length_of(there.get(w.fingerprint)) or 1e12) <= w.enough
    }
    out: dict[str, TrialRequest] = {}
    for one in wanted:
        row = there.get(one.fingerprint)
        if {one.group, one.after} & content or (row is not None and row.seconds >= SHORTER * seconds):
            continue
        out.setdefault(one.fingerprint, one)
    return list(out.values())


def begin(session: Session, project_id: int, what: str, wanted: Sequence[TrialRequest], seconds: float) -> Job:
    """A waiting job that tries them; an earlier one for the same part of the screen is stopped."""
    old = select(Trial.fingerprint).order_by(Trial.created_at.desc(), Trial.fingerprint).offset(MOST_KEPT)
    session.execute(delete(Trial).where(Trial.fingerprint.in_(old.scalar_subquery())))
    earlier = running(session, project_id, what)
    if earlier is not None:
        earlier.cancel = True
    job = Job(
        project_id=project_id,
        kind="trials",
        params={
            "what": what,
            "seconds": seconds,
            "trials": [
                {
                    "print": w.fingerprint,
                    "problem": to_json(w.problem),
                    "group": w.group,
                    "after": w.after,
                    "enough": w.enough,
                }
                for w in wanted
            ],
        },
    )
    session.add(job)
    session.flush()
    return job


def running(session: Session, project_id: int, what: str) -> Job | None:
    """The job that tries lays for one part of the screen, if one is under way."""
    rows = session.scalars(
        select(Job)
        .where(
            Job.project_id == project_id,
            Job.kind == "trials",
            Job.state.in_(("waiting", "running")),
            ~Job.cancel,
        )
        .order_by(Job.id.desc())
    )
    return next((row for row in rows if row.params["what"] == what), None)


def failed(session: Session, project_id: int, what: str) -> str:
    """Why the last try for this part of the screen failed, or nothing."""
    rows = session.scalars(
        select(Job).where(Job.project_id == project_id, Job.kind == "trials").order_by(Job.id.desc()).limit(20)
    )
    last = next((row for row in rows if row.params["what"] == what), None)
    return last.error if last is not None and last.state == "failed" else ""


def done(session: Session, job: Job) -> int:
    """How many of a job's lays are there."""
    prints = [t["print"] for t in job.params["trials"]]
    return session.scalar(select(func.count()).select_from(Trial).where(Trial.fingerprint.in_(prints))) or 0


def keep(session: Session, print_: str, problem: dict[str, Any], seconds: float, **found: Any) -> Trial:
    """Store what a trial came to; of two searches of one problem the shorter lay is kept for each fold."""
    row = session.get(Trial, print_)
    if row is None:
        row = Trial(fingerprint=print_, problem=problem, seconds=seconds, **found)
        session.add(row)
        return row
    best: dict[str, Any] = {}
    for fold, lay in [*row.lays, *found.get("lays", [])]:
        if fold not in best or lay["length"] < best[fold]["length"]:
            best[fold] = lay
    row.lays = [[fold, lay] for fold, lay in sorted(best.items(), key=lambda item: float(item[1]["length"]))]
    row.seconds = max(row.seconds, seconds)
    row.why, row.wide = found.get("why", ""), found.get("wide", [])
    return row
