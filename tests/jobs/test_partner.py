"""The other process: it tells and is told, keeps to its budget, and never outlives the first."""

from __future__ import annotations

import math
import time
from typing import Any

from idle_selvage.core.lay.engine.solver import Budget
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
    assert time.monotonic() - begun < 2 and partner.process is not None and not partner.process.is_alive()
    partner.news()
    assert partner.news() == [] and partner.last() == ([], 0), "what was heard is told once"


def test_a_process_with_a_budget_ends_by_itself() -> None:
    partner = second_process(asked(), Budget(7, None, 300))
    try:
        outcomes, steps = partner.last()
        assert steps >= 300 and all(math.isfinite(o.score) for o in outcomes)
    finally:
        partner.stop()
