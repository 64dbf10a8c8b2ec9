"""The draft of a piece: its edges, its arrow, its notches, halves."""

from __future__ import annotations

import math

import pytest
from shapely.geometry import Polygon

from idle_selvage.core.plan.draft import (
    Draft,
    DraftPoint,
    Notch,
    check_points,
    edges,
    halved,
    keyed,
    lean,
    notch_at,
    outline_of,
    place_on,
)
from idle_selvage.core.plan.outline import BadPiece, polygon_fault

from .tailored import HARD, lapel_front


def box(long: float = 400.0, wide: float = 200.0) -> Draft:
    places = [(0.0, -wide / 2), (long, -wide / 2), (long, wide / 2), (0.0, wide / 2)]
    return Draft(keyed([DraftPoint(x, y) for x, y in places]))


@pytest.mark.parametrize("name", HARD)
def test_every_hard_shape_is_one_outline_and_passes_through_its_points(name: str) -> None:
    draft = HARD[name]()
    outline = outline_of(draft)
    assert polygon_fault(outline) is None
    for point in draft.points:
        assert min(math.dist(point.at, p) for p in outline) < 1e-3


def test_edges_run_from_corner_to_corner() -> None:
    found = edges(lapel_front())
    assert [e.first.key for e in found] == [1, 2, 5, 6, 7, 8, 9, 13]
    assert found[0].length == pytest.approx(230.0)
    smooth = Draft(keyed([DraftPoint(100 * math.cos(a), 100 * math.sin(a), True) for a in (0, 1, 2, 3, 4, 5)]))
    assert len(edges(smooth)) == 1, "a piece without a corner has one edge, all the way round"
    allowed = Draft(
        tuple(DraftPoint(*p.at, True, allowance=10.0 if p.key == 3 else None, key=p.key) for p in smooth.points)
    )
    assert [e.first.key for e in edges(allowed)] == [3], "an allowance of its own begins an edge"


@pytest.mark.parametrize(
    ("points", "says"),
    [
        ([(0, 0), (10, 0)], "at least three"),
        ([(0, 0), (0.05, 0.05), (50, 0), (50, 50)], "Points 1 and 2 lie at the same place"),
        ([(0, 0), (50, 0), (50, 50), (0, 0.05)], "Points 4 and 1"),
    ],
)
def test_runs_that_cannot_be(points: list[tuple[float, float]], says: str) -> None:
    with pytest.raises(BadPiece, match=says):
        check_points([DraftPoint(x, y) for x, y in points])


@pytest.mark.parametrize(
    ("arrow", "leans"),
    [
        (None, 0.0),
        (((10.0, 5.0), (300.0, 5.0)), 0.0),
        (((100.0, -50.0), (200.0, 50.0)), 45.0),
        (((200.0, 0.0), (100.0, 0.0)), 180.0),
    ],
)
def test_how_far_the_printed_arrow_leans(
    arrow: tuple[tuple[float, float], tuple[float, float]] | None, leans: float
) -> None:
    draft = Draft(box().points, arrow=arrow)
    assert lean(draft) == pytest.approx(leans)


def test_an_arrow_across_a_fold_or_without_length_cannot_be() -> None:
    half = halved(Draft(box().points, half=True))
    with pytest.raises(BadPiece, match="runs along the fold"):
        lean(Draft(half.points, half=True, arrow=((0.0, 0.0), (100.0, 20.0))))
    with pytest.raises(BadPiece, match="shorter than a millimetre"):
        lean(Draft(box().points, arrow=((5.0, 5.0), (5.0, 5.4))))


def test_a_notch_is_measured_along_the_edge() -> None:
    draft = box()
    assert place_on(draft, 1, 150.0) == ((150.0, -100.0), (0.0, -1.0))
    assert place_on(draft, 2, 30.0) == ((400.0, -70.0), (1.0, 0.0))
    found = notch_at(draft, (260.0, 108.0))
    assert (found.after, found.at) == (3, 140.0), "nearest, from the beginning of its edge"
    for after, at in ((9, 10.0), (1, 1e6)):
        with pytest.raises(BadPiece):
            place_on(draft, after, at)


def test_the_half_of_a_piece_is_what_lies_left_of_the_tape() -> None:
    whole = box()
    half = halved(Draft(whole.points, half=True))
    assert sorted(p.at for p in half.points) == [(0.0, 0.0), (0.0, 100.0), (400.0, 0.0), (400.0, 100.0)]
    right = Draft(tuple(DraftPoint(p.along, min(p.across, 0.0)) for p in whole.points), half=True)
    assert sorted(p.at for p in halved(right).points) == sorted(p.at for p in half.points), (
        "told on the right: the same"
    )
    assert halved(half) == half, "once is enough"


def test_keys_stay_and_new_points_get_new_ones() -> None:
    given = [DraftPoint(0, 0, key=7), DraftPoint(1, 1), DraftPoint(2, 0, key=7), DraftPoint(3, 3, key=2)]
    assert [p.key for p in keyed(given)] == [7, 8, 9, 2]


def test_notches_of_the_lapel_front_lie_on_its_outline() -> None:
    draft = lapel_front()
    (notch,) = draft.notches
    assert notch == Notch(12, 40.0, True)
    place, out = place_on(draft, notch.after, notch.at)
    assert math.hypot(*out) == pytest.approx(1.0) and place[0] < 430.0


def test_half_of_a_crooked_piece_is_cut_off_where_its_edges_cross_the_tape() -> None:
    corners = [(0.0, 80.0), (120.0, -30.0), (300.0, 110.0), (420.0, 20.0), (390.0, -60.0), (60.0, -90.0)]
    half = halved(Draft(tuple(DraftPoint(x, y, straight=True) for x, y in corners), half=True))
    left = Polygon(corners).intersection(Polygon([(-1, 0), (500, 0), (500, 500), (-1, 500)]))
    assert {round(p.along, 1) for p in half.points if p.across == 0.0} == {
        round(x, 1) for part in getattr(left, "geoms", [left]) for x, y in part.exterior.coords if abs(y) < 1e-9
    }


def test_a_notch_may_lie_on_its_point_and_all_the_way_round_but_no_further() -> None:
    draft = box()
    after = draft.points[1].key
    assert place_on(draft, after, 0.0)[0] == pytest.approx((400.0, -100.0))
    assert place_on(draft, after, 1200.0)[0] == pytest.approx((400.0, -100.0))
    for at in (-0.1, 1200.1):
        with pytest.raises(BadPiece, match="further along"):
            place_on(draft, after, at)
