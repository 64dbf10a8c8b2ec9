"""Check values of published standards and of the trade, each with its source beside it."""

from __future__ import annotations

import numpy as np
import pytest

from idle_selvage.core.buy.order import Order, round_up
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.cloth.width import Cloth, usable_width
from idle_selvage.core.shrink.ranges import PLANNING_RANGES
from idle_selvage.core.shrink.shrinkage import (
    dimensional_change,
    divide_not_add,
    expanded_uncertainty,
    swatch_shrinkage,
)
from idle_selvage.core.units import read_length
from idle_selvage.core.working import Figure, Quantity
from idle_selvage.core.written import quantity_text


def test_the_inch_and_the_yard_are_exact() -> None:
    # source: international yard and pound agreement, 1959 (1 yd = 0.9144 m exactly, so 1 in = 25.4 mm)
    assert read_length("1 in") == 25.4
    assert read_length("1 yd") == 914.4
    assert read_length("36 in") == pytest.approx(read_length("1 yd"), abs=1e-12)
    assert read_length("1/8 yd") == pytest.approx(114.3, abs=1e-12) == pytest.approx(read_length("4 1/2 in"))


def test_every_eighth_of_a_yard_is_read_and_shown() -> None:
    # source: arithmetic on the 1959 definition
    for eighths in range(1, 41):
        mm = eighths * 114.3
        text = quantity_text(Quantity(mm, "purchase"), "imperial")
        assert text.endswith("yd") and read_length(text, "imperial") == pytest.approx(mm, abs=1e-9)


@pytest.mark.parametrize(("before", "after", "change"), [(250, 240, -4.0), (460, 437, -5.0), (250, 255, 2.0)])
def test_dimensional_change(before: float, after: float, change: float) -> None:
    # source: AATCC TM135 and ISO 5077, DC% = 100 (B − A) / A, negative for shrinkage; bench marks 250 and 460 mm
    # (the marked distances from memory)
    assert dimensional_change(before, after) == pytest.approx(change)
    shrinkage = swatch_shrinkage([before] * 3, [after] * 3, 1.0, "warp")
    assert shrinkage.value == pytest.approx(-change), "shrinkage is the same with the sign turned round"


def test_divide_never_add() -> None:
    # source: common practice, no source; worked: 100 + 10 % = 110, and 110 × 0.9 = 99, one short
    assert pytest.approx(99) == 110 * 0.9
    # 40 in needed, 10 % → 44.44 in (adding gives 44)
    assert divide_not_add(40 * 25.4, 10) / 25.4 == pytest.approx(44.444, abs=0.001)
    # 2.500 m, 8 % → 2.7174 m
    assert divide_not_add(2500, 8) == pytest.approx(2717.4, abs=0.05)
    bought = purchase(40 * 25.4, Figure(10, "percent"), Order(0, 0, 0.1))
    assert bought.rule_of_thumb.value / 25.4 == pytest.approx(44.0)


@pytest.mark.parametrize("needed", [1.0, 99.9, 1016.0, 2500.0])
@pytest.mark.parametrize("s", [0, 0.5, 3, 8, 10, 25])
def test_dividing_leaves_just_what_is_needed(needed: float, s: float) -> None:
    # source: the definition of shrinkage itself
    assert divide_not_add(needed, s) * (1 - s / 100) == pytest.approx(needed)


def test_uncertainty_of_a_tape_against_chance() -> None:
    # source: a uniform error of one graduation has the standard deviation r/√12 (any handbook of statistics); checked
    # here by drawing 100 000 swatches with numpy
    rng = np.random.default_rng(7)
    before, true, r, n = 250.0, 0.05, 1.0, 3
    b = before + rng.uniform(-r / 2, r / 2, (100_000, n))
    a = before * (1 - true) + rng.uniform(-r / 2, r / 2, (100_000, n))
    drawn = 100 * (b.mean(axis=1) - a.mean(axis=1)) / b.mean(axis=1)
    assert 2 * drawn.std() == pytest.approx(expanded_uncertainty(before, r, n), rel=0.05)


def test_one_reading_on_a_small_square_tells_about_one_per_cent() -> None:
    # source: common practice, no source: a tape read to 1/16 in on 6½ in can only tell steps of 1 %
    assert pytest.approx(0.96, abs=0.01) == 100 * (25.4 / 16) / (6.5 * 25.4)
    assert 0.5 < expanded_uncertainty(6.5 * 25.4, 25.4 / 16, 1) < 1.0


def test_usable_width_by_hand() -> None:
    # source: common practice, no source: W (1 − s) − both margins; 1500 × 0.97 − 2 × 12 = 1431
    assert usable_width(Cloth((1500.0,) * 3, 12.0, 12.0), Figure(3.0, "percent")).value == pytest.approx(1431.0)


def test_what_shops_cut() -> None:
    # source: common practice, no source: eighths and quarters of a yard, 10, 25 and 50 cm, always upwards
    assert round_up(1365.0, 100.0) == pytest.approx(1400)
    assert round_up(1365.0, 250.0) == pytest.approx(1500)
    assert round_up(1365.0, 114.3) == pytest.approx(12 * 114.3)
    assert round_up(1371.6, 114.3) == pytest.approx(1371.6), "1½ yd exactly stays 1½ yd"


def test_planning_ranges_are_the_trade_s() -> None:
    # source: common practice, from memory; a few rows typed again, independently of the table
    by_kind = {entry.kind: entry for entry in PLANNING_RANGES}
    assert (by_kind["cotton"].warp, by_kind["cotton"].weft) == ((3, 5), (1, 4))
    assert (by_kind["denim-raw"].warp, by_kind["denim-raw"].weft) == ((7, 10), (3, 6))
    assert (by_kind["viscose"].warp, by_kind["viscose"].weft) == ((5, 10), (3, 8))
    assert (by_kind["polyester"].warp, by_kind["polyester"].weft) == ((0, 1), (0, 1))
    for entry in PLANNING_RANGES:
        assert 0 <= entry.warp[0] <= entry.warp[1] <= 10 and 0 <= entry.weft[0] <= entry.weft[1] <= 10
