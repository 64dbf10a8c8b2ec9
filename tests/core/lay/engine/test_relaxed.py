"""What is proved by deciding: every true lay keeps the rules of the relaxed one, and no bound lies above a lay."""

from __future__ import annotations

import itertools
import math
import random
from collections import defaultdict
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from ortools.sat.python import cp_model
from shapely.geometry import LineString, Polygon, box

from idle_selvage.core.lay.answer import Lay
from idle_selvage.core.lay.engine.bounds import GIVE_MM, bound_of
from idle_selvage.core.lay.engine.climb import MOST_CASES, climb, open_strips
from idle_selvage.core.lay.engine.orientations import Ring, pose
from idle_selvage.core.lay.engine.prepare import grow
from idle_selvage.core.lay.engine.relaxed import FINE, Pose, Relaxed, inner_boxes, profile
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import BadProblem, LayPiece, Problem
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.plan.outline import whole_polygon

from ..lay_cases import problem, random_problem, rectangle, rich_problem, strip_of
from .test_solver import laid, shortest_of_three

RINGS = {
    "box": [[0, 0], [110, 0], [110, 60], [0, 60]],
    "slope": [[0, 0], [110, 20], [90, 75], [10, 50]],
    "bay": [[0, 0], [120, 0], [120, 90], [80, 20], [40, 90], [0, 90]],
    "bay from the side": [[0, 0], [120, 0], [120, 30], [33, 40], [120, 55], [120, 90], [0, 90]],
}


def climbed(data: dict[str, Any], decisions: int) -> dict[str, float]:
    asked = read_problem(data)
    bounds = {fold: bound_of(asked, fold) for fold in asked.folds}
    for proved in itertools.islice(climb(asked, bounds), decisions):
        bounds = dict(proved)
    return bounds


@pytest.mark.parametrize("name", RINGS)
@pytest.mark.parametrize("g", [7.0, 10.0, 31.0])
def test_a_profile_is_the_least_section_of_each_cell(name: str, g: float) -> None:
    ring = np.array(RINGS[name], dtype=float)
    shape = Polygon(ring)
    found = profile([ring], g)
    assert len(found) == math.floor(float(np.ptp(ring[:, 0])) / g)
    for k, written in enumerate(found):
        lines = [
            shape.intersection(LineString([(x, -10), (x, 200)])).length
            for x in np.linspace(k * g + 1e-4, (k + 1) * g - 1e-4, 400)
        ]
        # rounded down, and no more than a hair and a sample below
        assert min(lines) - 0.5 <= written / FINE <= min(lines) + 1e-3


@pytest.mark.parametrize("name", RINGS)
@pytest.mark.parametrize("g", [7.0, 10.0, 25.0])
def test_inner_boxes_are_the_cells_within(name: str, g: float) -> None:
    shape = Polygon(RINGS[name])
    x0, y0, x1, y1 = shape.bounds
    boxes = inner_boxes(Pose([], shape, x1 - x0, y1 - y0, 0.0, 0.0), g, g)
    found = [(k + i, m + j) for k, m, along, across in boxes for i in range(along) for j in range(across)]
    within = {
        (k, m)
        for k in range(math.floor(x1 / g))
        for m in range(math.floor(y1 / g))
        if box(k * g, m * g, (k + 1) * g, (m + 1) * g).difference(shape).area < 1e-9
    }
    assert len(found) == len(set(found)) and set(found) == within


def outline_of(piece: LayPiece) -> Ring:
    points = whole_polygon(piece.outline).exterior.coords[:-1] if piece.on_fold else piece.outline
    return np.array(points, dtype=float)


def _on_the_grid(data: dict[str, Any], lay: Lay, g: float) -> None:
    """Put a lay on the grid, copy by copy, and look whether the three theorems hold of it."""
    asked = read_problem(data)
    outlines = {p.id: outline_of(p) for p in asked.pieces}
    half = asked.gap / 2
    width, long = asked.width + asked.gap + GIVE_MM, lay.length + asked.gap + GIVE_MM
    columns, rows, cells = np.zeros(int(long / g) + 2), np.zeros(int(width / g) + 2), set[tuple[int, int]]()
    for cut in lay.cut:
        ring = pose(outlines[cut.piece], cut.turn, cut.mirrored).ring
        shape = Polygon(ring + np.array([cut.x, cut.y])).buffer(half).buffer(-GIVE_MM / 2)
        x0, y0, x1, y1 = shape.bounds
        # the strip begins half the gap and half the tolerance before the cloth
        s, r = math.floor((x0 + half + GIVE_MM / 2) / g), math.floor((y0 + half + GIVE_MM / 2) / g)
        moved = shapely.affinity.translate(shape, -x0, -y0)
        outline = np.array(moved.exterior.coords[:-1])
        for k, tall in enumerate(profile([outline], g)):
            columns[s + k] += tall / FINE
        for m, wide in enumerate(profile([outline[:, ::-1]], g)):
            rows[r + m] += wide / FINE
        for k, m, along, across in inner_boxes(Pose([], moved, x1 - x0, y1 - y0, 0.0, 0.0), g, g):
            for cell in itertools.product(range(s + k, s + k + along), range(r + m, r + m + across)):
                assert cell not in cells, (cut, cell)
                cells.add(cell)
    assert columns.max() <= width and rows.max() <= long


@given(st.integers(0, 10_000), st.sampled_from([9.0, 20.0, 37.0]))
@settings(max_examples=60)
def test_every_lay_keeps_the_theorems(seed: int, g: float) -> None:
    data = random_problem(seed)
    try:
        answer = laid(data, 30, seed)
    except BadProblem:
        return
    for _, lay in answer.alternatives:
        _on_the_grid(data, lay, g)


def matched_problem(seed: int) -> dict[str, Any]:
    """A few random pieces in groups on bars, balanced along or not."""
    rng = random.Random(f"matched {seed}")
    data = random_problem(seed)
    data["folds"] = ["open", "lengthwise"]
    along, across = rng.choice([None, rng.uniform(50, 170)]), rng.choice([None, rng.uniform(40, 130)])
    data["cloth"]["bars"] = {
        "x_repeat": along or 90.0,
        "y_repeat": across,
        "x_axes": [20.0, 20.0 + (along or 90.0) / 2] if rng.random() < 0.5 else [],
        "y_axes": [15.0, 15.0 + across / 2] if across else [],
    }
    for piece in data["pieces"]:
        if piece["grain"] in ("lengthwise", "crosswise") and rng.random() < 0.8:
            where = [rng.uniform(0, 200), rng.uniform(0, 100)]
            match = {"group": rng.choice(["side", "waist"]), "point": where, "along": True, "across": bool(across)}
            piece["match"] = [match]
    return data


def _as_the_lay(problem: Problem, relaxed: Relaxed, model: Any, lay: Lay, grid: tuple[float, float]) -> None:
    """Every part of the model put into the cells where the lay has it."""
    half = problem.gap / 2
    places: dict[str, list[tuple[int, int, bool]]] = defaultdict(list)
    outlines = {p.id: outline_of(p) for p in problem.pieces}
    for cut in lay.cut:
        ring = pose(outlines[cut.piece], cut.turn, cut.mirrored).ring + np.array([cut.x, cut.y])
        shape = Polygon(grow(ring, half, "")).buffer(-relaxed.drawn_in, join_style="mitre")
        x0, y0 = shape.bounds[:2]
        at = math.floor((x0 + half + GIVE_MM / 2) / grid[0]), math.floor((y0 + half + GIVE_MM / 2) / grid[1])
        places[cut.piece].append((*at, cut.mirrored))
    kept = {v.name: v for v in model.proto.variables}
    either = {p.id for p in problem.pieces if p.on_fold}
    for number, part in enumerate(relaxed.strip.parts):
        flips = {True, False} if part.piece in either else {v.mirrored for v in part.variants}
        where = min(p for p in places[part.piece] if p[2] in flips)
        places[part.piece].remove(where)
        for name, cell in zip(("x", "y"), where, strict=False):
            var = kept[f"{name}{number}"]
            low, high = list(var.domain)
            assert low <= cell <= high, (name, part.piece)
            var.domain.clear()
            var.domain.extend([cell, cell])


@given(st.integers(0, 100_000))
@settings(max_examples=40)
def test_a_lay_on_bars_is_a_relaxed_lay(seed: int) -> None:
    data = matched_problem(seed)
    asked = read_problem(data)
    try:
        answer = laid(data, 30, seed)
    except BadProblem:
        return
    cases = [Relaxed(strip) for strip in open_strips(asked)]
    assert len(cases) <= MOST_CASES
    for _, lay in answer.alternatives:
        assert any(_is_relaxed(asked, relaxed, lay) for relaxed in cases)


def _is_relaxed(problem: Problem, relaxed: Relaxed, lay: Lay) -> bool:
    grid = relaxed._grid(23.0)
    model = relaxed._model(cp_model, relaxed.length(lay.length), grid, True, True)
    _as_the_lay(problem, relaxed, model, lay, grid)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    return bool(solver.solve(model) == cp_model.OPTIMAL)


def test_on_bars_a_piece_begins_a_repeat_after_the_one_before() -> None:
    # only one lies across, and the next begins at the next bar
    piece = {**rectangle("a", 200, 600, copies=4), "match": [{"group": "g", "point": [30, 0], "along": True}]}
    data = problem([piece], width=1000, bars={"x_repeat": 130, "y_repeat": None, "x_axes": [], "y_axes": []})
    assert 955 <= climbed(data, 40)["open"] <= 980.1
    assert laid(data).lay.length == pytest.approx(980, abs=0.3)


@given(st.integers(0, 100_000))
@settings(max_examples=20)
def test_no_proof_lies_above_a_lay(seed: int) -> None:
    data = rich_problem(seed)
    try:
        answer = solve(read_problem(data), steps=80, seed=seed, clock=lambda: 0.0)
    except BadProblem:
        return
    data["folds"] = [fold for fold, _ in answer.alternatives]
    proved = climbed(data, 7)
    assert all(proved[fold] <= lay.length + 0.15 for fold, lay in answer.alternatives if lay.complete)


@pytest.mark.parametrize("wides", [[60, 50, 40], [30, 30, 40], [70, 70, 30], [100, 20, 80], [55, 55, 55]])
def test_brute_force_on_tiny_cases_lies_above_what_is_proved(wides: list[float]) -> None:
    longs: list[float] = [100, 110, 120]
    data = problem([rectangle(f"p{i}", longs[i], w) for i, w in enumerate(wides)], width=106)
    best = shortest_of_three(longs, wides, 106)
    proved = climbed(data, 80)["open"]
    # the cells are a sixtieth of the length by area
    assert 0.93 * best <= proved <= best + 0.1


def test_what_no_line_along_shows_is_proved_by_lines_across() -> None:
    # wedges that may lie at any height: their middle chord may be their thin end, but no two share their thick ends
    ring = [[0, 0], [400, 100], [400, 220], [0, 320]]
    data = problem([{"id": "wedge", "outline": ring, "copies": 6}], width=700)
    before = bound_of(read_problem(data), "open")
    after = climbed(data, 10)["open"]
    best = laid(data, 400).lay.length
    assert before * 1.05 < after <= best + 0.1


def test_fixed_pieces_and_flaws_take_room_within_the_length() -> None:
    # the whole width is spoilt for 100 mm, and the pieces need more than the 200 mm before it
    data = problem([rectangle("a", 180, 500, copies=4)], width=1000, blocked=[[200, 0, 300, 1000]])
    bare = climbed(problem([rectangle("a", 180, 500, copies=4)], width=1000), 20)["open"]
    assert bare == pytest.approx(360, abs=1)
    # their areas say 460
    assert 475 <= climbed(data, 40)["open"] <= 480.1
    assert laid(data).lay.length == pytest.approx(480, abs=0.5)
    # so does a copy that is locked there
    locked = rectangle("b", 100, 1000, fixed={"x": 200, "y": 0})
    fixed = climbed(problem([*data["pieces"], locked], width=1000), 40)["open"]
    assert 475 <= fixed <= 480.1
    # and one beyond the length takes nothing
    data["cloth"]["blocked"] = [[900, 0, 1000, 1000]]
    assert climbed(data, 20)["open"] <= 361


def test_the_same_questions_have_the_same_answers() -> None:
    data = problem([rectangle("a", 200, 620, copies=3), rectangle("b", 150, 300, copies=4)], width=1000)
    one, two = climbed(data, 12), climbed(data, 12)
    assert one == two and one["open"] > 550


def test_a_piece_longer_than_the_length_refutes_it_at_once() -> None:
    relaxed = Relaxed(strip_of(problem([rectangle("a", 400, 100)]), "open"))
    assert relaxed.refuted(399, 10.0, True, False, 0.01) is True
    assert relaxed.refuted(401, 10.0, True, True, 0.1) is False
