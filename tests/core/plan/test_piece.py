"""Pieces that cannot be cut."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.piece import Piece, check_piece

SQUARE = ((0.0, 0.0), (100.0, 0.0), (100.0, 80.0), (0.0, 80.0))


@pytest.mark.parametrize(
    ("piece", "says"),
    [
        (Piece("A", ((0, 0), (1, 1))), "fewer than three"),
        (Piece("A", ((0, 0), (100, 100), (100, 0), (0, 100))), "crosses or touches itself near 50, 50"),
        (Piece("A", ((0, 0), (float("nan"), 0), (1, 1))), "not a number"),
        (Piece("A", ((0, 0), (1, 0), (0, 1))), "quarter of a square"),
        (Piece("A", tuple((float(i), float(i * i)) for i in range(6000))), "at most 5000"),
        (Piece("A", SQUARE, copies=3, pair=True), "even number"),
        (Piece("A", SQUARE, copies=2, pair=True, on_fold=True), "no pair"),
        (Piece("A", SQUARE, copies=0), "from 1 to"),
        (Piece("A", SQUARE, on_fold=True, grain="bias"), "bias"),
        (Piece("A", tuple((x, y + 5) for x, y in SQUARE), on_fold=True), "no edge of it lies on the fold"),
        (Piece("A", tuple((x, y - 5) for x, y in SQUARE), on_fold=True), "reaches over the fold"),
    ],
)
def test_pieces_that_cannot_be_cut(piece: Piece, says: str) -> None:
    with pytest.raises(BadPiece, match=says):
        check_piece(piece)
