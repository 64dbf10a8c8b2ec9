"""Where a point of a piece comes to lie on the cloth, and how far that is from an edge."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import islice

import numpy as np

from ..plan.outline import Outline, Point
from ..plan.turning import turned


def place(points: Sequence[Point], *, x: float, y: float, turn: int, mirrored: bool) -> Outline:
    """Points of a piece on the cloth: mirrored in its grain, turned counter-clockwise, then moved; millimetres."""
    return place_all([points], x=x, y=y, turn=turn, mirrored=mirrored)[0]


def place_all(lines: Sequence[Sequence[Point]], *, x: float, y: float, turn: int, mirrored: bool) -> list[Outline]:
    """Several lines of one piece on the cloth, each as :func:`place` gives it, in one product."""
    together = np.array([point for line in lines for point in line], dtype=np.float64).reshape(-1, 2)
    moved = iter((turned(together, turn, mirrored) + np.array([x, y])).tolist())
    return [tuple((a, b) for a, b in islice(moved, len(line))) for line in lines]


def place_point(point: Point, *, x: float, y: float, turn: int, mirrored: bool) -> Point:
    """One point of a piece on the cloth."""
    return place([point], x=x, y=y, turn=turn, mirrored=mirrored)[0]


def distances_to_edge(tail: Point, head: Point, edge_y: float) -> tuple[float, float]:
    """How far each end of a placed arrow lies from a line y = ``edge_y``, millimetres."""
    return abs(tail[1] - edge_y), abs(head[1] - edge_y)
