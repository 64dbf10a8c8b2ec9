"""Grain arrows."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Polygon

from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.arrow import grainline
from idle_selvage.core.plan.stations import Station, outline_from_stations
from idle_selvage.demo import drafts
from idle_selvage.formats.svg_pieces import read_svg

from .test_piece import SQUARE

heights = st.lists(st.tuples(st.floats(20, 200), st.floats(20, 200)), min_size=2, max_size=6)


@given(heights, st.booleans(), st.booleans())
def test_an_arrow_lies_inside_its_piece_and_off_its_edges(
    sides: list[tuple[float, float]], smooth: bool, on_fold: bool
) -> None:
    stations = [Station(80.0 * i, left, right) for i, (left, right) in enumerate(sides)]
    outline = outline_from_stations(stations, smooth=smooth, on_fold=on_fold)
    tail, head = grainline(outline, on_fold=on_fold)
    assert tail[1] == head[1] and tail[0] < head[0], "along, bottom end first"
    assert Polygon(outline).exterior.distance(LineString([tail, head])) > 0.9


def test_no_arrow_of_the_demo_runs_along_an_edge() -> None:
    # the waistcoat's facing once had its arrow on its own cut line
    for pieces in (drafts.waistcoat(), drafts.overshirt()):
        for read in read_svg(drafts.drawing(pieces, "demo").encode()).what:
            piece = read.piece
            arrow = LineString(grainline(cut_line(piece), on_fold=piece.on_fold))
            assert Polygon(cut_line(piece)).exterior.distance(arrow) > 0.9, piece.name


def test_a_piece_too_thin_for_room_still_has_an_arrow() -> None:
    thin = ((0.0, 0.0), (300.0, 0.0), (300.0, 1.5), (0.0, 1.5))
    tail, head = grainline(thin)
    assert 0 < tail[1] < 1.5 and head[0] - tail[0] > 100


def test_grainline_lies_inside_and_along() -> None:
    for on_fold in (False, True):
        tail, head = grainline(SQUARE, on_fold=on_fold)
        assert tail[1] == head[1] and head[0] > tail[0]
        assert Polygon(SQUARE).covers(LineString([tail, head]))
