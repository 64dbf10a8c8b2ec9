"""Two pieces laid together at their seam."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.affinity import affine_transform
from shapely.geometry import Polygon

from idle_selvage.core.match.couples import couples
from idle_selvage.core.match.shown import Half, preview, rigid

from .cases import LEFT, PANEL, RIGHT, cut, panel, sewn


def seen(half: Half) -> Polygon:
    """A piece as it lies in the picture."""
    a, b, c, d, e, f = half.matrix
    return affine_transform(Polygon(half.shown), [a, c, b, d, e, f])


@settings(max_examples=40, deadline=None)
@given(st.floats(-300, 300), st.floats(-300, 300), st.sampled_from([0, 90, 180, 270]), st.sampled_from([0, 90, 180]))
def test_both_pieces_lie_beside_the_seam_and_not_on_one_another(x: float, y: float, turn: int, other: int) -> None:
    side = sewn("front", RIGHT, "back", LEFT)
    front, back = panel("front"), panel("back")
    cuts = [cut("front", turn=turn), cut("back", x=x, y=y, turn=other)]
    found = preview(side, couples(side, front, back, cuts)[0], (front, back), (PANEL, PANEL))
    a, b = seen(found.a), seen(found.b)
    assert a.intersection(b).area < 1e-3 and a.union(b).area == pytest.approx(2 * 80_000)
    assert found.gap < 1e-6
    # side a hangs with its top up: the seam runs up the picture from where it begins
    assert found.along[-1][1] - found.along[0][1] == pytest.approx(400) and a.distance(b) < 1e-6


def test_a_mirrored_half_is_joined_on_its_own_side() -> None:
    front, back = panel("front", copies=2, pair=True), panel("back", tuple((x, abs(y)) for x, y in (
        (0.0, 0.0), (400.0, 0.0), (400.0, 100.0), (0.0, 100.0))), on_fold=True)  # fmt: skip
    side = sewn("front", LEFT, "back", ((0.0, 100.0), (400.0, 100.0)), mirrors=True)
    cuts = [cut("front", 1), cut("front", 2, y=500, mirrored=True), cut("back", 1, x=30)]
    for couple in couples(side, front, back, cuts):
        found = preview(side, couple, (front, back), (front.outline, back.outline))
        assert seen(found.a).intersection(seen(found.b)).area < 1e-3


def test_the_turn_is_the_nearest_one_and_never_turns_over() -> None:
    points = np.array([[0.0, 0.0], [100.0, 0.0], [100.0, 40.0]])
    a = math.radians(25)
    turn = np.array([[math.cos(a), -math.sin(a)], [math.sin(a), math.cos(a)]])
    found, shift = rigid(points, points @ turn.T + [7.0, -3.0])
    assert np.allclose(found, turn) and np.allclose(shift, [7.0, -3.0])
    mirrored, _ = rigid(points, points * [1.0, -1.0])
    assert np.linalg.det(mirrored) == pytest.approx(1.0)
