"""By how much bars miss one another along a seam, at equal sewn length.

At every place of the seam two places of the cloth come together. Where the bars run on over the seam both have one
place in the repeat; where both edges slant against each other, one has the place of the other's mirror image, and the
bars make chevrons. What is told is how far the one bar lies beside the other, across the bars, mm.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from ..lay.problem import Axis, Bars
from ..plan.seams import SAME_WAY, Reals

#: How the bars of both sides lie to one another: they run on, they mirror each other at the seam, or they run against
#: each other and have no mirror axis, so that they can meet at a point only.
Kind = Literal["on", "chevron", "point"]
#: Places along a seam are taken so far apart, mm, but no more of them.
STEP_MM = 2.0
MOST_PLACES = 400


@dataclass(frozen=True)
class Strip:
    """The mismatch along one seam: ``at`` mm along side a from where sewing begins, ``off`` mm there, signed."""

    axis: Axis
    kind: Kind
    at: Reals
    off: Reals

    @cached_property
    def worst(self) -> float:
        """The furthest the bars miss, mm."""
        return float(np.abs(self.off).max())

    @cached_property
    def mean(self) -> float:
        """How far they miss on the whole, mm."""
        long = float(self.at[-1] - self.at[0])
        return float(np.trapezoid(np.abs(self.off), self.at)) / long if long > 0 else self.worst

    @cached_property
    def slants(self) -> bool:
        """Whether they miss by more at one place than at another."""
        return float(self.off.max() - self.off.min()) > 0.1


def sampled(long: float, joints: tuple[tuple[float, float], ...]) -> Reals:
    """Lengths along side a at which a seam is looked at, with every one where something changes."""
    count = int(min(MOST_PLACES, max(16, long / STEP_MM)))
    found: Reals = np.unique(np.concatenate([np.linspace(0.0, long, count), [a for a, _ in joints]]))
    return found


def strip(axis: Axis, bars: Bars, at: Reals, a: Reals, b: Reals) -> Strip | None:
    """The mismatch of the bars of one direction, of places ``a`` and ``b`` on the cloth (rows of x and y) that come
    together; None where the cloth has no such bars that could be seen."""
    repeat, axes = (bars.x_repeat, bars.x_axes) if axis == "x" else (bars.y_repeat, bars.y_axes)
    if repeat is None:
        return None
    k = 0 if axis == "x" else 1
    u, v = a[:, k], b[:, k]
    against = float(np.dot(np.diff(u), np.diff(v))) < -SAME_WAY
    kind: Kind = "on" if not against else "chevron" if axes else "point"
    if kind == "chevron":
        v = 2.0 * axes[0] - v
    return Strip(axis, kind, at, nearest(u - v, repeat))


def nearest(apart: Reals, repeat: float) -> Reals:
    """Distances on bars that repeat, from half a repeat back to half a repeat on, mm."""
    found: Reals = (apart + repeat / 2.0) % repeat - repeat / 2.0
    return found
