"""Tests one after another."""

from __future__ import annotations

import pytest

from idle_selvage.core.true.attempts import Attempt, by_place, good_from, loop


def tries(*offsets: float) -> list[Attempt]:
    return [Attempt(0.0, value) for value in offsets]


@pytest.mark.parametrize(
    ("offsets", "state"),
    [
        ((), "none"),
        ((30,), "go-on"),
        ((30, 20), "go-on"),
        ((30, 20, 2), "true"),
        ((30, 20, 20), "go-on"),
        ((30, 20, 20, 21), "stop"),
        ((30, 20, 20, 12), "go-on"),
        ((-30, 30, 30), "stop"),
        ((30, 29.5, 29.2), "stop"),
    ],
)
def test_no_better_in_two_tries_is_enough(offsets: tuple[float, ...], state: str) -> None:
    assert loop(tries(*offsets)).state == state


def test_only_tests_of_the_same_place_are_tries() -> None:
    found = loop([Attempt(0, 30), Attempt(0, 30), Attempt(1000, 30)])
    assert found.state == "go-on" and found.best == 30


def test_from_which_metre_on_it_is_good() -> None:
    along = [Attempt(0, 50), Attempt(2000, -5), Attempt(1000, 15), Attempt(3000, 2), Attempt(0, 45)]
    assert [a.offset for a in by_place(along)] == [45, 15, -5, 2]
    assert good_from(along) == 2000
    assert good_from([*along, Attempt(3000, 30)]) is None
    assert good_from([Attempt(500, 2), Attempt(1500, 3)]) == 0.0, "all that was tested is good"
    assert good_from([]) is None
