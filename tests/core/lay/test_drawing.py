"""The lay as shapes on the cloth."""

from __future__ import annotations

import math

import pytest
from shapely import LineString, Polygon

from idle_selvage.core.lay.drawing import Drawing, draw
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.shrink.to_fit import on_cloth

from .lay_cases import problem, rectangle, shirt

MARGINS = (12.0, 9.0)


def drawn(data: dict[str, object], view: str = "pinned", fold: str | None = None, **more: object) -> Drawing:
    asked = read_problem(data)
    answer = solve(asked, steps=10, clock=lambda: 0.0)
    lay = next(one for name, one in answer.alternatives if fold in (None, name))
    pieces = {p.id: p for p in asked.pieces}
    return draw(lay, pieces, asked.width, margins=MARGINS, view=view, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize("fold", ["open", "lengthwise"])
@pytest.mark.parametrize("view", ["pinned", "opened"])
def test_distances_are_what_a_tape_would_find(fold: str, view: str) -> None:
    picture = drawn({**shirt(), "folds": ["open", "lengthwise"]}, view, fold)
    width = float(read_problem(shirt()).width)
    lines = {"far selvage": width + MARGINS[1], "near selvage": -MARGINS[0], "fold": width / 2}
    assert picture.folded == (fold == "lengthwise" and view == "pinned")
    for shape in picture.shapes:
        ends = ((shape.tail, shape.tail_distance), (shape.head, shape.head_distance))
        for (x, y), told in ends:
            if shape.edge == "cut end":
                assert told == pytest.approx(x)
            else:
                assert told == pytest.approx(abs(lines[shape.edge] - y))
        if shape.edge != "cut end":
            assert shape.tail_distance == pytest.approx(shape.head_distance), "on grain"
            other = "fold" if picture.folded else "near selvage"
            nearest = min(abs(lines[name] - shape.tail[1]) for name in ("far selvage", other))
            assert shape.tail_distance == pytest.approx(nearest), "the shorter way is measured"
        assert shape.from_end == pytest.approx((Polygon(shape.outline).bounds[0], Polygon(shape.outline).bounds[2]))


def test_opened_out_every_copy_is_drawn_once() -> None:
    data = {**shirt(), "folds": ["lengthwise"]}
    wanted = sum(p.get("copies", 1) for p in shirt()["pieces"])
    opened = drawn(data, "opened")
    assert len(opened.shapes) == wanted and len({s.key for s in opened.shapes}) == wanted
    pinned = drawn(data, "pinned")
    assert len(pinned.shapes) < wanted and {s.layers for s in pinned.shapes} <= {1, 2}


def test_a_piece_given_turned_keeps_the_lean_of_its_arrow() -> None:
    flag = ((0.0, 0.0), (400.0, 0.0), (400.0, 100.0), (0.0, 100.0))
    turned = [list(p) for p in on_cloth(flag, "bias")]
    data = problem([{"id": "flag", "outline": turned, "copies": 1}])
    straight, leaning = drawn(data).shapes[0], drawn(data, leans={"flag": 45}).shapes[0]
    assert straight.tail[1] == pytest.approx(straight.head[1])
    dx, dy = leaning.head[0] - leaning.tail[0], leaning.head[1] - leaning.tail[1]
    assert abs(math.degrees(math.atan2(dy, dx))) % 90 == pytest.approx(45)
    assert math.hypot(dx, dy) == pytest.approx(0.7 * (400 - 16), abs=1), "as long as on the paper piece"
    assert Polygon(leaning.outline).covers(LineString([leaning.tail, leaning.head]))


def test_a_strip_across_the_grain_is_measured_from_the_cut_end() -> None:
    picture = drawn(problem([rectangle("band", 300, 60, grain="crosswise")]))
    shape = picture.shapes[0]
    assert shape.edge == "cut end" and shape.tail_distance == pytest.approx(shape.head_distance)
