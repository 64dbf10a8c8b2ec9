"""The map of a projector's picture against scikit-image's projective transform (skimage.transform)."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from skimage.transform import ProjectiveTransform

from idle_selvage.core.cut.true_size import BadCalibration, by_corners

SHIFT = st.floats(-140, 140)


@given(st.lists(st.tuples(SHIFT, SHIFT), min_size=4, max_size=4), st.floats(200, 2000), st.floats(200, 2000))
def test_the_same_places_fall_on_the_same_points(off: list[tuple[float, float]], wide: float, high: float) -> None:
    base = [(300.0, 200.0), (1100.0, 200.0), (1100.0, 700.0), (300.0, 700.0)]
    corners = [(x + a, y + b) for (x, y), (a, b) in zip(base, off, strict=True)]
    try:
        found = by_corners(wide, high, corners)
    except BadCalibration:
        return
    table = np.array([(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)])
    other = ProjectiveTransform.from_estimate(table, np.array(corners))  # type: ignore[no-untyped-call]
    grid = np.array([(x * wide, y * high) for x in (0.0, 0.13, 0.5, 0.9, 1.0) for y in (0.0, 0.4, 1.0)])
    ours = np.array([found.to_picture((float(x), float(y))) for x, y in grid])
    assert np.abs(ours - other(grid)).max() < 1e-5
    back = np.array([found.to_table((float(x), float(y))) for x, y in ours])
    assert np.abs(back - grid).max() < 1e-5


def test_css_takes_a_place_as_the_map_does() -> None:
    """matrix3d is written column by column (CSS Transforms Level 2, section on the matrix3d function)."""
    found = by_corners(600.0, 400.0, [(90.0, 80.0), (900.0, 120.0), (860.0, 640.0), (120.0, 600.0)])
    whole = np.array(found.css).reshape(4, 4).T
    x, y, _, w = whole @ np.array([150.0, 260.0, 0.0, 1.0])
    assert (x / w, y / w) == pytest.approx(found.to_picture((150.0, 260.0)))
