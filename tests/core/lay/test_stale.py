"""Is a lay still right: everything it hangs on, and nothing else."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem
from idle_selvage.core.lay.stale import changes
from idle_selvage.core.wording import say

PLANNED = {"warp": 6.5, "weft": 3.0}
SQUARE = ((0.0, 0.0), (200.0, 0.0), (200.0, 100.0), (0.0, 100.0))
THEN = Problem(1400.0, (LayPiece("Front", SQUARE, 2, True),), gap=4.0, folds=("open",))


def test_nothing_changed_is_nothing_to_say() -> None:
    assert changes(THEN, THEN, PLANNED, PLANNED) == ()
    # other folds are other lays of the same cloth: the one there stays right
    assert changes(THEN, replace(THEN, folds=("open", "lengthwise")), PLANNED, PLANNED) == ()


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({"one_way": True}, "direction"),
        ({"reversible": True}, "side shows"),
        ({"gap": 9.0}, "room between pieces"),
        ({"blocked": ((0.0, 0.0, 20.0, 20.0),)}, "flaws"),
        ({"bars": Bars(x_repeat=60.0)}, "bars to meet"),
        ({"pieces": (LayPiece("Front", SQUARE, 4, True),)}, "pieces were changed"),
        ({"width": 1399.0}, "usable width went from"),
    ],
)
def test_each_thing_a_lay_rests_on_is_told_by_itself(change: dict[str, Any], told: str) -> None:
    (why,) = changes(THEN, replace(THEN, **change), PLANNED, PLANNED)
    assert told in why
    assert changes(replace(THEN, **change), THEN, PLANNED, PLANNED), "and the other way round"


def test_shrinkages_and_widths_are_told_in_the_units_of_who_reads() -> None:
    along, wide = changes(THEN, replace(THEN, width=1270.0), PLANNED, {"warp": 8.0, "weft": 3.04})
    assert along == "the shrinkage along to plan with went from 6.5 % to 8.0 %"
    assert "140.0 cm to 127.0 cm" in wide and say(wide, "imperial").endswith("to 50 in")


def test_what_was_not_known_then_is_no_change() -> None:
    assert changes(THEN, THEN, {}, PLANNED) == changes(THEN, THEN, PLANNED, {}) == ()


def matched(group: str, begin: float, apart: float = 30.0, phase: float | None = None) -> Problem:
    """Two pieces whose points meet, told from ``begin`` mm up the first one."""
    points = (begin, begin + apart)
    fixed = None if phase is None else (phase + begin) % 40.0
    pieces = tuple(
        LayPiece(name, SQUARE, match=(Match(group, (at, 7.0), along=True, phase_x=fixed),))
        for name, at in zip(("a", "b"), points, strict=True)
    )
    return Problem(1400.0, pieces, bars=Bars(x_repeat=40.0, x_axes=(0.0,)))


def test_what_meets_is_the_same_whatever_it_is_called_and_from_where_it_is_told() -> None:
    then = matched("side seams", 50.0)
    assert changes(then, matched("seam 4", 120.0), PLANNED, PLANNED) == ()
    assert changes(matched("a", 50.0, phase=12.0), matched("b", 135.0, phase=12.0), PLANNED, PLANNED) == ()
    for other in (matched("side seams", 50.0, 31.0), matched("side seams", 50.0, phase=12.0)):
        assert [str(why) for why in changes(then, other, PLANNED, PLANNED)] == ["the pieces were changed"]
    moved = changes(matched("a", 50.0, phase=12.0), matched("a", 50.0, phase=13.0), PLANNED, PLANNED)
    assert [str(why) for why in moved] == ["the pieces were changed"]
