"""One's own past tests of like cloth narrow the first guess."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import stdev

from ..working import Figure, Quantity, Source, Step, count, numbered, of, percent
from .programme import Programme, beside
from .shrinkage import Direction, student_t

OWN_LOG = Source("your own log", "your own tests of like cloth", "like fibre, weave, finish and treatment; at rest")
PREDICTION = Source("common practice", "prediction interval of the next of several", "mean + t × spread × √(1 + 1 ÷ n)")

#: So many tests make a spread worth having.
LEAST_TESTS = 3


@dataclass(frozen=True)
class Past:
    """One test that came to rest, of a cloth of like fibre, weave and finish: the cloth's name, its shrinkage both ways
    in per cent, and how it was washed (None: not written down)."""

    cloth: str
    warp: float
    weft: float
    how: Programme | None = None


def like(tests: Sequence[Past], how: Programme | None) -> list[Past]:
    """Those that were washed as this length will be; all of them where that is not known."""
    if how is None:
        return list(tests)
    return [test for test in tests if test.how is not None and beside(test.how, how) == "same"]


#: How sure the next like cloth is meant not to shrink more, one-sided.
SURE_OF_NEXT = 0.95


def from_history(tests: Sequence[Past], direction: Direction) -> Figure | None:
    """What the next like cloth may do: the mean of past shrinkages, and ``t(0.95, n − 1) × spread × √(1 + 1 ÷ n)`` to
    either side of it, per cent. ``spread`` is the sample standard deviation. None below three tests."""
    values = [t.warp if direction == "warp" else t.weft for t in tests]
    n = len(values)
    if n < LEAST_TESTS:
        return None
    mean, spread, t = math.fsum(values) / n, stdev(values), student_t(SURE_OF_NEXT, n)
    beside = t * spread * math.sqrt(1.0 + 1.0 / n)
    each = numbered("test", map(percent, values))
    put = (("t", Quantity(t, "ratio")), ("spread", percent(spread)), ("n", count(n)))
    ends = (("mean", percent(mean)), ("beside it", percent(beside)))
    steps = (
        Step(f"mean of your tests, {direction}", of("mean", each), each, percent(mean)),
        Step("spread", of("deviation", each), each, percent(spread)),
        Step("beside it", "t × spread × √(1 + 1 ÷ n)", put, percent(beside), f"Student’s t at {SURE_OF_NEXT:g}"),
        Step("at least", "mean − beside it", ends, percent(mean - beside)),
        Step("at most", "mean + beside it", ends, percent(mean + beside)),
    )
    return Figure(
        mean,
        "percent",
        mean - beside,
        mean + beside,
        steps,
        (OWN_LOG, PREDICTION),
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
    return f"{n} tests: a cloth without a swatch is planned with more than 19 of 20 such cloths would shrink."
