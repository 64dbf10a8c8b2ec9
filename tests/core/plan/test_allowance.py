"""The seam allowance."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.piece import Piece

from .test_piece import SQUARE


def test_seam_allowance_goes_outwards_and_not_over_the_fold() -> None:
    grown = Polygon(cut_line(Piece("A", SQUARE, seam=15)))
    assert grown.bounds == pytest.approx((-15, -15, 115, 95))
    assert grown.area == pytest.approx(130 * 110)
    folded = Polygon(cut_line(Piece("B", SQUARE, on_fold=True, seam=15)))
    assert folded.bounds == pytest.approx((-15, 0, 115, 95))


def test_a_sharp_point_is_cut_off_square() -> None:
    needle = Piece("N", ((0.0, 0.0), (400.0, 5.0), (0.0, 10.0)), seam=10)
    assert max(x for x, _ in cut_line(needle)) < 400 + 5 * 10


@given(st.floats(5, 30), st.floats(40, 300), st.floats(40, 300))
def test_the_allowance_is_as_wide_as_asked_everywhere(seam: float, a: float, b: float) -> None:
    outline = ((0.0, 0.0), (a, b / 7), (a * 0.8, b), (0.0, b * 0.9))
    grown = Polygon(cut_line(Piece("A", outline, seam=seam)))
    assert grown.exterior.distance(Polygon(outline)) == pytest.approx(seam, rel=1e-6)
