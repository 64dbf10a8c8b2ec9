"""On what a cloth's shrinkage rests."""

from __future__ import annotations

import pytest

from idle_selvage.core.shrink.history import Past
from idle_selvage.core.shrink.known import known_shrinkage
from idle_selvage.core.shrink.swatch import Swatch

from ..project.test_tally import LINEN


def test_own_history_stands_between_swatch_and_range() -> None:
    past = (Past("a", 5.0, 2.0), Past("b", 6.0, 3.0), Past("c", 7.0, 4.0))
    known = known_shrinkage(LINEN, Swatch(), past, "warp")
    # hand-worked: mean 6, sample standard deviation 1, t(0.95) at two degrees of freedom 2.920, √(1 + 1/3) = 1.1547
    assert known.basis == "history" and known.figure is not None and known.plan is not None
    assert known.figure.value == pytest.approx(6) and known.plan.value == pytest.approx(9.372, abs=1e-3)
    assert known_shrinkage(LINEN, Swatch(), past[:2], "warp").basis == "range", "two tests are no history"
    assert known_shrinkage(LINEN, Swatch(((250, 240),)), past, "warp").basis == "swatch"
