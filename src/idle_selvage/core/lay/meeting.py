"""Where one outline may not lie because of another: all places of its origin at which the two would overlap.

That ground is the Minkowski sum of the outline that stays with the mirror image of the one that moves, taken of their
convex parts; exact for polygons (de Berg and others, Computational Geometry, chapter 13; from memory).
"""

from __future__ import annotations

import numpy as np
import shapely
from shapely import Polygon
from shapely.geometry.base import BaseGeometry

from ..plan.turning import Ring
from .engine.convex import convex_parts, convex_sum

#: What two outlines may overlap by before they count as overlapping, mm: so that pieces find room where they just fit,
#: a third of what the checker forgives.
HAIR_MM = 0.03
#: Outlines are worked with to this, mm.
SIMPLIFY_MM = 0.02

_known: dict[tuple[bytes, bytes, float], BaseGeometry] = {}
#: So many grounds are kept, the oldest forgotten first.
MOST_KNOWN = 20_000


def forbidden(stays: Ring, moves: Ring, gap: float) -> BaseGeometry:
    """Where the origin of ``moves`` may not lie, ``gap`` mm kept from ``stays``; both rings (n, 2) where they are."""
    corner = stays.min(axis=0)
    at = np.round(stays - corner, 4)
    key = (at.tobytes(), np.ascontiguousarray(moves).tobytes(), gap)
    found = _known.get(key)
    if found is None:
        found = _forbidden(at, moves, gap)
        if len(_known) >= MOST_KNOWN:
            del _known[next(iter(_known))]
        _known[key] = found
    return shapely.transform(found, lambda places: places + corner)


def _forbidden(stays: Ring, moves: Ring, gap: float) -> BaseGeometry:
    # a hair less than the whole, so that touching is no overlap
    grown = Polygon(stays).buffer(gap - HAIR_MM, join_style="round" if gap > HAIR_MM else "mitre", quad_segs=6)
    sums: list[Polygon] = []
    for polygon in getattr(grown, "geoms", [grown]):
        flat = polygon.simplify(SIMPLIFY_MM)
        if flat.is_empty or flat.geom_type != "Polygon":
            continue
        for one in convex_parts(np.array(flat.exterior.coords[:-1])):
            for other in convex_parts(-_flat(moves)):
                sums.append(Polygon(convex_sum(np.ascontiguousarray(one), np.ascontiguousarray(other))))
    return shapely.union_all(sums)


def _flat(ring: Ring) -> Ring:
    flat = Polygon(ring).simplify(SIMPLIFY_MM)
    if flat.geom_type != "Polygon" or flat.is_empty or not flat.is_valid:
        return ring
    return np.array(flat.exterior.coords[:-1])
