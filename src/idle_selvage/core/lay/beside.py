"""Which pieces lie beside which on the table."""

from __future__ import annotations

from collections.abc import Sequence

import shapely
from shapely import Polygon

from ..plan.outline import Outline

#: Pieces no further apart than this are neighbours, mm; and so many are named, the nearest first.
BESIDE_MM = 30.0
MOST = 6


def beside(outlines: Sequence[Outline]) -> list[list[int]]:
    """Of each outline the numbers of its neighbours, the nearest first."""
    shapes = [Polygon(outline) for outline in outlines]
    tree = shapely.STRtree(shapes)
    found = []
    for k, shape in enumerate(shapes):
        near = [int(j) for j in tree.query(shape, predicate="dwithin", distance=BESIDE_MM) if j != k]
        found.append(sorted(near, key=lambda j: (float(shapely.distance(shape, shapes[j])), j))[:MOST])
    return found
