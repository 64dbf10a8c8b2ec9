"""Pieces enlarged for raw cloth: they must shrink to just what was drawn."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from idle_selvage.core.lay.placing import place_point
from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.piece import Grain, Piece
from idle_selvage.core.shrink.known import Shrinkage
from idle_selvage.core.shrink.shrinkage import Direction
from idle_selvage.core.shrink.to_fit import TURN, enlarge, factors, fit_by, on_cloth
from idle_selvage.core.working import Figure

BODICE = ((0.0, 0.0), (400.0, 0.0), (380.0, 90.0), (250.0, 130.0), (0.0, 160.0))
GRAINS: tuple[Grain, ...] = ("lengthwise", "crosswise", "bias")


def test_factors_belong_to_the_cloth_and_turn_with_the_piece() -> None:
    # hand-worked: 10 % along and 5 % across: ÷ 0.9 and ÷ 0.95
    square = ((0.0, 0.0), (90.0, 0.0), (90.0, 95.0), (0.0, 95.0))
    assert factors(10, 5) == pytest.approx((1 / 0.9, 1 / 0.95))
    assert Polygon(enlarge(square, "lengthwise", 10, 5)).bounds == pytest.approx((0, 0, 100, 100), abs=1e-3)
    assert Polygon(enlarge(square, "crosswise", 10, 5)).bounds == pytest.approx((0, 0, 90 / 0.95, 95 / 0.9), abs=1e-3)
    assert np.array(enlarge(square, "bias", 0, 0)) == pytest.approx(np.array(square))


@given(st.sampled_from(GRAINS), st.floats(0, 12), st.floats(0, 12))
def test_what_is_cut_raw_shrinks_to_what_was_drawn(grain: Grain, warp: float, weft: float) -> None:
    larger = enlarge(BODICE, grain, warp, weft)
    # in the cloth's own axes: laid at its turn, shrunk along and across, and taken up again
    laid = [place_point(p, x=0, y=0, turn=TURN[grain], mirrored=False) for p in larger]
    washed = [(x * (1 - warp / 100), y * (1 - weft / 100)) for x, y in laid]
    back = [place_point(p, x=0, y=0, turn=-TURN[grain], mirrored=False) for p in washed]
    assert np.array(back) == pytest.approx(np.array(BODICE), abs=0.01)
    assert Polygon(larger).area == pytest.approx(Polygon(BODICE).area / (1 - warp / 100) / (1 - weft / 100), rel=1e-4)


def test_an_allowance_still_to_be_added_keeps_its_width() -> None:
    piece = Piece("P", enlarge(BODICE, "lengthwise", 8, 3), seam=15.0)
    ring, seam = Polygon(cut_line(piece)), Polygon(piece.outline)
    assert seam.exterior.distance(ring.exterior) == pytest.approx(15.0, abs=0.01)


def test_a_bias_piece_is_given_as_it_will_lie() -> None:
    lying = Polygon(on_cloth(BODICE, "bias"))
    assert lying.bounds[:2] == pytest.approx((0, 0)) and lying.area == pytest.approx(Polygon(BODICE).area, rel=1e-6)
    assert lying.bounds[2] != pytest.approx(400)


def test_pieces_are_enlarged_once_both_shrinkages_are_known() -> None:
    def told(direction: Direction, value: float | None) -> Shrinkage:
        figure = None if value is None else Figure(value, "percent", steps=(), sources=())
        return Shrinkage(direction, "swatch", figure, figure)

    assert fit_by(told("warp", 5.0), told("weft", -1.0)) == (5.0, 0.0), "what grows is not made smaller"
    assert fit_by(told("warp", None), told("weft", 2.0)) is None
    assert fit_by(told("warp", 5.0), told("weft", None)) is None
