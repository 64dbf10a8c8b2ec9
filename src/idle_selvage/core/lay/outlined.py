"""Cloth that is no rectangle: outlines with holes as outlines without, and what lies around a remnant."""

from __future__ import annotations

import shapely
from shapely import Polygon

from ..plan.outline import Outline


def without_holes(shape: Polygon) -> list[Polygon]:
    """A polygon with holes as several without: cut through the middle of each hole. Cloth inside a ring of cut pieces
    is still cloth."""
    if not shape.interiors:
        return [shape]
    x0, y0, x1, y1 = shape.bounds
    at = shapely.centroid(Polygon(shape.interiors[0])).x
    left = shape.intersection(shapely.box(x0 - 1, y0 - 1, at, y1 + 1))
    right = shape.intersection(shapely.box(at, y0 - 1, x1 + 1, y1 + 1))
    found: list[Polygon] = []
    for part in (left, right):
        for one in getattr(part, "geoms", [part]):
            if isinstance(one, Polygon) and one.area > 0:
                found += without_holes(one)
    return found


def around(frame: Outline, length: float, width: float) -> tuple[Outline, ...]:
    """What is no cloth of a rectangle in which a remnant of its own outline lies, as outlines to be laid around."""
    nothing = shapely.box(0.0, 0.0, length, width).difference(Polygon(frame))
    parts = [one for one in getattr(nothing, "geoms", [nothing]) if isinstance(one, Polygon) and one.area > 1e-6]
    out: list[Outline] = []
    for part in parts:
        for simple in without_holes(part):
            out.append(tuple((round(x, 3), round(y, 3)) for x, y in simple.exterior.coords[:-1]))
    return tuple(out)
