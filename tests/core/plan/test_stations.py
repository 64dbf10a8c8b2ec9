"""Outlines through stations."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.outline import BadPiece, polygon_fault
from idle_selvage.core.plan.piece import Piece, check_piece
from idle_selvage.core.plan.stations import Station, outline_from_stations


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
    # nowhere wider than it was measured, but for a breath of 2 mm
    assert max(y for _, y in outline) <= 182 and min(y for _, y in outline) >= -172


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
