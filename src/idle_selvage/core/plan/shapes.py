"""Pieces told by their measures: rectangles, bias strips, circles, and rings for circle skirts."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from .draft import Draft, DraftPoint, keyed
from .outline import BadPiece

ShapeName = Literal["rectangle", "bias_strip", "circle", "ring"]
SHAPES: tuple[ShapeName, ...] = ("rectangle", "bias_strip", "circle", "ring")
#: Smooth points of a circle lie so far apart, so that its curve is the circle within a micrometre or two.
KNOT_DEGREES = 15.0
#: A widest place nearer to an end than this is left to the curve, degrees.
LEAST_PART = 3.0
#: A ring wider open than this would touch itself; it is cut in panels.
WIDEST_DEGREES = 350.0


@dataclass(frozen=True)
class Measures:
    """The measures of a shape, mm: ``first`` its length, diameter or inner edge; ``second`` its width or depth.

    A ``ring`` is one of ``panels`` alike panels of ``share`` of a circle (1: a full circle skirt, ½ a half circle),
    whose inner edges together measure ``first``.
    """

    shape: ShapeName
    first: float
    second: float = 0.0
    share: float = 1.0
    panels: int = 1


def shaped(measures: Measures, *, half: bool = False) -> Draft:
    """The draft of a shape, its grain along its middle; ``half``: half of it, on the fold. Raises
    :class:`BadPiece`."""
    if measures.first <= 0 or (measures.shape != "circle" and measures.second <= 0):
        raise BadPiece("Give its measures; each must be more than nothing.")
    if measures.shape in ("rectangle", "bias_strip"):
        points = _rectangle(measures.first, measures.second, half)
        # the threads of a bias strip run across it at 45°
        reach = min(measures.first, measures.second) * 0.4
        x, y = measures.first / 2, 0.0
        arrow = ((x - reach, y - reach), (x + reach, y + reach)) if measures.shape == "bias_strip" else None
        if arrow is not None and half:
            raise BadPiece("A bias strip cannot lie on the fold.")
        return Draft(keyed(points), half=half, arrow=arrow)
    if measures.shape == "circle":
        return Draft(keyed(_circle(measures.first / 2, half)), half=half)
    return Draft(keyed(_ring(measures, half)), half=half)


def _rectangle(long: float, wide: float, half: bool) -> list[DraftPoint]:
    low, high = (0.0, wide / 2) if half else (-wide / 2, wide / 2)
    return [DraftPoint(x, y) for x, y in ((0.0, low), (long, low), (long, high), (0.0, high))]


def _circle(radius: float, half: bool) -> list[DraftPoint]:
    count = round(180.0 / KNOT_DEGREES)
    if half:
        return [_polar(radius, 180.0 * i / count, smooth=0 < i < count) for i in range(count + 1)]
    return [_polar(radius, 180.0 * i / count, smooth=True) for i in range(2 * count)]


def panel_degrees(measures: Measures) -> float:
    """The angle of one panel of a ring."""
    return 360.0 * measures.share / measures.panels


def inner_radius(measures: Measures) -> float:
    """The radius at which the inner edges of all panels together measure ``first``: first ÷ (2π × share), mm."""
    return measures.first / (2.0 * math.pi * measures.share)


def _ring(measures: Measures, half: bool) -> list[DraftPoint]:
    if measures.share <= 0 or measures.panels < 1:
        raise BadPiece("A ring is a share of a circle of more than nothing, in one panel or more.")
    angle = panel_degrees(measures)
    if angle > (360.0 if half else WIDEST_DEGREES) + 1e-9:
        raise BadPiece("A ring that goes all the way round is cut in two panels or more, or half of it on the fold.")
    inner = inner_radius(measures)
    outer = inner + measures.second
    # the middle of the panel runs along the grain, the waist at the top
    first, last = (0.0, angle / 2) if half else (-angle / 2, angle / 2)
    places = _knots(first, last)
    ends = (0, len(places) - 1)
    low = [_polar(outer, 180.0 - a, smooth=i not in ends) for i, a in enumerate(places)]
    high = [_polar(inner, 180.0 - a, smooth=i not in ends) for i, a in enumerate(places)]
    # side edges are straight; a half has its fold along the tape
    return [*low[:-1], _straight(low[-1]), *reversed(high[1:]), _straight(high[0])]


def _straight(point: DraftPoint) -> DraftPoint:
    return DraftPoint(point.along, point.across, False, True)


def _knots(first: float, last: float) -> list[float]:
    """Angles from one to the other, evenly and at most a knot apart, with the circle's widest places among them where
    they are not right at an end."""
    kept = [a for a in (-90.0, 0.0, 90.0) if a - first > LEAST_PART and last - a > LEAST_PART]
    keys = [first, *kept, last]
    step = min([KNOT_DEGREES, *(2.0 * (b - a) for a, b in pairwise(keys))])
    out: list[float] = []
    for a, b in pairwise(keys):
        count = math.ceil((b - a) / step - 1e-9)
        out += [a + (b - a) * i / count for i in range(count)]
    return [*out, last]


def _polar(radius: float, degrees: float, *, smooth: bool) -> DraftPoint:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return DraftPoint(round(radius * c, 4) + 0.0, round(radius * s, 4) + 0.0, smooth)
