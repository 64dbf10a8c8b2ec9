"""Where a point of a piece comes to lie on the cloth, and how far that is from an edge."""

from __future__ import annotations

import math

from ..plan.outline import Point


def place_point(point: Point, *, x: float, y: float, turn: int, mirrored: bool) -> Point:
    """A point of a piece on the cloth: mirrored in its grain, turned counter-clockwise, then moved."""
    px, py = point
    if mirrored:
        py = -py
    angle = math.radians(turn)
    c, s = round(math.cos(angle), 15), round(math.sin(angle), 15)
    return (c * px - s * py + x, s * px + c * py + y)


def distances_to_edge(tail: Point, head: Point, edge_y: float) -> tuple[float, float]:
    """How far each end of a placed arrow lies from a line y = ``edge_y``, millimetres."""
    return abs(tail[1] - edge_y), abs(head[1] - edge_y)
