"""Between the seam line and the cut line: the allowance of each edge, and how it ends at the corners.

Where every edge has the same allowance the line is shapely's mitred buffer. Else each edge has a band of its own width;
at a corner that sticks out the two bands go on until they meet (*mitre*), or the wider one ends square to its own edge
(*square*), or so that it lies exactly on the piece once it is folded up along its seam line (*folded*).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon, box
from shapely.geometry import Point as Place

from .draft import Ends
from .outline import TOLERANCE_MM, BadPiece, Outline, Point, whole_polygon
from .piece import Allowance, Piece, check_piece

#: Corners sharper than this many seam allowances long are cut off square.
MITRE_LIMIT = 4.0
#: Bands are joined on a grid so fine that nothing is lost, which keeps nearly touching edges from failing.
GRID_MM = 1e-5
#: A part so small is what rounding left and no part of a piece, mm²: as wide as the grid, and some metres long.
SLIVER_MM2 = 0.1
#: An allowance narrower than this is none, mm.
LEAST_MM = 1e-3


@lru_cache(maxsize=1024)
def cut_line(piece: Piece) -> Outline:
    """The outline to cut: the drawn line with what is still to be added, none along a fold. Raises BadPiece."""
    check_piece(piece)
    if piece.bare:
        return seam_line(piece)
    if piece.included > 0:
        # the drawn line is the cut line; what is said of its edges lies inside it
        return piece.outline if piece.seam <= 0 else _evenly(piece, piece.seam)
    widths = widths_round(piece, piece.seam)
    if max(widths, default=0.0) <= 0:
        return piece.outline
    if all(one.width is None for one in piece.edges):
        return _evenly(piece, piece.seam)
    return _largest(moved(piece.outline, widths, _ends(piece), outwards=True), piece)


@lru_cache(maxsize=1024)
def seam_line(piece: Piece) -> Outline:
    """Where it is sewn: the drawn line, moved in where the allowance lies inside it. Raises BadPiece."""
    widths = widths_round(piece, piece.included)
    if piece.included <= 0 or max(widths, default=0.0) <= 0:
        return piece.outline
    return _largest(moved(piece.outline, widths, _ends(piece), outwards=False), piece)


def told_by_seam(piece: Piece) -> Piece:
    """The same piece with its seam line as the drawn one, and the allowance that lay inside to be added. Raises
    BadPiece."""
    if piece.included <= 0:
        return piece
    ring, seam = piece.outline, seam_line(piece)
    widths = np.array(widths_round(piece, piece.included))
    given = piece.edges or (Allowance(0),) * len(ring)
    lines = [LineString(pair) for pair in zip(ring, [*ring[1:], ring[0]], strict=True)]
    edges = []
    for (ax, ay), (bx, by) in zip(seam, [*seam[1:], seam[0]], strict=True):
        off = np.abs(shapely.distance(lines, Place((ax + bx) / 2, (ay + by) / 2)) - widths)
        said = given[int(off.argmin())]
        edges.append(replace(said, width=None if said.width is None else said.width + piece.seam))
    said_of = tuple(edges) if piece.edges else ()
    return replace(piece, outline=seam, edges=said_of, included=0.0, seam=piece.included + piece.seam)


def _evenly(piece: Piece, width: float) -> Outline:
    shape = whole_polygon(piece.outline) if piece.on_fold else Polygon(piece.outline)
    grown = shape.buffer(width, join_style="mitre", mitre_limit=MITRE_LIMIT)
    if piece.on_fold:
        x0, _, x1, y1 = grown.bounds
        grown = grown.intersection(box(x0 - 1, 0.0, x1 + 1, y1 + 1))
    if grown.geom_type != "Polygon":
        raise BadPiece(f"{piece.name}: a seam allowance this wide breaks the piece into parts.")
    # a notch narrower than two allowances closes up: its hole is sewn shut, so only the outside is cut
    return tuple((float(x), float(y)) for x, y in grown.exterior.coords[:-1])


def _largest(shape: shapely.Geometry, piece: Piece) -> Outline:
    name = piece.name or "The piece"
    if shape.geom_type == "MultiPolygon":
        # of bands that meet aslant rounding leaves slivers along their ends
        parts = [one for one in shape.geoms if one.area > SLIVER_MM2]
        shape = parts[0] if len(parts) == 1 else shape
    if shape.geom_type != "Polygon" or shape.is_empty:
        raise BadPiece(f"{name}: allowances this wide break the piece into parts.")
    found = tuple((round(float(x), 4), round(float(y), 4)) for x, y in shape.exterior.coords[:-1])
    if piece.on_fold:
        if min(y for _, y in found) < -TOLERANCE_MM:
            raise BadPiece(f"{name}: with this allowance it reaches over its fold.")
        whole_polygon(found)
    return found


def widths_round(piece: Piece, usual: float) -> list[float]:
    """The allowance of every stretch of the outline; none along the fold."""
    given = piece.edges or (Allowance(0),) * len(piece.outline)
    ring = piece.outline
    out = []
    for one, (_, y0), (_, y1) in zip(given, ring, [*ring[1:], ring[0]], strict=True):
        on_fold = piece.on_fold and abs(y0) <= TOLERANCE_MM and abs(y1) <= TOLERANCE_MM
        out.append(0.0 if on_fold else usual if one.width is None else one.width)
    return out


def _ends(piece: Piece) -> list[tuple[int, Ends]]:
    given = piece.edges or (Allowance(0),) * len(piece.outline)
    return [(one.edge, one.ends) for one in given]


def moved(
    outline: Sequence[Point], widths: Sequence[float], ends: Sequence[tuple[int, Ends]], *, outwards: bool
) -> shapely.Geometry:
    """An outline with each stretch moved by its own width, mm: outwards, or inwards.

    ``ends``: for each stretch the number of its edge and how that edge's allowance ends at its corners.
    """
    shape = Polygon(outline)
    forward = shape.exterior.is_ccw == outwards
    ring = list(outline) if forward else list(reversed(outline))
    wide, said = [width if width >= LEAST_MM else 0.0 for width in widths], list(ends)
    if not forward:
        # a stretch belongs to the point it leaves; turned round it leaves the other one
        wide, said = [*reversed(wide[:-1]), wide[-1]], [*reversed(said[:-1]), said[-1]]
    try:
        bands = _bands(ring, wide, said)
        if not bands:
            return shape
        whole = shapely.union_all(bands, grid_size=GRID_MM)
        join = shapely.union if outwards else shapely.difference
        found = join(shape, whole, grid_size=GRID_MM)
    except shapely.errors.GEOSException:
        raise BadPiece("The allowances of this piece could not be worked out; make them narrower.") from None
    # what is left of rounding where bands only touch
    return found.buffer(1e-6, join_style="mitre").buffer(-1e-6, join_style="mitre").simplify(1e-4)


def _bands(ring: list[Point], widths: list[float], ends: list[tuple[int, Ends]]) -> list[Polygon]:
    count = len(ring)
    ways = [_way(ring[i], ring[(i + 1) % count]) for i in range(count)]
    reach = MITRE_LIMIT * max(widths, default=0.0)
    out: list[Polygon] = []
    first = next((i for i in range(count) if ends[i][0] != ends[i - 1][0]), 0)
    i = 0
    while i < count:
        here = (first + i) % count
        size = 1
        while i + size < count and ends[(here + size) % count][0] == ends[here][0] and (
            widths[(here + size) % count] == widths[here]
        ):  # fmt: skip
            size += 1
        if widths[here] > 0:
            out += _band(ring, ways, widths, ends, here, size, reach)
        i += size
    return out


def _band(
    ring: list[Point],
    ways: list[Point],
    widths: list[float],
    ends: list[tuple[int, Ends]],
    first: int,
    size: int,
    reach: float,
) -> list[Polygon]:
    """The band of one edge: a strip beside each stretch, the gaps at its bends filled, its two ends finished."""
    count, width = len(ring), widths[first]
    quads: list[Polygon] = []
    for k in range(first, first + size):
        a, b, n = ring[k % count], ring[(k + 1) % count], _out(ways[k % count])
        quads.append(Polygon([a, b, _off(b, n, width), _off(a, n, width)]))
        if k > first:
            before = _out(ways[(k - 1) % count])
            filled = _wedge(a, before, n, width)
            if filled is not None:
                quads.append(filled)
    last = (first + size - 1) % count
    if size == count:
        # one edge all the way round has no ends, but a bend where it closes
        filled = _wedge(ring[first], _out(ways[last]), _out(ways[first]), width)
        return [*quads, *([filled] if filled is not None else [])]
    band = shapely.union_all(quads, grid_size=GRID_MM)
    for here, other, start in ((first, (first - 1) % count, True), (last, (last + 1) % count, False)):
        corner = ring[first] if start else ring[(last + 1) % count]
        band = _finished(band, corner, (ways[here], ways[other]), (width, widths[other]),
                         (ends[here][1], ends[other][1]), start=start, reach=reach)  # fmt: skip
    return [band]


def _finished(
    band: shapely.Geometry,
    corner: Point,
    ways: tuple[Point, Point],
    widths: tuple[float, float],
    styles: tuple[Ends, Ends],
    *,
    start: bool,
    reach: float,
) -> shapely.Geometry:
    """A band made to end as it should at one of its corners. ``ways``: along this edge and along its neighbour, as the
    outline runs."""
    own, other = ways
    before, after = (other, own) if start else (own, other)
    if before[0] * after[1] - before[1] * after[0] <= 1e-9:
        # a corner that points in: the two bands lie over one another, and their outer lines cross by themselves
        return band
    n, m = _out(own), _out(other)
    on = (-own[0], -own[1]) if start else own
    mine, theirs = styles
    mitre = _meeting(_off(corner, n, widths[0]), own, _off(corner, m, widths[1]), other)
    if mine != "mitre" and (theirs == "mitre" or widths[0] >= widths[1]):
        # from where the neighbour's cut line meets this edge's seam line
        at = _meeting(corner, own, _off(corner, m, widths[1]), other)
        if at is None:
            return band
        line = n
        if mine == "folded":
            # the neighbour's direction into the piece, mirrored in this edge
            into = (-other[0], -other[1]) if start else other
            depth = into[0] * n[0] + into[1] * n[1]
            line = (into[0] - 2 * depth * n[0], into[1] - 2 * depth * n[1])
        tip = _meeting(_off(corner, n, widths[0]), own, at, line) or at
        side = _towards(_out(line), on)
        return _without(_lengthened(band, corner, on, n, widths[0], (at, tip), reach), _beyond(at, line, side, reach))
    if theirs != "mitre":
        # the neighbour ends in its own way, and this band at the neighbour's seam line
        tip = _meeting(_off(corner, n, widths[0]), own, corner, other) or corner
        return _without(_lengthened(band, corner, on, n, widths[0], (tip,), reach), _beyond(corner, other, m, reach))
    if mitre is None:
        return band
    edge_of_theirs = _off(corner, m, widths[1])
    longer = _lengthened(band, corner, on, n, widths[0], (mitre,), reach)
    return _without(longer, _beyond(edge_of_theirs, other, m, reach))


def _without(band: shapely.Geometry, part: Polygon) -> shapely.Geometry:
    return shapely.difference(band, part, grid_size=GRID_MM)


def _towards(way: Point, on: Point) -> Point:
    return way if way[0] * on[0] + way[1] * on[1] >= 0 else (-way[0], -way[1])


def _lengthened(
    band: shapely.Geometry, corner: Point, on: Point, n: Point, width: float, upto: Sequence[Point], reach: float
) -> shapely.Geometry:
    """A band carried on past its corner as far as any of some places, and no further than a sharp corner may."""
    by = max((p[0] - corner[0]) * on[0] + (p[1] - corner[1]) * on[1] for p in upto)
    if by <= 1e-9:
        return band
    far = _off(corner, on, min(by, reach))
    further = Polygon([corner, far, _off(far, n, width), _off(corner, n, width)])
    return shapely.union(band, further, grid_size=GRID_MM)


def _beyond(at: Point, line: Point, side: Point, reach: float) -> Polygon:
    """Everything on one side of a line near a place."""
    far = 3.0 * reach
    a = (at[0] - line[0] * far, at[1] - line[1] * far)
    b = (at[0] + line[0] * far, at[1] + line[1] * far)
    return Polygon([a, b, _off(b, side, far), _off(a, side, far)])


def _wedge(corner: Point, n: Point, m: Point, width: float) -> Polygon | None:
    """The gap between two strips of one band where the outline turns outwards, filled to a point."""
    turn = n[0] * m[1] - n[1] * m[0]
    if turn <= 1e-9:
        return None
    dot = n[0] * m[0] + n[1] * m[1]
    if dot < -0.9:
        return Polygon([corner, _off(corner, n, width), _off(corner, m, width)])
    share = width / (1.0 + dot)
    tip = (corner[0] + (n[0] + m[0]) * share, corner[1] + (n[1] + m[1]) * share)
    return Polygon([corner, _off(corner, n, width), tip, _off(corner, m, width)])


def _meeting(a: Point, u: Point, b: Point, v: Point) -> Point | None:
    """Where two lines cross, each a place and a direction."""
    cross = u[0] * v[1] - u[1] * v[0]
    if abs(cross) < 1e-6:
        return None
    t = ((b[0] - a[0]) * v[1] - (b[1] - a[1]) * v[0]) / cross
    return (a[0] + t * u[0], a[1] + t * u[1])


def _way(a: Point, b: Point) -> Point:
    long = math.dist(a, b) or 1.0
    return ((b[0] - a[0]) / long, (b[1] - a[1]) / long)


def _out(way: Point) -> Point:
    """To the right of a direction: outwards, where the outline runs counter-clockwise."""
    return (way[1], -way[0])


def _off(place: Point, way: Point, by: float) -> Point:
    return (place[0] + way[0] * by, place[1] + way[1] * by)
