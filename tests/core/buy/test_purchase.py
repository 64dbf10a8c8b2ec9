"""How much to buy, worked by hand and by properties."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import SHOP_STEPS_MM, Extra, Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.working import Figure

from .cases import FIVE, percent


def test_every_line_of_a_purchase_worked_by_hand() -> None:
    # a lay of 1273: 1182 plain, + 91 for the bars; 40 for ends, 20 spare: 1333 after washing
    # ÷ 0.935 = 1425.67 before; + 100 on purpose = 1525.67; up to 10 cm: 1600
    order = Order(40, 20, 100, bought_extra=100, why="clearance")
    bought = purchase(1273, percent(6.5), order, extras=[Extra("matching", 1182, 1273)], repeat=60, main_pieces=6)
    assert bought.to_buy.value == pytest.approx(1600)
    lines = {line.key: (line.name, round(line.adds, 2)) for line in bought.lines}
    assert lines == {
        "lay": ("the lay, without rules", 1182),
        "matching": ("meeting the bars", 91),
        "ends": ("a true edge at both ends", 40),
        "spare": ("spare", 20),
        "shrinkage": ("shrinkage along", 92.67),
        "extra": ("bought on purpose: clearance", 100),
        "step": ("up to what the shop cuts", 74.33),
    }
    assert all(line.figure.steps and line.figure.value == line.adds for line in bought.lines)
    thumbs = {t.name: t for t in bought.thumbs}
    # 10 % added: 1333 × 1.1 = 1466.3, that is 40.63 more than needed
    assert thumbs["10 % more for shrinkage"].off == pytest.approx(1466.3 - 1425.668, abs=0.01)
    # six repeats of 60 instead of the 91 that matching costs here: (1333 − 91 + 360) ÷ 0.935
    assert thumbs["one repeat for each main piece"].figure.value == pytest.approx(1602 / 0.935)
    # 101.6 for the ends instead of 40
    assert thumbs["5 cm at each end to straighten"].off == pytest.approx(61.6 / 0.935)
    assert "¼ yd more for nap" not in thumbs, "this cloth has no direction"


def test_what_the_shop_cuts_at_least_is_bought_at_least() -> None:
    bought = purchase(200, FIVE, Order(0, 0, 100, least=500))
    assert bought.to_buy.value == pytest.approx(500)
    assert sum(line.adds for line in bought.lines) == pytest.approx(500)


@given(
    st.floats(100, 4000), st.floats(0, 300), st.floats(0, 300), st.floats(0, 15), st.floats(0, 500), st.floats(0, 2000)
)
def test_lines_add_up_and_more_is_never_less(
    lay: float, nap: float, bars: float, s: float, more: float, least: float
) -> None:
    steps = (Extra("nap", lay, lay + nap), Extra("matching", lay + nap, lay + nap + bars))
    order = Order(50, 10, 114.3, bought_extra=more, why="to be sure", least=least)
    bought = purchase(lay + nap + bars, percent(s), order, extras=steps)
    assert sum(line.adds for line in bought.lines) == pytest.approx(bought.to_buy.value)
    assert all(line.adds >= -1e-6 for line in bought.lines)
    plain = purchase(lay + nap + bars, percent(s), Order(50, 10, 114.3))
    assert bought.to_buy.value >= plain.to_buy.value - 1e-6


def test_a_purchase_worked_by_hand() -> None:
    # 1273 lay + 100 ends + 20 spare = 1393; ÷ 0.935 = 1489.84; up to 10 cm = 1500; cost 1.5 × 21.20 = 31.80
    bought = purchase(1273, Figure(6.5, "percent"), Order(100, 20, 100, price_per_m=21.20, in_hand=1400))
    assert bought.to_buy.value == pytest.approx(1500)
    assert [round(line.adds, 1) for line in bought.lines] == [1273, 100, 20, 96.8, 10.2]
    assert bought.cost is not None and bought.cost.value == pytest.approx(31.80)
    assert bought.spare.value == pytest.approx(1500 * 0.935 - 1373)
    assert bought.in_hand_short is not None and bought.in_hand_short.value == pytest.approx(89.84, abs=0.01)
    assert bought.rule_of_thumb.value == pytest.approx(1393 * 1.065)


def test_what_is_in_hand_is_told_and_buys_nothing() -> None:
    def of(in_hand: float | None) -> tuple[float, str]:
        # needed 1000 + 100 = 1100, divided by 0.95: 1157.9 now, 1200 at the shop
        bought = purchase(1000, FIVE, Order(100, 0, 100, in_hand=in_hand))
        return bought.still.value, str(bought.told(in_hand))

    assert of(None) == (1200.0, "1.20 m to buy")
    assert of(1157.0) == (1200.0, "1.20 m to buy: 115.7 cm in hand is 0.1 cm short")
    assert of(1158.0) == (0.0, "nothing to buy: 115.8 cm in hand will do")


def test_steps_that_cannot_be() -> None:
    with pytest.raises(ValueError, match="step"):
        purchase(1000, FIVE, Order(0, 0, 0))
    with pytest.raises(ValueError, match="shrink"):
        purchase(1000, Figure(100, "percent"), Order(0, 0, 100))


@given(st.floats(100, 5000), st.floats(0, 20), st.floats(0, 20), st.sampled_from(SHOP_STEPS_MM))
def test_more_shrinkage_never_buys_less(lay: float, s: float, more: float, step: float) -> None:
    def of(percent: float) -> float:
        return purchase(lay, Figure(percent, "percent"), Order(50, 0, step)).to_buy.value

    assert of(s + more) >= of(s) - 1e-6
    bought = purchase(lay, Figure(s, "percent"), Order(50, 0, step))
    assert sum(line.adds for line in bought.lines) == pytest.approx(bought.to_buy.value)
    assert bought.spare.value >= -1e-4, "what is bought always holds the lay"
    assert bought.rule_of_thumb.value <= lay + 50 + s / 100 * (lay + 50) + 1e-6
