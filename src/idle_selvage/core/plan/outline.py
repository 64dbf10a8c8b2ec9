"""Outlines of pattern pieces: what makes one usable, whole shapes of half pieces, symmetry.

An outline lies with its grain along +x, its top towards +x, seen from the face; an on-fold piece has
its fold edge on y = 0 and is the half with y ≥ 0. Lengths in millimetres.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import shapely
from shapely.geometry import Polygon
from shapely.validation import explain_validity

Point = tuple[float, float]


Outline = tuple[Point, ...]


#: Outlines are compared, and symmetry is judged, to this.
TOLERANCE_MM = 0.1


MAX_POINTS = 5000


class BadPiece(ValueError):
    """A piece that cannot be cut as described; the message is a sentence."""


def polygon_fault(outline: Sequence[Point]) -> str | None:
    """Why this is not a simple outline, as the end of a sentence ("… crosses itself near …"), or None."""
    if len(outline) < 3:
        return "has fewer than three points; an outline needs at least three"
    if len(outline) > MAX_POINTS:
        return f"has {len(outline)} points; at most {MAX_POINTS} can be worked with, so simplify the curve"
    if not all(math.isfinite(c) for p in outline for c in p):
        return "has a coordinate that is not a number"
    if any(abs(c) > 100_000 for p in outline for c in p):
        return "reaches further than 100 m; check its unit"
    shape = Polygon(outline)
    if not shape.is_valid:
        why = explain_validity(shape)
        place = why[why.find("[") + 1 : why.find("]")].split() if "[" in why else []
        near = f" near {float(place[0]):.0f}, {float(place[1]):.0f} mm" if len(place) >= 2 else ""
        return f"crosses or touches itself{near}; an outline must run round once"
    if shape.area < 25.0:
        return "encloses less than a quarter of a square centimetre; check its unit"
    return None


def fold_fault(outline: Sequence[Point]) -> str | None:
    """Why an on-fold outline does not lie on its fold, or None."""
    if min(y for _, y in outline) < -TOLERANCE_MM:
        return "is cut on the fold but reaches over the fold edge; all of it must lie on one side"
    on_line = 0.0
    for (x0, y0), (x1, y1) in zip(outline, [*outline[1:], outline[0]], strict=True):
        if abs(y0) <= TOLERANCE_MM and abs(y1) <= TOLERANCE_MM:
            on_line += abs(x1 - x0)
    if on_line < 1.0:
        return "is cut on the fold but no edge of it lies on the fold"
    return None


def fold_edge(outline: Sequence[Point]) -> tuple[float, float] | None:
    """Where the fold edge of a half piece begins and ends along the grain, mm; None where none lies on the fold."""
    on_line = [x for x, y in outline if abs(y) <= TOLERANCE_MM]
    return (min(on_line), max(on_line)) if len(on_line) > 1 else None


def whole_polygon(half: Sequence[Point]) -> Polygon:
    """The whole symmetric piece of an on-fold half."""
    # a hair of overlap at the fold lets the two halves merge into one outline
    snapped = [(x, 0.0 if abs(y) <= TOLERANCE_MM else y) for x, y in half]
    shape = Polygon(snapped)
    merged = shapely.union_all([shape, Polygon([(x, -y) for x, y in snapped])])
    if merged.geom_type != "Polygon":
        raise BadPiece("The two halves of a piece on the fold do not meet along the fold.")
    return Polygon(merged.exterior)


def is_mirror_symmetric(outline: Sequence[Point], tolerance: float = TOLERANCE_MM) -> bool:
    """Whether the piece equals its own mirror image, turned by half a turn or not, within ``tolerance``."""
    shape = _centred(outline)
    for factors in ((1.0, -1.0), (-1.0, 1.0)):
        other = shapely.transform(shape, lambda c, f=factors: c * np.array(f))
        if shapely.hausdorff_distance(shape.exterior, other.exterior) <= tolerance:
            return True
    return False


def _centred(outline: Sequence[Point]) -> Polygon:
    shape = Polygon(outline)
    x0, y0, x1, y1 = shape.bounds
    return shapely.transform(shape, lambda c: c - np.array([(x0 + x1) / 2, (y0 + y1) / 2]))
