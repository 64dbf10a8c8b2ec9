"""Gathered strips."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.ruffles import BadStrip, Ruffle, cut_depth, ways


def test_a_ruffle_worked_by_hand() -> None:
    # an edge of 1200 twice full is 2400 round; cloth 1000 wide, allowances 15: each strip gives 970, three are needed
    ruffle = Ruffle(1200, 2.0, 140, 1000, hem=20, seam=15, ring=True)
    found = {w.key: w for w in ways(ruffle)}
    assert cut_depth(ruffle) == 175
    assert found["across"].strips == 3 and found["across"].joined.value == pytest.approx(3 * 1000 - 6 * 15)
    assert found["across"].fullness.value == pytest.approx(2910 / 1200) and found["across"].cloth.value == 525
    assert found["along"].each == 2430 and found["along"].joined.value == pytest.approx(2400)
    # a strip along takes its own length of cloth, over its own depth only
    assert found["along"].cloth.value == pytest.approx(2430) and found["along"].area == pytest.approx(2430 * 175)
    assert ways(ruffle)[0].key == "along"


@given(st.floats(200, 3000), st.floats(1, 4), st.floats(20, 400), st.floats(500, 1600), st.floats(0, 20), st.booleans())
def test_strips_are_never_too_short(
    edge: float, full: float, deep: float, width: float, seam: float, ring: bool
) -> None:
    for way in ways(Ruffle(edge, full, deep, width, 20, seam, ring)):
        assert way.fullness.value >= full - 1e-6
        assert way.cloth.value > 0


@pytest.mark.parametrize(
    "ruffle", [Ruffle(0, 2, 100, 1000), Ruffle(100, 0.5, 100, 1000), Ruffle(100, 2, 100, 20), Ruffle(9e5, 9, 10, 100)]
)
def test_ruffles_that_cannot_be(ruffle: Ruffle) -> None:
    with pytest.raises(BadStrip):
        ways(ruffle)
