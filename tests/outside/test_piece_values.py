"""Pieces against closed formulas of geometry, numeric integration and a reference library (shapely, scipy).

The formulas of circle, ring and triangle are elementary geometry; a skirt's waist r = waist ÷ (2π × share of the
circle) is common practice, no source.
"""

from __future__ import annotations

import math

import pytest
from scipy.integrate import quad
from shapely.geometry import Polygon

from idle_selvage.core.plan.curve import chords
from idle_selvage.core.plan.draft import Draft, DraftPoint, edges, keyed, outline_of
from idle_selvage.core.plan.drawn import HowCut
from idle_selvage.core.plan.fit import fitted
from idle_selvage.core.plan.shapes import Measures, inner_radius, shaped
from idle_selvage.core.plan.sheet import ease, edge_measures
from idle_selvage.core.plan.tapes import TwoTapes, point_by_tapes


@pytest.mark.parametrize("share", [0.25, 0.5, 0.75, 1.0, 1.5, 2.0])
@pytest.mark.parametrize("panels", [2, 3, 4])
def test_a_circle_skirt_has_its_waist_its_hem_and_its_area(share: float, panels: int) -> None:
    waist, long = 720.0, 600.0
    if 360 * share / panels > 350:
        pytest.skip("a panel that goes all the way round is refused")
    radius = waist / (2 * math.pi * share)
    draft = shaped(Measures("ring", waist, long, share, panels))
    lengths = sorted(e.length for e in edges(draft))
    hem = 2 * math.pi * share * (radius + long) / panels
    assert sorted([waist / panels, long, long, hem]) == pytest.approx(lengths, rel=2e-4)
    area = math.pi * share * ((radius + long) ** 2 - radius**2) / panels
    assert Polygon(outline_of(draft)).area == pytest.approx(area, rel=2e-4)
    assert inner_radius(Measures("ring", waist, long, share, panels)) == pytest.approx(radius)


def test_worked_examples_of_circle_skirts() -> None:
    """Waist 28 in: full circle r = 4.456 in, half 8.913 in, quarter 17.825 in (28 ÷ 2π = 4.4563)."""
    for share, inches in ((1.0, 4.4563), (0.5, 8.9127), (0.25, 17.8254)):
        assert inner_radius(Measures("ring", 28 * 25.4, 600, share)) / 25.4 == pytest.approx(inches, abs=5e-4)


def test_half_a_whole_ring_lies_on_the_fold() -> None:
    draft = shaped(Measures("ring", 720, 500, 1.0, 1), half=True)
    radius = 720 / (2 * math.pi)
    assert Polygon(outline_of(draft)).area == pytest.approx(math.pi / 2 * ((radius + 500) ** 2 - radius**2), rel=2e-4)
    assert sum(e.length for e in edges(draft) if e.on_fold) == pytest.approx(1000.0, abs=0.01)


def test_half_a_circle_ends_in_corners_on_its_fold() -> None:
    points = shaped(Measures("circle", 300), half=True).points
    assert [k for k, p in enumerate(points) if not p.smooth] == [0, len(points) - 1]
    assert points[0].at == pytest.approx((150.0, 0.0)) and points[-1].at == pytest.approx((-150.0, 0.0), abs=1e-9)


def test_a_circle() -> None:
    outline = outline_of(shaped(Measures("circle", 300)))
    assert Polygon(outline).length == pytest.approx(math.pi * 300, rel=2e-4)
    assert all(abs(math.hypot(x, y) - 150) < 0.06 for x, y in outline)


@pytest.mark.parametrize(
    "control",
    [
        ((0, 0), (60, 10), (110, 90), (180, 90)),
        ((0, 0), (0, 95), (95, 130), (95, 235)),
        ((0, 0), (90, 0), (90, 80), (200, 120)),
    ],
)
def test_edge_lengths_against_numeric_integration(control: tuple[tuple[float, float], ...]) -> None:
    """The length of a Bézier curve, drawn, fitted with few points and measured along its edge."""

    def speed(t: float) -> float:
        d = [
            3 * ((1 - t) ** 2 * (b1 - b0) + 2 * t * (1 - t) * (b2 - b1) + t * t * (b3 - b2))
            for b0, b1, b2, b3 in zip(*control, strict=True)
        ]
        return math.hypot(*d)

    wanted, _ = quad(speed, 0, 1)
    x1, y1 = control[-1]
    ring = [*chords(control), (x1, y1), (x1 + 10, -200.0), (-140.0, -100.0)]
    found = edges(Draft(fitted(ring)))
    curved = next(e for e in found if math.dist(e.line[0], control[0]) < 0.1 or math.dist(e.line[-1], control[0]) < 0.1
                  if math.dist(e.line[0], (x1, y1)) < 0.1 or math.dist(e.line[-1], (x1, y1)) < 0.1)  # fmt: skip
    assert curved.length == pytest.approx(wanted, rel=1e-3)


def test_the_seam_of_a_circle_is_shorter_by_two_pi_allowances() -> None:
    """A circle with 15 mm included: along the seam it is π (d − 30)."""
    draft = shaped(Measures("circle", 300))
    (only,) = edge_measures(Draft(draft.points, included=15.0), HowCut())
    assert only.drawn == pytest.approx(math.pi * 300, rel=2e-4) and only.seam == pytest.approx(math.pi * 270, rel=5e-4)


def test_seam_against_cut_area() -> None:
    """Steiner: the area within the cut line of a convex piece is A + L × a + (what its mitred corners add)."""
    places = [(0.0, 0.0), (300.0, 0.0), (300.0, 200.0), (0.0, 200.0)]
    draft = Draft(keyed([DraftPoint(x, y) for x, y in places]), included=15.0)
    seams = edge_measures(draft, HowCut())
    inner = 270.0 * 170.0
    assert sum(e.seam for e in seams) == pytest.approx(2 * (270 + 170), abs=0.01)
    assert inner + 15 * sum(e.seam for e in seams) + 4 * 15**2 == pytest.approx(300 * 200, abs=0.5)


def test_a_point_by_two_tapes_is_the_corner_of_a_triangle() -> None:
    """3-4-5, by the law of cosines; and an equilateral one."""
    found = point_by_tapes(500.0, TwoTapes(300.0, 400.0))
    assert (found.along, found.across) == pytest.approx((180.0, 240.0))
    right = point_by_tapes(200.0, TwoTapes(200.0, 200.0, "right"))
    assert (right.along, right.across) == pytest.approx((100.0, -100.0 * math.sqrt(3)))


def test_the_ease_of_a_sleeve_head() -> None:
    value, share = ease([("edge 1", 460.0)], [("other edge 1", 215.0), ("other edge 2", 220.0)])
    assert value.value == pytest.approx(25.0)
    assert share is not None and share.value == pytest.approx(100 * 25 / 435)
