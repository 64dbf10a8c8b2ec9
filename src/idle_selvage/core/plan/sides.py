"""The edges of a piece as they are sewn: from corner to corner, or between notches, on the seam line and at the cut.

A corner is found where the outline turns sharply; the maker can set one or take one away. A side begins and ends at
spots: so far along the outline from one of the draft's points, so that it stays what it is when the piece is changed.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import accumulate, pairwise

from shapely.geometry import LineString
from shapely.geometry import Point as Place

from .allowance import cut_line, seam_line, widths_round
from .draft import Draft, outline_of, run_length, runs
from .drawn import spun
from .outline import TOLERANCE_MM, BadPiece, Outline, Point, fold_edge
from .piece import Piece

#: A point that is not smooth is a corner where the outline turns at least so far, degrees. From memory: a hip or a
#: shaped waist told by straight runs turns less, an underarm or a shoulder point more.
CORNER_DEGREES = 10.0
#: Spots nearer than this along the outline are one, mm.
SAME_SPOT_MM = 0.5


@dataclass(frozen=True)
class Spot:
    """A place on the outline: ``at`` mm along it from the point ``after``."""

    after: int
    at: float = 0.0


@dataclass(frozen=True)
class Side:
    """A run of the outline, from spot to spot as it is drawn round."""

    begin: Spot
    end: Spot


@dataclass(frozen=True)
class SewnEdge:
    """An edge as it can be sewn: its side, its line on the drawn outline, and whether it runs from corner to corner
    (else it is part of such an edge, between notches)."""

    side: Side
    line: Outline
    whole: bool

    @property
    def length(self) -> float:
        """Along the drawn line, mm."""
        return run_length(self.line)


def turn_at(before: Point, here: Point, after: Point) -> float:
    """By how much a run turns at a place, degrees, to either side."""
    a = math.atan2(here[1] - before[1], here[0] - before[0])
    b = math.atan2(after[1] - here[1], after[0] - here[0])
    return abs(math.degrees((b - a + math.pi) % (2 * math.pi) - math.pi))


@lru_cache(maxsize=1024)
def corners(draft: Draft) -> tuple[int, ...]:
    """The keys of the points that are corners, in the order they are met."""
    ring, firsts = _ring(draft)
    said = dict(draft.corners)
    found = []
    for point, i in zip(draft.points, firsts, strict=True):
        turn = turn_at(ring[i - 1], ring[i], ring[(i + 1) % len(ring)])
        found += [point.key] if said.get(point.key, not point.smooth and turn >= CORNER_DEGREES) else []
    return tuple(found)


@lru_cache(maxsize=1024)
def sewn_edges(draft: Draft) -> tuple[SewnEdge, ...]:
    """The edges that can be sewn: each from corner to corner, then its parts between notches; none on a fold."""
    keys = corners(draft) or (draft.points[0].key,)
    fold = fold_edge(outline_of(draft)) if draft.half else None
    out: list[SewnEdge] = []
    for begin, end in zip(keys, [*keys[1:], keys[0]], strict=True):
        whole = Side(Spot(begin), Spot(end))
        line = run_of(draft, whole)
        if fold is not None and all(abs(y) <= TOLERANCE_MM for _, y in line):
            continue
        out.append(SewnEdge(whole, line, True))
        spots = [whole.begin, *_notches_on(draft, whole, run_length(line)), whole.end]
        if len(spots) > 2:
            parts = [Side(a, b) for a, b in pairwise(spots)]
            out += [SewnEdge(part, run_of(draft, part), False) for part in parts]
    return tuple(out)


def run_of(draft: Draft, side: Side) -> Outline:
    """The drawn line of a side, from its begin to its end; all round when both are one. Raises :class:`BadPiece`."""
    ring, firsts = _ring(draft)
    begin, end = _gone(draft, ring, firsts, side.begin), _gone(draft, ring, firsts, side.end)
    return _part(ring, begin, end)


def _ring(draft: Draft) -> tuple[Outline, tuple[int, ...]]:
    drawn = runs(draft)
    firsts = tuple(accumulate((len(run) for run in drawn[:-1]), initial=0))
    return tuple(p for run in drawn for p in run), firsts


def _gone(draft: Draft, ring: Outline, firsts: Sequence[int], spot: Spot) -> float:
    """How far along the outline a spot lies from its first point, mm."""
    index = next((i for i, p in enumerate(draft.points) if p.key == spot.after), None)
    if index is None:
        raise BadPiece("The point an edge was told from is no longer there; choose the edge again.")
    gone = _lengths(ring)
    return (gone[firsts[index]] + spot.at) % gone[-1]


def _lengths(ring: Sequence[Point]) -> list[float]:
    return [0.0, *accumulate(math.dist(a, b) for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))]


def _part(ring: Sequence[Point], begin: float, end: float) -> Outline:
    """The run of a closed ring between two distances along it; all round where both are one."""
    gone = _lengths(ring)
    whole = gone[-1]
    if end <= begin + 1e-9:
        end += whole
    twice = [*gone[:-1], *(g + whole for g in gone)]
    inside = [ring[i % len(ring)] for i, g in enumerate(twice) if begin + 1e-6 < g < end - 1e-6]
    return (_along(ring, gone, begin), *inside, _along(ring, gone, end))


def _along(ring: Sequence[Point], gone: Sequence[float], at: float) -> Point:
    at %= gone[-1]
    i = next((i for i in range(1, len(gone)) if gone[i] >= at - 1e-9 and gone[i] > gone[i - 1]), len(gone) - 1)
    a, b = ring[i - 1], ring[i % len(ring)]
    share = (at - gone[i - 1]) / (gone[i] - gone[i - 1])
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)


def _notches_on(draft: Draft, side: Side, length: float) -> list[Spot]:
    """The notches on a side, in its order, without those at its ends."""
    ring, firsts = _ring(draft)
    whole = _lengths(ring)[-1]
    begin = _gone(draft, ring, firsts, side.begin)
    found = []
    for notch in draft.notches:
        spot = Spot(notch.after, notch.at)
        try:
            off = (_gone(draft, ring, firsts, spot) - begin) % whole
        except BadPiece:
            continue
        if SAME_SPOT_MM < off < length - SAME_SPOT_MM:
            found.append((off, spot))
    return [spot for _, spot in sorted(found, key=lambda one: one[0])]


@lru_cache(maxsize=2048)
def seam_run(piece: Piece, draft: Draft, side: Side) -> Outline:
    """A side on the seam line, in the axes of the piece as it is cut. Raises :class:`BadPiece`."""
    return _on(piece, draft, side, seam_line(piece), -1.0, piece.included)


@lru_cache(maxsize=2048)
def cut_run(piece: Piece, draft: Draft, side: Side) -> Outline:
    """A side at the cut edge, in the same axes. Raises :class:`BadPiece`."""
    added = 0.0 if piece.included > 0 or piece.bare else piece.seam
    return _on(piece, draft, side, cut_line(piece), 1.0, added)


def _on(piece: Piece, draft: Draft, side: Side, line: Outline, out: float, usual: float) -> Outline:
    """A side of the drawn line on one of the lines beside it."""
    run = spun(run_of(draft, side), -piece.slant) if piece.slant else run_of(draft, side)
    if line == piece.outline:
        return run
    ring = LineString([*line, line[0]])
    if runs_left(line) != runs_left(piece.outline):
        ring = ring.reverse()
    ends = []
    for place in (run[0], run[-1]):
        ends.append(ring.project(Place(_beside(piece, place, out, usual))))
    return _part(ring.coords[:-1], ends[0], ends[1])


def runs_left(ring: Sequence[Point]) -> bool:
    """Whether a closed ring is drawn counter-clockwise: what it encloses lies to its left."""
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)) > 0


def _beside(piece: Piece, place: Point, out: float, usual: float) -> Point:
    """Where a place of the drawn line lies on the line beside it: where the lines beside both stretches that meet
    there cross, or straight beside it."""
    ring = piece.outline
    widths = widths_round(piece, usual)
    outwards = out if runs_left(ring) else -out
    n = len(ring)
    near = min(range(n), key=lambda i: math.dist(ring[i], place))
    if math.dist(ring[near], place) > TOLERANCE_MM:
        i = min(range(n), key=lambda i: LineString([ring[i], ring[(i + 1) % n]]).distance(Place(place)))
        return _off(place, _normal(ring[i], ring[(i + 1) % n]), widths[i] * outwards)
    before, after = (ring[near - 1], ring[near]), (ring[near], ring[(near + 1) % n])
    u, v = _normal(*before), _normal(*after)
    a, b = widths[near - 1] * outwards, widths[near] * outwards
    cross = u[0] * v[1] - u[1] * v[0]
    if abs(cross) < 1e-3:
        return _off(ring[near], v, b)
    return (ring[near][0] + (a * v[1] - b * u[1]) / cross, ring[near][1] + (b * u[0] - a * v[0]) / cross)


def _normal(a: Point, b: Point) -> Point:
    """To the right of a direction."""
    long = math.dist(a, b) or 1.0
    return ((b[1] - a[1]) / long, -(b[0] - a[0]) / long)


def _off(place: Point, way: Point, by: float) -> Point:
    return (place[0] + way[0] * by, place[1] + way[1] * by)
