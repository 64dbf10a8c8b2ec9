"""A piece cut shorter than it is on the paper."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.piece import Piece
from idle_selvage.core.plan.shorter import part_between, shortened

FRONT = Piece("Front", ((0.0, 0.0), (600.0, 0.0), (600.0, 200.0), (0.0, 300.0)))


def test_the_low_end_goes_and_the_top_stays() -> None:
    found = shortened(FRONT, 20.0)
    xs = [x for x, _ in found.outline]
    assert (min(xs), max(xs)) == (20.0, 600.0)
    # the slanted side at 20 mm: 300 − 100 × 20 ÷ 600
    assert max(y for _, y in found.outline) == pytest.approx(296.6667, abs=1e-3)


def test_what_is_no_longer_one_piece_is_refused() -> None:
    with pytest.raises(BadPiece, match="Front"):
        shortened(FRONT, 600.0)
    legs = ((0.0, 0.0), (100.0, 0.0), (100.0, 40.0), (50.0, 50.0), (100.0, 60.0), (100.0, 100.0), (0.0, 100.0))
    assert part_between(legs, 60.0, 100.0) is None, "it falls apart"
