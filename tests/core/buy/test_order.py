"""Rounding to what the shop cuts."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import SHOP_STEPS_MM, Order, round_up, rounding_step


@given(st.floats(1, 20_000), st.sampled_from(SHOP_STEPS_MM))
def test_rounding_never_goes_down(needed: float, step: float) -> None:
    up = round_up(needed, step)
    assert needed - 1e-5 <= up < needed + step
    assert up / step == pytest.approx(round(up / step), abs=1e-9)
    assert round_up(up, step) == pytest.approx(up), "a length the shop cuts stays as it is"


@pytest.mark.parametrize(
    ("least", "extra", "named"),
    [(1000.0, 0.0, False), (1000.1, 0.0, True), (1200.0, 200.0, False), (1200.1, 200.0, True)],
)
def test_the_least_it_cuts_is_named_only_where_it_counts(least: float, extra: float, named: bool) -> None:
    step = rounding_step(1000.0, Order(0.0, 0.0, 100.0, bought_extra=extra, why="a border", least=least), 1300.0)
    assert ("the least it cuts" in step.formula) == named == any(name == "the least it cuts" for name, _ in step.inputs)
    assert ("bought on purpose" in step.formula) == bool(extra)
