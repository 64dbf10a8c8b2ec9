"""What several tests of this room share."""

from __future__ import annotations

from idle_selvage.core.plan.outline import Outline
from idle_selvage.core.working import Figure

FIVE = Figure(5.0, "percent")


def rectangle(long: float, wide: float) -> Outline:
    return ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))


def percent(value: float) -> Figure:
    return Figure(value, "percent")
