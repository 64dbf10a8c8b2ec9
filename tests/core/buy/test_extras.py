"""What each rule of the cloth costs."""

from __future__ import annotations

import pytest

from idle_selvage.core.buy.extras import extras, ladder, rules_of, without
from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem

from .cases import rectangle


def ruled() -> Problem:
    fronts = LayPiece(
        "Front", rectangle(300, 200), 2, True, match=(Match("side", (10.0, 0.0), along=True),), centre_on_axis=None
    )
    return Problem(
        700,
        (fronts, LayPiece("Band", rectangle(500, 60))),
        one_way=True,
        blocked=((0.0, 0.0, 50.0, 50.0),),
        bars=Bars(40.0, None, (20.0,), ()),
    )


def test_rules_are_taken_away_one_after_another() -> None:
    full = ruled()
    assert rules_of(full) == ("nap", "matching", "flaws")
    (_, plain), (_, napped), (_, matched) = ladder(full)
    assert rules_of(plain) == () and rules_of(napped) == ("nap",) and rules_of(matched) == ("nap", "matching")
    assert matched.pieces == full.pieces and not matched.blocked
    assert [p.outline for p in plain.pieces] == [p.outline for p in full.pieces]


def test_bars_that_read_differently_up_and_down_are_a_direction_and_go_with_it() -> None:
    full = ruled()
    unbalanced = Problem(full.width, full.pieces, folds=full.folds, bars=Bars(40.0, None, (), ()))
    assert rules_of(unbalanced) == ("nap", "matching")
    assert not without(unbalanced, ["nap"]).directed
    assert without(unbalanced, ["matching"]).directed, "without matching, the tops still lie one way"


def test_an_unlucky_search_never_makes_a_rule_pay_out() -> None:
    found = extras(ruled(), 1000.0, {"nap": 900.0, "matching": 1040.0, "flaws": 990.0})
    # the lay with nap alone came out longer than the one with nap and matching: the shorter holds for both
    assert [(e.rule, e.adds) for e in found] == [("nap", 90.0), ("matching", 0.0), ("flaws", 10.0)]
    assert extras(ruled(), 1000.0, {"nap": 900.0}) == (), "nothing is told before all is measured"
    assert sum(e.adds for e in found) + 900 == pytest.approx(1000)


def test_what_tops_one_way_cost_on_stripes_that_are_not_balanced_is_a_rule_of_its_own() -> None:
    fronts = LayPiece("Front", rectangle(300, 200), 2, match=(Match("side", (10.0, 0.0), across=True),))
    striped = Problem(700, (fronts,), bars=Bars(None, 40.0, (), ()))
    assert rules_of(striped) == ("matching", "tops")
    (_, free), (_, turned) = ladder(striped)
    assert turned.turn_on_bars and turned.pieces == striped.pieces and not free.turn_on_bars
    assert rules_of(turned) == ("matching",), "the maker allows it: it costs nothing any more"
    balanced = Problem(700, (fronts,), bars=Bars(None, 40.0, (), (20.0,)))
    assert rules_of(balanced) == ("matching",)
    napped = Problem(700, (fronts,), one_way=True, bars=Bars(None, 40.0, (), ()))
    assert rules_of(napped) == ("nap", "matching"), "they lie one way in any case"
