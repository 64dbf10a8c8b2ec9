"""Allowances that differ from edge to edge, and how they end at corners."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from idle_selvage.core.plan.allowance import cut_line, moved, seam_line, told_by_seam
from idle_selvage.core.plan.draft import Draft, DraftPoint, Ends, keyed
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.plan.piece import Piece

from .tailored import HARD

#: A flared panel: hem 200 mm wide at the low end, 120 at the top 300 mm up.
FLARED = [(0.0, -100.0), (300.0, -60.0), (300.0, 60.0), (0.0, 100.0)]
#: How far the side leans out, and how much longer a millimetre up is along it.
LEAN = 40.0 / 300.0
LONG = math.hypot(40.0, 300.0) / 300.0


def panel(side: float, hem: float, ends: Ends) -> Piece:
    points = [DraftPoint(x, y, allowance=side) for x, y in FLARED]
    points[3] = DraftPoint(0.0, 100.0, allowance=hem, ends=ends)
    return piece_of("Panel", Draft(keyed(points)), HowCut())


def hem_end(piece: Piece) -> float:
    """Half the width of the cut line at its very low end."""
    ring = cut_line(piece)
    low = min(x for x, _ in ring)
    return max(y for x, y in ring if abs(x - low) < 0.01)


def test_a_hem_meets_its_sides_is_square_or_folds_up_onto_the_piece() -> None:
    # where the side's cut line, 15 mm out, crosses the hem's fold
    at_fold = 100.0 + 15.0 * LONG
    assert hem_end(panel(15, 40, "mitre")) == pytest.approx(at_fold + 40 * LEAN, abs=0.01), "the side runs on"
    assert hem_end(panel(15, 40, "square")) == pytest.approx(at_fold, abs=0.01)
    assert hem_end(panel(15, 40, "folded")) == pytest.approx(at_fold - 40 * LEAN, abs=0.01), "its mirror image"


@given(st.floats(0, 30), st.floats(5, 60), st.floats(-60, 60))
def test_a_folded_hem_lies_exactly_on_the_piece(side: float, hem: float, flare: float) -> None:
    places = ((0.0, -100 - flare), (400.0, -100.0), (400.0, 100.0))
    points = [DraftPoint(x, y, allowance=side) for x, y in places]
    points.append(DraftPoint(0, 100 + flare, allowance=hem, ends="folded"))
    whole = Polygon(cut_line(piece_of("P", Draft(keyed(points)), HowCut())))
    below = whole.intersection(Polygon([(-200, -500), (0, -500), (0, 500), (-200, 500)]))
    up = Polygon([(-x, y) for x, y in below.exterior.coords]).buffer(1e-6)
    above = whole.intersection(Polygon([(0, -500), (hem, -500), (hem, 500), (0, 500)]))
    assert up.symmetric_difference(above).area <= 0.05 * hem


@pytest.mark.parametrize("name", HARD)
@pytest.mark.parametrize("width", [6.0, 15.0])
def test_one_width_all_round_is_shapely_s_mitred_buffer(name: str, width: float) -> None:
    """Reference: shapely's buffer with mitred joins; the bands are made another way."""
    piece = piece_of(name, HARD[name](), HowCut())
    ring = piece.outline
    banded = moved(ring, [width] * len(ring), [(i, "mitre") for i in range(len(ring))], outwards=True)
    wanted = Polygon(ring).buffer(width, join_style="mitre", mitre_limit=4.0)
    # a corner sharper than the limit is cut off by each in its own way
    assert banded.symmetric_difference(wanted).area <= 0.002 * wanted.area
    inner = moved(ring, [width] * len(ring), [(i, "mitre") for i in range(len(ring))], outwards=False)
    assert inner.symmetric_difference(Polygon(ring).buffer(-width, join_style="mitre")).area <= 0.002 * wanted.area


@given(st.lists(st.floats(0, 40), min_size=4, max_size=4))
def test_each_edge_of_a_rectangle_has_its_own(widths: list[float]) -> None:
    places = [(0.0, 0.0), (300.0, 0.0), (300.0, 200.0), (0.0, 200.0)]
    points = [DraftPoint(x, y, allowance=w) for (x, y), w in zip(places, widths, strict=True)]
    x0, y0, x1, y1 = Polygon(cut_line(piece_of("P", Draft(keyed(points)), HowCut()))).bounds
    assert (y0, x1, y1, x0) == pytest.approx((-widths[0], 300 + widths[1], 200 + widths[2], -widths[3]), abs=2e-3)


def test_none_is_added_on_the_fold() -> None:
    points = [
        DraftPoint(0, 0, straight=True),
        DraftPoint(300, 0),
        DraftPoint(300, 100),
        DraftPoint(0, 120, allowance=40.0),
    ]
    piece = piece_of("Back", Draft(keyed(points), half=True), HowCut(on_fold=True, seam=15))
    assert Polygon(cut_line(piece)).bounds == pytest.approx((-40, 0, 315, 120 + 15 * 301.0 / 300 + 40 / 15), abs=0.8)
    assert min(y for _, y in cut_line(piece)) == 0


def test_the_seam_line_lies_inside_where_the_allowance_is_included() -> None:
    points = [DraftPoint(x, y) for x, y in ((0, 0), (300, 0), (300, 200), (0, 200))]
    points[3] = DraftPoint(0, 200, allowance=40.0)
    draft = Draft(keyed(points), included=15.0)
    piece = piece_of("Front", draft, HowCut())
    assert Polygon(cut_line(piece)).bounds == (0, 0, 300, 200), "the drawn line is cut"
    assert Polygon(seam_line(piece)).bounds == pytest.approx((40, 15, 285, 185), abs=1e-3)
    bare = piece_of("Front", draft, HowCut(bare=True))
    assert cut_line(bare) == seam_line(piece), "interfacing without allowance is cut at the seam line"
    again = told_by_seam(piece)
    assert Polygon(cut_line(again)).symmetric_difference(Polygon(piece.outline)).area < 0.5


def test_without_any_allowance_the_seam_line_is_cut() -> None:
    piece = piece_of("Front", Draft(panel_points()), HowCut(seam=15, bare=True))
    assert cut_line(piece) == piece.outline


def panel_points() -> tuple[DraftPoint, ...]:
    return keyed([DraftPoint(x, y, allowance=10.0) for x, y in FLARED])


@pytest.mark.parametrize("outwards", [True, False])
def test_an_outline_told_the_other_way_round_has_the_same_cut_line(outwards: bool) -> None:
    widths, count = [10.0, 25.0, 0.0, 40.0], len(FLARED)
    ends: list[tuple[int, Ends]] = [(0, "mitre"), (1, "square"), (2, "mitre"), (3, "mitre")]
    # the stretch from the k-th point on is, the other way round, the one from the point before it
    back = [(count - 2 - k) % count for k in range(count)]
    one = moved(FLARED, widths, ends, outwards=outwards)
    other = moved(
        FLARED[::-1], [widths[k] for k in back], [(n, ends[k][1]) for n, k in enumerate(back)], outwards=outwards
    )
    assert one.symmetric_difference(other).area == pytest.approx(0.0, abs=1.0)
    assert one.area != pytest.approx(moved(FLARED, widths[::-1], ends, outwards=outwards).area, abs=100.0)
