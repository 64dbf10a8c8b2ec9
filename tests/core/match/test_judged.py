"""What bars come to at a seam: hand-worked cases, who is sewn to whom, before and after there is a lay."""

from __future__ import annotations

import math

import pytest

from idle_selvage.core.lay.joined import Joined
from idle_selvage.core.lay.levels import Tie, levels
from idle_selvage.core.lay.problem import Bars
from idle_selvage.core.match.couples import couples, flanks
from idle_selvage.core.match.judged import foreseen, on_lay, verdict_of
from idle_selvage.core.plan.outline import Outline

from .cases import LEFT, RIGHT, cut, panel, sewn

BALANCED = Bars(40.0, 50.0, (0.0, 20.0), (10.0, 35.0))
#: Unbalanced along, and across.
DIRECTED = Bars(40.0, 50.0, (), ())


def worst(bars: Bars, one: object, *cuts: object, axis: str = "x") -> tuple[str, float]:
    pieces = {key: panel(key) for key in ("front", "back")}
    found = on_lay([one], pieces, cuts, bars)[0]  # type: ignore[list-item, arg-type]
    strip = found.mets[0].of(axis)  # type: ignore[arg-type]
    assert strip is not None
    return strip.kind, strip.worst


SIDE = sewn("front", RIGHT, "back", LEFT)


def test_bars_across_meet_when_both_have_one_place_in_the_repeat() -> None:
    assert worst(BALANCED, SIDE, cut("front", x=100), cut("back", x=220)) == ("on", pytest.approx(0.0))
    # 7 mm beside three whole repeats
    assert worst(BALANCED, SIDE, cut("front", x=100), cut("back", x=227)) == ("on", pytest.approx(7.0))
    # more than half a repeat is less than half the other way
    assert worst(BALANCED, SIDE, cut("front", x=100), cut("back", x=245)) == ("on", pytest.approx(15.0))


def test_a_piece_turned_end_for_end_meets_about_an_axis_of_balanced_bars_and_else_at_a_point() -> None:
    # turned, back's left edge runs down the cloth from x: its low end at 180 mirrors 100 about 140 = 3.5 repeats
    turned = cut("back", x=180, turn=180)
    assert worst(BALANCED, SIDE, cut("front", x=100), turned) == ("chevron", pytest.approx(0.0))
    assert worst(BALANCED, SIDE, cut("front", x=100), cut("back", x=183, turn=180)) == ("chevron", pytest.approx(3.0))
    kind, off = worst(DIRECTED, SIDE, cut("front", x=100), turned)
    assert kind == "point" and off == pytest.approx(20.0, abs=0.5), "half a repeat somewhere along the seam"


def slanted(degrees: float, long: float = 300.0, side: int = 1) -> Outline:
    a = math.radians(degrees)
    return ((0.0, 0.0), (long * math.cos(a), side * long * math.sin(a)))


def test_slanted_at_the_same_angle_bars_match_all_along_and_make_chevrons() -> None:
    gore = sewn("front", slanted(9.0), "back", slanted(9.0, side=-1))
    assert worst(BALANCED, gore, cut("front"), cut("back", x=80)) == ("on", pytest.approx(0.0, abs=1e-9))
    # along the garment the bars run against each other: mirrored about the axis at 10 (twice 10 is 20) they meet
    kind, off = worst(BALANCED, gore, cut("front", y=4), cut("back", y=16), axis="y")
    assert kind == "chevron" and off == pytest.approx(0.0, abs=1e-9)
    kind, off = worst(BALANCED, gore, cut("front", y=4), cut("back", y=18.5), axis="y")
    assert off == pytest.approx(2.5)


def test_at_different_angles_they_drift_apart_by_equal_sewn_length() -> None:
    # by hand: 300 × (cos 3° − cos 10°) = 300 × (0.998630 − 0.984808) = 4.147
    drift = sewn("front", slanted(3.0), "back", slanted(10.0, side=-1))
    kind, off = worst(BALANCED, drift, cut("front"), cut("back"))
    assert kind == "on" and off == pytest.approx(4.147, abs=2e-3) and verdict_of(off) == "misses"
    assert verdict_of(1.5) == "meets" and verdict_of(1.6) == "nearly" and verdict_of(3.0) == "nearly"


def test_a_curve_against_a_straight_edge() -> None:
    """A quarter of a circle of radius 100 sewn to a straight edge: at arc t the one has come up 100 sin t, the other
    100 t."""
    turns = [n * math.pi / 200 for n in range(101)]
    arc = tuple((100 * math.sin(t), 100 - 100 * math.cos(t)) for t in turns)
    hole = sewn("front", arc, "back", ((0.0, 0.0), (50 * math.pi, 0.0)))
    wide = Bars(1000.0, None, (0.0,))
    kind, off = worst(wide, hole, cut("front"), cut("back"))
    assert kind == "on" and off == pytest.approx(50 * math.pi - 100.0, abs=0.05)


def test_who_is_sewn_to_whom() -> None:
    front, back = panel("front", copies=2, pair=True), panel("back", on_fold=True)
    cuts = [cut("front", 1), cut("front", 2, mirrored=True), cut("back", 1)]
    side = sewn("front", RIGHT, "back", LEFT, mirrors=True)
    found = couples(side, front, back, cuts)
    assert [(c.a.cut.copy, c.a.hand, c.b.hand) for c in found] == [(1, 1, -1), (2, -1, 1)]
    # the mirrored half of a piece on the fold lies on its other side
    assert found[0].b.placed(((5.0, 90.0),)) == ((5.0, -90.0),) and found[1].b.placed(((5.0, 90.0),)) == ((5.0, 90.0),)
    middle = sewn("front", RIGHT, "front", RIGHT, mirrors=True)
    assert [(c.a.cut.copy, c.b.cut.copy) for c in couples(middle, front, front, cuts)] == [(1, 2)]
    gore = panel("gore", copies=3)
    ring = couples(sewn("gore", RIGHT, "gore", LEFT), gore, gore, [cut("gore", n) for n in (1, 2, 3)])
    assert [(c.a.cut.copy, c.b.cut.copy) for c in ring] == [(1, 2), (2, 3), (3, 1)]


def test_a_pocket_that_is_its_own_mirror_image_serves_either_side() -> None:
    pocket = panel("pocket", ((0.0, -60.0), (120.0, -60.0), (120.0, 60.0), (0.0, 60.0)), copies=2)
    front = panel("front", copies=2, pair=True)
    cuts = [cut("pocket", 1), cut("pocket", 2), cut("front", 1), cut("front", 2, mirrored=True)]
    top: Outline = ((120.0, -60.0), (120.0, 60.0))
    found = couples(sewn("pocket", top, "front", ((300.0, -30.0), (300.0, 90.0))), pocket, front, cuts)
    assert [(c.a.cut.copy, c.a.hand, c.b.cut.copy) for c in found] == [(1, 1, 1), (2, -1, 2)]
    # on the mirrored front its left is where its right was
    assert found[1].a.placed(top) == ((120.0, 60.0), (120.0, -60.0))


def test_copies_of_a_pair_on_cloth_without_a_wrong_side_are_told_apart_by_number() -> None:
    pair = panel("front", copies=2, pair=True)
    assert [f.hand for f in flanks(pair, [cut("front", 1), cut("front", 2)])] == [1, -1]


def test_before_a_lay_levels_are_foreseen_and_the_lay_comes_to_the_same() -> None:
    """The bars a seam will have follow from the graph alone; laid as the graph asks, the lay says the same."""
    drift = sewn("front", slanted(3.0), "back", slanted(10.0, side=-1), key_a=150.0)
    key_a, key_b = drift.key
    graph = levels([Tie("1", "front", "back", key_a[0], key_b[0])], 40.0)
    ahead = foreseen([drift], Joined(levels=graph), BALANCED)[0]
    # laid as asked: the zero of both on one place of the repeat
    cuts = [cut("front", x=500 - graph.zero["front"]), cut("back", x=620 - graph.zero["back"], y=300)]
    laid = on_lay([drift], {key: panel(key) for key in ("front", "back")}, cuts, BALANCED)[0]
    assert ahead.worst == pytest.approx(laid.mets[0].of("x").worst, abs=1e-9)  # type: ignore[union-attr]
    assert ahead.worst == pytest.approx(4.147 / 2, abs=2e-3), "met in the middle it misses by half at both ends"
    assert ahead.verdict == "nearly" and foreseen([drift], Joined(), BALANCED)[0].verdict == "unknown"


def test_what_is_not_asked_or_not_there_is_said_so() -> None:
    silent = sewn("front", RIGHT, "back", LEFT, levels=False)
    found = on_lay([silent], {key: panel(key) for key in ("front", "back")}, [cut("front"), cut("back", x=7)], BALANCED)
    assert found[0].verdict == "not asked" and found[0].worst is None
    gone = on_lay([SIDE], {"front": panel("front")}, [cut("front")], BALANCED)[0]
    assert gone.verdict == "unknown" and gone.why
    assert on_lay([SIDE], {key: panel(key) for key in ("front", "back")}, [], BALANCED)[0].why
