"""Grainlines on the cloth: the two distances from an arrow's ends to the selvage or the fold."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..plan.pieces import Point


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


def tilt(first: float, second: float, arrow_length: float) -> float:
    """Tilt in degrees of an arrow whose ends measure ``first`` and ``second`` to the selvage."""
    return math.degrees(math.atan2(second - first, arrow_length))


def skew_percent(offset: float, width: float) -> float:
    """Skew of the weft in per cent, ``100 × d ÷ W`` (ASTM D3882): off by ``offset`` over ``width``, millimetres."""
    return 100.0 * offset / width


def skew_angle(offset: float, width: float) -> float:
    """Slant of the weft in degrees, ``atan(d ÷ W)``."""
    return math.degrees(math.atan2(offset, width))


#: Two distances that differ by no more than this are equal, mm. Common practice, no source.
SAME_MM = 2.0


@dataclass(frozen=True)
class GrainCheck:
    """A pinned piece: tilt off its wanted grain in degrees, and how far the head is moved away from the edge (below
    nothing: towards it) with the tail left where it is, mm."""

    tilt: float
    move: float
    good: bool


def check_grain(measured: tuple[float, float], wanted: tuple[float, float], arrow: float) -> GrainCheck:
    """Two distances from the arrow's tail and head to the selvage or fold, beside those of the lay; all mm.

    Only their difference counts: a piece may lie elsewhere, but not turned. Raises ValueError without an arrow.
    """
    if arrow <= 0:
        raise ValueError("An arrow without a length says nothing.")
    off = (measured[1] - measured[0]) - (wanted[1] - wanted[0])
    return GrainCheck(tilt(measured[0], measured[0] + off, arrow), 0.0 - off, abs(off) <= SAME_MM)
