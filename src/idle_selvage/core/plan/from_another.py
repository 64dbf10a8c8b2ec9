"""A piece made from another: mirrored, lengthened or shortened at a line, or the facing of an edge."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from shapely.geometry import LineString, Polygon
from shapely.ops import substring

from .draft import Draft, DraftPoint, Notch, edges, keyed, lean, notch_at, outline_of, place_on, starts
from .fit import fitted
from .outline import BadPiece, Point


def mirrored(draft: Draft) -> Draft:
    """The same piece turned over in its own middle line, the run still beginning at the same point."""
    if draft.half:
        raise BadPiece("A piece on the fold is its own mirror image.")

    def over(place: Point) -> Point:
        return (place[0], -place[1] + 0.0)

    # walked the other way round, an edge begins where it ended: what is said of it goes with it
    points = [replace(p, across=-p.across + 0.0) for p in draft.points]
    count = len(points)
    back = [points[0], *reversed(points[1:])]
    said = []
    for i, point in enumerate(back):
        # the stretch that leaves here is the one that arrived here
        before = draft.points[(-i - 1) % count]
        said.append(replace(point, straight=before.straight, allowance=None, ends="mitre"))
    for edge in edges(draft):
        last = _end_of(draft, edge.number)
        k = (count - last) % count
        said[k] = replace(said[k], allowance=edge.first.allowance, ends=edge.first.ends)
    arrow = None if draft.arrow is None else (over(draft.arrow[0]), over(draft.arrow[1]))
    marks = tuple(replace(m, places=tuple(over(p) for p in m.places)) for m in draft.marks)
    made = replace(draft, points=tuple(said), arrow=arrow, marks=marks, notches=())
    return replace(made, notches=_notches_over(draft, made))


def _end_of(draft: Draft, number: int) -> int:
    """Where an edge ends: the place in the run."""
    begins = starts(draft)
    return begins[(number + 1) % len(begins)] if len(begins) > 1 else begins[0]


def _notches_over(draft: Draft, made: Draft) -> tuple[Notch, ...]:
    out = []
    for notch in draft.notches:
        (x, y), _ = place_on(draft, notch.after, notch.at)
        out.append(notch_at(made, (x, -y), double=notch.double))
    return tuple(out)


def lengthened(draft: Draft, line: float, by: float) -> Draft:
    """Cut apart at a line square to the tape and spread by ``by`` mm, or folded down where that is negative.

    Edges that cross the line are drawn anew from the points that are left. Raises :class:`BadPiece`.
    """
    along = [p.along for p in draft.points]
    if not min(along) < line < max(along):
        raise BadPiece("The line to lengthen at must lie on the piece.")
    over = [p for p in draft.points if line < p.along < line - by] if by < 0 else []
    if over:
        raise BadPiece("There is a point where the piece is folded down; take it out first, or choose another line.")

    def up(place: Point) -> Point:
        return (place[0] + by, place[1]) if place[0] > line else place

    points = tuple(replace(p, along=p.along + by) if p.along > line else p for p in draft.points)
    arrow = None if draft.arrow is None else (up(draft.arrow[0]), up(draft.arrow[1]))
    marks = tuple(replace(m, places=tuple(up(p) for p in m.places)) for m in draft.marks)
    made = replace(draft, points=points, arrow=arrow, marks=marks)
    outline_of(made)
    lean(made)
    return made


def facing(draft: Draft, edge: int, width: float, upto: float | None = None) -> Draft:
    """The facing of an edge: everything of the piece within ``width`` mm of it, or of its first ``upto`` mm.

    Raises :class:`BadPiece` where there is no such edge, or nothing comes of it.
    """
    there = edges(draft)
    if not 0 <= edge < len(there):
        raise BadPiece("There is no such edge.")
    if width < 1.0:
        raise BadPiece("Say how wide the facing is.")
    line = _first(there[edge].line, upto)
    whole = Polygon(outline_of(draft))
    # flat ends: a facing ends square where its edge ends
    band = LineString(line).buffer(width, cap_style="flat", join_style="mitre", mitre_limit=4.0)
    # a hair of rounding where band and piece share an edge
    part = whole.intersection(band).buffer(-0.005, join_style="mitre").buffer(0.005, join_style="mitre")
    if part.geom_type == "MultiPolygon":
        part = max(part.geoms, key=lambda one: one.area)
    if part.geom_type != "Polygon" or part.is_empty or part.interiors:
        raise BadPiece("Nothing that could be cut comes of this facing; make it narrower.")
    points = fitted([(float(x), float(y)) for x, y in part.exterior.coords[:-1]])
    half = draft.half and _touches_fold(points)
    return Draft(_onto_fold(points) if half else points, half=half, arrow=_kept_arrow(draft, part))


def _first(line: Sequence[Point], upto: float | None) -> list[Point]:
    whole = LineString(line)
    if upto is None or upto >= whole.length:
        return list(line)
    if upto < 1.0:
        raise BadPiece("Say along how much of the edge the facing goes.")
    return [(float(x), float(y)) for x, y in substring(whole, 0.0, upto).coords]


def _touches_fold(points: Sequence[DraftPoint]) -> bool:
    return sum(abs(p.across) < 0.1 for p in points) >= 2


def _onto_fold(points: Sequence[DraftPoint]) -> tuple[DraftPoint, ...]:
    return tuple(replace(p, across=0.0) if abs(p.across) < 0.1 else p for p in points)


def _kept_arrow(draft: Draft, part: Polygon) -> tuple[Point, Point] | None:
    """The arrow of the piece, moved onto the facing: one piece's grain is the other's."""
    slant = lean(draft)
    if not slant or draft.arrow is None:
        return None
    (ax, ay), (bx, by) = draft.arrow
    inner = part.representative_point()
    dx, dy = (bx - ax) / 2, (by - ay) / 2
    return ((inner.x - dx, inner.y - dy), (inner.x + dx, inner.y + dy))


def without_allowance(draft: Draft) -> Draft:
    """The same outline for another cloth, with no allowance of its own at any edge."""
    points = tuple(replace(p, allowance=None, ends="mitre") for p in draft.points)
    return replace(draft, points=keyed(points))
