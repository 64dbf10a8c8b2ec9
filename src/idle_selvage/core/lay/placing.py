"""Where a point of a piece comes to lie on the cloth, and how far that is from an edge."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..plan.outline import Outline, Point
from ..plan.turning import turned


def place(points: Sequence[Point], *, x: float, y: float, turn: int, mirrored: bool) -> Outline:
    """Points of a piece on the cloth: mirrored in its grain, turned counter-clockwise, then moved; millimetres."""
    moved = turned(np.array(points, dtype=np.float64), turn, mirrored) + np.array([x, y])
    return tuple((float(a), float(b)) for a, b in moved)


def place_point(point: Point, *, x: float, y: float, turn: int, mirrored: bool) -> Point:
    """One point of a piece on the cloth."""
    return place([point], x=x, y=y, turn=turn, mirrored=mirrored)[0]


def distances_to_edge(tail: Point, head: Point, edge_y: float) -> tuple[float, float]:
    """How far each end of a placed arrow lies from a line y = ``edge_y``, millimetres."""
    return abs(tail[1] - edge_y), abs(head[1] - edge_y)
