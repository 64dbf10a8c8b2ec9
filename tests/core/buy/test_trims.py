"""Trims by the metre."""

from __future__ import annotations

import pytest

from idle_selvage.core.buy.trims import Run, trim_length


def test_a_trim_is_as_long_as_its_edges_and_their_turnings() -> None:
    # by hand: (1200 + 30) + 2 × (450 + 30) = 2190
    found = trim_length([Run("hem", 1200.0), Run("cuff", 450.0, 2)])
    assert found is not None and found.value == pytest.approx(2190.0)
    assert [step.why for step in found.steps[:2]] == ["hem", "cuff"]
    assert trim_length([]) is None
