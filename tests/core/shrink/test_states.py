"""From one state of a cloth to another: measured where it was measured, else predicted with three values."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.make import Make
from idle_selvage.core.cloth.state import State
from idle_selvage.core.shrink.states import STAYS, ClothStates
from idle_selvage.core.shrink.swatch import Swatch

LINEN = Make((("linen", 100.0),))
#: 250 mm that measure 240 after one wash and 237.5 after two: 4 % and 5 %, each way.
TWICE = Swatch(((250.0, 240.0, 237.5),) * 3, ((250.0, 240.0, 237.5),) * 3)
RAW, WASHED = State((1118.0,), 2500.0), State((1080.0,), 2380.0, "after treatment 1")


def test_what_was_measured_in_a_state_is_used_in_it() -> None:
    cloth = ClothStates((RAW, WASHED), LINEN, TWICE)
    width, length = cloth.width_in(1), cloth.length_in(1)
    assert width is not None and (width.value, width.low, width.note) == (1080.0, None, "")
    assert length is not None and length.value == 2380.0 and cloth.measured("length", 1) == 1
    before = cloth.length_in(0)
    assert before is not None and before.value == 2500.0, "what it was is not forgotten"


def test_what_was_not_measured_is_predicted_from_the_nearest_state() -> None:
    # by hand: 2500 × 0.96 = 2400, and with the tape's sureness of 2 × 100 / 250 × √(2 / 12 / 3) = 0.1886 points
    cloth = ClothStates((RAW, State(name="after treatment 1")), LINEN, TWICE)
    found = cloth.length_in(1)
    assert found is not None and found.value == pytest.approx(2400.0) and found.note.startswith("about")
    assert found.low == pytest.approx(2500 * (1 - 0.041886), abs=0.01)
    assert found.high == pytest.approx(2500 * (1 - 0.038114), abs=0.01)
    # two treatments on, measured after the first: 240 → 237.5 is 1.0417 % of what it was then
    later = ClothStates((RAW, WASHED, State(name="after treatment 2")), LINEN, TWICE).length_in(2)
    assert later is not None and later.value == pytest.approx(2380 * 237.5 / 240) and later.low is not None
    assert later.low < 2380 * (1 - 0.0104)


def test_what_is_planned_with_is_never_less_than_after_an_earlier_wash() -> None:
    # the second wash let it grow: 4 % after the first, 3.2 % after the second
    grown = Swatch(((250.0, 240.0, 242.0),) * 3, ((250.0, 240.0, 242.0),) * 3)
    cloth = ClothStates((RAW,), LINEN, grown)
    first, second = cloth.after(1, "warp").plan, cloth.after(2, "warp").plan
    assert first is not None and second is not None and second.value == first.value == pytest.approx(4.1886, abs=1e-3)
    figure = cloth.after(2, "warp").figure
    assert figure is not None and figure.value == pytest.approx(3.2), "where things are is told by the last one"


def test_from_a_state_to_itself_nothing_is_lost() -> None:
    cloth = ClothStates((RAW, WASHED), LINEN, TWICE)
    assert cloth.move(1, 1) == STAYS and cloth.coming(1, 1, "warp").plan is not None
    move = cloth.move(0, 1)
    assert move.low[0] < move.best[0] == pytest.approx(4.0) and move.best[0] < move.high[0]


def test_two_measures_tell_where_things_are_now() -> None:
    """1118 that measure 1080 have lost 3.40 %, whatever the swatch said; a length may have been cut."""
    cloth = ClothStates((RAW, WASHED), LINEN, TWICE)
    move = cloth.move(0, 1)
    assert move.best[1] == pytest.approx(100 * 38 / 1118) and move.low[1] == move.best[1] < 3.8 < move.high[1]
    assert move.best[0] == pytest.approx(4.0), "4.8 % is more than the swatch allows: a piece was cut off"
    within = ClothStates((RAW, State((1080.0,), 2397.0)), LINEN, TWICE).move(0, 1)
    assert within.best[0] == pytest.approx(4.12) and within.high[0] == pytest.approx(move.high[0])
    unknown = ClothStates((RAW, WASHED)).move(0, 1)
    assert unknown.best == pytest.approx((0.0, 100 * 38 / 1118)) and unknown.low == unknown.high == unknown.best


def test_a_cloth_of_which_nothing_is_known_predicts_nothing() -> None:
    cloth = ClothStates((RAW, State(name="after treatment 1")))
    assert cloth.length_in(1) is None and cloth.width_in(1) is None
    assert ClothStates().length_in(0) is None and ClothStates().current == 0


def test_a_range_is_lost_once_and_no_more() -> None:
    # linen, 4 to 8 % along: what was measured after one treatment may still lose what the range leaves open
    cloth = ClothStates((RAW, WASHED, State(name="after treatment 2")), LINEN)
    coming = cloth.coming(1, 2, "warp")
    assert coming.figure is not None and coming.figure.value == pytest.approx(0.0)
    # 1 − 0.92 ÷ 0.94 = 2.1277 %
    assert coming.plan is not None and coming.plan.value == pytest.approx(2.1277, abs=1e-3)


@pytest.mark.parametrize(("washes", "treated"), [(0, 1), (1, 1), (3, 3)])
def test_it_is_treated_as_often_as_its_swatch_needed(washes: int, treated: int) -> None:
    row = (250.0, *(240.0 - k for k in range(washes)))
    assert ClothStates((RAW,), LINEN, Swatch((row,), (row,))).treated == treated
