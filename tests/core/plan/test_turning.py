"""Mirroring and turning."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.affinity import rotate, scale
from shapely.geometry import Polygon

from idle_selvage.core.plan.turning import turned

PIECE = np.array([[0.0, 0.0], [300.0, -20.0], [280.0, 90.0], [10.0, 60.0]])


@given(st.integers(-720, 720), st.booleans())
def test_mirrored_first_then_turned_as_a_reference_library_does(turn: int, mirrored: bool) -> None:
    # reference: shapely.affinity
    shape = Polygon(PIECE)
    if mirrored:
        shape = scale(shape, 1, -1, origin=(0, 0))
    wanted = rotate(shape, turn, origin=(0, 0))
    assert np.allclose(turned(PIECE, turn, mirrored), np.array(wanted.exterior.coords)[:4], atol=1e-9)


@pytest.mark.parametrize("turn", [0, 90, 180, 270, 360])
def test_a_right_angle_leaves_whole_numbers_whole(turn: int) -> None:
    found = turned(PIECE, turn)
    assert np.array_equal(found, np.round(found))
