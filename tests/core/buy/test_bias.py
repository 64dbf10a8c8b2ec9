"""Bias tape."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.bias import bias_tape
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
