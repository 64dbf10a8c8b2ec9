"""Symmetry."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.outline import is_mirror_symmetric, whole_polygon

from .test_piece import SQUARE


def test_symmetry() -> None:
    assert is_mirror_symmetric(SQUARE)
    assert is_mirror_symmetric(((0, 0), (10, 0), (5, 30)), 0.1)
    assert not is_mirror_symmetric(((0, 0), (100, 0), (100, 50), (30, 60)))
    assert whole_polygon(SQUARE).area == pytest.approx(2 * 8000)
