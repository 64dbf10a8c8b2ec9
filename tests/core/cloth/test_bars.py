"""Bars: repeat, mirror axes, balance, and what can be seen to match."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cloth.bars import NONE, Bar, read_bars, told

RED, BLUE, ECRU = "#a02020", "#2020a0", "#e8e0d0"


def bars(*parts: tuple[float, str]) -> list[Bar]:
    return [Bar(width, colour) for width, colour in parts]


def test_a_plain_stripe_mirrors_down_each_bar() -> None:
    # hand-worked: 10 red, 30 ground; axes down the middle of each, at 5 and 25
    found = read_bars(bars((10, RED), (30, ECRU)))
    assert found.repeat == 40 and found.balanced and found.axes == pytest.approx((5, 25))
    assert found.dominant == Bar(10, RED) and found.seen


def test_a_sequence_that_reads_another_way_backwards_is_not_balanced() -> None:
    found = read_bars(bars((6, RED), (20, ECRU), (3, BLUE), (12, ECRU)))
    assert found.repeat == 41 and not found.balanced and found.axes == ()
    # a third colour, in order red blue ground: no line mirrors it
    assert not read_bars(bars((5, RED), (5, BLUE), (20, ECRU))).balanced


def test_a_balanced_check_of_three_colours() -> None:
    # red 4, ground 10, blue 2, ground 10: mirrors in the red (2) and in the blue (15)
    found = read_bars(bars((4, RED), (10, ECRU), (2, BLUE), (10, ECRU)))
    assert found.repeat == 26 and found.axes == pytest.approx((2, 15))


def test_neighbours_of_one_colour_are_one_bar_round_the_end_too() -> None:
    # ground typed in two halves: 15 before, 15 after the red bar
    found = read_bars(bars((15, ECRU), (10, RED), (15, ECRU.upper())))
    assert found.repeat == 40 and found.axes == pytest.approx((0, 20)), "counted from where typing began"


def test_a_sequence_typed_twice_over_is_one_repeat() -> None:
    once = bars((10, RED), (30, ECRU))
    assert read_bars([*once, *once]) == read_bars(once)


@pytest.mark.parametrize("nothing", [[], bars((10, RED)), bars((10, RED), (5, RED)), bars((0, RED), (5, ECRU))])
def test_one_colour_is_no_bars(nothing: list[Bar]) -> None:
    assert read_bars(nothing) == NONE


def test_bars_under_three_millimetres_cannot_be_seen_to_match() -> None:
    fine = read_bars(bars((2, RED), (4, ECRU)))
    assert not fine.seen and "cannot be seen" in " ".join(told(NONE, fine))
    assert "Balanced across" in " ".join(told(NONE, read_bars(bars((3, RED), (6, ECRU)))))
    assert "one way" in " ".join(told(read_bars(bars((6, RED), (20, ECRU), (3, BLUE), (12, ECRU))), NONE))
    assert told(NONE, NONE) == ()


@given(
    st.lists(st.tuples(st.integers(2, 40), st.sampled_from([RED, BLUE, ECRU])), min_size=2, max_size=7),
    st.integers(0, 6),
)
def test_where_one_begins_to_type_changes_nothing_but_the_count(parts: list[tuple[int, str]], turn: int) -> None:
    sequence = bars(*parts)
    turn %= len(sequence)
    a, b = read_bars(sequence), read_bars([*sequence[turn:], *sequence[:turn]])
    assert (a.repeat, a.balanced, a.seen) == (b.repeat, b.balanced, b.seen)
    if a.repeat is not None:
        moved = sum(bar.width for bar in sequence[:turn])
        assert sorted(round((x - moved) % a.repeat, 3) for x in a.axes) == sorted(
            round(x % a.repeat, 3) for x in b.axes
        )


@given(st.lists(st.tuples(st.integers(2, 40), st.sampled_from([RED, BLUE])), min_size=1, max_size=4))
def test_a_sequence_and_its_mirror_image_make_balanced_bars(parts: list[tuple[int, str]]) -> None:
    half = bars(*parts)
    found = read_bars([*half, Bar(9, ECRU), *reversed(half), Bar(21, ECRU)])
    assert found.balanced and len(found.axes) == 2
    assert found.repeat is not None and found.axes[1] - found.axes[0] == pytest.approx(found.repeat / 2)
