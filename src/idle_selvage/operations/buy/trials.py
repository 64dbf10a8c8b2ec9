"""Lays tried on the side: which are wanted, which are lacking, and how far they are."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from sqlalchemy.orm import Session

from ...core.lay.answer import Lay, from_json
from ...core.lay.drawing import Drawing, draw
from ...core.lay.named import called_by
from ...core.lay.problem import Problem, fingerprint, too_wide_told
from ...core.wording import joined
from ...store import lay_problem, models, trial
from ..log import note
from ..standing import Standing

Part = Literal["extras", "offers", "together", "cupboard", "again"]

#: A trial that was searched this much shorter than asked is searched again.
SHORTER = 0.5
#: A trial among many need not be searched as long as the lay itself, seconds.
MOST_SECONDS = 5.0
FAULT = (
    "The search failed here and no lay was kept. Change something small, such as the gap between pieces, to try again."
)
#: Longer than any lay, mm.
_ENDLESS_MM = 1e12


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


def searched(row: models.Trial | None, seconds: float) -> bool:
    """Whether a trial is there and was searched long enough."""
    return row is not None and row.seconds >= SHORTER * seconds


def lacking(session: Session, wanted: Sequence[TrialRequest], seconds: float) -> list[TrialRequest]:
    """Those that were not tried yet, or too briefly; a group that has found what is enough lacks nothing."""
    there = trial.known(session, (w.fingerprint for w in wanted))
    content = {
        w.group
        for w in wanted
        if w.group and w.enough is not None and (trial.length_of(there.get(w.fingerprint)) or _ENDLESS_MM) <= w.enough
    }
    out: dict[str, TrialRequest] = {}
    for one in wanted:
        if not {one.group, one.after} & content and not searched(there.get(one.fingerprint), seconds):
            out.setdefault(one.fingerprint, one)
    return list(out.values())


def seconds_of(session: Session, now: Standing, part: Part) -> float:
    """How long each lay of a part is searched for. What rules cost is compared with the lay, so it takes as long."""
    if part == "extras" and now.chosen is not None and now.chosen.job_id:
        job = session.get(models.Job, now.chosen.job_id)
        if job is not None:
            return float(job.params["seconds"])
    return min(now.use.lay_seconds, MOST_SECONDS)


@dataclass(frozen=True)
class TrialsStanding:
    """How far the lays of a part are: the job that tries them if one is under way, how many are there of how many.

    ``asks`` stands for the very lays that are lacking: another one is another wish. ``under_way``: the job tries them.
    """

    part: Part
    job: models.Job | None
    done: int
    of: int
    lacking: int
    error: str
    asks: str = ""
    under_way: bool = False


def trials_standing(session: Session, now: Standing, part: Part, wanted: Sequence[TrialRequest]) -> TrialsStanding:
    """How far the lays of a part are."""
    job = trial.running(session, now.use.id, part)
    left = [one.fingerprint for one in lacking(session, wanted, seconds_of(session, now, part))]
    missing, asks = len(left), hashlib.sha256("".join(left).encode()).hexdigest()[:16] if left else ""
    if job is None:
        error = trial.failed(session, now.use.id, part)
        return TrialsStanding(part, None, len(wanted) - missing, len(wanted), missing, error, asks)
    prints = [one["print"] for one in job.params["trials"]]
    under_way = set(left) <= set(prints)
    return TrialsStanding(part, job, trial.count(session, prints), len(prints), missing, "", asks, under_way)


def begin_trials(session: Session, now: Standing, part: Part, wanted: Sequence[TrialRequest]) -> models.Job | None:
    """A waiting job that tries what is lacking, or nothing. An earlier one for the same part is stopped."""
    seconds = seconds_of(session, now, part)
    missing = lacking(session, wanted, seconds)
    if not missing:
        return None
    trial.forget_old(session)
    earlier = trial.running(session, now.use.id, part)
    if earlier is not None:
        earlier.cancel = True
    # helps hang on what was found before them, so the whole list goes along; what is there costs nothing
    asked = [
        {
            "print": lay_problem.keep(session, w.problem),
            "group": w.group,
            "after": w.after,
            "enough": w.enough,
        }
        for w in wanted
    ]
    job = models.Job(use_id=now.use.id, kind="trials", params={"what": part, "seconds": seconds, "trials": asked})
    session.add(job)
    session.flush()
    note(session, now.use, "buy", "trials-begun", count=len(missing), part=part)
    return job


@dataclass(frozen=True)
class SmallLay:
    """A trial's shortest lay, to be shown small."""

    lay: Lay
    fold: str
    width: float
    drawing: Drawing


def small_lay(problem: Problem, found: Sequence[tuple[str, dict[str, object]]]) -> SmallLay | None:
    """The shortest of the lays found for a problem, on the open cloth."""
    if not found:
        return None
    fold, data = found[0]
    lay = from_json(data)
    drawing = draw(lay, {p.id: p for p in problem.pieces}, problem.width, view="opened")
    return SmallLay(lay, fold, problem.width, drawing)


def small_of(problem: Problem | None, row: models.Trial | None) -> SmallLay | None:
    """The shortest lay of a trial, if there is one."""
    return None if problem is None or row is None else small_lay(problem, [(fold, lay) for fold, lay in row.lays])


def why_not(row: models.Trial | None, names: Mapping[str, str]) -> str:
    """Why a trial has no lay, as a sentence, or nothing; ``names``: what its pieces are called."""
    if row is None:
        return ""
    if row.fault:
        return FAULT
    wide = [too_wide_told(called_by(names, piece), across, width) for piece, across, width in row.wide]
    return joined([*wide, *([row.why] if row.why else [])])
