"""A piece made from another."""

from __future__ import annotations

from dataclasses import replace

import pytest
from shapely.affinity import scale
from shapely.geometry import Point, Polygon

from idle_selvage.core.plan.draft import Draft, DraftPoint, edges, outline_of, place_on
from idle_selvage.core.plan.from_another import (
    _onto_fold,
    _touches_fold,
    facing,
    lengthened,
    mirrored,
    without_allowance,
)
from idle_selvage.core.plan.outline import BadPiece

from .tailored import HARD, lapel_front, trouser_back
from .test_draft import box


@pytest.mark.parametrize("name", HARD)
def test_mirrored_is_the_mirror_image_and_twice_is_the_piece(name: str) -> None:
    draft = HARD[name]()
    over = mirrored(draft)
    wanted = scale(Polygon(outline_of(draft)), 1, -1, origin=(0, 0))
    assert Polygon(outline_of(over)).symmetric_difference(wanted).area < 1.0
    assert mirrored(over).points == draft.points and mirrored(over).arrow == draft.arrow
    for notch, again in zip(draft.notches, over.notches, strict=True):
        (x, y), _ = place_on(draft, notch.after, notch.at)
        assert place_on(over, again.after, again.at)[0] == pytest.approx((x, -y), abs=0.01)


def test_an_allowance_stays_with_its_edge_when_it_is_mirrored() -> None:
    points = list(lapel_front().points)
    points[0] = points[0].__class__(0, 160, allowance=40.0, ends="folded", key=1)
    draft = Draft(tuple(points))
    hem = next(e for e in edges(mirrored(draft)) if e.first.allowance == 40.0)
    assert {hem.line[0], hem.line[-1]} == {(0.0, -160.0), (0.0, 70.0)} and hem.first.ends == "folded"


def test_lengthened_and_shortened_at_a_line() -> None:
    trousers = trouser_back()
    longer = lengthened(trousers, 300.0, 25.0)
    ends = {p.key: p for p in longer.points}
    for p in trousers.points:
        assert ends[p.key].along == p.along + (25.0 if p.along > 300 else 0.0) and ends[p.key].across == p.across
    assert longer.arrow == ((150.0, 0.0), (825.0, 0.0))
    back = lengthened(longer, 300.0, -25.0)
    for p, q in zip(back.points, trousers.points, strict=True):
        assert p.at == pytest.approx(q.at)
    for line, by in ((-5.0, 10.0), (2000.0, 10.0)):
        with pytest.raises(BadPiece, match="must lie on the piece"):
            lengthened(trousers, line, by)
    with pytest.raises(BadPiece, match="folded down"):
        lengthened(trousers, 400.0, -60.0)


def test_the_facing_of_an_edge_and_of_its_beginning() -> None:
    whole = facing(box(), 1, 60.0)
    assert Polygon(outline_of(whole)).bounds == pytest.approx((340, -100, 400, 100), abs=0.05)
    part = facing(box(), 1, 60.0, upto=80.0)
    assert Polygon(outline_of(part)).bounds == pytest.approx((340, -100, 400, -20), abs=0.05)
    lapel = facing(lapel_front(), 1, 70.0)
    piece = Polygon(outline_of(lapel_front()))
    assert Polygon(outline_of(lapel)).difference(piece.buffer(0.3)).area < 1.0, "it lies on the piece"
    for edge, width, says in ((99, 50.0, "no such edge"), (0, 0.0, "how wide")):
        with pytest.raises(BadPiece, match=says):
            facing(box(), edge, width)


def test_the_same_outline_without_allowances_of_its_own() -> None:
    points = tuple(p.__class__(p.along, p.across, allowance=15.0, ends="square", key=p.key) for p in box().points)
    assert without_allowance(Draft(points)).points == box().points


def test_a_facing_keeps_the_arrow_as_long_and_as_slanted_as_it_is() -> None:
    told = replace(box(), arrow=((20.0, 30.0), (120.0, 50.0)))
    (ax, ay), (bx, by) = facing(told, 1, 60.0).arrow or ((0.0, 0.0), (0.0, 0.0))
    assert (bx - ax, by - ay) == pytest.approx((100.0, 20.0))
    inside = Polygon(outline_of(facing(told, 1, 60.0)))
    assert inside.contains(Point((ax + bx) / 2, (ay + by) / 2)), "its middle lies on the facing"


@pytest.mark.parametrize(("off", "half"), [(0.0, True), (0.09, True), (0.11, False), (1.0, False)])
def test_only_what_lies_on_the_fold_to_a_tenth_is_on_it(off: float, half: bool) -> None:
    points = tuple(DraftPoint(x, y) for x, y in ((0.0, off), (200.0, off), (200.0, 90.0), (0.0, 90.0)))
    assert _touches_fold(points) == half
    assert [p.across for p in _onto_fold(points)][:2] == [0.0 if half else off] * 2
