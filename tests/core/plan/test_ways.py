"""A piece told in every way comes back: within 0.2 mm at its points, whatever it looks like."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from idle_selvage.core.plan.draft import Draft, DraftPoint, halved, keyed, outline_of
from idle_selvage.core.plan.fit import fitted, outline_within
from idle_selvage.core.plan.outline import BadPiece, polygon_fault
from idle_selvage.core.plan.shapes import Measures, shaped
from idle_selvage.core.plan.stations import Station, points_from_stations
from idle_selvage.core.plan.tapes import TwoTapes, point_by_tapes, points_by_tapes, sureness
from idle_selvage.core.units import read_length, read_sided
from idle_selvage.core.written import length_text, sided_text
from idle_selvage.formats.svg_pieces import read_svg

from .tailored import HARD


@st.composite
def pieces(draw: st.DrawFn) -> Draft:
    """A random simple outline, corners and smooth points mixed, on both sides of the tape."""
    count = draw(st.integers(4, 12))
    angles = [2 * math.pi * (i + draw(st.floats(-0.3, 0.3))) / count for i in range(count)]
    radii = [draw(st.floats(80, 400)) for _ in range(count)]
    smooth = [draw(st.booleans()) for _ in range(count)]
    points = [
        DraftPoint(round(r * math.cos(a) + 300, 1), round(r * math.sin(a), 1), s)
        for a, r, s in zip(angles, radii, smooth, strict=True)
    ]
    draft = Draft(keyed(points))
    try:
        assume(polygon_fault(outline_of(draft)) is None)
    except BadPiece:
        assume(False)
    return draft


def near(told: Draft, found: Draft) -> None:
    for point, again in zip(told.points, found.points, strict=True):
        assert math.dist(point.at, again.at) <= 0.2
        assert point.smooth == again.smooth


@given(pieces())
def test_by_two_readings_written_and_read_in_either_system(draft: Draft) -> None:
    for system, within in (("metric", 0.5), ("imperial", 25.4 / 32)):
        for p in draft.points:
            across = read_sided(sided_text(p.across, system), system)  # type: ignore[arg-type]
            along = read_length(length_text(abs(p.along), system), system)  # type: ignore[arg-type]
            assert abs(across - p.across) <= within + 1e-6 and abs(along - abs(p.along)) <= within + 1e-6


@given(pieces())
def test_by_two_tapes(draft: Draft) -> None:
    """Two marks on the grainline, tapes read to half a millimetre where they cross well."""
    apart = 600.0
    read = [
        TwoTapes(math.dist(p.at, (0, 0)), math.dist(p.at, (apart, 0)), "left" if p.across >= 0 else "right", p.smooth)
        for p in draft.points
    ]
    near(draft, Draft(points_by_tapes(apart, read)))
    for p, tapes in zip(draft.points, read, strict=True):
        by = sureness(apart, tapes)
        if by < 3:
            off = TwoTapes(tapes.first + 0.5, tapes.second, tapes.side)
            assert math.dist(point_by_tapes(apart, off).at, p.at) <= 0.5 * by * 1.1 + 0.01


@st.composite
def two_sided(draw: st.DrawFn) -> list[Station]:
    count = draw(st.integers(2, 8))
    along = 0.0
    out = []
    for i in range(count):
        sides = [draw(st.floats(20, 300)), draw(st.floats(20, 300))]
        if 0 < i < count - 1 and draw(st.booleans()):
            sides[draw(st.integers(0, 1))] = None  # type: ignore[call-overload]
        out.append(Station(along, sides[0], sides[1], draw(st.sampled_from(["", "left", "right", "both"]))))  # type: ignore[arg-type]
        along += draw(st.floats(20, 150))
    return out


@given(two_sided())
def test_by_stations_with_extra_points_on_one_side(stations: list[Station]) -> None:
    points = points_from_stations(stations, smooth=True, half=False)
    places = {p.at: p for p in points}
    ends = (stations[0].along, stations[-1].along)
    for s in stations:
        for side, across in (("left", s.left), ("right", None if s.right is None else -s.right)):
            if across is None:
                continue
            point = places[s.along, across]
            assert point.smooth == (s.along not in ends and s.corners not in (side, "both"))
    assert len(points) == sum(v is not None for s in stations for v in (s.left, s.right))


@given(two_sided())
def test_ticking_fold_before_or_after_is_the_same_piece(stations: list[Station]) -> None:
    assume(all(s.left is not None for s in stations))
    before = points_from_stations(stations, smooth=False, half=True)
    whole = points_from_stations(stations, smooth=False, half=False)
    after = halved(Draft(whole, half=True)).points
    assert Polygon([p.at for p in before]).symmetric_difference(Polygon([p.at for p in after])).area < 0.01


def svg_of(draft: Draft) -> bytes:
    """Drawn upright on a sheet, its grain up, as chords of its outline."""
    ring = outline_of(draft)
    d = "M" + " L".join(f"{500 - y:.4f},{900 - x:.4f}" for x, y in ring) + " Z"
    arrow = '<line class="grainline" x1="500" y1="700" x2="500" y2="500"/>'
    return (f'<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="1000mm" viewBox="0 0 1000 1000">'
            f'<g class="piece"><title>P</title><path d="{d}"/>{arrow}</g></svg>').encode()  # fmt: skip


@given(pieces())
@settings(max_examples=40)
def test_from_a_drawing(draft: Draft) -> None:
    outline = outline_of(draft)
    found = read_svg(svg_of(draft)).what
    assert len(found) == 1
    dx, dy = min(x for x, _ in outline), min(y for _, y in outline)
    moved = tuple((x - dx, y - dy) for x, y in outline)
    assert outline_within(found[0].draft.points, moved) <= 0.5
    ring = [*moved[-1:], *moved, *moved[:1]]
    for a, corner, c in zip(ring, ring[1:], ring[2:], strict=False):
        turn = math.atan2(corner[1] - a[1], corner[0] - a[0]) - math.atan2(c[1] - corner[1], c[0] - corner[0])
        if abs((turn + math.pi) % (2 * math.pi) - math.pi) > math.radians(25):
            assert min(math.dist(corner, p.at) for p in found[0].draft.points) <= 0.5, (
                "a corner stays where it was; what is nearer is one point"
            )


@pytest.mark.parametrize("name", HARD)
def test_the_points_of_a_hard_shape_are_found_again(name: str) -> None:
    outline = outline_of(HARD[name]())
    points = fitted(outline)
    assert outline_within(points, outline) <= 0.25
    assert len(points) < 40, "few enough to be changed by hand"


def test_tapes_that_do_not_meet_are_refused_by_number() -> None:
    for first, second, says in ((100.0, 200.0, "do not reach each other"), (900.0, 100.0, "miss each other")):
        with pytest.raises(BadPiece, match=f"Point 2: the.*{says}"):
            points_by_tapes(500.0, [TwoTapes(300, 300), TwoTapes(first, second), TwoTapes(300, 300, "right")])
    with pytest.raises(BadPiece, match="at least a centimetre apart"):
        point_by_tapes(5.0, TwoTapes(10, 10))


def test_a_point_in_line_with_the_marks_is_told_badly() -> None:
    assert sureness(500.0, TwoTapes(300, 400)) == pytest.approx(1.0), "at a right angle: 3, 4, 5"
    assert sureness(500.0, TwoTapes(250.2, 250.2)) > 10


@given(
    st.sampled_from(["rectangle", "bias_strip", "circle"]), st.floats(30, 900), st.floats(30, 300), st.booleans()
)  # fmt: skip
def test_a_shape_has_the_measures_it_is_told_by(shape: str, first: float, second: float, half: bool) -> None:
    assume(not (half and shape == "bias_strip"))
    draft = shaped(Measures(shape, first, second), half=half)  # type: ignore[arg-type]
    xs, ys = zip(*outline_of(draft), strict=True)
    wide = second if shape != "circle" else first
    assert max(xs) - min(xs) == pytest.approx(first, abs=0.02)
    assert (max(ys) - min(ys)) * (2 if half else 1) == pytest.approx(wide, abs=0.02)
