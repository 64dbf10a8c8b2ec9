"""Grain against published definitions, numpy, and a sheared polygon of shapely."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from shapely import affinity
from shapely.geometry import Polygon

from idle_selvage.core.true.pinned import check_grain
from idle_selvage.core.true.slant import FoldTest, band_of, read_test, true_angle
from idle_selvage.core.true.twist import sheared, twist_of

INCH = 25.4
LEG = ((0.0, 0.0), (1000.0, 0.0), (1000.0, 260.0), (700.0, 320.0), (0.0, 210.0))


def test_skew_and_bow_as_astm_d3882_defines_them() -> None:
    """ASTM D3882: skew is 100 × the distance between a yarn's ends, along the selvage, ÷ the width; bow is 100 × the
    greatest distance of a yarn from the straight line between its ends ÷ the width."""
    found = read_test(FoldTest(1 * INCH, 0.5 * INCH), 44 * INCH)
    assert found.skew.value == pytest.approx(2.2727, abs=1e-4)
    assert found.bow.value == pytest.approx(1.1364, abs=1e-4)
    # a filling yarn of points that slants by 12 and bows by 6 over 1500 mm, measured as the standard says
    across = np.linspace(0, 1500, 301)
    yarn = 12 * across / 1500 + 6 * 4 * across / 1500 * (1 - across / 1500)
    line = np.interp(across, [0, 1500], [yarn[0], yarn[-1]])
    measured = read_test(FoldTest(float(yarn[-1] - yarn[0]), float(np.max(np.abs(yarn - line)))), 1500)
    assert measured.skew.value == pytest.approx(0.8) and measured.bow.value == pytest.approx(0.4)


@pytest.mark.parametrize(("offset", "width"), [(25.4, 44 * INCH), (3, 1500), (-40, 900), (0, 1400)])
def test_angles_against_numpy(offset: float, width: float) -> None:
    found = read_test(FoldTest(offset), width)
    assert found.angle.value == pytest.approx(abs(np.degrees(np.arctan2(offset, width))))
    # the angle between the weft as a vector and one square to the selvage
    weft, square = np.array([-offset, width]), np.array([0.0, 1.0])
    between = np.degrees(np.arccos(weft @ square / np.linalg.norm(weft)))
    assert abs(true_angle(offset, width)) == pytest.approx(between, abs=1e-6)


def test_the_check_values_of_the_trade() -> None:
    """Common practice, no source: 1 in over 44 in is 2.27 % and 1.30°; a leg of 1000 mm at 2° twists by 34.9 mm."""
    found = read_test(FoldTest(1 * INCH), 44 * INCH)
    assert round(found.skew.value, 2) == 2.27 and round(found.angle.value, 2) == 1.30
    assert round(twist_of("leg", LEG, "lengthwise", 2.0).twist.value, 1) == 34.9
    # ⅛ in is true, ½ in is steamed, 1½ in is straightened, more is cut off; the trade rounds them to 3, 12 and 40 mm
    assert [band_of(x) for x in (3.0, 12.0, 1.5 * INCH, 45)] == ["true", "steam", "straighten", "cut"]


@pytest.mark.parametrize("angle", [0.5, 1.3, 2.0, -2.0, 5.0])
def test_twist_by_an_explicit_sheared_polygon(angle: float) -> None:
    """shapely skews the piece about its top edge; the hem is displaced by what is called its twist."""
    # shapely shears y by x × tan of its angle; along the piece x falls from the top, so the sense is turned
    other = affinity.skew(Polygon(LEG), xs=0, ys=-angle, origin=(1000.0, 0.0))
    ours = Polygon(sheared(LEG, angle))
    assert shapely.hausdorff_distance(ours.exterior, other.exterior) < 1e-6
    hem = np.array(other.exterior.coords)[:-1]
    moved = hem[0, 1] - LEG[0][1]
    assert abs(moved) == pytest.approx(twist_of("leg", LEG, "lengthwise", angle).twist.value)
    assert ours.area == pytest.approx(Polygon(LEG).area), "nothing is stretched"


def test_tilt_against_numpy() -> None:
    for off, arrow in ((4, 566), (-9, 514), (0, 300)):
        tilt = check_grain((100.0, 100.0 + off), (100.0, 100.0), arrow).tilt
        assert tilt == pytest.approx(np.degrees(np.arctan(off / arrow))) and math.copysign(1, tilt) == math.copysign(
            1, off
        )
