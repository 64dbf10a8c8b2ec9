"""From an outline of many chords back to the few points it can be told by: corners, and smooth points between.

What was drawn as curves comes as chords that stray from them by at most :data:`core.plan.curve.FLATNESS_MM`. A bend too
sharp for such chords is a corner, a chord too long for them a straight stretch; between them points are put where the
curve through those there are is furthest off, until it is within the tolerance. Several outlines of one piece (its
sizes) get the same points, at the same shares of their edges.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from .curve import FLATNESS_MM, Pin, closed_run
from .draft import MOST_TOLD, SAME_PLACE_MM, DraftPoint, keyed
from .outline import BadPiece, Outline, Point, polygon_fault

#: The curve through the points found strays from the outline by at most this: finer than anybody draws or cuts.
WITHIN_MM = 0.2
#: Where the curve through few points strays further, the outline is kept point by point.
FAITHFUL_MM = 0.4
#: A bend sharper than this is a corner, however short its chords, degrees.
CORNER_DEGREES = 20.0
#: Chords of a curve lie this near to it, with room for drawings flattened more coarsely.
COARSE_MM = 3.0 * FLATNESS_MM
#: So many points at most between two corners.
MOST_BETWEEN = 24
#: Two outlines are compared at places so far apart, mm.
PLACES_MM = 2.0
#: How much points are spread evenly, beside being drawn to the bends.
EVENLY = 1.0


@dataclass
class _Ring:
    """An outline, its corners and its straight stretches."""

    ring: list[Point]
    corner: list[bool]
    straight: list[bool]
    wanted: list[bool]

    @property
    def fixed(self) -> list[int]:
        """Vertices that are points of the piece in any case."""
        n = len(self.ring)
        return [i for i in range(n) if self.corner[i] or self.wanted[i] or self.straight[i] or self.straight[i - 1]]


def fitted(
    outline: Sequence[Point],
    within: float = WITHIN_MM,
    *,
    through: Sequence[Point] = (),
    ends: bool = False,
    faithful: float = FAITHFUL_MM,
) -> tuple[DraftPoint, ...]:
    """The points by which an outline can be told, within ``within`` mm; those it goes ``through`` are among them.
    ``faithful``: where the curve strays further than so many mm, the outline is kept point by point.
    ``ends``: the last chord before each corner is kept as it is, so that allowances meet where they met.
    Raises :class:`BadPiece` where it takes too many."""
    ring = _read(outline, through)
    if ends:
        ring = _ends_held(ring)
    found = _fitted([ring], within)[0]
    line = [p for run in closed_run([Pin(p.at, p.smooth, p.straight) for p in found]) for p in run]
    if polygon_fault(line) is None and outline_within(found, tuple(outline)) <= max(faithful, within):
        return found
    # a curve that cannot be told by few points keeps all it has
    if len(ring.ring) > MOST_TOLD:
        raise BadPiece(f"it takes {len(ring.ring)} points, at most {MOST_TOLD} can be worked with; simplify its line.")
    smooth = _kept(ring)
    if outline_within(smooth, tuple(outline)) <= faithful:
        return smooth
    return keyed([DraftPoint(x, y) for x, y in ring.ring])


def _kept(ring: _Ring) -> tuple[DraftPoint, ...]:
    """Every point of an outline, smooth where it is no corner, so that its edges are those it has."""
    n = len(ring.ring)
    return keyed(
        [
            DraftPoint(x, y, not ring.corner[i], ring.straight[i] and not (ring.corner[i] and ring.corner[(i + 1) % n]))
            for i, (x, y) in enumerate(ring.ring)
        ]
    )


def fitted_alike(outlines: Sequence[Sequence[Point]], within: float = WITHIN_MM) -> list[tuple[DraftPoint, ...]]:
    """Points for several outlines of one piece, the same number for each. Raises :class:`BadPiece` where they have not
    the same corners."""
    return _fitted([_read(outline) for outline in outlines], within)


def _ends_held(ring: _Ring) -> _Ring:
    n = len(ring.ring)
    beside = {i for i in range(n) if ring.corner[i] or ring.corner[(i + 1) % n]}
    return _Ring(ring.ring, ring.corner, [s or i in beside for i, s in enumerate(ring.straight)], ring.wanted)


def _fitted(rings: Sequence[_Ring], within: float) -> list[tuple[DraftPoint, ...]]:
    fixed = [ring.fixed for ring in rings]
    if any(len(one) != len(fixed[0]) for one in fixed):
        raise BadPiece("its sizes have not the same corners, so that no point can be followed from one to the other.")
    if not fixed[0]:
        # round all the way: it begins where it reaches furthest
        fixed = [[max(range(len(ring.ring)), key=lambda i, r=ring.ring: r[i])] for ring in rings]  # type: ignore[misc]
    inside: list[tuple[float, ...]] = [()] * len(fixed[0])
    for more in range(1, MOST_BETWEEN + 1):
        # where it strays, one more point on the whole of that edge, so that they stay evenly apart
        far = {run for ring, pins in zip(rings, fixed, strict=True) for run in _straying(ring, pins, inside, within)}
        if not far:
            break
        for run in far:
            inside[run] = _shares(_run(rings[0], fixed[0], run), more)
    found = [_points(ring, pins, inside) for ring, pins in zip(rings, fixed, strict=True)]
    if len(found[0]) > MOST_TOLD:
        raise BadPiece(f"it takes {len(found[0])} points, at most {MOST_TOLD} can be worked with; simplify its line.")
    return found


def _read(outline: Sequence[Point], through: Sequence[Point] = ()) -> _Ring:
    ring = [(float(x), float(y)) for x, y in outline] if through else _slim(outline)
    ring = _apart(ring)
    n = len(ring)
    long = [math.dist(ring[i], ring[(i + 1) % n]) for i in range(n)]
    bend = [_bend(ring[i - 1], ring[i], ring[(i + 1) % n]) for i in range(n)]
    corner = [
        bend[i] > math.radians(CORNER_DEGREES) or bend[i] * min(long[i - 1], long[i]) / 8.0 > COARSE_MM
        for i in range(n)
    ]
    if not any(corner) and n <= 4:
        corner = [True] * n
    straight = [
        (corner[i] and corner[(i + 1) % n])
        or long[i] * _larger_bend(bend, corner, i, n) / 8.0 > COARSE_MM
        for i in range(n)
    ]  # fmt: skip
    wanted = [any(math.dist(p, place) < SAME_PLACE_MM / 2 for place in through) for p in ring]
    return _Ring(ring, corner, straight, wanted)


def _apart(ring: list[Point]) -> list[Point]:
    """Without points that are one with their neighbour: one stays, or the place between them, whichever is nearer to
    both."""
    out = list(ring)
    i = 0
    while i < len(out) and len(out) > 3:
        j = (i + 1) % len(out)
        a, b = out[i], out[j]
        if math.dist(a, b) >= SAME_PLACE_MM:
            i += 1
            continue
        ends, middle = (out[i - 1], out[(j + 1) % len(out)]), ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        lost = {place: _lost(place, (a, b), ends) for place in (a, b, middle)}
        out[i] = min(lost, key=lost.__getitem__)
        del out[j]
        # what went may have brought two others together
        i = max(0, i - 1)
    return out


def _lost(place: Point, were: Sequence[Point], ends: Sequence[Point]) -> float:
    """How far the outline goes from points that become one place, mm."""
    run = LineString([ends[0], place, ends[1]])
    return max(float(run.distance(shapely.Point(p))) for p in were)


def _slim(outline: Sequence[Point]) -> list[Point]:
    return [(float(x), float(y)) for x, y in Polygon(outline).exterior.simplify(0.01).coords[:-1]]


def _larger_bend(bend: Sequence[float], corner: Sequence[bool], i: int, n: int) -> float:
    """The bend at either end of a stretch that is no corner; there a curve would go on."""
    j = (i + 1) % n
    return max(0.0 if corner[i] else bend[i], 0.0 if corner[j] else bend[j])


def _bend(a: Point, b: Point, c: Point) -> float:
    u, v = (b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1])
    return abs(math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]))


def _run(ring: _Ring, pins: Sequence[int], number: int) -> list[Point]:
    """The vertices from one fixed point to the next, both with it."""
    n = len(ring.ring)
    first, last = pins[number], pins[(number + 1) % len(pins)]
    count = (last - first) % n or n
    return [ring.ring[(first + k) % n] for k in range(count + 1)]


def _straying(ring: _Ring, pins: Sequence[int], inside: Sequence[Sequence[float]], within: float) -> list[int]:
    """The runs that are further from the outline than they may be."""
    points = _points(ring, pins, inside)
    drawn = closed_run([Pin(p.at, p.smooth, p.straight) for p in points])
    out: list[int] = []
    at = 0
    for number, shares in enumerate(inside):
        size = len(shares) + 1
        line = [p for k in range(at, at + size) for p in drawn[k]]
        line.append(points[(at + size) % len(points)].at)
        at += size
        run = _run(ring, pins, number)
        if len(run) < 3 and not shares:
            continue
        halfway = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in pairwise(run)]
        away = shapely.distance(shapely.points([*run, *halfway]), LineString(line))
        if float(away.max()) > within:
            out.append(number)
    return out


def _shares(run: Sequence[Point], count: int) -> tuple[float, ...]:
    """Shares of a run's length for so many points on it: nearer together where it bends more."""
    gone = np.array(_lengths(run))
    weight = [0.0]
    for i in range(len(run) - 1):
        long = gone[i + 1] - gone[i]
        bends = [_bend(run[k - 1], run[k], run[k + 1]) for k in (i, i + 1) if 0 < k < len(run) - 1]
        curved = sum(bends) / max(1, len(bends)) / max(long, 1e-9)
        weight.append(weight[-1] + long * (EVENLY / gone[-1] + math.sqrt(curved / gone[-1])))
    wanted = [weight[-1] * k / (count + 1) for k in range(1, count + 1)]
    return tuple(float(np.interp(w, weight, gone)) / float(gone[-1]) for w in wanted)


def _lengths(run: Sequence[Point]) -> list[float]:
    gone = [0.0]
    for a, b in pairwise(run):
        gone.append(gone[-1] + math.dist(a, b))
    return gone


def _points(ring: _Ring, pins: Sequence[int], inside: Sequence[Sequence[float]]) -> tuple[DraftPoint, ...]:
    n = len(ring.ring)
    out: list[DraftPoint] = []
    for number, first in enumerate(pins):
        at = ring.ring[first]
        following = pins[(number + 1) % len(pins)]
        alone = (following - first) % n == 1
        smooth = not ring.corner[first]
        straight = alone and ring.straight[first] and not inside[number]
        out.append(DraftPoint(at[0], at[1], smooth, straight and (smooth or not ring.corner[following])))
        run = _run(ring, pins, number)
        lengths = _lengths(run)
        for share in inside[number]:
            x = float(np.interp(share * lengths[-1], lengths, [p[0] for p in run]))
            y = float(np.interp(share * lengths[-1], lengths, [p[1] for p in run]))
            out.append(DraftPoint(round(x, 4), round(y, 4), smooth=True))
    return keyed(out)


def outline_within(points: Sequence[DraftPoint], outline: Outline) -> float:
    """How far the curve through the points strays from an outline, mm."""
    ring = [p for run in closed_run([Pin(p.at, p.smooth, p.straight) for p in points]) for p in run]
    # at places along both, not only at their points: between two of them a chord strays most in its middle
    one, other = Polygon(ring).exterior.segmentize(PLACES_MM), Polygon(outline).exterior.segmentize(PLACES_MM)
    return float(shapely.hausdorff_distance(one, other))
