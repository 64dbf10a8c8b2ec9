"""The poses a piece may take: turns its grain allows, times mirror images, without doubles."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from shapely.geometry import Polygon

from ...plan.turning import Ring, turned

#: Poses whose outlines differ by less than this are the same pose.
SAME_POSE_MM = 0.01


@dataclass(frozen=True)
class Pose:
    """A piece mirrored (or not), then turned about its origin; ``ring`` is (n, 2) in millimetres."""

    turn: int
    mirrored: bool
    ring: Ring

    @property
    def size(self) -> tuple[float, float]:
        """Extent along and across the cloth."""
        span = self.ring.max(axis=0) - self.ring.min(axis=0)
        return float(span[0]), float(span[1])


def pose(outline: Ring, turn: int, mirrored: bool) -> Pose:
    """One pose, by the rule of the lay format: mirror in y, then turn counter-clockwise."""
    return Pose(turn, mirrored, turned(outline, turn, mirrored))


def poses(outline: Ring, choices: Iterable[tuple[int, bool]]) -> tuple[Pose, ...]:
    """The poses for (turn, mirrored) pairs, leaving out those that look like an earlier one."""
    return _poses(np.ascontiguousarray(outline, dtype=np.float64).tobytes(), tuple(choices))


@lru_cache(maxsize=2000)
def _poses(corners: bytes, choices: tuple[tuple[int, bool], ...]) -> tuple[Pose, ...]:
    # the same outlines come back with every fold and every restart
    outline = np.frombuffer(corners, dtype=np.float64).reshape(-1, 2)
    kept: list[Pose] = []
    shapes: list[Polygon] = []
    for turn, mirrored in choices:
        candidate = pose(outline, turn, mirrored)
        shape = Polygon(candidate.ring - candidate.ring.min(axis=0))
        if any(shape.exterior.hausdorff_distance(other.exterior) < SAME_POSE_MM for other in shapes):
            continue
        kept.append(candidate)
        shapes.append(shape)
    return tuple(kept)
