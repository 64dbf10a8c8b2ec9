"""The chosen lay as the purchase sees it: how long, and what each rule of the cloth costs in it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from ..core.buy.extras import extras, ladder
from ..core.buy.order import Rule
from ..core.lay.problem import Problem, fingerprint
from ..core.lay.reading import read_problem
from ..core.project.tally import MeasuredLay
from ..store import models, trial
from ..store.lay import length_of


@dataclass(frozen=True)
class _Asked:
    """A stored problem by its name, so that it is read once however often the purchase is worked out."""

    fingerprint: str
    fold: str
    problem: dict[str, Any] = field(compare=False)


@dataclass(frozen=True)
class Rung:
    """One rule, and the lay without it and all that are put on after it, by its fingerprint."""

    rule: Rule
    problem: Problem
    fingerprint: str


@dataclass(frozen=True)
class Ladder:
    """A lay's problem, its length, and the lays that must be tried to know what each of its rules costs."""

    problem: Problem
    length: float
    rungs: tuple[Rung, ...]

    @property
    def prints(self) -> tuple[str, ...]:
        return tuple(rung.fingerprint for rung in self.rungs)

    def measured(self, trials: Mapping[str, models.Trial]) -> MeasuredLay:
        """The lay for the tally, with what each rule costs as far as it was tried."""
        lengths = {
            rung.rule: found
            for rung in self.rungs
            if (found := trial.length_of(trials.get(rung.fingerprint))) is not None
        }
        repeat = self.problem.bars.x_repeat or self.problem.bars.y_repeat
        main = sum(p.copies for p in self.problem.pieces if p.match or p.centre_on_axis)
        return MeasuredLay(self.length, extras(self.problem, self.length, lengths), repeat, main)

    def pending(self, trials: Mapping[str, models.Trial]) -> tuple[Rule, ...]:
        """The rules whose cost was not measured yet."""
        return tuple(rung.rule for rung in self.rungs if rung.fingerprint not in trials)


@lru_cache(maxsize=128)
def _read(asked: _Asked) -> tuple[Problem, tuple[Rung, ...]]:
    problem = read_problem(asked.problem)
    rungs = []
    for rule, without in ladder(problem):
        # a lay the maker picked for its fold is compared with others of that fold
        one = replace(without, folds=(asked.fold,)) if asked.fold else without
        rungs.append(Rung(rule, one, fingerprint(one)))
    return problem, tuple(rungs)


def ladder_of(chosen: models.LayRecord | None) -> Ladder | None:
    """The ladder of the lay a garment goes by, or None before there is one."""
    if chosen is None:
        return None
    asked = _Asked(chosen.fingerprint, chosen.fold if chosen.picked else "", chosen.problem)
    return Ladder(*_read(asked)[:1], length_of(chosen), _read(asked)[1])
