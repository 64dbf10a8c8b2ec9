"""Hems on a border: what their curve loses, what is left of the border; and what a lay leaves over of the cloth."""

from __future__ import annotations

import math

import pytest
from shapely import Polygon, box

from idle_selvage.core.cloth.border import KINDS, ClothBorder, HemOnBorder, apart, without_border
from idle_selvage.core.lay.asking import ClothToLay, LayRules, PieceToLay, ask, keeps_off_the_fold
from idle_selvage.core.lay.beside import beside
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.left_over import left_over
from idle_selvage.core.lay.on_border import border_left, hem_on_cloth
from idle_selvage.core.plan.hem import hem_curve
from idle_selvage.core.plan.piece import Piece

#: A flared panel whose hem rises by 40 mm towards both sides.
CURVED = tuple([(40.0 * (y / 250.0) ** 2, float(y)) for y in range(-250, 251, 50)] + [(700.0, 150.0), (700.0, -150.0)])
STRAIGHT = ((0.0, -200.0), (500.0, -150.0), (500.0, 150.0), (0.0, 200.0))


def test_the_curve_of_a_hem_is_how_far_its_ends_rise() -> None:
    found = hem_curve(CURVED)
    assert found.lost == pytest.approx(40.0) and found.curved and abs(found.at[1]) == 250.0
    assert len(found.edge) == 11, "the side seams are no part of it"
    flat = hem_curve(STRAIGHT)
    assert flat.lost == 0.0 and not flat.curved and {x for x, _ in flat.edge} == {0.0}


def panels(outline: tuple[tuple[float, float], ...], copies: int = 2, at: float = 15.0) -> PieceToLay:
    piece = Piece("Panel", outline, copies=copies, grain="crosswise")
    return PieceToLay(piece, key="1", border="low", border_at=at)


CLOTH = ClothToLay(margin=10.0, border=ClothBorder("low", "print", 90.0))
PLAIN = PieceToLay(Piece("Pocket", ((0.0, 0.0), (150.0, 0.0), (150.0, 130.0), (0.0, 130.0)), copies=2), key="2")


def test_the_border_is_kept_for_the_hems_that_lie_on_it() -> None:
    problem = ask(CLOTH, [panels(CURVED), PLAIN], LayRules(), 1200.0)
    assert (problem.blocked[0][0], problem.blocked[0][1], problem.blocked[0][3]) == (0.0, 0.0, 80.0)
    assert not keeps_off_the_fold(problem), "a border is no faded fold"
    lay = solve(problem, steps=60, clock=lambda: 0.0).lay
    pieces = {p.id: p for p in problem.pieces}
    shapes = draw(lay, pieces, problem.width, view="opened").shapes
    for shape in shapes:
        low = min(y for _, y in shape.outline)
        assert low == pytest.approx(15.0, abs=0.1) if shape.piece == "Panel" else low >= 79.9
    panel = next(s for s in shapes if s.piece == "Panel")
    hem = hem_on_cloth(panel, pieces["1"])
    assert hem is not None and hem.lost == pytest.approx(40.0)
    assert hem.at[1] == pytest.approx(15.0 + 40.0, abs=0.2), "the dot lies as high above the border as is lost"
    assert hem_on_cloth(next(s for s in shapes if s.piece == "Pocket"), pieces["2"]) is None
    (left,) = border_left(shapes, pieces, 1500.0)
    taken = [s.from_end for s in shapes if s.piece == "Panel"]
    assert left.left == pytest.approx(1500.0 - sum(b - a for a, b in taken), abs=1.0)
    assert left.longest <= left.left


def test_a_border_at_the_far_side_lies_there_and_one_deeper_than_its_margin_only() -> None:
    far = ClothToLay(far_margin=20.0, border=ClothBorder("high", "free", 90.0))
    (area,) = ask(far, [PLAIN], LayRules(), 1200.0).blocked
    assert (area[1], area[3]) == (1130.0, 1200.0)
    assert (
        ask(ClothToLay(margin=95.0, border=ClothBorder("low", "print", 90.0)), [PLAIN], LayRules(), 1200.0).blocked
        == ()
    )


def test_a_strip_comes_off_the_border_in_one_along_the_cloth() -> None:
    ruffle = Piece("Ruffle", ((0.0, 0.0), (900.0, 0.0), (900.0, 70.0), (0.0, 70.0)))
    for side in ("low", "high"):
        cloth = ClothToLay(border=ClothBorder(side, "print", 90.0))  # type: ignore[arg-type]
        strip = PieceToLay(ruffle, key="3", border=side, border_at=5.0)  # type: ignore[arg-type]
        problem = ask(cloth, [strip, PLAIN], LayRules(), 1200.0)
        lay = solve(problem, steps=40, clock=lambda: 0.0).lay
        shapes = draw(lay, {p.id: p for p in problem.pieces}, problem.width, view="opened").shapes
        ruffle_at = next(s for s in shapes if s.piece == "Ruffle")
        ys = [y for _, y in ruffle_at.outline]
        assert (min(ys) if side == "low" else 1200.0 - max(ys)) == pytest.approx(5.0, abs=0.1)
        assert ruffle_at.turn in (0, 180)
        pockets = [y for s in shapes if s.piece == "Pocket" for _, y in s.outline]
        assert min(pockets) >= 89.9 if side == "low" else max(pockets) <= 1200.0 - 89.9


def test_hems_that_do_not_lie_alike_and_borders_that_are_not_there_are_told() -> None:
    assert set(KINDS) == {"edge", "embroidery", "print", "free"}
    alike = [HemOnBorder("Front", "low", 20.0), HemOnBorder("Back", "low", 20.5)]
    assert apart(alike) == ()
    (told,) = apart([*alike, HemOnBorder("Side", "low", 30.0)])
    assert "Front" in told and "Side" in told and "3.0 cm" in told
    assert without_border(alike, ClothBorder("low", "print", 90.0)) == () == without_border(alike, None)
    (other,) = without_border(alike, ClothBorder("high", "print", 90.0))
    assert "Front and Back" in other and "far selvage" in other
    (free,) = without_border(alike, ClothBorder("low", "free", 90.0))
    assert "kept free" in free


def test_what_is_left_over_is_the_largest_rectangles_that_nothing_touches() -> None:
    # one piece in a corner leaves an L: first the longer arm, then what is left of the other
    found = left_over([tuple((float(x), float(y)) for x, y in box(0, 0, 400, 500).exterior.coords[:-1])], 1000, 800)
    assert (found[0].along, found[0].across) == (600, 800)
    assert (found[1].x, found[1].y, found[1].along, found[1].across) == (0, 500, 400, 300)
    assert left_over([], 90, 800) == () and left_over([], 0, 800) == ()


def test_no_rectangle_that_is_left_over_touches_a_piece_or_another() -> None:
    round_ = tuple((500 + 200 * math.cos(t / 20), 400 + 200 * math.sin(t / 20)) for t in range(120))
    found = left_over([round_], 1000, 800)
    boxes = [box(r.x, r.y, r.x + r.along, r.y + r.across) for r in found]
    assert len(boxes) == 3 and not any(b.buffer(-0.1).intersects(Polygon(round_)) for b in boxes)
    assert not any(a.buffer(-0.1).intersects(b) for k, a in enumerate(boxes) for b in boxes[k + 1 :])
    assert sum(b.area for b in boxes) > 0.4 * (1000 * 800 - Polygon(round_).area)


def test_neighbours_are_named_the_nearest_first() -> None:
    row = [((x, 0.0), (x + 100.0, 0.0), (x + 100.0, 100.0), (x, 100.0)) for x in (0.0, 105.0, 230.0, 400.0)]
    assert beside(row) == [[1], [0, 2], [1], []]
