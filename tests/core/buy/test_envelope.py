"""The envelope's chart and the width table."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.envelope import (
    BadChart,
    Chart,
    ChartLine,
    Envelope,
    SizeLine,
    choose_size,
    column_of,
    compared,
    convert_width,
    crossing,
    envelope_headline,
    printed_column,
    read_envelope,
)
from idle_selvage.core.working import Figure

IN = 25.4
YD = 914.4


CHART = Chart((45 * IN, 60 * IN), ("10", "12"), ((2 * YD, 2.125 * YD), (1.5 * YD, None)))


def test_the_chart_is_read_where_row_and_column_cross() -> None:
    found = crossing(CHART, 45 * IN, "12")
    assert (found.row, found.column, found.length) == (0, 1, 2.125 * YD)
    assert crossing(CHART, 59.2 * IN, "10").row == 1, "58 to 60 in are one width of the handbook's table"
    assert crossing(CHART, 57.9 * IN, "10").row == 0, "a narrower cloth cannot be cut by the wider row"


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


@pytest.mark.parametrize("mine", [860.1, 939.9])
def test_of_a_single_size_a_step_of_4_cm_is_taken(mine: float) -> None:
    assert choose_size("A", (900.0,), mine, "loose").size == "A"


@pytest.mark.parametrize(("mine", "says"), [(859.9, "smaller"), (940.1, "larger")])
def test_further_than_that_it_is_another_size(mine: float, says: str) -> None:
    with pytest.raises(BadChart, match=says):
        choose_size("A", (900.0,), mine, "loose")


RANGES = ((36 * IN, 38 * IN), (40 * IN, 42 * IN), (42 * IN, 44 * IN))


@pytest.mark.parametrize(
    ("inches", "fit", "size"),
    [
        (36, "loose", "S"), (37, "close", "S"), (38.2, "close", "S"), (38.3, "close", "M"), (39, "loose", "S"),
        (39, "close", "M"), (41, "loose", "M"), (42, "loose", "M"), (42, "close", "L"), (44.2, "close", "L"),
        (45.5, "loose", "L"), (35.7, "close", "S"), (33, "loose", "S"),
    ],
)  # fmt: skip
def test_a_size_may_be_printed_for_a_range_of_bodies(inches: float, fit: str, size: str) -> None:
    assert choose_size("SML", RANGES, inches * IN, fit, give=IN / 4).size == size  # type: ignore[arg-type]


def test_ranges_must_not_run_into_each_other() -> None:
    with pytest.raises(BadChart, match="must grow"):
        choose_size("AB", ((900.0, 960.0), (950.0, 1000.0)), 920, "loose")
    with pytest.raises(BadChart, match="larger than the largest"):
        choose_size("SML", RANGES, 45 * IN, "close")


def nap_chart(one_way: bool, *rows: tuple[float, float, str], cloth: float = 45) -> float | None:
    lines = tuple(ChartLine(w * IN, (yards * YD,), nap) for w, yards, nap in rows)  # type: ignore[arg-type]
    found = read_envelope(Envelope((SizeLine("12"),), lines, size="12"), cloth * IN, one_way=one_way)
    return None if found.answer is None else found.answer.value / YD


def test_a_row_with_nap_is_for_cloth_that_has_a_direction() -> None:
    both = ((45, 2.0, "without"), (45, 2.375, "with"))
    assert nap_chart(False, *both) == pytest.approx(2.0)
    assert nap_chart(True, *both) == pytest.approx(2.375)
    assert nap_chart(True, (45, 3.0, ""), *both) == pytest.approx(2.375), "the row for just this cloth"
    assert nap_chart(False, (45, 2.375, "with")) == pytest.approx(2.375), "longer than needed, and never shorter"
    assert nap_chart(True, (45, 2.0, "without")) == pytest.approx(2.25), "a quarter of a yard for the direction"
    # the row without nap is not this cloth's: the other one is turned, from 2 yd of 45 in (the next longer row, 2 1/8)
    # to 1 5/8 of 60 in, and the table asks for a quarter more
    assert nap_chart(True, (45, 2.0, ""), (60, 1.5, "without"), cloth=60) == pytest.approx(1.625 + 0.25)


@given(st.floats(905, 1000), st.floats(905, 1000))
def test_a_larger_body_never_takes_a_smaller_size(a: float, b: float) -> None:
    low, high = sorted((a, b))
    for fit in ("loose", "close"):
        assert choose_size("ABC", BODY, low, fit).size <= choose_size("ABC", BODY, high, fit).size  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("yards", "row", "between", "below"),
    [
        # the table's own row: nothing to say
        (1.375, 0, False, False),
        # shorter than the first row, which is taken
        (1.25, 0, False, True),
        # between the first and the second, the second is taken
        (1.5, 1, True, False),
        (1.625, 1, False, False),
    ],
)
def test_where_a_length_stands_between_the_rows(yards: float, row: int, between: bool, below: bool) -> None:
    found = convert_width(yards * YD, 45 * IN, 45 * IN)
    assert (found.row, found.between, found.below) == (row, between, below)
    assert found.length == pytest.approx((11, 13)[row] / 8 * YD), "the rows of 44–45 in"


def test_another_width_and_when_the_table_asks_for_more() -> None:
    plain = convert_width(2.5 * YD, 36 * IN, 44 * IN)
    assert plain.length == pytest.approx(2.125 * YD) and plain.more == pytest.approx(YD / 4), "three columns apart"
    near = convert_width(2.125 * YD, 45 * IN, 50 * IN)
    assert near.more == 0 and not near.between
    assert convert_width(2.0 * YD, 45 * IN, 50 * IN).between, "2 yd lies between 1⅞ and 2⅛: the longer is taken"
    nap = convert_width(2.125 * YD, 45 * IN, 50 * IN, one_way=True, sleeves_in_one=True)
    assert nap.more == pytest.approx(YD / 4) and len(nap.why) == 2
    # past the last row it is halved, converted and doubled, with the quarter for a large difference in each half
    # (2⅞ of 44–45 in is the row that holds 3 yd: 3⅛, which is 2⅜ of 58–60)
    long = convert_width(6 * YD, 45 * IN, 58 * IN)
    assert long.halves == 2 and long.length == pytest.approx(2 * 2.375 * YD) and long.more == pytest.approx(YD / 2)
    near = convert_width(6 * YD, 45 * IN, 50 * IN)
    assert near.length == pytest.approx(2 * 2.75 * YD) and near.more == 0
    # its last row of 44–45 in is 3⅞ yd, four times that is the end
    with pytest.raises(BadChart, match=r"ends at 15\.5 yd for this width, even in parts"):
        convert_width(30 * YD, 45 * IN, 60 * IN)
    for width in (20, 80):
        with pytest.raises(BadChart, match="outside"):
            column_of(width * IN)


@pytest.mark.parametrize(("inches", "column"), [(51, 4), (38, 0), (43, 2), (49, 3), (57, 5), (45, 3), (60, 6), (35, 0)])
def test_a_width_between_two_columns_is_the_narrower_one_s(inches: float, column: int) -> None:
    assert column_of(inches * IN) == column


def test_a_printed_width_between_two_columns_is_read_as_the_wider_one_s() -> None:
    # a length for 43 in is no longer than one for 41 and no shorter than one for 45: as if printed for 44–45
    assert printed_column(43 * IN) == 3 and printed_column(45 * IN) == 3 and printed_column(61 * IN) == 6
    with pytest.raises(BadChart):
        printed_column(20 * IN)


def reading(width: float, length: float | None, cloth: float, shrinkage: float | None = None, one_way: bool = False):  # type: ignore[no-untyped-def]
    typed = Envelope((SizeLine("12", (900.0, 900.0)),), (ChartLine(width * IN, (length,)),), mine=900.0)
    plan = None if shrinkage is None else Figure(shrinkage, "percent")
    return read_envelope(typed, cloth * IN, one_way=one_way, shrinkage=plan)


def test_a_cloth_a_little_wider_than_its_row_is_cut_by_the_row() -> None:
    # 51 in of cloth, a row for 50: 2 yd, not the 1⅞ of 52–54 in
    found = reading(50, 2 * YD, 51)
    assert found.answer is not None and found.answer.value == 2 * YD and found.converted is None


def test_what_cannot_be_converted_has_no_headline_figure() -> None:
    found = reading(45, 2 * YD, 30)
    assert found.answer is None and found.faults and str(envelope_headline(found)) == "Read the envelope"
    assert compared(None, 1000.0) == ""


def test_shrinkage_is_divided_or_its_absence_said() -> None:
    dry, wet = reading(45, 2 * YD, 45), reading(45, 2 * YD, 45, 8.0)
    assert dry.washed is None and any("nothing was added" in text for text, look in dry.told if look)
    assert wet.answer is not None and wet.answer.value == 2 * YD
    assert wet.washed is not None and wet.washed.value == pytest.approx(2 * YD / 0.92)
    assert "before washing" in envelope_headline(wet)


def test_where_in_the_table_it_was_read_is_told() -> None:
    below, between, past = reading(45, YD, 36), reading(45, 2 * YD, 36), reading(45, 6 * YD, 36)
    assert any("below its first row" in text for text, _ in below.told)
    assert not any("between" in text for text, _ in below.told)
    assert any("between two" in text for text, _ in between.told)
    assert any("past its last row: a half" in text for text, _ in past.told)


def test_a_body_within_a_tape_s_give_of_a_size_is_that_size() -> None:
    for mine, size in ((948.0, "B"), (945.0, "B"), (944.9, "A"), (1001.0, "C"), (1005.0, "C"), (895.0, "A")):
        assert choose_size("ABC", BODY, mine, "loose").size == size, mine
    assert choose_size("ABC", BODY, 1001.0, "close").size == "C", "1 mm over the largest is the largest"
    assert choose_size("ABC", BODY, 944.0, "loose", give=25.4 / 4).size == "B", "a quarter of an inch"
