"""Pattern pieces: outlines from typed stations, seam allowance, and what makes an outline usable.

An outline lies with its grain along +x, its top towards +x, seen from the face; an on-fold piece has
its fold edge on y = 0 and is the half with y ≥ 0.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Literal

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon, box
from shapely.validation import explain_validity

Point = tuple[float, float]
Outline = tuple[Point, ...]
Grain = Literal["lengthwise", "crosswise", "bias", "any"]

GRAINS: tuple[Grain, ...] = ("lengthwise", "crosswise", "bias", "any")

#: Outlines are compared, and symmetry is judged, to this.
TOLERANCE_MM = 0.1
MAX_POINTS = 5000
MAX_COPIES = 200
#: Corners sharper than this many seam allowances long are cut off square.
MITRE_LIMIT = 4.0
#: How far a grain arrow keeps from the edges, where the piece is wide enough.
ARROW_ROOM_MM = (8.0, 3.0, 1.0)
#: How far apart the points of a smoothed edge lie.
SMOOTH_STEP_MM = 8.0


class BadPiece(ValueError):
    """A piece that cannot be cut as described; the message is a sentence."""


@dataclass(frozen=True)
class Station:
    """At ``along`` millimetres from the bottom end, the edge lies ``left`` and ``right`` of the grainline."""

    along: float
    left: float
    right: float


@dataclass(frozen=True)
class Piece:
    """One pattern piece. ``seam`` is the allowance still to be added round it, 0 when it is included."""

    name: str
    outline: Outline
    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0


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


def check_piece(piece: Piece) -> None:
    """Raise :class:`BadPiece` with one sentence when the piece cannot be cut as described."""
    name = piece.name or "The piece"
    if not 1 <= piece.copies <= MAX_COPIES:
        raise BadPiece(f"{name}: copies must be from 1 to {MAX_COPIES}.")
    if piece.pair and piece.on_fold:
        raise BadPiece(f"{name}: a piece on the fold is symmetrical, so it has no pair. Choose one of the two.")
    if piece.pair and piece.copies % 2:
        raise BadPiece(f"{name}: a pair needs an even number of copies, not {piece.copies}.")
    if piece.on_fold and piece.grain == "bias":
        raise BadPiece(f"{name}: a piece on the fold cannot lie on the bias. Draw it whole, or choose another grain.")
    fault = polygon_fault(piece.outline) or (fold_fault(piece.outline) if piece.on_fold else None)
    if fault:
        raise BadPiece(f"{name}: the outline {fault}.")


def outline_from_stations(stations: Sequence[Station], *, smooth: bool, on_fold: bool) -> Outline:
    """The outline through typed stations, straight or smoothed between them.

    Left is +y when looking to the top. A smoothed edge is a monotone cubic (it never swings past a
    measured width). On the fold, only the left side is used. Raises :class:`BadPiece`.
    """
    if len(stations) < 2:
        raise BadPiece("An outline needs at least two stations: one at the bottom end and one at the top.")
    order = sorted(stations, key=lambda s: s.along)
    for number, (a, b) in enumerate(pairwise(order), start=1):
        if b.along - a.along < 0.5:
            raise BadPiece(
                f"Stations {number} and {number + 1}, counted from the bottom end, lie at the same place along the "
                "grain. Remove one."
            )
    left = _edge([(s.along, s.left) for s in order], smooth)
    right = (
        [(order[0].along, 0.0), (order[-1].along, 0.0)]
        if on_fold
        else _edge([(s.along, -s.right) for s in order], smooth)
    )
    ring: list[Point] = []
    for point in [*right, *reversed(left)]:
        if not ring or math.dist(ring[-1], point) > 1e-6:
            ring.append(point)
    if len(ring) > 1 and math.dist(ring[0], ring[-1]) <= 1e-6:
        ring.pop()
    return tuple(ring)


def _edge(points: list[Point], smooth: bool) -> list[Point]:
    if not smooth or len(points) < 3:
        return points
    # a second to import, and only this needs it
    from scipy.interpolate import PchipInterpolator

    xs = np.array([p[0] for p in points])
    curve = PchipInterpolator(xs, np.array([p[1] for p in points]))
    places = {float(x) for x in xs}
    for a, b in pairwise(xs):
        n = max(1, math.ceil((b - a) / SMOOTH_STEP_MM))
        places.update(float(a + (b - a) * i / n) for i in range(1, n))
    ordered = sorted(places)
    return [(x, float(y)) for x, y in zip(ordered, curve(np.array(ordered)), strict=True)]


@lru_cache(maxsize=1024)
def cut_line(piece: Piece) -> Outline:
    """The outline to cut: offset outwards by the seam allowance, none along a fold. Raises BadPiece."""
    check_piece(piece)
    if piece.seam <= 0:
        return piece.outline
    shape = whole_polygon(piece.outline) if piece.on_fold else Polygon(piece.outline)
    grown = shape.buffer(piece.seam, join_style="mitre", mitre_limit=MITRE_LIMIT)
    if piece.on_fold:
        x0, _, x1, y1 = grown.bounds
        grown = grown.intersection(box(x0 - 1, 0.0, x1 + 1, y1 + 1))
    if grown.geom_type != "Polygon":
        raise BadPiece(f"{piece.name}: a seam allowance this wide breaks the piece into parts.")
    # a notch narrower than two allowances closes up: its hole is sewn shut, so only the outside is cut
    return tuple((float(x), float(y)) for x, y in grown.exterior.coords[:-1])


def whole_polygon(half: Sequence[Point]) -> Polygon:
    """The whole symmetric piece of an on-fold half."""
    # a hair of overlap at the fold lets the two halves merge into one outline
    snapped = [(x, 0.0 if abs(y) <= TOLERANCE_MM else y) for x, y in half]
    shape = Polygon(snapped)
    merged = shapely.union_all([shape, Polygon([(x, -y) for x, y in snapped])])
    if merged.geom_type != "Polygon":
        raise BadPiece("The two halves of a piece on the fold do not meet along the fold.")
    return Polygon(merged.exterior)


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
