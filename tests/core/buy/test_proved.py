"""Is the purchase the least there can be."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.proved import least_figure, proved_purchase
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.working import Figure

steps = st.sampled_from([10.0, 100.0, 114.3, 228.6, 250.0, 500.0])
orders = st.builds(
    Order,
    ends=st.floats(0, 200),
    spare=st.floats(0, 300),
    step=steps,
    bought_extra=st.floats(0, 200),
    least=st.sampled_from([0.0, 500.0, 3000.0]),
)


@given(st.floats(200, 5000), st.floats(0, 1), st.floats(0, 15), orders)
def test_proved_is_just_what_the_shop_would_say(bound: float, over: float, shrinkage: float, order: Order) -> None:
    """The lay and its bound ask for the same at the counter, by the purchase itself."""
    lay = bound * (1 + 0.2 * over)
    percent = Figure(shrinkage, "percent")
    asked, least = (purchase(length, percent, order).to_buy.value for length in (lay, bound))
    assert least_figure(bound, shrinkage, order).value == pytest.approx(least)
    # at the very edge of a step rounding decides, and it never says proved where the shop would cut less
    if proved_purchase(lay, bound, shrinkage, order):
        assert asked == pytest.approx(least) or abs(asked - least) <= 1e-6 * asked
    elif not math.isclose(asked, least):
        assert asked > least


def test_what_the_shop_cuts_at_least_is_proved_by_itself() -> None:
    # 1.2 m asked for where the shop cuts no less than 3 m: no lay could cost less
    order = Order(step=100.0, least=3000.0)
    assert proved_purchase(1200.0, 300.0, 5.0, order) and least_figure(300.0, 5.0, order).value == 3000.0


def test_worked_by_hand() -> None:
    # (1200 + 100) ÷ 0.95 = 1368.4 → 1400; the bound 1150: 1315.8 → 1400; 1130: 1294.7 → 1300
    order = Order(ends=100.0, step=100.0)
    assert proved_purchase(1200.0, 1150.0, 5.0, order) and not proved_purchase(1200.0, 1130.0, 5.0, order)
