from __future__ import annotations

import itertools
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.lay.answer import from_json, to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.engine.bounds import area_bound, longest_bound, middle_bound, strip_bound
from idle_selvage.core.lay.engine.orientations import pose, poses
from idle_selvage.core.lay.engine.rows import row_intervals
from idle_selvage.core.lay.engine.solver import Answer, Progress, solve
from idle_selvage.core.lay.engine.strips import CannotFold
from idle_selvage.core.lay.problem import BadProblem
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, random_problem, rectangle, shirt, strip_of


def laid(data: dict[str, Any], steps: int = 60, seed: int = 1) -> Answer:
    clock = itertools.count()
    return solve(read_problem(data), steps=steps, seed=seed, clock=lambda: next(clock) / 1000)


@given(st.integers(0, 10_000))
@settings(max_examples=60)
def test_any_random_problem_gives_a_checked_lay_or_a_named_reason(seed: int) -> None:
    data = random_problem(seed)
    try:
        answer = laid(data, 30, seed)
    except BadProblem as told:
        assert all("mm" in f for f in told.faults), told.faults
        return
    for fold, lay in answer.alternatives:
        assert check_lay(data, to_json(lay)) == [], fold
        assert lay.bound <= lay.length
    assert answer.lay.length == min(lay.length for _, lay in answer.alternatives)


def test_rectangles_that_tile_are_laid_without_waste() -> None:
    answer = laid(problem([rectangle("a", 300, 500, copies=4)]))
    assert answer.lay.length == pytest.approx(600, abs=0.2)
    assert answer.lay.length - answer.lay.bound < 0.3, "the area bound meets it"


def test_two_layers_halve_the_placements() -> None:
    data = problem([rectangle("a", 300, 500, copies=4)], folds=["lengthwise"])
    answer = laid(data)
    assert answer.lay.length == pytest.approx(600, abs=0.2)
    assert len(answer.lay.laid) == 2 and len(answer.lay.cut) == 4 and answer.lay.sections[0].fold_at == (500.0,)


def test_a_pair_unfolds_into_mirror_images() -> None:
    data = problem(
        [{"id": "f", "outline": [[0, 0], [600, 0], [500, 200], [0, 260]], "copies": 2, "pair": True}],
        folds=["lengthwise"],
    )
    one, two = laid(data).lay.cut
    assert one.mirrored != two.mirrored and one.x == two.x and one.y + two.y == pytest.approx(1000)


def test_an_odd_single_on_the_fold_is_cut_from_one_layer() -> None:
    data = problem(
        [{"id": "odd", "outline": [[0, 0], [300, 0], [200, 150], [0, 200]], "copies": 1}], folds=["lengthwise"]
    )
    answer = laid(data)
    assert [entry.layers for entry in answer.lay.laid] == [1] and not answer.lay.cut[0].mirrored


def test_on_fold_pieces_lie_on_the_fold_and_open_to_one_whole() -> None:
    answer = laid(problem([rectangle("back", 600, 200, on_fold=True, copies=2)], folds=["lengthwise"]))
    assert all(entry.y == pytest.approx(500) for entry in answer.lay.laid)
    assert len(answer.lay.cut) == 2 and answer.lay.length == pytest.approx(1200, abs=0.2)


def test_one_way_is_never_turned() -> None:
    data = shirt()
    data["cloth"]["one_way"] = True
    lay = laid(data).lay
    assert {entry.turn for entry in lay.cut if entry.piece != "collar"} == {0}
    assert {entry.turn for entry in lay.cut if entry.piece == "collar"} == {90}


def test_the_gap_is_between_pieces_and_not_to_the_selvage() -> None:
    lay = laid(problem([rectangle("a", 300, 490, copies=2)], gap=16.0)).lay
    assert lay.length == pytest.approx(300, abs=0.2), "490 + 16 + 490 fit only when the selvages need no gap"


def test_same_seed_and_steps_give_the_same_lay() -> None:
    one, two, other = laid(shirt(), 300, 5), laid(shirt(), 300, 5), laid(shirt(), 300, 6)
    assert one.lay.cut == two.lay.cut and one.lay.steps == two.lay.steps
    assert other.lay.seed == 6


def test_more_search_never_lengthens() -> None:
    lengths = [laid(shirt(), steps).lay.length for steps in (2, 200, 1500)]
    assert lengths == sorted(lengths, reverse=True) and lengths[2] < lengths[0]


def test_a_fixed_length_that_does_not_do_says_how_much_is_needed() -> None:
    data = problem([rectangle("a", 300, 600, copies=3)], length=700.0)
    lay = laid(data).lay
    assert not lay.complete and lay.left_over == (("a", 1),) and lay.needed_length == pytest.approx(900, abs=0.2)
    assert check_lay(data, to_json(lay)) == []
    roomy = laid(problem([rectangle("a", 300, 600, copies=3)], length=950.0)).lay
    assert roomy.complete and roomy.left_over == ()


def test_a_fold_that_cannot_be_is_named_and_the_other_is_taken() -> None:
    data = problem([rectangle("wide", 300, 800)], folds=["lengthwise", "open"])
    answer = laid(data)
    assert answer.lay.sections[0].fold == "open"
    assert answer.refused[0][0] == "lengthwise" and "800.0 mm across" in str(answer.refused[0][1])
    with pytest.raises(BadProblem, match=r"folded so is 500.0 mm wide"):
        laid(problem([rectangle("wide", 300, 800)], folds=["lengthwise"]))


def test_cancel_keeps_the_first_answer() -> None:
    answer = solve(read_problem(shirt()), seconds=1e9, clock=itertools.count().__next__, cancelled=lambda: True)
    assert answer.cancelled and answer.lay.complete and answer.lay.steps == 2


def test_progress_only_gets_better() -> None:
    told: list[Progress] = []
    solve(read_problem(shirt()), steps=800, clock=lambda: 0.0, on_progress=lambda p, _: told.append(p))
    assert told and all(a.length >= b.length for a, b in itertools.pairwise(told))
    assert all(p.bound <= p.length for p in told)


@given(st.integers(0, 10_000))
@settings(max_examples=25)
def test_every_bound_is_below_every_lay(seed: int) -> None:
    data = random_problem(seed)
    asked = read_problem(data)
    for fold in asked.folds:
        try:
            strip = strip_of(data, fold)
        except CannotFold:
            continue
        best = laid({**data, "folds": [fold]}, 40).lay.length
        for bound in (area_bound, longest_bound, middle_bound, strip_bound):
            assert bound(strip) <= best + 0.1, bound.__name__


def test_tall_pieces_are_chained_by_the_middle_line() -> None:
    strip = strip_of(problem([rectangle("tall", 200, 600, copies=5)]), "open")
    assert middle_bound(strip) == pytest.approx(1000, abs=2)
    assert strip_bound(strip) > area_bound(strip)


def shortest_of_three(longs: list[float], wides: list[float], width: float) -> float:
    """The least length of three rectangles, by trying every start among sums of lengths.

    Three rectangles can be stacked without conflict whenever no line across the cloth meets more width than
    there is, and in a shortest lay each begins at 0 or where another ends.
    """
    starts = {sum(c) for r in range(3) for c in itertools.combinations(longs, r)}
    best = sum(longs)
    for xs in itertools.product(starts, repeat=3):
        crossed = [
            sum(w for x, long, w in zip(xs, longs, wides, strict=True) if x <= at < x + long) for at in sorted(starts)
        ]
        if max(crossed) <= width:
            best = min(best, max(x + long for x, long in zip(xs, longs, strict=True)))
    return best


@pytest.mark.parametrize("wides", [[60, 50, 40], [30, 30, 40], [70, 70, 30], [100, 20, 80], [55, 55, 55]])
def test_brute_force_on_tiny_cases_lies_between_bound_and_lay(wides: list[float]) -> None:
    longs: list[float] = [100, 110, 120]
    pieces = [rectangle(f"p{i}", longs[i], w) for i, w in enumerate(wides)]
    best = shortest_of_three(longs, wides, 106)
    lay = laid(problem(pieces, width=106), 400).lay
    assert lay.bound <= best + 0.1
    assert lay.length == pytest.approx(best, abs=0.3)


def test_rows_cover_the_piece_they_stand_for() -> None:
    ring = np.array([[0.0, 0.0], [100.0, 20.0], [60.0, 35.0], [100.0, 60.0], [0.0, 50.0]])
    lo, hi, ptr = np.empty(500), np.empty(500), np.empty(13, dtype=np.int64)
    total = row_intervals(ring, 5.0, 12, lo, hi, ptr)
    assert total >= 12 and ptr[12] == total
    from shapely.geometry import Polygon, box

    shape = Polygon(ring)
    for k in range(12):
        cover = [box(lo[i], k * 5, hi[i], (k + 1) * 5) for i in range(ptr[k], ptr[k + 1])]
        part = shape.intersection(box(-1, k * 5, 200, (k + 1) * 5))
        for shape_cover in cover:
            part = part.difference(shape_cover.buffer(1e-6))
        assert part.area < 1e-3


def test_poses_without_doubles() -> None:
    square = np.array([[0.0, 0.0], [50.0, 0.0], [50.0, 50.0], [0.0, 50.0]])
    assert len(poses(square, [(0, False), (90, False), (180, False), (0, True)])) == 1
    assert pose(square, 180, False).ring.min() == pytest.approx(-50)


def test_lay_json_round_trip_and_drawing() -> None:
    answer = laid(shirt(), 100)
    lay = answer.lay
    assert from_json(to_json(lay)) == lay
    asked = read_problem(shirt())
    by_id = {p.id: p for p in asked.pieces}
    for _, other in answer.alternatives:
        opened = draw(other, by_id, asked.width, margins=(10, 12), view="opened")
        assert len(opened.shapes) == len(other.cut) and not opened.folded
        pinned = draw(other, by_id, asked.width, margins=(10, 12))
        assert len(pinned.shapes) == len(other.laid)
        for shape in (*opened.shapes, *pinned.shapes):
            if shape.turn in (0, 180):
                assert shape.tail_distance == pytest.approx(shape.head_distance), "on grain: both ends alike"
            if shape.turn in (90, 270):
                assert shape.edge == "cut end"
        assert all(s.tail_distance >= 10 for s in opened.shapes if s.edge == "near selvage"), "margin is measured too"
