"""Bias tape."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.bias import MOST_STRIPS, bias_tape
from idle_selvage.core.buy.ruffles import BadStrip


@given(st.floats(100, 2000), st.floats(100, 2000), st.floats(10, 60))
def test_bias_tape_never_holds_more_than_the_rectangle(long: float, wide: float, tape: float) -> None:
    found = bias_tape(long, wide, tape)
    assert found == bias_tape(wide, long, tape), "which way it lies does not matter"
    for figure in (found.strips, found.continuous):
        assert figure.value * tape <= long * wide + 1e-6


def test_a_rectangle_too_small_for_tape() -> None:
    with pytest.raises(BadStrip, match="too small"):
        bias_tape(100, 30, 25)
    with pytest.raises(BadStrip, match="more than nothing"):
        bias_tape(100, 0, 25)


def test_each_join_takes_two_allowances_on_the_slant() -> None:
    # 500 × 300, tape 25, allowance 6: 20 strips joined 19 times, each join 2√2 × 6 mm
    found = bias_tape(500.0, 300.0, 25.0, 6.0)
    assert found.joins == 19 and found.strips.value == pytest.approx(5218.5, abs=0.05)
    in_all = found.strips.steps[0].result.value
    assert in_all - found.strips.value == pytest.approx(19 * 2 * 2**0.5 * 6)
    assert found.continuous.value > found.strips.value, "and so the other way gives more"


@pytest.mark.parametrize(("long", "wide", "tape"), [(1e6, 1e6, 20.0), (1000.0, 1000.0, 1e-300), (1000.0, 1000.0, 1e-9)])
def test_more_strips_than_anybody_cuts_are_refused_before_they_are_made(long: float, wide: float, tape: float) -> None:
    with pytest.raises(BadStrip, match=f"more than {MOST_STRIPS} strips"):
        bias_tape(long, wide, tape)


def test_as_many_as_are_taken_are_reckoned() -> None:
    side = MOST_STRIPS * 5.0 * math.sqrt(2.0) / 2 - 1e-6
    assert bias_tape(side, side, 5.0).joins > 1900
