"""Thread and notions."""

from __future__ import annotations

import pytest

from idle_selvage.core.buy.shopping import PRETREAT, dominant_colour, thread_needed
from idle_selvage.core.cloth.bars import Bar


def test_thread_follows_the_colour_that_dominates() -> None:
    bars = [Bar(6, "#3F6F73"), Bar(54, "#CBD5D2")]
    assert dominant_colour("#ffffff", bars) == ("#cbd5d2", 0.9)
    # half the weft bars are rust: over both directions rust has (0 + 0.5) / 2
    colour, share = dominant_colour("#ffffff", bars, [Bar(30, "#A9674A"), Bar(30, "#CBD5D2")])
    assert colour == "#cbd5d2" and share == pytest.approx(0.7)
    assert dominant_colour("#2F5A4C", []) == ("#2f5a4c", 1.0)


def test_thread_and_notions() -> None:
    # 20 m of edge: 10 m of seams × 2.8 + 20 × 3 = 88 m, × 1.25 = 110 m: one reel
    assert thread_needed(20_000).value == 1
    assert thread_needed(40_000).value == 2
    assert all(label and told for label, told in PRETREAT.values())
