"""The curve through measured points: it passes through each, bends no other way than they do, and does not swing past.

At a smooth point the curve has the direction of the circle through that point and its two neighbours, so that points
read off an arc give the arc again. Three things hold it back where points are few: beside a long empty stretch the
direction follows that stretch; the control points stay inside the triangle of chord and directions, so that no stretch
bends twice where its points bend once; and it goes past the box of a stretch's two ends by at most :data:`PAST_MM`, so
that a piece is nowhere wider than it was measured, but for that. Cubic Bézier stretches; lengths in millimetres.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from .outline import Point

#: A curve becomes chords that stray from it by at most this.
FLATNESS_MM = 0.05
#: How far a curve may go past the box of the two points of a stretch.
PAST_MM = 2.0
#: From so much longer a neighbour on, the direction follows the longer one: the short one tells little of it.
UNEVEN = 2.0
#: No stretch is cut into more chords.
MOST_CHORDS = 5000
#: Points nearer than this are one.
SAME_MM = 1e-6

#: A cubic whose two control points both lie h past its ends goes past them by 3/4 h.
_PAST_OF_HANDLE = 3.0 / 4.0

Vector = tuple[float, float]
Stretch = tuple[Point, Point, Point, Point]


@dataclass(frozen=True)
class Pin:
    """A point the curve passes through; ``smooth``: without a corner; ``straight``: straight on to the next."""

    at: Point
    smooth: bool = False
    straight: bool = False


def closed_run(pins: Sequence[Pin]) -> tuple[tuple[Point, ...], ...]:
    """For each pin the points from it up to, and without, the next pin, all the way round.

    Together they are the outline. A stretch between two corners is straight.
    """
    found = zip(pins, _beziers(pins), strict=True)
    return tuple(tuple(chords(bezier)) if bezier else (pin.at,) for pin, bezier in found)


def _beziers(pins: Sequence[Pin]) -> list[Stretch | None]:
    """The curve of each stretch, None where it is straight."""
    count = len(pins)
    ends = [(pins[i].at, pins[(i + 1) % count].at) for i in range(count)]
    chord = [(b[0] - a[0], b[1] - a[1]) for a, b in ends]
    long = [math.hypot(*c) for c in chord]
    bent = [
        long[i] > SAME_MM and not pins[i].straight and (pins[i].smooth or pins[(i + 1) % count].smooth)
        for i in range(count)
    ]
    way: list[Vector] = [(c[0] / n, c[1] / n) if n > SAME_MM else (1.0, 0.0) for c, n in zip(chord, long, strict=True)]
    leaving: list[Vector | None] = [None] * count
    arriving: list[Vector | None] = [None] * count
    for i, pin in enumerate(pins):
        before = (i - 1) % count
        if not pin.smooth or not (bent[before] or bent[i]):
            continue
        # a curve that runs on into a straight stretch has its direction there
        if not bent[before]:
            along = way[before]
        elif not bent[i]:
            along = way[i]
        else:
            back, on = min(2, _bent_on(bent, pins, before, -1)), min(2, _bent_on(bent, pins, i, 1))
            beside = [(way[(i + k) % count], long[(i + k) % count]) for k in range(-back, on)]
            along = _held(_tangent(beside, back), (chord[before], chord[i]))
        arriving[before], leaving[i] = along, along
    out: list[Stretch | None] = []
    for i in range(count):
        if not bent[i]:
            out.append(None)
            continue
        # an end without a direction of its own: as an arc goes on
        first, last = leaving[i], arriving[i]
        if first is None:
            ahead = [(way[(i + k) % count], long[(i + k) % count]) for k in range(_bent_on(bent, pins, i, 1))]
            first = _held(_end(last, ahead), (chord[i],)) if last is not None else way[i]
        if last is None:
            behind = [
                ((-way[(i - k) % count][0], -way[(i - k) % count][1]), long[(i - k) % count])
                for k in range(_bent_on(bent, pins, i, -1))
            ]
            x, y = _end((-first[0], -first[1]), behind)
            last = _held((-x, -y), (chord[i],))
        out.append(_stretch(ends[i][0], ends[i][1], first, last, way[i], long[i]))
    return out


def _tangent(beside: Sequence[tuple[Vector, float]], index: int) -> Vector:
    """The direction at a point between two chords, ``beside`` being those and one more on either side as far as the
    curve goes on, ``index`` that of the chord that leaves the point.

    The circle's through the three points, where the chords are even; with more chords, of the curve whose direction
    changes as evenly as theirs do. It never leaves what lies between the two chords.
    """
    (u, before), (v, after) = beside[index - 1], beside[index]
    turn = _angle(u, v)
    ratio = max(before, after) / min(before, after)
    if ratio > UNEVEN:
        # the long chord keeps ever more of its own direction
        kept = UNEVEN / (1.0 + UNEVEN) * (UNEVEN / ratio) ** 2
        return _turned(u, turn * (kept if before > after else 1.0 - kept))
    if max(h for _, h in beside) > UNEVEN * min(h for _, h in beside):
        return _turned(u, turn * before / (before + after))
    places, angles = _middles(beside)
    found = _through(places, angles, sum(h for _, h in beside[:index])) - angles[index - 1]
    return _turned(u, max(min(0.0, turn), min(max(0.0, turn), found)))


def _middles(chords_on: Sequence[tuple[Vector, float]]) -> tuple[list[float], list[float]]:
    """Where the middles of chords lie along the curve, and how far each has turned from the first."""
    places: list[float] = []
    angles: list[float] = []
    gone = 0.0
    for k, (way, long) in enumerate(chords_on):
        places.append(gone + long / 2)
        angles.append(0.0 if k == 0 else angles[-1] + _angle(chords_on[k - 1][0], way))
        gone += long
    return places, angles


def _through(places: Sequence[float], values: Sequence[float], at: float) -> float:
    """The polynomial through some values, at a place: Neville's scheme."""
    row = list(values)
    for width in range(1, len(row)):
        row = [
            ((at - places[k + width]) * row[k] + (places[k] - at) * row[k + 1]) / (places[k] - places[k + width])
            for k in range(len(row) - 1)
        ]
    return row[0]


def _held(along: Vector, chords_beside: Sequence[Vector]) -> Vector:
    """A direction turned as little as is needed for the curve to go past no box by more than is allowed."""
    x, y = along
    for cx, cy in chords_beside:
        most = min(1.0, 3.0 * PAST_MM / _PAST_OF_HANDLE / math.hypot(cx, cy))
        # against the chord in one axis: only so much of it
        if x * cx < 0.0 or (cx == 0.0 and x != 0.0):
            x = math.copysign(min(abs(x), most), x)
            y = math.copysign(math.sqrt(max(0.0, 1.0 - x * x)), y)
        if y * cy < 0.0 or (cy == 0.0 and y != 0.0):
            y = math.copysign(min(abs(y), most), y)
            x = math.copysign(math.sqrt(max(0.0, 1.0 - y * y)), x)
    return x, y


def _stretch(a: Point, b: Point, first: Vector, last: Vector, way: Vector, long: float) -> Stretch:
    start, end = _angle(way, first), _angle(last, way)
    near = _short(_handle(long, start, end), first, way, long)
    far = _short(_handle(long, end, start), last, way, long)
    return (
        a,
        (a[0] + near * first[0], a[1] + near * first[1]),
        (b[0] - far * last[0], b[1] - far * last[1]),
        b,
    )


def _handle(long: float, own: float, other: float) -> float:
    """How far a control point lies from its end: as for an arc, and not past where the two directions meet.

    An arc of half its turn ``own`` has handles of chord ÷ (3 cos²(own ÷ 2)).
    """
    own, other = abs(own), abs(other)
    arc = long / (3.0 * math.cos(min(own, 2.0) / 2.0) ** 2)
    both = own + other
    if both < 1e-9 or both > math.pi - 0.2:
        return min(arc, long)
    return min(arc, long * math.sin(other) / math.sin(both)) if own > 1e-9 else arc


def _bent_on(bent: Sequence[bool], pins: Sequence[Pin], i: int, by: int) -> int:
    """How many stretches of one curve follow one another from this one on, three at most."""
    count, run = len(pins), 1
    while run < 3:
        here = (i + by * run) % count
        between = pins[here if by > 0 else (here + 1) % count]
        if not (bent[here] and between.smooth):
            break
        run += 1
    return run


def _end(inner: Vector, ahead: Sequence[tuple[Vector, float]]) -> Vector:
    """The direction in which a curve leaves its end: as an arc goes on, and where three stretches tell it, as a curve
    goes on whose bend changes evenly; that turns it by no more than as much again."""
    way = ahead[0][0]
    arc = _reflected(inner, way)
    if len(ahead) < 3 or max(h for _, h in ahead) > UNEVEN * min(h for _, h in ahead):
        return arc
    # the chords' directions stand for the curve's in their middles
    places, angles = _middles(ahead)
    linear = _through(places[:2], angles[:2], 0.0)
    turn = max(-abs(linear), min(abs(linear), _through(places, angles, 0.0) - linear))
    return _turned(way, linear + turn)


def _short(handle: float, along: Vector, way: Vector, long: float) -> float:
    """A handle whose control point lies in the box of the chord, but for what the curve may go past it: a cubic lies
    between its control points."""
    for part, chord in zip(along, way, strict=True):
        room = PAST_MM + (abs(chord) * long if part * chord > 0.0 else 0.0)
        if abs(part) * handle > room:
            handle = room / abs(part)
    return handle


def _reflected(along: Vector, way: Vector) -> Vector:
    """A direction mirrored in a chord: an arc meets both ends of its chord at one angle."""
    dot = along[0] * way[0] + along[1] * way[1]
    return 2.0 * dot * way[0] - along[0], 2.0 * dot * way[1] - along[1]


def _angle(u: Vector, v: Vector) -> float:
    """From ``u`` to ``v``, radians, counter-clockwise."""
    return math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1])


def _turned(u: Vector, angle: float) -> Vector:
    c, s = math.cos(angle), math.sin(angle)
    return c * u[0] - s * u[1], s * u[0] + c * u[1]


def chords(control: Sequence[Point], flatness: float = FLATNESS_MM) -> list[Point]:
    """A Bézier curve as points whose chords stray from it by at most ``flatness``; its end is left out.

    A curve of degree d strays from n equal-parameter chords by at most d(d−1)/8/n² times the largest
    second difference of its control points.
    """
    degree = len(control) - 1
    bend = max(
        math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1])
        for a, b, c in zip(control, control[1:], control[2:], strict=False)
    )
    count = min(MOST_CHORDS, max(1, math.ceil(math.sqrt(degree * (degree - 1) * bend / (8 * flatness)))))
    return [on_bezier(control, i / count) for i in range(count)]


def on_bezier(control: Sequence[Point], t: float) -> Point:
    """The point of a Bézier curve at ``t`` from 0 to 1, by halving its control polygon."""
    row = list(control)
    while len(row) > 1:
        row = [(a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t) for a, b in pairwise(row)]
    return row[0]
