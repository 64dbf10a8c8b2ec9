"""Several garments from one length."""

from __future__ import annotations

from dataclasses import replace

import pytest

from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.buy.sharing import Sharer, apart, own_order, saving, shared_order, together
from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem
from idle_selvage.core.working import Figure

SQUARE = ((0.0, 0.0), (200.0, 0.0), (200.0, 100.0), (0.0, 100.0))
OWN = Problem(1400.0, (LayPiece("Front", SQUARE),), gap=3.0, folds=("open",), blocked=((0.0, 0.0, 10.0, 10.0),))


def test_each_keeps_its_pieces_and_meets_only_its_own() -> None:
    meeting = LayPiece("21", SQUARE, match=(Match("side", (0.0, 0.0), along=True),))
    other = Problem(1100.0, (meeting, LayPiece("22", SQUARE)), gap=5.0, bars=Bars(x_repeat=60.0))
    both = together(OWN, [Sharer("1", OWN), Sharer("2", other), Sharer("3", None, "it has no pieces")])
    assert [p.id for p in both.pieces] == ["Front", "21", "22"]
    assert both.pieces[1].match[0].group == "2: side"
    assert (both.width, both.blocked) == (OWN.width, OWN.blocked), "it is the first one's cloth"
    assert both.gap == 5.0 and both.bars == other.bars


def test_apart_is_known_only_when_all_are() -> None:
    one, two = Figure(1400.0, "purchase"), Figure(900.0, "purchase")
    assert apart([]) is None and apart([one, None]) is None
    found = apart([one, two])
    assert found is not None and found.value == 2300.0 and len(found.steps[0].inputs) == 2


def test_what_is_saved_worked_by_hand() -> None:
    there = saving(Figure(2300.0, "purchase"), Figure(1900.0, "purchase"), 12.5)
    assert there is not None and there.length.value == 400.0 and there.worth
    assert there.money is not None and there.money.value == pytest.approx(5.0)
    assert saving(None, Figure(1.0, "purchase"), 1.0) is None and saving(Figure(1.0, "purchase"), None, 1.0) is None
    none = saving(Figure(1900.0, "purchase"), Figure(1900.0, "purchase"), None)
    assert none is not None and not none.worth and none.money is None
    assert not replace(none, length=Figure(-300.0, "purchase")).worth, "dearer together saves nothing"


def test_together_every_garment_keeps_its_spare() -> None:
    # by hand: a lay of 1100, ends 0, spares 50 and 100: 1250, so 1.30 m; without the second spare it would be 1.20 m
    own, other = (
        Order(ends=0.0, spare=50.0, step=100.0),
        Order(ends=0.0, spare=100.0, bought_extra=30.0, why="a border"),
    )
    shared = shared_order(own, [replace(other, bought_extra=0.0)])
    assert purchase(1100.0, Figure(0.0, "percent"), shared).to_buy.value == 1300.0
    both = shared_order(replace(own, bought_extra=10.0, why="a dye lot"), [other])
    assert (both.spare, both.bought_extra, both.why) == (150.0, 40.0, "a dye lot; a border")
    alone = own_order(other, own)
    assert (alone.spare, alone.bought_extra, alone.step, alone.ends) == (100.0, 30.0, own.step, own.ends)


def test_pieces_are_turned_on_the_bars_only_where_every_garment_allows_it() -> None:
    meeting = LayPiece("Front", SQUARE, match=(Match("side", (0.0, 0.0), along=True),))
    directed = Problem(1400.0, (meeting,), bars=Bars(x_repeat=60.0))
    allowed = replace(directed, turn_on_bars=True)
    # as a garment that meets nothing is asked for: its tops lie one way by the bars, or any way where that is wished
    held, free = replace(OWN, one_way=True), OWN
    for own, other, turned in (
        (allowed, allowed, True), (allowed, directed, False), (directed, allowed, False),
        (allowed, held, False), (allowed, free, True), (free, allowed, True), (free, directed, False),
    ):  # fmt: skip
        both = together(own, [Sharer("1", own), Sharer("2", other)])
        assert (both.turn_on_bars, both.directed) == (turned, not turned)
