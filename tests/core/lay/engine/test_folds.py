"""Every fold by its rules, on lays small enough to work out by hand."""

from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
import pytest
from shapely.geometry import Polygon

from idle_selvage.core.lay.answer import Lay, to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.folds import ways
from idle_selvage.core.lay.engine.orientations import pose
from idle_selvage.core.lay.engine.solver import Answer, solve
from idle_selvage.core.lay.hand import held
from idle_selvage.core.lay.moves import Table
from idle_selvage.core.lay.problem import BadProblem
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.lay.seats import Grip
from idle_selvage.core.lay.sliding import nearest

from ..lay_cases import problem, rectangle, shirt

ALL = ["open", "lengthwise", "partial", "double", "crosswise", "combination"]
WEDGE = [[0, 0], [400, 0], [300, 150], [0, 220]]


def lay(data: dict[str, Any], steps: int = 400, **more: Any) -> Answer:
    answer = solve(read_problem(data), steps=steps, clock=lambda: 0.0, **more)
    for fold, one in answer.alternatives:
        assert check_lay(data, to_json(one)) == [], fold
    return answer


def best(data: dict[str, Any], steps: int = 400) -> Lay:
    return lay(data, steps).lay


def test_a_partial_fold_is_as_deep_as_the_widest_piece_on_it() -> None:
    data = problem(
        [rectangle("back", 600, 200, on_fold=True), rectangle("panel", 600, 550)], width=1000, folds=["partial"]
    )
    made = best(data)
    # the fold takes 2 × 200 mm of the width and leaves 600 mm in one layer, where the panel fits beside it
    assert made.sections[0].fold_at == (200.0,) and made.length == pytest.approx(600, abs=0.2)
    back = next(e for e in made.laid if e.piece == "back")
    panel = next(e for e in made.laid if e.piece == "panel")
    assert (back.layers, back.y) == (2, 200.0) and panel.layers == 1 and panel.y >= 399.9


def test_a_partial_fold_needs_something_to_lay_double() -> None:
    with pytest.raises(BadProblem, match="No piece is cut on two layers"):
        lay(problem([{"id": "a", "outline": WEDGE}], folds=["partial"]))


def test_a_double_fold_has_two_folds_and_a_meeting_line_no_piece_crosses() -> None:
    data = problem(
        [rectangle("front", 500, 240, on_fold=True), rectangle("back", 500, 240, on_fold=True)],
        width=1000,
        folds=["double"],
    )
    made = best(data)
    assert made.sections[0].fold_at == (250.0, 750.0) and made.length == pytest.approx(500, abs=0.2)
    assert sorted(e.y for e in made.laid) == [250.0, 750.0]
    wide = problem([rectangle("wide", 300, 260, copies=2)], width=1000, folds=["double"])
    with pytest.raises(BadProblem, match=r"260.0 mm across, and the cloth folded so is 250.0 mm"):
        lay(wide)


def test_a_crosswise_fold_lays_two_layers_of_the_whole_width() -> None:
    data = problem(
        [{"id": "front", "outline": [[0, 0], [700, 0], [600, 500], [0, 800]], "copies": 2, "pair": True}],
        width=900,
        folds=["crosswise"],
    )
    made = best(data)
    assert made.length == pytest.approx(1400, abs=0.2) and made.sections[0].fold_at == (pytest.approx(700, abs=0.1),)
    one, two = made.cut
    assert one.mirrored != two.mirrored and (one.turn + two.turn) % 360 == 180


def test_an_on_fold_piece_on_the_cross_grain_lies_on_a_crosswise_fold() -> None:
    data = problem([rectangle("yoke", 500, 200, on_fold=True, grain="crosswise")], width=520, folds=["crosswise"])
    made = best(data)
    # half of it, 200 mm, on each side of the fold
    assert made.length == pytest.approx(400, abs=0.2) and len(made.cut) == 1
    assert made.laid[0].layers == 2 and made.laid[0].x == pytest.approx(200, abs=0.1)


@pytest.mark.parametrize("cloth", [{"one_way": True}, {"bars": {"x_repeat": 50, "x_axes": []}}])
def test_a_crosswise_fold_is_never_made_in_cloth_with_a_direction(cloth: dict[str, Any]) -> None:
    data = problem([rectangle("a", 300, 200, copies=2)], folds=["crosswise", "open"], **cloth)
    answer = lay(data)
    assert [fold for fold, _ in answer.alternatives] == ["open"]
    assert answer.refused[0][0] == "crosswise" and "direction" in str(answer.refused[0][1])


def test_a_piece_with_a_direction_is_cut_singly_on_a_crosswise_fold() -> None:
    data = problem([{"id": "a", "outline": WEDGE, "copies": 2, "pair": True, "one_way": True}], folds=["crosswise"])
    made = best(data)
    assert [e.layers for e in made.laid] == [1, 1] and {e.turn for e in made.cut} == {0}


def test_a_combination_finds_its_own_split() -> None:
    # the wide piece only lies open, the on-fold pieces only save cloth where it is folded
    data = problem(
        [rectangle("wide", 300, 900), rectangle("back", 500, 480, on_fold=True, copies=2)],
        width=1000,
        folds=["combination"],
    )
    made = best(data, 600)
    assert made.length == pytest.approx(1300, abs=0.3)
    pairs = problem([{"id": "f", "outline": WEDGE, "copies": 4, "pair": True}, rectangle("wide", 300, 700)], 1000)
    split = best({**pairs, "folds": ["combination"]}, 800)
    assert {s.fold for s in split.sections} <= {"lengthwise", "open"}
    assert split.sections[0].start == 0 and split.sections[-1].end == pytest.approx(split.length)
    assert split.length <= best({**pairs, "folds": ["open"]}, 800).length + 80


def test_the_best_of_every_fold_is_kept_and_the_shortest_answers() -> None:
    answer = lay({**shirt(), "folds": ALL}, 1500)
    kept = dict(answer.alternatives)
    assert set(kept) | {fold for fold, _ in answer.refused} == set(ALL)
    assert answer.lay.length == min(one.length for one in kept.values())
    last = answer.progress[-1].alternatives
    assert dict(last) == {fold: one.length for fold, one in kept.items()}
    # a maker weighs length against ease
    assert kept["open"].layers == 1 and kept["lengthwise"].layers == 2
    assert len(kept["lengthwise"].laid) < len(kept["open"].laid) and kept["open"].unfoldings == 0


def test_a_fold_of_a_symmetric_set_equals_its_open_half() -> None:
    pieces = [{"id": f"p{k}", "outline": [[x * s, y * s] for x, y in WEDGE]} for k, s in enumerate((1.0, 0.7, 0.5))]
    folded = problem([{**p, "copies": 2, "pair": True} for p in pieces], width=900, folds=["lengthwise"])
    half = problem(pieces, width=450, reversible=True)
    assert best(folded, 900).length == pytest.approx(best(half, 900).length, abs=0.2)


def test_a_lengthwise_fold_takes_the_axis_nearest_the_middle_and_says_what_that_costs() -> None:
    bars = {"y_repeat": 90, "y_axes": [20]}
    data = problem([rectangle("a", 300, 465, copies=2)], width=1000, folds=["lengthwise"], bars=bars)
    # axes at 20 + 90 k: 470 is nearer to 500 than 560
    assert best(data).sections[0].fold_at == (470.0,)
    wide = problem([rectangle("a", 300, 480, copies=2)], width=1000, folds=["lengthwise"], bars=bars)
    with pytest.raises(BadProblem, match=r"480.0 mm across, and the cloth folded so is 470.0 mm"):
        lay(wide)
    plain = problem([rectangle("a", 300, 480, copies=2)], width=1000, folds=["lengthwise"])
    assert best(plain).length == pytest.approx(300, abs=0.2), "30 mm of width is the cost of the axis"


def test_folds_along_bars_lie_on_axes() -> None:
    asked = read_problem(
        problem([rectangle("a", 300, 150, on_fold=True)], width=1000, bars={"y_repeat": 64, "y_axes": [4]})
    )
    for fold in ("partial", "double", "lengthwise"):
        for way in ways(asked, fold):
            assert all(math.isclose((at - 4) % 64, 0, abs_tol=1e-6) for at in way.fold_at), fold


@pytest.mark.parametrize("fold", ["lengthwise", "partial", "double"])
def test_the_gap_is_kept_to_the_image_behind_a_fold(fold: str) -> None:
    data = problem([{"id": "a", "outline": WEDGE, "copies": 4, "pair": True}], width=1000, folds=[fold], gap=20)
    made = best(data)
    shapes = [
        Polygon(pose(np.array(WEDGE, dtype=float), c.turn, c.mirrored).ring + np.array([c.x, c.y])) for c in made.cut
    ]
    assert min(a.distance(b) for a, b in itertools.combinations(shapes, 2)) >= 19.9


def test_a_flaw_shows_on_the_layer_where_it_lies() -> None:
    # the hole is near the low selvage; folded, that layer lies under the upper half
    data = problem([rectangle("a", 300, 480, copies=2)], width=1000, folds=["lengthwise"], blocked=[[0, 30, 20, 40]])
    made = best(data)
    assert made.length == pytest.approx(320, abs=0.2), "both copies begin behind the hole"
    open_lay = best({**data, "folds": ["open"]})
    assert open_lay.length == pytest.approx(300, abs=0.2), "unfolded there is just room for both beside it"


def test_a_crosswise_fold_goes_where_the_flaws_leave_room() -> None:
    data = problem(
        [rectangle("a", 300, 480, copies=4)], width=1000, folds=["crosswise"], blocked=[[100, 100, 130, 900]]
    )
    made = best(data)
    assert made.length >= 2 * 300 and made.sections[0].fold_at[0] == pytest.approx(made.length / 2)


CORNER = [[0, 0], [400, 0], [0, 400]]
REST = [[0, 0], [400, -400], [400, 0]]


@pytest.mark.parametrize("fold", ["open", "lengthwise", "partial", "combination"])
def test_a_blocked_outline_is_no_larger_than_it_is(fold: str) -> None:
    """Half a square was cut away: the other half still fits in there, and nothing lies where it was, on any layer."""
    # once in the upper half: on cloth folded selvage to selvage the lower layer is the same there
    pieces = [{"id": "rest", "outline": REST, "one_way": True, "copies": 2, "pair": True}]
    blocked = [[[x, y] for x, y in CORNER], [[x, 800 - y] for x, y in CORNER]]
    data = problem(pieces, width=800, folds=[fold], blocked=blocked)
    made = lay(data, 3000).lay
    assert check_lay(data, to_json(made)) == []
    assert made.length == pytest.approx(400, abs=0.5)
    boxes = [[0, 0, 400, 400], [0, 400, 400, 800]]
    assert lay({**data, "cloth": {**data["cloth"], "blocked": boxes}}, 1000).lay.length > made.length + 300


def test_a_blocked_outline_is_minded_by_a_crosswise_fold_and_by_a_piece_that_is_dragged() -> None:
    data = problem([rectangle("a", 300, 480, copies=4)], width=1000, folds=["crosswise"])
    data["cloth"]["blocked"] = [[[100, 100], [130, 100], [130, 900], [100, 900]]]
    made = best(data)
    as_box = best({**data, "cloth": {**data["cloth"], "blocked": [[100, 100, 130, 900]]}})
    assert check_lay(data, to_json(made)) == [] and made.length == as_box.length > 600

    told = read_problem(problem([rectangle("a", 100, 100)], width=400, blocked=[[[x, y] for x, y in CORNER]]))
    answer = lay(problem([rectangle("a", 100, 100)], width=400), 100).lay
    grounds = Table(held(answer), told).grounds(Grip(("a·1",)))
    # its least corner clears the slope
    for y in (0.0, 120.0, 290.0):
        near = nearest(grounds, 0.0, y)
        assert near is not None and near.x + near.y == pytest.approx(400, abs=0.1)


def test_what_may_only_slide_is_pushed_together_and_keeps_its_place_across() -> None:
    at = [(40, 0), (500, 0), (900, 30), (300, 200), (1200, 250)]
    fixed = [{"x": x, "y": y, "turn": 0, "mirrored": False, "slides": True} for x, y in at]
    data = problem([rectangle("a", 200, 150, copies=5, fixed=fixed)], width=420)
    made = best(data)
    assert check_lay(data, to_json(made)) == [] and made.complete
    assert sorted(c.y for c in made.cut) == [0, 0, 30, 200, 250]
    assert made.length == pytest.approx(600, abs=0.3), "three lie in each other's way, and two beside them"
    # what is held stays, and what slides goes round it
    fixed[1]["slides"] = False
    held = best(data)
    assert check_lay(data, to_json(held)) == [] and held.length == pytest.approx(700, abs=0.3)
    assert (500, 0) in {(c.x, c.y) for c in held.cut}
    # with the gap, and past what is blocked
    fixed[1]["slides"] = True
    data["cloth"] |= {"gap": 10, "blocked": [[[0, 0], [90, 0], [90, 60]]]}
    round_it = best(data)
    assert check_lay(data, to_json(round_it)) == [] and round_it.length == pytest.approx(90 + 10 + 620, abs=0.5)


@pytest.mark.parametrize("fold", ["open", "lengthwise", "partial", "double"])
def test_a_lay_that_is_told_again_as_sliding_is_no_longer_than_it_was(fold: str) -> None:
    """On the fold it was made on, two layers moving as one, pieces on the fold staying there."""
    pieces: list[dict[str, Any]] = [
        {"id": "pair", "outline": WEDGE, "copies": 4, "pair": True},
        rectangle("back", 300, 90, on_fold=True),
        rectangle("pocket", 90, 110, copies=2),
    ]
    data = problem(pieces, width=1000, folds=[fold], gap=2.0)
    made = best(data)
    for piece in pieces:
        # half a metre further along than they must
        piece["fixed"] = [
            {"x": c.x + 500, "y": c.y, "turn": c.turn, "mirrored": c.mirrored, "slides": True}
            for c in made.cut
            if c.piece == piece["id"]
        ]
    again = best(data)
    assert check_lay(data, to_json(again)) == [] and again.complete
    assert again.length <= made.length + 0.3
    across = [sorted((c.piece, round(c.y, 2), c.turn, c.mirrored) for c in lay.cut) for lay in (made, again)]
    assert across[0] == across[1]
    assert sorted((p.piece, p.layers) for p in again.laid) == sorted((p.piece, p.layers) for p in made.laid)


def test_where_nothing_can_slide_that_is_said() -> None:
    beneath = {"x": 0, "y": 10, "turn": 0, "mirrored": False, "slides": True}
    piece = rectangle("a", 200, 150, fixed=[beneath])
    for fold, says in (
        ("lengthwise", "no place for it on this fold"),
        ("crosswise", "a crosswise fold may lie anywhere"),
        ("combination", "a combination of several is chosen anew"),
    ):
        with pytest.raises(BadProblem, match=says):
            best(problem([piece], width=1000, folds=[fold]))
    with pytest.raises(BadProblem, match="slide along where it reaches over a selvage"):
        read_problem(problem([rectangle("a", 200, 150, fixed=[{**beneath, "y": 900}])], width=1000))


def test_what_slides_meets_the_bars_where_it_lies_across() -> None:
    match = [{"group": "hem", "point": [0, 0], "along": True, "across": True}]
    bars = {"x_repeat": 90.0, "y_repeat": 60.0, "x_axes": [0.0], "y_axes": [0.0]}
    fixed = [{"x": 0, "y": y, "turn": 0, "mirrored": False, "slides": True} for y in (0.0, 60.0, 420.0)]
    data = problem([rectangle("a", 200, 150, copies=3, match=match, fixed=fixed)], width=600, bars=bars)
    made = best(data)
    assert check_lay(data, to_json(made)) == [] and made.length == pytest.approx(270 + 200, abs=0.3)
    data["pieces"][0]["fixed"][1]["y"] = 80.0
    with pytest.raises(BadProblem, match="cannot match"):
        best(data)


def test_what_slides_is_left_over_where_the_length_has_no_room_for_it() -> None:
    fixed = [{"x": x, "y": 0, "turn": 0, "mirrored": False, "slides": True} for x in (0, 300)]
    data = problem([rectangle("a", 200, 150, copies=2, fixed=fixed)], width=200, length=350.0)
    made = best(data)
    assert not made.complete and made.left_over == (("a", 1),) and made.needed_length == pytest.approx(400, abs=0.3)
    assert check_lay(data, to_json(made)) == []
