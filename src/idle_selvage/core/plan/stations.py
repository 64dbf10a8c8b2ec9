"""The outline through stations read along the grainline with a tape."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from .outline import BadPiece, Outline, Point

#: How far apart the points of a smoothed edge lie.
SMOOTH_STEP_MM = 8.0


@dataclass(frozen=True)
class Station:
    """At ``along`` millimetres from the bottom end, the edge lies ``left`` and ``right`` of the grainline."""

    along: float
    left: float
    right: float


def outline_from_stations(stations: Sequence[Station], *, smooth: bool, on_fold: bool) -> Outline:
    """The outline through typed stations, straight or smoothed between them.

    Left is +y when looking to the top. A smoothed edge is a monotone cubic (it never swings past a
    measured width). On the fold, only the left side is used. Raises :class:`BadPiece`.
    """
    if len(stations) < 2:
        raise BadPiece("An outline needs at least two stations: one at the bottom end and one at the top.")
    order = sorted(stations, key=lambda s: s.along)
    for number, (a, b) in enumerate(pairwise(order), start=1):
        if b.along - a.along < 0.5:
            raise BadPiece(
                f"Stations {number} and {number + 1}, counted from the bottom end, lie at the same place along the "
                "grain. Remove one."
            )
    left = _edge([(s.along, s.left) for s in order], smooth)
    right = (
        [(order[0].along, 0.0), (order[-1].along, 0.0)]
        if on_fold
        else _edge([(s.along, -s.right) for s in order], smooth)
    )
    ring: list[Point] = []
    for point in [*right, *reversed(left)]:
        if not ring or math.dist(ring[-1], point) > 1e-6:
            ring.append(point)
    if len(ring) > 1 and math.dist(ring[0], ring[-1]) <= 1e-6:
        ring.pop()
    return tuple(ring)


def _edge(points: list[Point], smooth: bool) -> list[Point]:
    if not smooth or len(points) < 3:
        return points
    # a second to import, and only this needs it
    from scipy.interpolate import PchipInterpolator

    xs = np.array([p[0] for p in points])
    curve = PchipInterpolator(xs, np.array([p[1] for p in points]))
    places = {float(x) for x in xs}
    for a, b in pairwise(xs):
        n = max(1, math.ceil((b - a) / SMOOTH_STEP_MM))
        places.update(float(a + (b - a) * i / n) for i in range(1, n))
    ordered = sorted(places)
    return [(x, float(y)) for x, y in zip(ordered, curve(np.array(ordered)), strict=True)]
