"""The other process: it tells and is told, keeps to its budget, and never outlives the first."""

from __future__ import annotations

import itertools
import math
import time
from typing import Any

from benchmarks.garments import garment

from idle_selvage.core.lay.engine.bounds import bound_of
from idle_selvage.core.lay.engine.solver import Budget, Progress, solve
from idle_selvage.core.lay.problem import Problem
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.jobs.partner import second_process

from ..core.lay.lay_cases import shirt


def asked() -> Problem:
    return read_problem(shirt())


def test_the_other_process_tells_and_is_told() -> None:
    partner = second_process(asked(), Budget(7, 20.0, None))
    try:
        found: list[Any] = []
        until = time.monotonic() + 20
        while not found and time.monotonic() < until:
            found = partner.news()
            time.sleep(0.02)
        assert {o.fold for o in found} == {"open", "lengthwise"}
        # more than any pipe holds, and nobody here asks for news meanwhile
        for _ in range(200):
            partner.tell({o.fold: o for o in found})
    finally:
        begun = time.monotonic()
        partner.stop()
    assert time.monotonic() - begun < 10 and partner.process is not None and not partner.process.is_alive()
    partner.news()
    assert partner.news() == [] and partner.last() == ([], 0), "what was heard is told once"


def test_the_other_process_proves_how_short_no_lay_can_be() -> None:
    problem = read_problem(garment("gored skirt", 11))
    before = bound_of(problem, "open")
    partner = second_process(problem, Budget(7, 120.0, None))
    try:
        until = time.monotonic() + 120
        while partner.proved().get("open", 0.0) <= before * 1.05 and time.monotonic() < until:
            partner.news()
            time.sleep(0.05)
    finally:
        partner.stop()
    assert partner.proved()["open"] > before * 1.05


class Proves:
    """Another search that finds nothing, and proves that nothing is shorter than the first it is told."""

    def __init__(self, *_: object) -> None:
        self.found: dict[str, float] = {}

    def news(self) -> list[Any]:
        return []

    def proved(self) -> dict[str, float]:
        return self.found

    def tell(self, best: dict[str, Any]) -> None:
        self.found = self.found or {fold: outcome.score for fold, outcome in best.items()}

    def last(self) -> tuple[list[Any], int]:
        return [], 0

    def stop(self) -> None:
        pass


def test_a_proof_of_the_other_process_is_told_and_ends_the_search() -> None:
    problem = read_problem({**shirt(), "folds": ["open"]})
    first = bound_of(problem, "open")
    told: list[Progress] = []
    clock = itertools.count()
    answer = solve(
        problem,
        seconds=1e9,
        clock=lambda: float(next(clock)),
        on_progress=lambda now, _: told.append(now),
        partner=lambda *_: Proves(),
    )
    assert told[0].bound < first + 0.1 < told[-1].bound == answer.lay.bound
    assert answer.lay.bound <= answer.lay.length <= answer.lay.bound + 0.3


def test_a_process_with_a_budget_ends_by_itself() -> None:
    partner = second_process(asked(), Budget(7, None, 300))
    try:
        outcomes, steps = partner.last()
        assert steps >= 300 and all(math.isfinite(o.score) for o in outcomes)
    finally:
        partner.stop()
