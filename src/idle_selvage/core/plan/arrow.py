"""The grain arrow of a piece: where there is room to measure from it."""

from __future__ import annotations

from functools import lru_cache

from shapely.geometry import LineString, Polygon

from .outline import Outline, Point

#: How far a grain arrow keeps from the edges, where the piece is wide enough.
ARROW_ROOM_MM = (8.0, 3.0, 1.0)


@lru_cache(maxsize=1024)
def grainline(outline: Outline, *, on_fold: bool = False) -> tuple[Point, Point]:
    """A grain arrow inside the outline, bottom end first: the longest chord near the middle, inset.

    Any line along +x is a grainline; this one is chosen where there is room to measure from it, and off the
    edges, where it could be taken for one.
    """
    whole = Polygon(outline)
    x0, y0, x1, y1 = whole.bounds
    shape = next((s for room in ARROW_ROOM_MM if not (s := whole.buffer(-room)).is_empty), whole)
    best: tuple[float, Point, Point] | None = None
    for share in (0.5, 0.4, 0.6, 0.3, 0.7):
        y = y0 + (y1 - y0) * share
        chord = shape.intersection(LineString([(x0 - 1, y), (x1 + 1, y)]))
        for part in getattr(chord, "geoms", [chord]):
            if part.geom_type != "LineString" or part.is_empty:
                continue
            a, b = sorted(float(c[0]) for c in part.coords)
            gain = (b - a) * (1.0 - 0.3 * abs(share - (0.35 if on_fold else 0.5)))
            if best is None or gain > best[0]:
                inset = 0.15 * (b - a)
                best = (gain, (a + inset, y), (b - inset, y))
    if best is None:
        return ((x0, y0), (x1, y0))
    return best[1], best[2]
