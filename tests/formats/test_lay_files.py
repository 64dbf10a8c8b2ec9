from __future__ import annotations

import json
from pathlib import Path
from xml.etree import ElementTree

import pytest

from idle_selvage.core.lay.answer import from_json
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import BadProblem
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.formats.lay_json import lay_text, parse_problem, read_problem_file
from idle_selvage.formats.svg_lay import write_svg
from idle_selvage.formats.svg_pieces import read_svg

from ..core.lay.lay_cases import problem, rectangle, shirt


def test_lay_text_round_trip() -> None:
    lay = solve(read_problem(shirt()), steps=20, clock=lambda: 0.0).lay
    assert from_json(json.loads(lay_text(lay))) == lay


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "not JSON"),
        ("{", "line 1"),
        ('{"a": NaN}', "NaN"),
        ('{"a": -Infinity}', "Infinity"),
        ("[" * 100_000, "nested too deeply|not JSON"),
        (b"\xff\xfe\x00", "not text"),
        ("1" * 5000, "too long|one JSON object"),
    ],
)
def test_text_that_is_no_problem(text: str | bytes, says: str) -> None:
    with pytest.raises(BadProblem, match=says):
        parse_problem(text)


def test_files_that_cannot_be_read(tmp_path: Path) -> None:
    with pytest.raises(BadProblem, match="no file"):
        read_problem_file(tmp_path / "none.json")
    with pytest.raises(BadProblem, match="folder"):
        read_problem_file(tmp_path)
    (tmp_path / "huge.json").write_bytes(b"[" + b"[0,0]," * 1_700_000)
    with pytest.raises(BadProblem, match="larger than 5 MB"):
        read_problem_file(tmp_path / "huge.json")


def test_the_svg_is_one_to_one_and_holds_every_piece() -> None:
    data = problem(
        [rectangle("band", 300, 80, copies=2), rectangle("back", 400, 100, on_fold=True)], folds=["lengthwise"]
    )
    asked = read_problem(data)
    lay = solve(asked, steps=20, clock=lambda: 0.0).lay
    for view in ("pinned", "opened"):
        picture = draw(lay, {p.id: p for p in asked.pieces}, asked.width, view=view)  # type: ignore[arg-type]
        root = ElementTree.fromstring(write_svg(picture, title="A <skirt> & more", system="metric"))
        box = [float(v) for v in root.get("viewBox", "").split()]
        assert root.get("width") == f"{box[2]:.3f}mm", "one user unit is one millimetre"
        groups = [g for g in root.iter() if g.get("class") == "piece"]
        assert len(groups) == len(lay.laid if view == "pinned" else lay.cut)
        text = " ".join("".join(g.itertext()) for g in groups)
        assert "band" in text and "copy 1" in text and " cm to " in text
        outline = next(g.find("{*}polygon") for g in groups if g.find("{*}title").text == "band")  # type: ignore[union-attr]
        assert outline is not None
        xs = [float(p.split(",")[0]) for p in outline.get("points", "").split()]
        assert max(xs) - min(xs) == pytest.approx(300, abs=1e-2)


def test_a_printed_lay_can_be_read_back_as_pieces() -> None:
    data = problem([{"id": "gusset", "outline": [[0, 0], [200, 0], [150, 90], [0, 60]]}])
    asked = read_problem(data)
    picture = draw(solve(asked, steps=5, clock=lambda: 0.0).lay, {p.id: p for p in asked.pieces}, asked.width)
    drawing = read_svg(write_svg(picture, title="t", system="metric").encode())
    piece = next(p.piece for p in drawing.what if p.name == "gusset")
    xs = [x for x, _ in piece.outline]
    assert max(xs) - min(xs) == pytest.approx(200, abs=0.01)
