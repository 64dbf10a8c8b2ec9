"""How sure a seam is: against the closed form, and that each doubt makes it less sure."""

from __future__ import annotations

import math

import pytest

from idle_selvage.core.lay.problem import Bars
from idle_selvage.core.match.chance import DRAWS, Doubt, chances, hand_from
from idle_selvage.core.match.judged import on_lay

from .cases import LEFT, RIGHT, cut, panel, sewn

BARS = Bars(40.0, 50.0, (0.0,), (10.0,))


def chance(doubt: Doubt, off: float = 0.0, across: float = 0.0, **said: object) -> float:
    side = sewn("front", RIGHT, "back", LEFT, **said)
    pieces = {key: panel(key) for key in ("front", "back")}
    judged = on_lay([side], pieces, [cut("front"), cut("back", x=off, y=across)], BARS)
    found = chances(judged, BARS, doubt)[0]
    assert found is not None
    return found


@pytest.mark.parametrize(("hand", "off"), [(0.4, 0.0), (0.7, 0.0), (1.2, 0.0), (0.7, 1.0), (0.7, 3.0)])
def test_the_hand_alone_has_a_closed_form(hand: float, off: float) -> None:
    """Two pieces, each laid off by a normal error of one deviation: their difference is normal with √2 of it, so the
    chance to stay within 1.5 mm is a difference of two values of the error function."""
    wide = hand * math.sqrt(2) * math.sqrt(2)
    wanted = (math.erf((1.5 - off) / wide) + math.erf((1.5 + off) / wide)) / 2
    # four standard deviations of a share of so many draws
    within = 4 * math.sqrt(max(wanted * (1 - wanted), 1e-4) / DRAWS)
    assert chance(Doubt(hand), off) == pytest.approx(wanted, abs=within)


def test_a_lean_counts_by_how_far_apart_the_pieces_lie_across_the_cloth() -> None:
    # the seam of a piece right beside: 200 mm of the panels lie between the edges; 1000 mm further off it is 1200
    near, far = (chance(Doubt(0.01, slant=0.2), across=y) for y in (-200.0, 1000.0))
    assert near > 0.99 and far < near
    # by hand: 1200 × tan(N(0, 0.2°)) within 1.5 mm: 1200 × 0.00349 = 4.19 is one deviation
    assert far == pytest.approx(math.erf(1.5 / (4.189 * math.sqrt(2))), abs=0.05)


def test_uneven_repeats_count_by_how_many_lie_between() -> None:
    few, many = (chance(Doubt(0.01, uneven=(0.4, 0.0)), off=40.0 * n) for n in (1, 64))
    assert few > 0.99 and many == pytest.approx(math.erf(1.5 / (0.4 * 8 * math.sqrt(2))), abs=0.05)


def test_two_ways_to_miss_are_less_sure_than_one_and_nothing_asked_has_no_chance() -> None:
    # beside each other across the bars so that both match
    both = chance(Doubt(0.7), across=-200.0, lengthwise=True)
    assert both < chance(Doubt(0.7), across=-200.0) - 0.05
    side = sewn("front", RIGHT, "back", LEFT, levels=False)
    judged = on_lay([side], {key: panel(key) for key in ("front", "back")}, [cut("front"), cut("back")], BARS)
    assert chances(judged, BARS, Doubt()) == (None,)
    assert chance(Doubt(0.7)) == chance(Doubt(0.7)), "one seed, one answer"


def test_a_seam_on_both_sides_of_the_body_comes_out_only_where_both_do() -> None:
    """Left and right are each laid by themselves: by hand, the chance of one, squared."""
    side = sewn("front", RIGHT, "back", LEFT)
    pieces = {key: panel(key, copies=2, pair=True) for key in ("front", "back")}
    cuts = [cut(key, y=y, mirrored=turned) for key in pieces for turned, y in ((False, 0.0), (True, 400.0))]
    judged = on_lay([side], pieces, cuts, BARS)
    assert len(judged[0].mets) == 2
    one, two = math.erf(1.5 / 2.0), chances(judged, BARS, Doubt(1.0))[0]
    assert two == pytest.approx(one * one, abs=4 * math.sqrt(0.25 / DRAWS))
    assert one - one * one > 8 * math.sqrt(0.25 / DRAWS), "near enough to one alone the test says nothing"


def test_a_hand_is_learned_from_what_was_laid_and_measured() -> None:
    assert hand_from([1.0, -1.0, 2.0]) is None, "three pieces say little"
    # by hand: √((1 + 1 + 4 + 4) ÷ 4) = 1.581
    assert hand_from([1.0, -1.0, 2.0, -2.0]) == pytest.approx(1.5811, abs=1e-4)
