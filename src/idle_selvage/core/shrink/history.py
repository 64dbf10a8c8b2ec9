"""One's own past tests of like cloth narrow the first guess."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..working import Figure, Source, Step, percent
from .shrinkage import Direction

OWN_LOG = Source("your own log", "your own tests of like cloth", "mean + 2 spreads is planned with")

#: So many tests make a spread worth having.
LEAST_TESTS = 3


@dataclass(frozen=True)
class Past:
    """One finished test: the cloth's name and its shrinkage both ways, per cent."""

    cloth: str
    warp: float
    weft: float


def from_history(tests: Sequence[Past], direction: Direction) -> Figure | None:
    """Mean of past shrinkages, ``high`` two spreads (sample standard deviations) above it; None below three tests."""
    values = [t.warp if direction == "warp" else t.weft for t in tests]
    n = len(values)
    if n < LEAST_TESTS:
        return None
    mean = math.fsum(values) / n
    spread = math.sqrt(math.fsum((v - mean) ** 2 for v in values) / (n - 1))
    inputs = tuple((f"test {i}", percent(v)) for i, v in enumerate(values, 1))
    steps = (
        Step(f"mean of your tests, {direction}", "sum of readings ÷ n", inputs, percent(mean)),
        Step(
            "spread",
            "√(sum of (test − mean)² ÷ (n − 1))",
            (("mean", percent(mean)), *inputs),
            percent(spread),
        ),
        Step(
            "mean + 2 spreads",
            "mean + 2 × spread",
            (("mean", percent(mean)), ("spread", percent(spread))),
            percent(mean + 2 * spread),
        ),
    )
    return Figure(
        mean,
        "percent",
        mean - 2 * spread,
        mean + 2 * spread,
        steps,
        (OWN_LOG,),
        note=f"from {n} of your own tests of like cloth; spread {spread:.1f} points",
    )


def told(tests: Sequence[Past]) -> str:
    """How far one's own tests of like cloth are of use, in a sentence, or nothing when there are none."""
    n = len(tests)
    if not n:
        return ""
    if n < LEAST_TESTS:
        there = "there is 1" if n == 1 else f"there are {n}"
        return f"From {LEAST_TESTS} tests on they are planned with, when a cloth has no swatch; {there}."
    return f"{n} tests: when a cloth has no swatch, their mean and two spreads are planned with."
