"""Where points come to lie."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.lay.placing import distances_to_edge, place_point
from idle_selvage.core.true.pinned import tilt


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
