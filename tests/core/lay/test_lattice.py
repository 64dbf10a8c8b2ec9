"""A matched piece moves in the steps in which its bars agree."""

from __future__ import annotations

import pytest
from shapely.geometry import box

from idle_selvage.core.lay.answer import Section
from idle_selvage.core.lay.hand import HandLay, Held
from idle_selvage.core.lay.lattice import group_of, lattice, stepped
from idle_selvage.core.lay.moves import CannotMove, Table
from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem

BOX = ((0.0, 0.0), (100.0, 0.0), (100.0, 60.0), (0.0, 60.0))


def piece(key: str, *, along: bool = True, across: bool = False) -> LayPiece:
    met = (Match("side", (20.0, 0.0), along, across),) if along or across else ()
    return LayPiece(key, BOX, match=met, name=key.upper())


def table(*held: Held, across: bool = False, blocked: tuple[tuple[float, float, float, float], ...] = ()) -> Table:
    pieces = (piece("a", across=across), piece("b", across=across), piece("c", along=False))
    problem = Problem(500.0, pieces, bars=Bars(40.0, 50.0, (0.0,), (10.0,)), blocked=blocked)
    return Table(HandLay((Section(0.0, 2000.0, "open"),), held), problem)


def held(key: str, x: float, y: float = 0.0, **more: object) -> Held:
    return Held(f"{key}·1", key, 0, x, y, 0, False, 1, **more)  # type: ignore[arg-type]


def test_it_steps_by_whole_repeats_to_the_next_place_that_is_free() -> None:
    now = table(held("a", 0.0), held("b", 120.0), held("c", 300.0))
    on = stepped(now, ("b·1",), 1, 0)
    # 160 and 200 would lie on c from 300 on, or reach it: 200 + 100 touches it, which is allowed
    assert [one.x for one in on.put] == [160.0]
    twice = stepped(table(held("a", 0.0), held("b", 200.0), held("c", 300.0)), ("b·1",), 1, 0)
    assert [one.x for one in twice.put] == [400.0], "over the piece that lies in the way"
    with pytest.raises(CannotMove, match="no further place"):
        # a lies there, and before it the cloth begins
        stepped(now, ("b·1",), -1, 0)


def test_one_that_does_not_agree_steps_onto_the_bars_first() -> None:
    # a meets at 20: b at 133 + 20 = 153 lies 13 past 140; back it is 120, on it is 160
    off = table(held("a", 0.0, 200.0), held("b", 133.0))
    assert stepped(off, ("b·1",), -1, 0).put[0].x == pytest.approx(120.0)
    assert stepped(off, ("b·1",), 1, 0).put[0].x == pytest.approx(160.0)


def test_places_are_free_and_agree_and_the_group_is_named() -> None:
    now = table(held("a", 0.0), held("b", 120.0), held("c", 300.0), across=True, blocked=((600.0, 0.0, 700.0, 500.0),))
    found = lattice(now, ("b·1",))
    assert (found.along, found.across) == (40.0, 50.0) and found.group == ("b·1", "a·1") == group_of(now, "b·1")
    assert len(found.places) > 20
    for x, y in found.places:
        assert (x - 120.0) % 40.0 == pytest.approx(0.0, abs=1e-6) or (x - 120.0) % 40.0 == pytest.approx(40.0, abs=1e-6)
        assert y % 50.0 == pytest.approx(0.0, abs=1e-6) and 0 <= y <= 440
        assert not 500 < x < 700, "nothing lies on what is kept off"
        boxes = [box(one.x, one.y, one.x + 100, one.y + 60) for one in now.hand.held if one.key != "b·1"]
        assert all(box(x, y, x + 100, y + 60).intersection(other).area < 1e-6 for other in boxes)


def test_what_meets_nothing_or_is_locked_takes_no_steps() -> None:
    now = table(held("a", 0.0), held("b", 120.0, locked=True), held("c", 300.0))
    assert lattice(now, ("c·1",)).places == () and lattice(now, ("c·1",)).group == ("c·1",)
    with pytest.raises(CannotMove, match="Nothing of it meets bars that way"):
        stepped(now, ("c·1",), 1, 0)
    with pytest.raises(CannotMove, match="Nothing of it meets bars that way"):
        stepped(now, ("a·1",), 0, 1)
    with pytest.raises(CannotMove, match="locked"):
        stepped(now, ("b·1",), 1, 0)
    walled = table(held("a", 0.0), held("b", 120.0), blocked=((230.0, 0.0, 30_000.0, 500.0),))
    with pytest.raises(CannotMove, match="no further place"):
        stepped(walled, ("b·1",), 1, 0)
