"""How often the truth lies beyond what is planned with: simulated swatches whose cloth differs from place to place."""

from __future__ import annotations

import math

import numpy as np
import pytest

from idle_selvage.core.shrink.history import Past, from_history
from idle_selvage.core.shrink.shrinkage import expanded_uncertainty, plan_with, scatter, swatch_shrinkage

SWATCHES = 6000
#: What is allowed, and how far a count of so many may stray from it: three standard errors.
MOST, MOST_HISTORY = 0.03, 0.05


def beyond(readings: int, differs: float, graduation: float, rng: np.random.Generator) -> float:
    """The share of swatches whose true mean shrinkage lies beyond what is planned with."""
    short = 0
    for _ in range(SWATCHES):
        true = rng.uniform(1.0, 8.0)
        before = 250.0 + rng.uniform(-0.5, 0.5, readings)
        after = before * (1 - (true + rng.normal(0.0, differs, readings)) / 100)
        marked, washed = ((np.round(v / graduation) * graduation).tolist() for v in (before, after))
        short += bool(plan_with(swatch_shrinkage(marked, washed, graduation, "warp")).value < true)
    return short / SWATCHES


@pytest.mark.parametrize("differs", [0.3, 0.6])
@pytest.mark.parametrize("readings", [3, 4, 6])
def test_from_three_readings_on_at_most_three_in_a_hundred_are_planned_too_small(readings: int, differs: float) -> None:
    rng = np.random.default_rng([readings, int(differs * 10)])
    share = beyond(readings, differs, 1.0, rng)
    assert share <= MOST + 3 * math.sqrt(MOST * (1 - MOST) / SWATCHES)
    assert share > 0, "sureness that is never wrong says nothing"


def test_two_readings_are_as_unsure_as_they_differ() -> None:
    # 4 % and 12 %: ± 4, not the tape's ± 0.2
    figure = swatch_shrinkage([250, 250], [240, 220], 1.0, "warp")
    assert figure.low == pytest.approx(4.0) and figure.high == pytest.approx(12.0)
    assert scatter([250, 250], [240, 240]) == 0 and expanded_uncertainty(250, 1.0, 2) > 0.2


@pytest.mark.parametrize("tests", [3, 5])
def test_the_next_cloth_shrinks_more_than_planned_in_one_of_twenty(tests: int) -> None:
    rng = np.random.default_rng(tests)
    short = 0
    for _ in range(SWATCHES):
        values = rng.normal(5.0, 1.2, tests + 1)
        found = from_history([Past("", float(value), 1.0) for value in values[:-1]], "warp")
        assert found is not None and found.high is not None
        short += bool(found.high < values[-1])
    near = 3 * math.sqrt(MOST_HISTORY * (1 - MOST_HISTORY) / SWATCHES)
    assert abs(short / SWATCHES - MOST_HISTORY) <= near
