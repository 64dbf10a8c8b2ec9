"""The piece as it is drafted on the paper: a closed run of points, its edges, its own grainline, its marks.

A draft lies in its own axes, as the tape was laid: ``along`` from the low end up, ``across`` to the left of the tape
(right of it is negative), both in millimetres, seen from the face. Half of a symmetrical piece has its fold on
``across`` = 0 and lies to the left of it. An **edge** runs from corner to corner; a smooth point begins one only where
it is given an allowance of its own.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import accumulate, pairwise
from typing import Literal

from .curve import Pin, closed_run
from .outline import MAX_POINTS, TOLERANCE_MM, BadPiece, Outline, Point

#: How an allowance ends at the corners of its edge: met by its neighbour's, cut off square, or so that it lies on the
#: piece once the hem is folded up.
Ends = Literal["mitre", "square", "folded"]
ENDS: tuple[Ends, ...] = ("mitre", "square", "folded")
#: A tape is not read nearly so fine: points nearer than this are one. Half of it, which an outline that is read from a
#: file may so lose, is the twentieth of a millimetre within which files come back.
SAME_PLACE_MM = 0.1
#: So many points are told of one piece: no fewer than a drawing may have, so that none becomes unreadable.
MOST_TOLD = MAX_POINTS
#: An arrow that leans so little from the tape runs along it, degrees.
ALONG_DEGREES = 0.01


@dataclass(frozen=True)
class DraftPoint:
    """One point of the run. ``straight``: straight on to the next; ``allowance`` and ``ends`` belong to the edge that
    begins here (None: the piece's usual one); ``key`` names it for good."""

    along: float
    across: float
    smooth: bool = False
    straight: bool = False
    allowance: float | None = None
    ends: Ends = "mitre"
    key: int = 0

    @property
    def at(self) -> Point:
        """Its place."""
        return (self.along, self.across)


@dataclass(frozen=True)
class Notch:
    """A notch ``at`` mm along the outline from the point ``after``; single or double."""

    after: int
    at: float
    double: bool = False


MarkKind = Literal["point", "dart", "fold", "centre", "buttons", "level"]
MARKS: tuple[MarkKind, ...] = ("point", "dart", "fold", "centre", "buttons", "level")
#: How many places tell a mark: a dart two feet and its tip between them, a line its ends, a level its height.
PLACES: dict[MarkKind, int] = {"point": 1, "dart": 3, "fold": 2, "centre": 2, "buttons": 2, "level": 1}


@dataclass(frozen=True)
class Mark:
    """Something drawn on the piece: where, and what it is called. A level (bust, waist, hip) is named by its height."""

    kind: MarkKind
    places: tuple[Point, ...]
    name: str = ""


@dataclass(frozen=True)
class Draft:
    """A piece on the paper.

    ``arrow``: its grainline from its low end to its head, or None where it is not drawn and runs along the tape;
    ``included``: the allowance that lies inside the drawn line, mm, 0 where the line is the seam line or nothing is
    known of it; ``corners``: points that were said to be corners of the seams, or to be none, by their keys.
    """

    points: tuple[DraftPoint, ...]
    half: bool = False
    arrow: tuple[Point, Point] | None = None
    included: float = 0.0
    notches: tuple[Notch, ...] = ()
    marks: tuple[Mark, ...] = ()
    corners: tuple[tuple[int, bool], ...] = ()

    # what is made of it is looked up by it, again and again
    @cached_property
    def _hash(self) -> int:
        return hash((self.points, self.half, self.arrow, self.included, self.notches, self.marks, self.corners))

    def __hash__(self) -> int:
        return self._hash


def levels(draft: Draft) -> dict[str, float]:
    """The named heights of a piece (bust, waist, hip), mm along."""
    return {mark.name: mark.places[0][0] for mark in draft.marks if mark.kind == "level"}


@dataclass(frozen=True)
class Edge:
    """One edge: its points of the draft by their place in the run, and its line with both ends."""

    number: int
    first: DraftPoint
    line: Outline
    on_fold: bool

    @property
    def length(self) -> float:
        """Along the drawn line, mm."""
        return run_length(self.line)


def run_length(line: Sequence[Point]) -> float:
    """Length of an open run, mm."""
    return sum(math.dist(a, b) for a, b in pairwise(line))


def keyed(points: Sequence[DraftPoint]) -> tuple[DraftPoint, ...]:
    """The points, each with a key of its own; keys that are there stay."""
    taken = {point.key for point in points if point.key}
    out: list[DraftPoint] = []
    seen: set[int] = set()
    following = max(taken, default=0) + 1
    for point in points:
        if point.key and point.key not in seen:
            seen.add(point.key)
            out.append(point)
            continue
        out.append(replace(point, key=following))
        following += 1
    return tuple(out)


def check_points(points: Sequence[DraftPoint]) -> None:
    """Raise :class:`BadPiece` where points cannot be a run: too few, too many, or two at one place, one after
    another."""
    if len(points) < 3:
        raise BadPiece(f"An outline needs at least three points; there {'is' if len(points) == 1 else 'are'} "
                       f"{len(points)}.")  # fmt: skip
    if len(points) > MOST_TOLD:
        raise BadPiece(f"There are {len(points)} points; at most {MOST_TOLD} can be told of one piece.")
    for number, (a, b) in enumerate(zip(points, [*points[1:], points[0]], strict=True), start=1):
        if math.dist(a.at, b.at) < SAME_PLACE_MM:
            following = number % len(points) + 1
            raise BadPiece(f"Points {number} and {following} lie at the same place. Take one of them out.")


def runs(draft: Draft) -> tuple[Outline, ...]:
    """For each point the outline from it up to, and without, the next."""
    return closed_run([Pin(p.at, p.smooth, p.straight) for p in draft.points])


def outline_of(draft: Draft) -> Outline:
    """The drawn line, curves as chords, rounded to a tenth of a micrometre. Raises :class:`BadPiece`."""
    check_points(draft.points)
    ring = tuple((round(x, 4), round(y, 4)) for run in runs(draft) for x, y in run)
    if len(ring) > MAX_POINTS:
        raise BadPiece(f"The outline has {len(ring)} points; at most {MAX_POINTS} can be worked with.")
    return ring


def starts(draft: Draft) -> tuple[int, ...]:
    """Where an edge begins: the points' places in the run."""
    found = [i for i, p in enumerate(draft.points) if not p.smooth or p.allowance is not None]
    return tuple(found) or (0,)


def edges(draft: Draft) -> tuple[Edge, ...]:
    """The edges round the piece, in the order they are met."""
    drawn = runs(draft)
    count, begins = len(draft.points), starts(draft)
    out = []
    for number, (first, following) in enumerate(zip(begins, [*begins[1:], begins[0] + count], strict=True)):
        line = [point for i in range(first, following) for point in drawn[i % count]]
        line.append(draft.points[following % count].at)
        on_fold = draft.half and all(abs(y) <= TOLERANCE_MM for _, y in line)
        out.append(Edge(number, draft.points[first], tuple(line), on_fold))
    return tuple(out)


def lean(draft: Draft) -> float:
    """How far the printed arrow leans from the tape, degrees counter-clockwise; 0 where it runs along it.

    Raises :class:`BadPiece` for an arrow that cannot be, or one aslant to a fold.
    """
    if draft.arrow is None:
        return 0.0
    (ax, ay), (bx, by) = draft.arrow
    if math.hypot(bx - ax, by - ay) < 1.0:
        raise BadPiece("The grainline is shorter than a millimetre; give its two ends.")
    angle = math.degrees(math.atan2(by - ay, bx - ax))
    if draft.half and abs(angle) > 1.0:
        raise BadPiece("The grainline of a piece on the fold runs along the fold, up; this one leans "
                       f"{abs(angle):.1f}°.")  # fmt: skip
    return 0.0 if abs(angle) < ALONG_DEGREES or draft.half else angle


def place_on(draft: Draft, after: int, at: float) -> tuple[Point, Point]:
    """The place ``at`` mm along the outline from the point ``after``, and the direction outwards there.

    Raises :class:`BadPiece` when there is no such point, or the outline is not so long.
    """
    index = next((i for i, p in enumerate(draft.points) if p.key == after), None)
    if index is None:
        raise BadPiece("A notch is measured from a point that is no longer there; say from which one.")
    drawn = runs(draft)
    count = len(drawn)
    ring = [p for i in range(count) for p in drawn[(index + i) % count]]
    ring.append(ring[0])
    gone = [0.0, *accumulate(math.dist(a, b) for a, b in pairwise(ring))]
    if not 0.0 <= at <= gone[-1]:
        raise BadPiece("A notch lies further along than the outline is long.")
    which = next(i for i in range(1, len(gone)) if gone[i] >= at - 1e-9 and gone[i] > gone[i - 1])
    a, b = ring[which - 1], ring[which]
    share = (at - gone[which - 1]) / (gone[which] - gone[which - 1])
    long = math.dist(a, b)
    out = ((b[1] - a[1]) / long, -(b[0] - a[0]) / long)
    if _area(ring) < 0:
        out = (-out[0], -out[1])
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share), out


def notch_at(draft: Draft, place: Point, *, double: bool = False) -> Notch:
    """The notch nearest to a place, measured from the beginning of its edge."""
    best: tuple[float, Notch] | None = None
    for edge in edges(draft):
        gone = 0.0
        for a, b in zip(edge.line, edge.line[1:], strict=False):
            long = math.dist(a, b)
            if long <= 0:
                continue
            share = ((place[0] - a[0]) * (b[0] - a[0]) + (place[1] - a[1]) * (b[1] - a[1])) / long**2
            share = min(1.0, max(0.0, share))
            off = math.dist(place, (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share))
            if best is None or off < best[0]:
                best = (off, Notch(edge.first.key, round(gone + share * long, 3), double))
            gone += long
    if best is None:
        raise BadPiece("There is no edge to put a notch on.")
    return best[1]


def _area(ring: Sequence[Point]) -> float:
    return 0.5 * sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))


def halved(draft: Draft) -> Draft:
    """The part left of the tape, for a piece that is said to be half of a symmetrical one. A half that was told wholly
    on the right is turned over: opened out, both are the same piece. Raises :class:`BadPiece`."""
    across = [p.across for p in draft.points]
    if min(across) >= -TOLERANCE_MM:
        return draft
    if max(across) <= TOLERANCE_MM:
        flipped = (replace(p, across=-p.across) for p in draft.points)
        return replace(draft, points=tuple(flipped))
    kept: list[DraftPoint] = []
    count = len(draft.points)
    for i, point in enumerate(draft.points):
        following = draft.points[(i + 1) % count]
        if point.across >= -TOLERANCE_MM:
            kept.append(point)
        if (point.across > TOLERANCE_MM) != (following.across > TOLERANCE_MM) and (
            (point.across < -TOLERANCE_MM) or (following.across < -TOLERANCE_MM)
        ):
            crossed = _crossing(draft, i)
            if crossed is not None:
                fold = following.across < point.across
                kept.append(DraftPoint(round(crossed, 4), 0.0, straight=fold))
    if len(kept) < 3:
        raise BadPiece("Nothing of it lies left of the fold.")
    return replace(draft, points=keyed(kept))


def _crossing(draft: Draft, index: int) -> float | None:
    """Where the outline crosses the tape between one point and the next, along; None where only an end touches it."""
    drawn = runs(draft)
    line = [*drawn[index], draft.points[(index + 1) % len(draft.points)].at]
    for (ax, ay), (bx, by) in pairwise(line):
        if (ay > 0) != (by > 0) and abs(ay - by) > 1e-12:
            at = ax + (bx - ax) * ay / (ay - by)
            near = min(abs(draft.points[index].across), abs(draft.points[(index + 1) % len(draft.points)].across))
            return None if near <= TOLERANCE_MM else at
    return None
