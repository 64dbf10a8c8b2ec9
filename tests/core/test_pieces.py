from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon

from idle_selvage.core.lay.placing import distances_to_edge, place_point
from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.arrow import grainline
from idle_selvage.core.plan.outline import BadPiece, is_mirror_symmetric, polygon_fault, whole_polygon
from idle_selvage.core.plan.piece import Piece, check_piece
from idle_selvage.core.plan.stations import Station, outline_from_stations
from idle_selvage.core.true.pinned import tilt

SQUARE = ((0.0, 0.0), (100.0, 0.0), (100.0, 80.0), (0.0, 80.0))


def test_straight_stations_give_their_corners() -> None:
    outline = outline_from_stations([Station(0, 10, 20), Station(50, 15, 25)], smooth=False, on_fold=False)
    assert set(outline) == {(0, -20), (50, -25), (50, 15), (0, 10)}


def test_stations_may_come_in_any_order_and_meet_in_a_point() -> None:
    outline = outline_from_stations([Station(60, 0, 0), Station(0, 10, 10)], smooth=False, on_fold=False)
    assert len(outline) == 3 and polygon_fault(outline) is None


def test_smoothed_edges_pass_through_and_never_swing_past() -> None:
    stations = [Station(0, 120, 120), Station(400, 180, 170), Station(480, 140, 140), Station(550, 10, 10)]
    outline = outline_from_stations(stations, smooth=True, on_fold=False)
    left = {x: y for x, y in outline if y > 0}
    for s in stations:
        assert left[s.along] == pytest.approx(s.left)
    assert max(y for _, y in outline) <= 180 + 1e-9 and min(y for _, y in outline) >= -170 - 1e-9


def test_on_fold_stations_keep_the_fold_straight() -> None:
    outline = outline_from_stations(
        [Station(0, 100, 0), Station(300, 80, 0), Station(500, 60, 0)], smooth=True, on_fold=True
    )
    assert min(y for _, y in outline) == 0
    check_piece(Piece("Back", outline, on_fold=True))


@pytest.mark.parametrize(
    ("stations", "says"),
    [([Station(0, 1, 1)], "two stations"), ([Station(0, 10, 10), Station(0, 20, 20)], "same place")],
)
def test_stations_that_cannot_be(stations: list[Station], says: str) -> None:
    with pytest.raises(BadPiece, match=says):
        outline_from_stations(stations, smooth=False, on_fold=False)


@pytest.mark.parametrize(
    ("piece", "says"),
    [
        (Piece("A", ((0, 0), (1, 1))), "fewer than three"),
        (Piece("A", ((0, 0), (100, 100), (100, 0), (0, 100))), "crosses or touches itself near 50, 50"),
        (Piece("A", ((0, 0), (float("nan"), 0), (1, 1))), "not a number"),
        (Piece("A", ((0, 0), (1, 0), (0, 1))), "quarter of a square"),
        (Piece("A", tuple((float(i), float(i * i)) for i in range(6000))), "at most 5000"),
        (Piece("A", SQUARE, copies=3, pair=True), "even number"),
        (Piece("A", SQUARE, copies=2, pair=True, on_fold=True), "no pair"),
        (Piece("A", SQUARE, copies=0), "from 1 to"),
        (Piece("A", SQUARE, on_fold=True, grain="bias"), "bias"),
        (Piece("A", tuple((x, y + 5) for x, y in SQUARE), on_fold=True), "no edge of it lies on the fold"),
        (Piece("A", tuple((x, y - 5) for x, y in SQUARE), on_fold=True), "reaches over the fold"),
    ],
)
def test_pieces_that_cannot_be_cut(piece: Piece, says: str) -> None:
    with pytest.raises(BadPiece, match=says):
        check_piece(piece)


def test_seam_allowance_goes_outwards_and_not_over_the_fold() -> None:
    grown = Polygon(cut_line(Piece("A", SQUARE, seam=15)))
    assert grown.bounds == pytest.approx((-15, -15, 115, 95))
    assert grown.area == pytest.approx(130 * 110)
    folded = Polygon(cut_line(Piece("B", SQUARE, on_fold=True, seam=15)))
    assert folded.bounds == pytest.approx((-15, 0, 115, 95))


def test_a_sharp_point_is_cut_off_square() -> None:
    needle = Piece("N", ((0.0, 0.0), (400.0, 5.0), (0.0, 10.0)), seam=10)
    assert max(x for x, _ in cut_line(needle)) < 400 + 5 * 10


@given(st.floats(5, 30), st.floats(40, 300), st.floats(40, 300))
def test_the_allowance_is_as_wide_as_asked_everywhere(seam: float, a: float, b: float) -> None:
    outline = ((0.0, 0.0), (a, b / 7), (a * 0.8, b), (0.0, b * 0.9))
    grown = Polygon(cut_line(Piece("A", outline, seam=seam)))
    assert grown.exterior.distance(Polygon(outline)) == pytest.approx(seam, rel=1e-6)


def test_grainline_lies_inside_and_along() -> None:
    for on_fold in (False, True):
        tail, head = grainline(SQUARE, on_fold=on_fold)
        assert tail[1] == head[1] and head[0] > tail[0]
        assert Polygon(SQUARE).covers(LineString([tail, head]))


def test_symmetry() -> None:
    assert is_mirror_symmetric(SQUARE)
    assert is_mirror_symmetric(((0, 0), (10, 0), (5, 30)), 0.1)
    assert not is_mirror_symmetric(((0, 0), (100, 0), (100, 50), (30, 60)))
    assert whole_polygon(SQUARE).area == pytest.approx(2 * 8000)


def test_distances_and_tilt() -> None:
    assert distances_to_edge((0, 100), (400, 100), 560) == (460, 460)
    assert tilt(100, 110, 400) == pytest.approx(math.degrees(math.atan(10 / 400)))


@given(st.sampled_from([0, 45, 90, 135, 180, 225, 270, 315]), st.booleans(), st.floats(-500, 500), st.floats(-500, 500))
def test_placing_keeps_distances(turn: int, mirrored: bool, x: float, y: float) -> None:
    a, b = (place_point(p, x=x, y=y, turn=turn, mirrored=mirrored) for p in ((0.0, 0.0), (30.0, 40.0)))
    assert math.dist(a, b) == pytest.approx(50)
    assert a == pytest.approx((x, y))
    if turn == 90 and not mirrored:
        assert np.allclose(b, (x - 40, y + 30))
