"""Rounding to what the shop cuts."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import SHOP_STEPS_MM, round_up


@given(st.floats(1, 20_000), st.sampled_from(SHOP_STEPS_MM))
def test_rounding_never_goes_down(needed: float, step: float) -> None:
    up = round_up(needed, step)
    assert needed - 1e-5 <= up < needed + step
    assert up / step == pytest.approx(round(up / step), abs=1e-9)
    assert round_up(up, step) == pytest.approx(up), "a length the shop cuts stays as it is"
