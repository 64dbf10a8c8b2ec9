"""Offers weighed."""

from __future__ import annotations

import time
from itertools import pairwise

import pytest

from idle_selvage.core.buy.offers import OfferedCloth, cheapest, least_waste, usable, weigh
from idle_selvage.core.buy.order import Order
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import LayPiece, Problem
from idle_selvage.core.working import Figure

from .cases import FIVE, percent, rectangle


def test_an_offer_weighed_by_hand() -> None:
    offer = OfferedCloth(1000, FIVE, percent(10), margin=20, price_per_m=20, step=100, least=300, stock=900)
    assert usable(offer) == pytest.approx(880)
    # 855 + 95 ends = 950 ÷ 0.95 = 1000; washed 950 × 900 = 0.855 m²; 0.684 m² of pieces leave 20 %
    weighed = weigh(offer, 855, 684_000, Order(95, 0))
    assert weighed.purchase.to_buy.value == pytest.approx(1000)
    assert weighed.purchase.cost is not None and weighed.purchase.cost.value == pytest.approx(20)
    assert (
        weighed.waste.value == pytest.approx(20)
        and weighed.lacking is not None
        and weighed.lacking.value == pytest.approx(100)
    )


def test_what_cannot_be_had_is_neither_cheapest_nor_least_waste() -> None:
    def of(price: float | None, stock: float | None, area: float) -> object:
        return weigh(OfferedCloth(1000, FIVE, FIVE, price_per_m=price, stock=stock), 900, area, Order(0, 0))

    rows = [of(20, None, 5e5), of(10, 500, 8e5), of(15, 5000, 6e5), of(None, None, 7e5), None]
    assert cheapest(rows) == 2 and least_waste(rows) == 3  # type: ignore[arg-type]
    assert cheapest([None]) is None and least_waste([]) is None


def test_wider_cloth_never_needs_a_longer_lay_when_the_bound_is_met() -> None:
    pieces = [LayPiece("Panel", rectangle(400, 200), 4), LayPiece("Band", rectangle(400, 100), 2)]
    lengths = []
    for width in (200, 300, 400, 500, 700, 1000):
        lay = solve(Problem(width, tuple(pieces)), seed=1, steps=400, clock=time.monotonic).lay
        assert lay.length >= lay.bound - 0.01
        if lay.length - lay.bound < 2.0:
            lengths.append(lay.length)
    assert len(lengths) >= 4, "these tile, so most of them meet their bound"
    assert all(b <= a + 0.1 for a, b in pairwise(lengths))


def test_the_shop_s_last_piece_does_where_the_need_fits_it() -> None:
    # 1130 mm are needed and the shop cuts in half metres: its piece of 1.2 m does, and all of it is bought
    order = Order(ends=0.0, step=100.0)
    none = Figure(0.0, "percent")

    def weighed(stock: float):  # type: ignore[no-untyped-def]
        return weigh(OfferedCloth(1500.0, none, none, price_per_m=10.0, step=500.0, stock=stock), 1130.0, 1e6, order)

    assert weighed(1200.0).lacking is None and weighed(1200.0).purchase.to_buy.value == 1200.0
    assert weighed(1200.0).purchase.cost.value == pytest.approx(12.0)
    assert weighed(1129.0).lacking.value == pytest.approx(371.0)
    assert weighed(4000.0).lacking is None and weighed(4000.0).purchase.to_buy.value == 1500.0
