"""Is a plaid square."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.squareness import BarReading, squareness


def test_which_bars_are_shifted() -> None:
    found = squareness([BarReading(200, 2), BarReading(500, 9), BarReading(900, 1)], 1400)
    assert found is not None and not found.square and found.common == 2
    assert [(b.place, b.shift, b.alone) for b in found.bars] == [(500, 9, True)]
    leaning = squareness([BarReading(0, -8), BarReading(300, -9), BarReading(600, -8)], 1400)
    assert leaning is not None and leaning.common == -8 and not any(b.alone for b in leaning.bars)
    assert squareness([], 1400) is None
    square = squareness([BarReading(0, 1), BarReading(300, -1)], 1400)
    assert square is not None and square.square


@given(st.lists(st.floats(-40, 40), min_size=1, max_size=6))
def test_mirrored_bars_are_shifted_the_other_way(offs: list[float]) -> None:
    one = squareness([BarReading(100.0 * k, v) for k, v in enumerate(offs)], 1400)
    other = squareness([BarReading(100.0 * k, -v) for k, v in enumerate(offs)], 1400)
    assert one is not None and other is not None
    assert [b.shift for b in one.bars] == [-b.shift for b in other.bars] and one.common == -other.common
