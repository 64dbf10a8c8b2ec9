"""Shrinkage of swatches."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.shrink import shrinkage as sh


def test_a_swatch_of_three_readings() -> None:
    figure = sh.swatch_shrinkage([250, 250, 250], [235, 234, 235], 1.0, "warp")
    assert figure.value == pytest.approx(100 * (250 - 704 / 3) / 250)
    assert figure.low < figure.value < figure.high  # type: ignore[operator]
    assert [s.label for s in figure.steps][-2:] == ["at least", "at most"]
    assert sh.plan_with(figure).value == pytest.approx(figure.high)


def test_scatter_counts_when_it_is_larger_than_the_tape() -> None:
    calm = sh.swatch_shrinkage([250] * 3, [240] * 3, 1.0, "warp")
    wild = sh.swatch_shrinkage([250] * 3, [230, 240, 250], 1.0, "warp")
    assert calm.high - calm.value == pytest.approx(sh.expanded_uncertainty(250, 1.0, 3))  # type: ignore[operator]
    assert wild.high - wild.value > 4  # type: ignore[operator]
    assert sh.scatter([250], [240]) is None
    # two readings of 4 % and 12 %: half their difference; three: t(0.975) at two degrees of freedom is 4.303
    assert sh.scatter([250, 250], [240, 220]) == pytest.approx(4.0)
    assert sh.scatter([250] * 3, [240, 237.5, 235]) == pytest.approx(4.303 * 1.0 / math.sqrt(3), abs=1e-3)
    two = sh.swatch_shrinkage([250, 250], [240, 220], 1.0, "warp")
    assert two.high == pytest.approx(12.0) and "third" in two.note
    assert "three" in sh.swatch_shrinkage([250], [240], 1.0, "warp").note


def test_cloth_that_grew_is_planned_as_not_shrinking() -> None:
    grew = sh.swatch_shrinkage([250] * 3, [252] * 3, 0.1, "weft")
    assert grew.value < 0 and sh.plan_with(grew).value == 0


@pytest.mark.parametrize(
    ("before", "after", "says"),
    [
        ([], [], "no reading"),
        ([250, 250], [240], "one after"),
        ([250], [100], "shrunk by 60 %"),
        ([250], [400], "grown by 60 %"),
        ([10], [9], "too small"),
    ],
)
def test_readings_that_cannot_be(before: list[float], after: list[float], says: str) -> None:
    with pytest.raises(sh.BadReadings, match=says):
        sh.swatch_shrinkage(before, after, 1.0, "warp")


@given(st.floats(100, 500), st.floats(0.5, 2), st.integers(1, 10))
def test_more_readings_and_bigger_swatches_are_surer(before: float, r: float, n: int) -> None:
    u = sh.expanded_uncertainty(before, r, n)
    assert sh.expanded_uncertainty(before, r, n + 1) < u
    assert sh.expanded_uncertainty(before * 2, r, n) < u
    assert sh.expanded_uncertainty(sh.least_swatch(r, n, u), r, n) == pytest.approx(u)
