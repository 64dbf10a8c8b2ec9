"""The chosen lay as the purchase sees it: how long, and what each rule of the cloth costs in it."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from sqlalchemy.orm import Session

from ..core.buy.extras import extras, ladder
from ..core.buy.order import Rule
from ..core.lay.problem import Problem
from ..core.lay.reading import read_problem
from ..core.project.tally import MeasuredLay
from ..store import models, trials
from ..store.trials import TrialRequest


@dataclass(frozen=True)
class _Asked:
    """A stored problem by its name, so that it is read once however often the purchase is worked out."""

    fingerprint: str
    fold: str
    problem: dict[str, Any] = field(compare=False)


@dataclass(frozen=True)
class _Read:
    problem: Problem
    rungs: tuple[tuple[Rule, TrialRequest, str], ...]


@lru_cache(maxsize=128)
def _read(asked: _Asked) -> _Read:
    problem = read_problem(asked.problem)
    rungs = []
    for rule, without in ladder(problem):
        # a lay the maker picked for its fold is compared with others of that fold
        one = TrialRequest(_folded(without, asked.fold))
        rungs.append((rule, one, one.fingerprint))
    return _Read(problem, tuple(rungs))


def _folded(problem: Problem, fold: str) -> Problem:
    return replace(problem, folds=(fold,)) if fold else problem


def _of(chosen: models.LayRecord) -> _Read:
    return _read(_Asked(chosen.fingerprint, chosen.fold if chosen.picked else "", chosen.problem))


def wanted(chosen: models.LayRecord | None) -> list[TrialRequest]:
    """The lays that must be tried to know what each rule costs."""
    return [] if chosen is None else [one for _, one, _ in _of(chosen).rungs]


def laid(session: Session, chosen: models.LayRecord | None) -> tuple[MeasuredLay | None, tuple[Rule, ...]]:
    """The lay for the tally, and the rules whose cost was not measured yet."""
    if chosen is None:
        return None, ()
    read = _of(chosen)
    length = float(chosen.lay["length"])
    there = trials.known(session, (print_ for _, _, print_ in read.rungs)) if read.rungs else {}
    lengths = {
        rule: found for rule, _, print_ in read.rungs if (found := trials.length_of(there.get(print_))) is not None
    }
    pending = tuple(rule for rule, _, print_ in read.rungs if print_ not in there)
    repeat = read.problem.bars.x_repeat or read.problem.bars.y_repeat
    main = sum(p.copies for p in read.problem.pieces if p.match or p.centre_on_axis)
    return MeasuredLay(length, extras(read.problem, length, lengths), repeat, main), pending
