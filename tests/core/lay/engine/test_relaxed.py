"""What is proved by deciding: every true lay keeps the rules of the relaxed one, and no bound lies above a lay."""

from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon, box

from idle_selvage.core.lay.answer import Lay
from idle_selvage.core.lay.engine.bounds import bound_of
from idle_selvage.core.lay.engine.climb import climb
from idle_selvage.core.lay.engine.orientations import pose
from idle_selvage.core.lay.engine.relaxed import FINE, GIVE_MM, Pose, Relaxed, inner_boxes, profile
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import BadProblem, whole_polygon
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, random_problem, rectangle, rich_problem, shirt, strip_of
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
    boxes = inner_boxes(Pose([], shape, x1 - x0, y1 - y0, 0.0, 0.0), g)
    found = [(k + i, m + j) for k, m, along, across in boxes for i in range(along) for j in range(across)]
    within = {
        (k, m)
        for k in range(math.floor(x1 / g))
        for m in range(math.floor(y1 / g))
        if box(k * g, m * g, (k + 1) * g, (m + 1) * g).difference(shape).area < 1e-9
    }
    assert len(found) == len(set(found)) and set(found) == within


def _on_the_grid(data: dict[str, Any], lay: Lay, g: float) -> None:
    """Put a lay on the grid, copy by copy, and look whether the three theorems hold of it."""
    asked = read_problem(data)
    outlines = {p.id: np.array(whole_polygon(p.outline).exterior.coords[:-1]) if p.on_fold else np.array(p.outline)
                for p in asked.pieces}  # fmt: skip
    half = asked.gap / 2
    width, long = asked.width + asked.gap + GIVE_MM, lay.length + asked.gap + GIVE_MM
    columns, rows, cells = np.zeros(int(long / g) + 2), np.zeros(int(width / g) + 2), set[tuple[int, int]]()
    for cut in lay.cut:
        ring = pose(np.asarray(outlines[cut.piece], dtype=float), cut.turn, cut.mirrored).ring
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
        for k, m, along, across in inner_boxes(Pose([], moved, x1 - x0, y1 - y0, 0.0, 0.0), g):
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


@given(st.integers(0, 100_000))
@settings(max_examples=20)
def test_no_proof_lies_above_a_lay(seed: int) -> None:
    data = rich_problem(seed)
    try:
        answer = solve(read_problem(data), steps=80, seed=seed, clock=lambda: 0.0)
    except BadProblem:
        return
    data["folds"] = [fold for fold, _ in answer.alternatives]
    proved = climbed(data, 9)
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
    assert climbed(data, 40)["open"] >= 455
    assert laid(data).lay.length == pytest.approx(480, abs=0.5)
    # and one beyond the length takes nothing
    data["cloth"]["blocked"] = [[900, 0, 1000, 1000]]
    assert climbed(data, 20)["open"] <= 361


def test_the_same_question_has_the_same_answer() -> None:
    strip = strip_of(shirt(), "open")
    one, two = Relaxed(strip), Relaxed(strip)
    asked = one.area_bound() * 1.01
    assert one.refuted(asked, 25.0, True, True, 0.02) == two.refuted(asked, 25.0, True, True, 0.02)


def test_a_piece_longer_than_the_length_refutes_it_at_once() -> None:
    relaxed = Relaxed(strip_of(problem([rectangle("a", 400, 100)]), "open"))
    assert relaxed.refuted(399, 10.0, True, False, 0.01) is True
    assert relaxed.refuted(401, 10.0, True, True, 0.1) is False
