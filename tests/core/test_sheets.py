"""What is read off the envelope, cut as strips, converted, and written on the list."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.bias import bias_tape
from idle_selvage.core.buy.convert import spoken, yard_table
from idle_selvage.core.buy.envelope import BadChart, Chart, choose_size, column_of, convert_width, crossing
from idle_selvage.core.buy.ruffles import BadStrip, Ruffle, cut_depth, ways
from idle_selvage.core.buy.shopping import PRETREAT, dominant_colour, thread_needed
from idle_selvage.core.cloth.bars import Bar

IN, YD = 25.4, 914.4
CHART = Chart((45 * IN, 60 * IN), ("10", "12"), ((2 * YD, 2.125 * YD), (1.5 * YD, None)))


def test_the_chart_is_read_where_row_and_column_cross() -> None:
    found = crossing(CHART, 45 * IN, "12")
    assert (found.row, found.column, found.length) == (0, 1, 2.125 * YD)
    assert crossing(CHART, 59.2 * IN, "10").row == 1, "looms vary by an inch"
    assert crossing(CHART, 58 * IN, "10").row == 0, "a narrower cloth cannot be cut by the wider row"


@pytest.mark.parametrize(
    ("width", "size", "says"), [(45, "14", "no size 14"), (36, "10", "wider than the cloth"), (60, "12", "Nothing is")]
)
def test_what_the_chart_does_not_say(width: float, size: str, says: str) -> None:
    with pytest.raises(BadChart, match=says):
        crossing(CHART, width * IN, size)


BODY = (900.0, 950.0, 1000.0)


def test_between_two_sizes_down_for_loose_and_up_for_close() -> None:
    assert choose_size("ABC", BODY, 920, "loose").size == "A"
    close = choose_size("ABC", BODY, 920, "close", {"B": 1000.0})
    assert close.size == "B" and close.neighbours == ("A", "B") and close.ease == 80.0
    assert choose_size("ABC", BODY, 950, "loose").neighbours == ("B",), "met exactly"
    assert choose_size("ABC", BODY, 880, "close").size == "A"
    assert choose_size("ABC", BODY, 1010, "loose").size == "C"


@pytest.mark.parametrize(
    ("body", "mine", "fit", "says"),
    [
        (BODY, 1010, "close", "larger than the largest"),
        (BODY, 800, "loose", "smaller than the smallest"),
        ((900.0, 900.0, 950.0), 910, "loose", "must grow"),
        ((900.0,), 910, "loose", "every size"),
    ],
)
def test_sizes_that_cannot_be(body: tuple[float, ...], mine: float, fit: str, says: str) -> None:
    with pytest.raises(BadChart, match=says):
        choose_size("ABC", body, mine, fit)  # type: ignore[arg-type]


@given(st.floats(905, 1000), st.floats(905, 1000))
def test_a_larger_body_never_takes_a_smaller_size(a: float, b: float) -> None:
    low, high = sorted((a, b))
    for fit in ("loose", "close"):
        assert choose_size("ABC", BODY, low, fit).size <= choose_size("ABC", BODY, high, fit).size  # type: ignore[arg-type]


def test_another_width_and_when_the_table_asks_for_more() -> None:
    plain = convert_width(2.5 * YD, 36 * IN, 44 * IN)
    assert plain.length == pytest.approx(2.125 * YD) and plain.more == pytest.approx(YD / 4), "three columns apart"
    near = convert_width(2.125 * YD, 45 * IN, 50 * IN)
    assert near.more == 0 and not near.between
    assert convert_width(2.0 * YD, 45 * IN, 50 * IN).between, "2 yd lies between 1⅞ and 2⅛: the longer is taken"
    nap = convert_width(2.125 * YD, 45 * IN, 50 * IN, one_way=True, sleeves_in_one=True)
    assert nap.more == pytest.approx(YD / 4) and len(nap.why) == 2
    with pytest.raises(BadChart, match="ends at"):
        convert_width(6 * YD, 45 * IN, 60 * IN)
    for width in (20, 80):
        with pytest.raises(BadChart, match="outside"):
            column_of(width * IN)


def test_a_ruffle_worked_by_hand() -> None:
    # an edge of 1200 twice full is 2400 round; cloth 1000 wide, allowances 15: each strip gives 970, three are needed
    ruffle = Ruffle(1200, 2.0, 140, 1000, hem=20, seam=15, ring=True)
    found = {w.key: w for w in ways(ruffle)}
    assert cut_depth(ruffle) == 175
    assert found["across"].strips == 3 and found["across"].joined.value == pytest.approx(3 * 1000 - 6 * 15)
    assert found["across"].fullness.value == pytest.approx(2910 / 1200) and found["across"].cloth.value == 525
    assert found["along"].each == 2430 and found["along"].joined.value == pytest.approx(2400)
    assert found["along"].cloth.value == pytest.approx(2430 * 0.175)
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


@given(st.floats(100, 2000), st.floats(100, 2000), st.floats(10, 60))
def test_bias_tape_never_holds_more_than_the_rectangle(long: float, wide: float, tape: float) -> None:
    found = bias_tape(long, wide, tape)
    assert found == bias_tape(wide, long, tape), "which way it lies does not matter"
    for figure in (found.strips, found.continuous):
        assert figure.value * tape <= long * wide + 1e-6


def test_a_rectangle_too_small_for_tape() -> None:
    with pytest.raises(BadStrip, match="too small"):
        bias_tape(100, 30, 25)
    with pytest.raises(BadStrip, match="more than nothing"):
        bias_tape(100, 0, 25)


@given(st.floats(1, 20_000))
def test_what_is_asked_for_at_a_counter_is_rounded_up_and_said_so(mm: float) -> None:
    yards, inches, metres, tape = spoken(mm)
    assert yards.mm >= mm - 1e-5 and metres.mm >= mm - 1e-5
    assert yards.mm - mm < YD / 8 and metres.mm - mm < 10 and abs(inches.mm - mm) <= IN / 32 + 1e-9
    for one in (yards, inches, metres, tape):
        assert (one.rounded == "exact") == (abs(one.mm - mm) <= 1e-6)


def test_fractions_of_a_yard() -> None:
    rows = yard_table()
    assert [str(r.fraction) for r in rows] == ["1/8", "1/4", "1/3", "3/8", "1/2", "5/8", "2/3", "3/4", "7/8", "1"]
    assert rows[0].inches * 2 == 9 and rows[0].centimetres.text == "11.5 cm" and rows[0].centimetres.rounded == "up"


def test_thread_follows_the_colour_that_dominates() -> None:
    bars = [Bar(6, "#3F6F73"), Bar(54, "#CBD5D2")]
    assert dominant_colour("#ffffff", bars) == ("#cbd5d2", 0.9)
    # half the weft bars are rust: over both directions rust has (0 + 0.5) / 2
    colour, share = dominant_colour("#ffffff", bars, [Bar(30, "#A9674A"), Bar(30, "#CBD5D2")])
    assert colour == "#cbd5d2" and share == pytest.approx(0.7)
    assert dominant_colour("#2F5A4C", []) == ("#2f5a4c", 1.0)


def test_thread_and_notions() -> None:
    # 20 m of edge: 10 m of seams × 2.8 + 20 × 3 = 88 m, × 1.25 = 110 m: one reel
    assert thread_needed(20_000).value == 1
    assert thread_needed(40_000).value == 2
    assert all(label and told for label, told in PRETREAT.values())
