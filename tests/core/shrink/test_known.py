"""On what a cloth's shrinkage rests."""

from __future__ import annotations

import pytest

from idle_selvage.core.shrink.history import Past
from idle_selvage.core.shrink.known import known_shrinkage
from idle_selvage.core.shrink.swatch import Swatch
from idle_selvage.core.shrink.treatment import swatch_programme

from ..project.test_tally import LINEN


def test_own_history_stands_between_swatch_and_range() -> None:
    past = (Past("a", 5.0, 2.0), Past("b", 6.0, 3.0), Past("c", 7.0, 4.0))
    known = known_shrinkage(LINEN, Swatch(), past, "warp")
    # hand-worked: mean 6, sample standard deviation 1, t(0.95) at two degrees of freedom 2.920, √(1 + 1/3) = 1.1547
    assert known.basis == "history" and known.figure is not None and known.plan is not None
    assert known.figure.value == pytest.approx(6) and known.plan.value == pytest.approx(9.372, abs=1e-3)
    assert known_shrinkage(LINEN, Swatch(), past[:2], "warp").basis == "range", "two tests are no history"
    assert known_shrinkage(LINEN, Swatch(((250, 240),)), past, "warp").basis == "swatch"


def test_a_later_smaller_wash_lowers_nothing() -> None:
    grew = Swatch(((250, 240, 243),) * 3, ((250, 245, 245),) * 3)
    once = Swatch(((250, 240),) * 3, ((250, 245),) * 3)
    first, later = (known_shrinkage(LINEN, swatch, (), "warp") for swatch in (once, grew))
    assert first.plan is not None and later.plan is not None and later.figure is not None
    assert later.plan.value == first.plan.value and later.figure.value == pytest.approx(2.8)


COOL, WARM = swatch_programme("30-gentle", "line"), swatch_programme("40", "line")
HOT = swatch_programme("60", "tumble-warm")


def test_a_swatch_counts_for_a_wash_as_its_own_or_a_milder_one() -> None:
    washed = Swatch(((250, 240),) * 3, ((250, 245),) * 3, how=WARM)
    same = known_shrinkage(LINEN, washed, (), "warp", how=WARM)
    milder, harsher = (known_shrinkage(LINEN, washed, (), "warp", how=how) for how in (COOL, HOT))
    assert (same.basis, same.told) == ("swatch", "") and same.plan is not None and same.figure is not None
    # milder: its high end stays, the low one may be less (linen: 4 to 8 %)
    assert milder.basis == "swatch" and "harder" in milder.told and milder.figure is not None
    assert same.figure.low is not None and milder.figure.low == min(same.figure.low, 4.0)
    assert milder.plan is not None and milder.plan.value == same.plan.value
    # harsher: a lower limit, planned with the range where that is more
    assert harsher.basis == "limit" and "lower limit" in harsher.told and harsher.plan is not None
    assert harsher.plan.value == 8.0 > same.plan.value and harsher.figure is not None
    assert harsher.figure.value == 6.0 and harsher.figure.low == same.figure.low
    untold = known_shrinkage(LINEN, Swatch(((250, 240),) * 3, how=None), (), "warp", how=HOT)
    assert untold.basis == "swatch" and "not written down" in untold.told


def test_own_tests_count_for_the_same_wash_only() -> None:
    past = tuple(Past(name, value, 2.0, how) for name, value, how in (("a", 5, WARM), ("b", 6, WARM), ("c", 7, COOL)))
    assert known_shrinkage(LINEN, Swatch(), past, "warp", how=WARM).basis == "range", "two of them are like it"
    assert known_shrinkage(LINEN, Swatch(), past, "warp").basis == "history"
