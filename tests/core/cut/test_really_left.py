"""Laying the rest again on what is really left; the checker judges, with the cut cloth as it was cut."""

from __future__ import annotations

import random
from time import monotonic
from typing import Any

import pytest
import shapely
from shapely import Polygon
from shapely.ops import unary_union

from idle_selvage.core.cut.really_left import (
    asked_of,
    dressed,
    holes,
    is_over,
    over_of,
    part_of,
    phases,
    really_there,
    rest_pieces,
    rest_problem,
    shape_of,
    whole_id,
)
from idle_selvage.core.cut.round import cuts_of, round_to_cut
from idle_selvage.core.cut.tally import Deed, tally
from idle_selvage.core.lay.answer import Cut, to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.in_two import in_two
from idle_selvage.core.lay.outlined import around
from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.plan.piece import DrawnMark

from ..lay.lay_cases import random_problem

SLANTED = ((0.0, 0.0), (300.0, 0.0), (280.0, 120.0), (0.0, 160.0))


@pytest.mark.parametrize("seed", range(40))
def test_holes_cover_all_that_was_cut_and_no_more_than_a_hair_beside(seed: int) -> None:
    chance = random.Random(seed)
    shapes = []
    for _ in range(chance.randint(1, 9)):
        x, y = chance.uniform(0, 800), chance.uniform(0, 800)
        ring = Polygon([(x, y), (x + chance.uniform(20, 300), y + 5), (x + 90, y + chance.uniform(30, 200))])
        shapes.append(tuple((float(a), float(b)) for a, b in ring.exterior.coords[:-1]))
    cut = unary_union([Polygon(one) for one in shapes])
    found = holes(shapes)
    there = unary_union([Polygon(one) for one in found])
    assert cut.difference(there).area < 1e-6
    # slivers between cuts that are nearer than half a millimetre are no ground either
    assert there.difference(cut.buffer(1.5)).is_empty
    assert all(Polygon(one).is_valid for one in found)


def test_cloth_inside_a_ring_of_cuts_is_still_cloth() -> None:
    ring = [
        ((0.0, 0.0), (300.0, 0.0), (300.0, 50.0), (0.0, 50.0)),
        ((0.0, 250.0), (300.0, 250.0), (300.0, 300.0), (0.0, 300.0)),
        ((0.0, 50.0), (50.0, 50.0), (50.0, 250.0), (0.0, 250.0)),
        ((250.0, 50.0), (300.0, 50.0), (300.0, 250.0), (250.0, 250.0)),
    ]
    there = unary_union([Polygon(one) for one in holes(ring)])
    assert not there.intersects(Polygon([(51, 51), (249, 51), (249, 249), (51, 249)]))
    left = really_there(300.0, 300.0, ring)
    assert left.area == pytest.approx(200.0**2)


def test_a_remnant_is_told_by_what_lies_around_it() -> None:
    frame = ((0.0, 0.0), (200.0, 0.0), (200.0, 80.0), (90.0, 150.0), (0.0, 150.0))
    outside = unary_union([Polygon(one) for one in around(frame, 200.0, 150.0)])
    assert outside.area == pytest.approx(200 * 150 - Polygon(frame).area)
    assert outside.intersection(Polygon(frame)).area == pytest.approx(0.0, abs=1e-6)


def test_copies_are_owed_by_their_side() -> None:
    pair = LayPiece("front", SLANTED, copies=4, pair=True, name="Front")
    problem = Problem(800.0, (pair, LayPiece("back", SLANTED, name="Back")))
    assert asked_of(problem) == {"front": (2, 2), "back": (1, 0)}
    # a rectangle is its own mirror image
    square = LayPiece("cuff", ((0.0, 0.0), (90.0, 0.0), (90.0, 40.0), (0.0, 40.0)), copies=2, pair=True)
    assert asked_of(Problem(800.0, (square,))) == {"cuff": (2, 0)}
    found = rest_pieces(problem, {"front": (2, 1)})
    assert [(p.id, p.copies, p.pair) for p in found] == [("front", 2, True), ("front,single", 1, False)]
    over = rest_pieces(problem, {"front": (0, 1)})[0]
    assert is_over(over.id) and whole_id(over.id) == "front" and over.name == "Front (turned over)"
    assert Polygon(over.outline).area == pytest.approx(Polygon(SLANTED).area)


def test_a_piece_turned_over_is_the_mirrored_copy_of_its_pair() -> None:
    piece = LayPiece("front", SLANTED, copies=2, pair=True, match=(Match("side", (150.0, 0.0), across=True),))
    cut = Cut("front", 2, 500.0, 300.0, 0, True)
    told = over_of(piece, 1)
    same = Polygon(shape_of(told, Cut(told.id, 1, 500.0, 300.0, 0, False)))
    assert same.symmetric_difference(Polygon(shape_of(piece, cut))).area == pytest.approx(0.0, abs=1e-9)


def test_copies_cut_again_have_their_notches() -> None:
    """A problem that was kept and read again holds no marks: they are put on from the pieces as they are today."""
    notch = DrawnMark("notch", ((40.0, 0.0), (40.0, 6.0)))
    front = LayPiece(
        "front", SLANTED, copies=2, pair=True, name="Front", marks=(notch,), arrow=((9.0, 60.0), (200.0, 60.0))
    )
    today = Problem(800.0, (front,))
    over = over_of(front, 1)
    parts = in_two(front)
    assert parts is not None
    assert is_over(over.id + ", lower part") and part_of(parts[1].id) == ", upper part" and part_of("front") == ""
    kept = read_problem(problem_json(Problem(800.0, (over, *parts))))
    assert all(piece.marks == () for piece in kept.pieces)
    found = {piece.id: piece for piece in dressed(kept, today).pieces}
    assert found[over.id].marks == over.marks and found[over.id].marks[0].line[0] == (40.0, -0.0)
    assert found[over.id].arrow == ((9.0, -60.0), (200.0, -60.0))
    assert [mark.kind for mark in found[parts[0].id].marks] == ["notch", "join"], "the notch is on the lower part"
    assert [mark.kind for mark in found[parts[1].id].marks] == ["join"]


def spoiled(data: dict[str, Any], seed: int, chance: random.Random) -> tuple[Problem, Problem, list[Cut]] | None:
    """A random lay, cut in part, one copy of it spoilt: the first problem, that of the rest, and what was cut."""
    problem = read_problem(data)
    lay = solve(problem, seed=seed, steps=30, clock=monotonic).lay
    if not lay.complete:
        return None
    cuts = cuts_of(problem, lay)
    keys = list(cuts)
    chance.shuffle(keys)
    done = keys[: max(1, len(keys) // 2)]
    deeds = [Deed("cut", 1, key) for key in done]
    deeds.append(Deed("spoilt", 1, done[0], chance.randrange(len(cuts[done[0]]))))
    found = tally([round_to_cut(1, problem, lay)], [*deeds, Deed("left", 1)])
    owed = found.owed(asked_of(problem))
    gone = [cut for key in done for cut in cuts[key]]
    pieces = {p.id: p for p in problem.pieces}
    rest = rest_problem(problem, owed, gone, [shape_of(pieces[cut.piece], cut) for cut in gone])
    return problem, rest, gone


@pytest.mark.parametrize("seed", range(30))
def test_the_rest_is_laid_on_what_is_left_and_the_checker_agrees(seed: int) -> None:
    made = spoiled(random_problem(seed), seed, random.Random(seed))
    if made is None:
        pytest.skip("this one does not fit")
    problem, rest, gone = made
    told = problem_json(rest)
    # the format holds what is gone, and reads it back
    assert read_problem(told).kept_off == rest.kept_off
    lay = solve(rest, seed=1, steps=20, clock=monotonic).lay
    assert check_lay(told, to_json(lay)) == []
    pieces = {p.id: p for p in problem.pieces}
    again = {p.id: p for p in rest.pieces}
    old = unary_union([Polygon(shape_of(pieces[cut.piece], cut)) for cut in gone])
    for cut in lay.cut:
        new = Polygon(shape_of(again[cut.piece], cut)).buffer(-0.06)
        assert not new.intersects(old), "cut cloth is cut once"
    # with what is good, every copy that was asked for is there
    count = sum(cut.copy > 0 for cut in lay.cut)
    assert count == sum(p.copies for p in rest.pieces)


def test_the_rest_of_a_matched_garment_meets_what_was_cut() -> None:
    """Bars balanced across and along: a lost right front lies where the left one and the back already lie."""
    bars = Bars(60.0, 50.0, (0.0, 30.0), (10.0, 35.0))
    front = LayPiece(
        "front", SLANTED, copies=2, pair=True, match=(Match("side", (150.0, 0.0), along=True, across=True),)
    )
    back = LayPiece("back", SLANTED, match=(Match("side", (150.0, 0.0), along=True),))
    problem = Problem(900.0, (front, back), bars=bars, gap=2.0)
    lay = solve(problem, seed=1, steps=40, clock=monotonic).lay
    cuts = cuts_of(problem, lay)
    every = [cut for found in cuts.values() for cut in found]
    for lost in every:
        if lost.piece != "front":
            continue
        owed = {"front": (0, 1) if lost.mirrored else (1, 0)}
        pieces = {p.id: p for p in problem.pieces}
        rest = rest_problem(problem, owed, every, [shape_of(pieces[cut.piece], cut) for cut in every])
        again = solve(rest, seed=1, steps=40, clock=monotonic).lay
        assert check_lay(problem_json(rest), to_json(again)) == []
        new = again.cut[0]
        # judged by the first problem: the new copy in place of the lost one, nothing else moved
        moved = Cut("front", lost.copy, new.x, new.y, new.turn, lost.mirrored)
        as_if = to_json(lay)
        as_if["cut"] = [vars(moved if cut == lost else cut) for cut in every]
        faults = [told for told in check_lay(problem_json(problem), as_if) if "do not meet" in told]
        assert faults == []


def test_phases_of_mirrored_copies_are_those_of_the_drawn_ones() -> None:
    bars = Bars(None, 50.0, (), (10.0, 35.0))
    piece = LayPiece("front", SLANTED, copies=2, pair=True, match=(Match("side", (0.0, 20.0), across=True),))
    problem = Problem(900.0, (piece,), bars=bars)
    # the mirrored copy's point lies at 2a − phase
    drawn, mirrored = Cut("front", 1, 0.0, 100.0, 0, False), Cut("front", 2, 0.0, 20.0 + 20.0 - 120.0 + 100.0, 0, True)
    assert phases(problem, [drawn])["side"] == (None, 20.0)
    assert phases(problem, [mirrored])["side"][1] == pytest.approx(20.0)


def test_nothing_gone_leaves_all() -> None:
    assert holes([]) == () and shapely.box(0, 0, 100, 50).equals(really_there(50.0, 100.0, []))
