"""A lay in the hand: whatever is done to it, what is told of it is what the checker finds, and nothing is lost."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from typing import Any

import hypothesis.strategies as st
import pytest
import shapely
from hypothesis import HealthCheck, settings
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule
from shapely import Polygon, affinity, box

from idle_selvage.core.lay.answer import Lay, Section, to_json
from idle_selvage.core.lay.broken import broken
from idle_selvage.core.lay.check import faults_of
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.hand import (
    Change,
    HandLay,
    applied,
    as_lay,
    change_json,
    change_of,
    cuts_by_key,
    held,
    replayed,
    tray,
    visible,
)
from idle_selvage.core.lay.lattice import stepped
from idle_selvage.core.lay.lit import lit
from idle_selvage.core.lay.meeting import forbidden
from idle_selvage.core.lay.moves import (
    CannotMove,
    Table,
    in_one_layer,
    locked,
    moved,
    nudged,
    on_two_layers,
    posed,
    put_aside,
    taken_anywhere,
    with_grain,
    with_stretch,
    without_stretch,
)
from idle_selvage.core.lay.problem import FOLDS, Problem
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.lay.seats import Grip
from idle_selvage.core.lay.sliding import caught, nearest

from .lay_cases import rectangle, shirt

MARGINS = (12.0, 9.0)


def garment(kind: str) -> dict[str, Any]:
    """Pairs, pieces on the fold, across the grain, on the bias; on cloth with a flaw, with nap, with bars, with a
    border."""
    data = shirt()
    data["pieces"].append(
        {"id": "tie", "outline": [[0, 0], [260, 0], [230, 70], [20, 60]], "copies": 2, "grain": "bias"}
    )
    if kind == "flaw":
        data["cloth"]["blocked"] = [[300, 400, 360, 450], [700, 20, 730, 60]]
    if kind == "nap":
        data["cloth"]["one_way"] = True
    if kind == "bars":
        data["cloth"]["bars"] = {"x_repeat": 60, "y_repeat": 40, "x_axes": [0, 30], "y_axes": [0, 20]}
        data["cloth"]["gap"] = 0
        for piece in data["pieces"][:2]:
            piece["match"] = [{"group": "side", "point": [300, 0], "along": True, "across": False}]
        data["pieces"][4]["centre_on_axis"] = "x"
    if kind == "border":
        data["pieces"] = data["pieces"][3:5]
        data["pieces"].append(
            rectangle("panel", 500, 300, copies=2, border={"edge": "hem", "selvage": "low", "distance": 15})
        )
        strip = rectangle("frill", 700, 60, border={"edge": "side", "selvage": "low", "distance": 10})
        data["pieces"].append(strip)
        data["cloth"]["blocked"] = [[0, 0, 5000, 80]]
    if kind == "narrow":
        for piece in data["pieces"]:
            piece["outline"] = [[x, 0.6 * y] for x, y in piece["outline"]]
            if piece["id"] == "collar":
                del piece["grain"]
    data["folds"] = list(FOLDS)
    return data


@lru_cache
def begun(kind: str) -> tuple[Problem, tuple[tuple[str, Lay], ...]]:
    asked = read_problem(garment(kind))
    lays = dict(solve(asked, steps=300, clock=lambda: 0.0).alternatives)
    # a stretch in one layer behind a folded one, for a hand to lay on
    for fold in ("lengthwise", "partial", "double"):
        if fold in lays:
            lay = lays[fold]
            lays[f"{fold}, open"] = replace(lay, sections=(*lay.sections, Section(lay.length, lay.length, "open")))
    return asked, tuple(lays.items())


CASES = [(kind, fold) for kind in ("plain", "flaw", "nap", "bars", "border", "narrow") for fold, _ in begun(kind)[1]]


def told(hand: HandLay, asked: Problem) -> set[tuple[object, ...]]:
    """What the screen says is broken, as the checker would name it."""
    out: set[tuple[object, ...]] = set()
    for one in broken(hand, asked):
        if one.kind in ("count", "sides"):
            out.add((one.kind, one.piece))
        elif one.kind == "match":
            out.add((one.kind, *one.what))
        else:
            out |= {(one.kind, key) for key in one.keys}
    return out


def found(hand: HandLay, asked: Problem, base: Lay) -> set[tuple[object, ...]]:
    """What the checker finds."""
    theirs = hand.asked(asked)
    lay = to_json(as_lay(hand, theirs, base))
    # what is left over is told there; here it is a broken rule
    lay = {**lay, "complete": True, "left_over": []}
    keys = {(cut.piece, cut.copy): key for key, cut in cuts_by_key(hand, {p.id: p for p in theirs.pieces})}
    out: set[tuple[object, ...]] = set()
    faults = faults_of(problem_json(theirs), lay)
    selvage = {(fault.kind, fault.copies[0][0]) for fault in faults if fault.kind == "selvage"}
    for fault in faults:
        if fault.kind in ("count", "sides"):
            out.add((fault.kind, fault.copies[0][0]))
        elif fault.kind == "match":
            out.add((fault.kind, *fault.what))
        elif fault.kind == "ground" and ("selvage", fault.what[0]) in selvage:
            continue  # over a selvage: told already
        elif fault.copies:
            out |= {(fault.kind, keys[copy]) for copy in fault.copies}
        else:
            out.add((fault.kind, fault.told))
    missing = {piece for kind, piece, *_ in out if kind == "count"}
    # half a pair is no wrong pair while the other half lies aside
    return {one for one in out if not (one[0] == "sides" and one[1] in missing and not _over(hand, asked, one[1]))}


def _over(hand: HandLay, asked: Problem, piece: object) -> bool:
    return any(one.kind == "sides" and one.piece == piece for one in broken(hand, asked))


class ByHand(RuleBasedStateMachine):
    """A maker who moves pieces about at random."""

    def __init__(self) -> None:
        super().__init__()
        self.begin(CASES[0])

    @initialize(case=st.sampled_from(CASES))
    def begin(self, case: tuple[str, str]) -> None:
        kind, fold = case
        self.asked, lays = begun(kind)
        self.base = dict(lays)[fold]
        self.pieces = {p.id: p for p in self.asked.pieces}
        self.hand = held(self.base)
        self.changes: list[Change] = []
        self.were = [self.hand]

    def do(self, change: Change) -> None:
        assert change_of(change_json(change)) == change
        self.changes.append(change)
        self.hand = applied(self.hand, change, self.pieces)
        self.were.append(self.hand)

    def attempt(self, gesture: Any) -> None:
        try:
            change = gesture(Table(self.hand, self.asked, MARGINS))
        except CannotMove as why:
            assert str(why).endswith(".")
            return
        self.do(change)

    def any_key(self, pick: int) -> str | None:
        keys = [one.key for one in self.hand.held]
        return keys[pick % len(keys)] if keys else None

    @rule(pick=st.integers(0, 99), x=st.floats(-200, 2500), y=st.floats(-200, 1300), loose=st.booleans())
    def drag(self, pick: int, x: float, y: float, loose: bool) -> None:
        key = self.any_key(pick)
        if key is None:
            return

        def gesture(table: Table) -> Change:
            grip = Grip((key,), loose=loose)
            grounds = table.grounds(grip)
            near = caught(grounds, x, y, 8.0, step=100.0)
            if near is None:
                raise CannotMove("No room.")
            return moved(table, grip, near.x, near.y, near.seat.section, grounds)

        self.attempt(gesture)

    @rule(picks=st.lists(st.integers(0, 99), min_size=2, max_size=3), dx=st.floats(-300, 300), dy=st.floats(-200, 200))
    def drag_several(self, picks: list[int], dx: float, dy: float) -> None:
        keys = tuple(dict.fromkeys(key for key in map(self.any_key, picks) if key is not None))
        if len(keys) < 2:
            return

        def gesture(table: Table) -> Change:
            grip = Grip(keys)
            first = table[keys[0]]
            near = nearest(table.grounds(grip), first.x + dx, first.y + dy)
            if near is None:
                raise CannotMove("No room.")
            return moved(table, grip, near.x, near.y, near.seat.section)

        self.attempt(gesture)

    @rule(pick=st.integers(0, 99), dx=st.sampled_from([-10.0, -1.0, 0.0, 1.0]), dy=st.sampled_from([-10.0, 0.0, 1.0]))
    def nudge(self, pick: int, dx: float, dy: float) -> None:
        if key := self.any_key(pick):
            self.attempt(lambda table: nudged(table, (key,), dx, dy))

    @rule(pick=st.integers(0, 99), along=st.integers(-1, 1), across=st.integers(-1, 1))
    def step(self, pick: int, along: int, across: int) -> None:
        """From bar to bar: one that met its group before still does."""
        key = self.any_key(pick)
        if key is not None:
            self.attempt(lambda table: stepped(table, (key,), along, across))

    @rule(pick=st.integers(0, 99), by=st.sampled_from([180, 90, 3, -5]), over=st.booleans())
    def pose(self, pick: int, by: int, over: bool) -> None:
        if key := self.any_key(pick):
            self.attempt(lambda table: posed(table, key, by=0 if over else by, over=over))

    @rule(pick=st.integers(0, 99))
    def aside(self, pick: int) -> None:
        if key := self.any_key(pick):
            self.attempt(lambda table: put_aside(table, [key]))

    @rule(pick=st.integers(0, 9))
    def take(self, pick: int) -> None:
        there = tray(self.hand, self.asked)
        if there:
            self.attempt(lambda table: taken_anywhere(table, there[pick % len(there)].piece))

    @rule(pick=st.integers(0, 99), on=st.booleans())
    def lock(self, pick: int, on: bool) -> None:
        if key := self.any_key(pick):
            self.do(locked(Table(self.hand, self.asked), [key], on))

    @rule(pick=st.integers(0, 99), two=st.booleans())
    def layers(self, pick: int, two: bool) -> None:
        if key := self.any_key(pick):
            self.attempt(lambda table: on_two_layers(table, key) if two else in_one_layer(table, key))

    @rule(pick=st.integers(0, 9), grain=st.sampled_from(["lengthwise", "crosswise", "bias", "any"]))
    def grain(self, pick: int, grain: Any) -> None:
        piece = self.asked.pieces[pick % len(self.asked.pieces)]
        if not (piece.match or piece.centre_on_axis):
            self.attempt(lambda table: with_grain(table, piece.id, grain, "the print looks better"))

    @rule(fold=st.sampled_from(["open", "lengthwise", "partial", "double", "crosswise"]), depth=st.floats(50, 900))
    def stretch(self, fold: str, depth: float) -> None:
        self.attempt(lambda table: with_stretch(table, fold, depth))

    @rule()
    def no_stretch(self) -> None:
        self.attempt(without_stretch)

    @rule(times=st.integers(1, 5))
    def undo(self, times: int) -> None:
        for _ in range(min(times, len(self.changes))):
            self.changes.pop()
            self.were.pop()
        self.hand = replayed(self.base, self.changes, self.asked)
        assert self.hand == self.were[-1], "to the micrometre"

    @invariant()
    def the_screen_tells_what_the_checker_finds(self) -> None:
        assert told(self.hand, self.asked) == found(self.hand, self.asked, self.base)

    @invariant()
    def nothing_is_lost_or_made(self) -> None:
        lay = as_lay(self.hand, self.asked, self.base)
        aside = {one.piece: one.count for one in tray(self.hand, self.asked)}
        for piece in self.asked.pieces:
            assert sum(cut.piece == piece.id for cut in lay.cut) + aside.get(piece.id, 0) == piece.copies


ByHand.TestCase.settings = settings(
    max_examples=25, stateful_step_count=15, deadline=None, suppress_health_check=list(HealthCheck), print_blob=True
)
TestByHand = ByHand.TestCase


def free_by_force(hand: HandLay, asked: Problem, key: str, moved_to: HandLay) -> bool:
    """Whether a moved placement keeps off all others and the flaws, looked at copy by copy on the open cloth."""
    pieces = {p.id: p for p in asked.pieces}

    def shapes(lay: HandLay) -> list[tuple[str, Polygon]]:
        lay_ = as_lay(lay, asked, BASE)
        picture = draw(lay_, pieces, asked.width, view="opened", keys=[one.key for one in lay.held])
        return [(shape.pinned, Polygon(shape.outline)) for shape in picture.shapes]

    after = shapes(moved_to)
    mine = [shape for name, shape in after if name == key]
    others = [shape for name, shape in after if name != key] + [Polygon(area) for area in asked.kept_off]
    # a crosswise fold moves out as far as a piece is carried
    start = -1e6 if hand.sections[0].fold == "crosswise" else 0.0
    if any(not box(start, -0.05, 1e6, asked.width + 0.05).covers(shape) for shape in mine):
        return False
    near = [(a, b) for k, a in enumerate(mine) for b in (*others, *mine[k + 1 :])]
    return all(a.distance(b) >= asked.gap - 0.06 if asked.gap else a.buffer(-0.03).disjoint(b) for a, b in near)


BASE = begun("plain")[1][0][1]


@pytest.mark.parametrize(("kind", "fold"), [c for c in CASES if c[0] in ("flaw", "narrow", "plain")])
def test_the_ground_of_a_piece_is_what_is_free_by_force(kind: str, fold: str) -> None:
    asked, lays = begun(kind)
    hand = held(dict(lays)[fold])
    rng = random.Random(f"{kind} {fold}")
    tried = {True: 0, False: 0}
    for one in hand.held:
        for legal in Table(hand, asked).grounds(Grip((one.key,))):
            seat, b = legal.seat, legal.seat.box
            if seat.section != one.section or (seat.turn, seat.mirrored) != (one.turn, one.mirrored):
                continue
            whole = legal.whole
            for _ in range(6):
                x, y = rng.uniform(b.x0, min(b.x1, hand.sections[-1].end + 400)), rng.uniform(b.y0, b.y1)
                at = shapely.Point(x, y)
                if whole.geom_type.endswith("Polygon") and whole.boundary.distance(at) < 0.3:
                    continue
                told_free = whole.distance(at) < 1e-6
                put = replace(one, x=x, y=y, layers=seat.layers)
                there = replace(hand, held=tuple(put if h.key == one.key else h for h in hand.held))
                assert told_free == free_by_force(hand, asked, one.key, there), (one.key, x, y)
                tried[told_free] += 1
    # a stretch with another one behind it does not go on
    assert tried[False] >= 3 and (tried[True] >= 3 or "," in fold), tried


def test_the_nearest_place_is_the_nearest_and_touches() -> None:
    asked, lays = begun("plain")
    hand = held(dict(lays)["open"])
    for one in hand.held[:4]:
        grounds = Table(hand, asked).grounds(Grip((one.key,)))
        (whole,) = (legal.whole for legal in grounds)
        for x, y in ((one.x + 90, one.y - 40), (0.0, 0.0), (900.0, 2000.0), (-500.0, 300.0)):
            near = nearest(grounds, x, y)
            assert near is not None
            far = whole.distance(shapely.Point(x, y))
            assert shapely.Point(x, y).distance(shapely.Point(near.x, near.y)) == pytest.approx(far, abs=1e-3)


def test_what_may_not_lie_on_another_is_its_minkowski_sum() -> None:
    rng = random.Random(4)
    star = [(0, 0), (300, 40), (90, 90), (200, 260), (60, 120), (-80, 200)]
    other = [(0, 0), (120, 0), (40, 40), (0, 150)]
    for gap in (0.0, 3.0):
        ground = forbidden(
            shapely.get_coordinates(Polygon(star))[:-1], shapely.get_coordinates(Polygon(other))[:-1], gap
        )
        for _ in range(300):
            x, y = rng.uniform(-300, 450), rng.uniform(-300, 450)
            if ground.boundary.distance(shapely.Point(x, y)) < 0.15:
                continue
            moved_ = affinity.translate(Polygon(other), x, y)
            over = moved_.intersects(Polygon(star)) if gap == 0 else moved_.distance(Polygon(star)) < gap
            assert ground.contains(shapely.Point(x, y)) == over


def test_what_is_lit_can_be_covered_and_where_it_lies_is_lit() -> None:
    asked, lays = begun("flaw")
    hand = held(dict(lays)["open"])
    pieces = {p.id: p for p in asked.pieces}
    one = hand["pocket·1"]
    grounds = Table(hand, asked).grounds(Grip((one.key,)))
    bands = lit(grounds, hand.sections[-1].end + 300)
    light = shapely.union_all([box(a, band.low, b, band.high) for band in bands for a, b in band.runs])
    assert Polygon(visible(hand, one, pieces)).difference(light.buffer(10)).area < 1
    others = shapely.union_all([Polygon(visible(hand, h, pieces)) for h in hand.held if h.key != one.key])
    assert light.buffer(-15).intersection(others.buffer(-15)).area == 0


def test_a_pair_carried_to_a_single_layer_leaves_its_other_copy_on_the_tray() -> None:
    asked, lays = begun("plain")
    hand = held(dict(lays)["lengthwise, open"])
    table = Table(hand, asked)
    grip = Grip(("front·1",))
    grounds = table.grounds(grip)
    near = nearest([g for g in grounds if g.seat.section == 1], hand.sections[1].start + 50, 100)
    assert near is not None and near.seat.layers == 1
    after = applied(hand, moved(table, grip, near.x, near.y, 1, grounds), table.pieces)
    assert [(a.piece, a.count) for a in tray(after, asked)] == [("front", 1)]
    assert [one.kind for one in broken(after, asked)] == ["count"]


def test_what_is_locked_does_not_move() -> None:
    asked, lays = begun("plain")
    hand = held(dict(lays)["open"])
    table = Table(hand, asked)
    fast = applied(hand, locked(table, ["back·1"], True), table.pieces)
    table = Table(fast, asked)
    gestures: list[Callable[[Table], Change]] = [
        lambda t: put_aside(t, ["front·1", "back·1"]),
        lambda t: nudged(t, ("back·1",), 1, 0),
        lambda t: posed(t, "back·1", by=180),
        lambda t: moved(t, Grip(("back·1",)), 0, 0, 0),
    ]
    for gesture in gestures:
        with pytest.raises(CannotMove, match="is locked"):
            gesture(table)


def test_a_piece_that_is_gone_is_said_to_be() -> None:
    asked, lays = begun("plain")
    with pytest.raises(CannotMove, match="not on the lay"):
        put_aside(Table(held(dict(lays)["open"]), asked), ["front·9"])
