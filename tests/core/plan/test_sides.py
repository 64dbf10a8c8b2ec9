"""Edges between corners and notches, on the drawn line, the seam line and the cut line."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from idle_selvage.core.plan.allowance import cut_line, seam_line
from idle_selvage.core.plan.draft import Draft, DraftPoint, Notch, run_length
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.sides import Side, Spot, corners, cut_run, run_of, seam_run, sewn_edges


def drafted(*points: tuple[float, float], half: bool = False, **more: object) -> Draft:
    return Draft(tuple(DraftPoint(x, y, key=n) for n, (x, y) in enumerate(points, 1)), half=half, **more)  # type: ignore[arg-type]


#: A panel with a hip that bends by 9 degrees: (along, across), the right side up and the left one down.
PANEL = drafted((0, -100), (200, -100), (380, -71), (380, 71), (200, 100), (0, 100))


def test_an_edge_runs_from_corner_to_corner_over_a_hip() -> None:
    assert corners(PANEL) == (1, 3, 4, 6), "the hip bends by less than a corner does"
    assert [(e.side.begin.after, e.side.end.after) for e in sewn_edges(PANEL)] == [(1, 3), (3, 4), (4, 6), (6, 1)]
    assert sewn_edges(PANEL)[0].length == pytest.approx(200 + math.hypot(180, 29))


def test_a_corner_is_set_and_taken_away() -> None:
    more = replace(PANEL, corners=((2, True),))
    assert corners(more) == (1, 2, 3, 4, 6)
    fewer = replace(PANEL, corners=((1, False), (6, False)))
    assert corners(fewer) == (3, 4) and len(sewn_edges(fewer)) == 2
    none = replace(PANEL, corners=tuple((n, False) for n in (1, 3, 4, 6)))
    whole = sewn_edges(none)
    assert len(whole) == 1 and whole[0].length == pytest.approx(Polygon(whole[0].line).length, abs=1e-6)


def test_notches_part_an_edge_and_the_whole_one_stays() -> None:
    notched = replace(PANEL, notches=(Notch(1, 150.0), Notch(2, 50.0, double=True), Notch(3, 10.0)))
    first = [e for e in sewn_edges(notched) if e.side.begin.after in (1, 2) or e.side == Side(Spot(1), Spot(3))]
    assert [e.whole for e in first] == [True, False, False, False]
    assert [round(e.length, 1) for e in first[1:]] == [150.0, 100.0, round(math.hypot(180, 29) - 50, 1)]
    assert sum(e.length for e in first[1:]) == pytest.approx(first[0].length)


def test_nothing_is_sewn_along_a_fold_and_a_lost_point_is_said() -> None:
    half = drafted((0, 0), (0, 90), (300, 60), (300, 0), half=True)
    assert [(e.side.begin.after, e.side.end.after) for e in sewn_edges(half)] == [(1, 2), (2, 3), (3, 4)]
    with pytest.raises(BadPiece, match="no longer there"):
        run_of(half, Side(Spot(9), Spot(1)))


@settings(max_examples=40, deadline=None)
@example(2.0, -9.979801331720534, True, [-11.35389107977608, 5.644156360284228, -5.0, -5.534924762482314], 21.0)
@example(13.0, 15.356900852499265, True, [4.0, -8.0, -8.42128255322524, -11.0], 24.0)
@given(
    st.floats(2, 25), st.floats(-25, 25), st.booleans(),
    st.lists(st.floats(-12, 12), min_size=4, max_size=4), st.floats(0, 30),
)  # fmt: skip
def test_a_side_lies_on_its_line_at_its_distance(
    width: float, skew: float, inside: bool, wobble: list[float], lean: float
) -> None:
    """On the seam line and at the cut edge every place of a side lies on that line, beside the drawn edge."""
    ring = [(0 + wobble[0], -100.0), (350 + skew, -80 + wobble[1]), (360, 80 + wobble[2]), (wobble[3], 110.0)]
    arrow = ((0.0, 0.0), (200.0, 200.0 * math.tan(math.radians(lean)))) if lean > 1 else None
    draft = drafted(*ring, included=width if inside else 0.0, arrow=arrow)
    piece = piece_of("Panel", draft, HowCut(seam=0.0 if inside else width))
    for edge in sewn_edges(draft):
        sewn, cut = seam_run(piece, draft, edge.side), cut_run(piece, draft, edge.side)
        for run, line in ((sewn, seam_line(piece)), (cut, cut_line(piece))):
            ring_line = Polygon(line).exterior
            assert max(ring_line.distance(Point(p)) for p in run) < 1e-3
        # a straight edge and the two lines beside it are parallel, one allowance apart
        middle = LineString(cut).interpolate(0.5, normalized=True)
        assert LineString([*_longer(sewn)]).distance(middle) == pytest.approx(width, abs=2e-3)


def _longer(run: tuple[tuple[float, float], ...]) -> list[tuple[float, float]]:
    (ax, ay), (bx, by) = run[0], run[-1]
    return [(ax - (bx - ax), ay - (by - ay)), (bx + (bx - ax), by + (by - ay))]


def test_the_seam_line_of_a_side_is_shorter_by_the_corners_allowances() -> None:
    draft = drafted((0, 0), (300, 0), (300, 200), (0, 200), included=15.0)
    piece = piece_of("Square", draft, HowCut())
    side = sewn_edges(draft)[0].side
    assert run_length(run_of(draft, side)) == pytest.approx(300)
    assert run_length(seam_run(piece, draft, side)) == pytest.approx(270, abs=1e-3)
    assert cut_run(piece, draft, side) == run_of(draft, side), "the drawn line is the cut line"
