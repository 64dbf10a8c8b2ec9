"""A piece in the hand: the nearest place it may lie, touching and never overlapping, and what it catches on there."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
import shapely
from shapely import LineString, Point, box
from shapely.geometry.base import BaseGeometry

from .meeting import forbidden
from .problem import TOLERANCE_MM, Bars
from .seats import Box, Seat

#: Ground is worked out so far around the hand at first, mm; four times as far while there is none.
AROUND_MM = 250.0
FURTHEST_MM = 10_000.0
#: Two places nearer than this are the same, mm.
SAME_MM = 1e-4

NO_BARS = Bars()

Catch = Literal["cut end", "selvage", "fold", "neighbour", "shop's step", "bars", "place"]


@dataclass(frozen=True)
class Near:
    """Where what is held comes to lie: the origin of the first of it, on which seat, and what it caught on."""

    seat: Seat
    x: float
    y: float
    caught: tuple[Catch, ...] = ()


@dataclass(frozen=True)
class Line:
    """A place along (``axis`` x) or across (y) that the origin is drawn to, and what is there."""

    axis: Literal["x", "y"]
    at: float
    what: Catch


@dataclass
class Legal:
    """The places an origin may have on one seat, worked out around where it is wanted."""

    seat: Seat
    _known: dict[tuple[int, int, int], BaseGeometry] = field(default_factory=dict, repr=False)

    def around(self, x: float, y: float, reach: float) -> BaseGeometry:
        """The legal places within ``reach`` mm of a place, and perhaps some more."""
        key = (math.floor(x / AROUND_MM), math.floor(y / AROUND_MM), int(reach))
        found = self._known.get(key)
        if found is None:
            x0, y0 = key[0] * AROUND_MM, key[1] * AROUND_MM
            found = self._known[key] = self._cut(x0 - reach, y0 - reach, x0 + AROUND_MM + reach, y0 + AROUND_MM + reach)
        return found

    @property
    def whole(self) -> BaseGeometry:
        """All legal places."""
        b = self.seat.box
        return self._cut(b.x0, b.y0, b.x1, b.y1)

    def _cut(self, x0: float, y0: float, x1: float, y1: float) -> BaseGeometry:
        b = self.seat.box
        window = Box(max(x0, b.x0), max(y0, b.y0), min(x1, b.x1), min(y1, b.y1))
        if window.x1 < window.x0 or window.y1 < window.y0:
            return Point()
        ground = _geometry(window)
        taken = [
            self._forbidden(k, m)
            for k, m, (a, c, d, e) in self._bounds()
            if a <= window.x1 and d >= window.x0 and c <= window.y1 and e >= window.y0
        ]
        return ground.difference(shapely.union_all(taken)) if taken else ground

    def _bounds(self) -> list[tuple[int, int, tuple[float, float, float, float]]]:
        """Of each obstacle and each held outline, the box within which they may overlap."""
        found = []
        for k, obstacle in enumerate(self.seat.obstacles):
            low, high = obstacle.ring.min(axis=0) - obstacle.gap, obstacle.ring.max(axis=0) + obstacle.gap
            for m, ring in enumerate(self.seat.rings):
                a, d = low - ring.max(axis=0), high - ring.min(axis=0)
                found.append((k, m, (float(a[0]), float(a[1]), float(d[0]), float(d[1]))))
        return found

    def _forbidden(self, k: int, m: int) -> BaseGeometry:
        obstacle = self.seat.obstacles[k]
        return forbidden(obstacle.ring, self.seat.rings[m], obstacle.gap)


def _geometry(b: Box) -> BaseGeometry:
    if b.x1 - b.x0 < SAME_MM or b.y1 - b.y0 < SAME_MM:
        return Point(b.x0, b.y0) if _is_point(b) else LineString([(b.x0, b.y0), (b.x1, b.y1)])
    return box(b.x0, b.y0, b.x1, b.y1)


def _is_point(b: Box) -> bool:
    return b.x1 - b.x0 < SAME_MM and b.y1 - b.y0 < SAME_MM


def nearest(grounds: Sequence[Legal], x: float, y: float) -> Near | None:
    """The legal place nearest to a wanted one, over all seats; None when there is none."""
    best: tuple[float, Near] | None = None
    for ground in grounds:
        found = _nearest_on(ground, x, y)
        if found is None:
            continue
        far = math.dist(found, (x, y))
        if best is None or far < best[0] - SAME_MM:
            best = (far, Near(ground.seat, *found))
    return None if best is None else best[1]


def _nearest_on(ground: Legal, x: float, y: float) -> tuple[float, float] | None:
    b = ground.seat.box
    wanted = Point(x, y)
    inside = (min(max(x, b.x0), b.x1), min(max(y, b.y0), b.y1))
    outside = math.dist(inside, (x, y))
    reach = AROUND_MM
    while True:
        legal = ground.around(*inside, reach)
        # what lies further than was looked is further from the box's nearest place, and at an obtuse angle there
        seen = math.hypot(reach, outside) if reach < FURTHEST_MM else math.inf
        if not legal.is_empty and shapely.distance(legal, wanted) <= seen:
            line = shapely.shortest_line(legal, wanted)
            at = line.coords[0]
            return float(at[0]), float(at[1])
        if reach >= FURTHEST_MM:
            return None
        reach *= 4


def seat_at(grounds: Iterable[Legal], section: int, x: float, y: float) -> Seat | None:
    """The seat of a stretch on which an origin may be left at a place; None when it may not."""
    for ground in grounds:
        here = ground.seat.section == section
        if here and shapely.distance(ground.around(x, y, AROUND_MM), Point(x, y)) <= 2 * SAME_MM:
            return ground.seat
    return None


def caught(
    grounds: Sequence[Legal],
    x: float,
    y: float,
    within: float,
    *,
    step: float = 0.0,
    bars: Bars = NO_BARS,
    meets: Sequence[tuple[float | None, float | None]] = (),
) -> Near | None:
    """The nearest legal place, drawn to what lies within ``within`` mm of it: an edge of the cloth, a neighbour, the
    shop's step for its far end, a place where its bars meet (``meets``: origins, one of each repeat)."""
    plain = nearest(grounds, x, y)
    if plain is None or within <= 0:
        return plain
    ground = next(one for one in grounds if one.seat is plain.seat)
    legal = ground.around(plain.x, plain.y, AROUND_MM)
    lines = [
        line
        for line in _lines(ground.seat, step, bars, meets, plain)
        if abs(line.at - (plain.x if line.axis == "x" else plain.y)) <= within
    ]
    xs: list[Line | None] = [*[line for line in lines if line.axis == "x"], None]
    ys: list[Line | None] = [*[line for line in lines if line.axis == "y"], None]
    best: tuple[tuple[int, float], Near] | None = None
    for one in xs:
        for other in ys:
            at = (plain.x if one is None else one.at, plain.y if other is None else other.at)
            if shapely.distance(legal, Point(at)) > SAME_MM:
                continue
            names = tuple(line.what for line in (one, other) if line is not None)
            rank = (-len(names), math.dist(at, (plain.x, plain.y)))
            if best is None or rank < best[0]:
                best = (rank, Near(plain.seat, *at, names))
    edge = _touching(legal, plain, within)
    if edge is not None and (best is None or not best[1].caught):
        return edge
    assert best is not None
    return best[1]


def _touching(legal: BaseGeometry, plain: Near, within: float) -> Near | None:
    """The nearest place at which it touches something."""
    here = Point(plain.x, plain.y)
    edge = legal.boundary if legal.geom_type.endswith("Polygon") else legal
    if edge.is_empty or shapely.distance(edge, here) > within:
        return None
    at = shapely.shortest_line(edge, here).coords[0]
    return Near(plain.seat, float(at[0]), float(at[1]), ("neighbour",))


def _lines(
    seat: Seat, step: float, bars: Bars, meets: Sequence[tuple[float | None, float | None]], at: Near
) -> Iterable[Line]:
    b = seat.box
    yield Line("x", b.x0, "cut end")
    yield Line("y", b.y0, "selvage")
    yield Line("y", b.y1, "selvage")
    long = float(max(ring[:, 0].max() for ring in seat.rings))
    if step > 0:
        yield Line("x", round((at.x + long) / step) * step - long, "shop's step")
    for x, y in meets:
        if bars.x_repeat and x is not None:
            yield Line("x", x + round((at.x - x) / bars.x_repeat) * bars.x_repeat, "bars")
        if bars.y_repeat and y is not None:
            yield Line("y", y + round((at.y - y) / bars.y_repeat) * bars.y_repeat, "bars")
    # flush with a neighbour's ends
    low = np.array([ring.min(axis=0) for ring in seat.rings]).min(axis=0)
    high = np.array([ring.max(axis=0) for ring in seat.rings]).max(axis=0)
    for obstacle in seat.obstacles:
        if obstacle.name:
            a, c = obstacle.ring.min(axis=0) - low, obstacle.ring.max(axis=0) - high
            yield Line("x", float(a[0]), "place")
            yield Line("x", float(c[0]), "place")
            yield Line("y", float(a[1]), "place")
            yield Line("y", float(c[1]), "place")


def along(grounds: Sequence[Legal], from_: tuple[float, float], to: tuple[float, float]) -> tuple[float, float]:
    """How far from one place towards another it may be pushed before it touches; ``from_`` when it may not at all.

    What lies a hair in its neighbour, as a search may leave it, is pushed from the nearest place where it does not.
    """
    start = nearest(grounds, *from_)
    if start is None or math.dist((start.x, start.y), from_) > 2 * TOLERANCE_MM:
        return from_
    dx, dy = start.x - from_[0], start.y - from_[1]
    path = LineString([(start.x, start.y), (to[0] + dx, to[1] + dy)])
    if path.length < SAME_MM:
        return from_
    best, far = from_, 0.0
    for ground in grounds:
        x, y = path.interpolate(0.5, normalized=True).coords[0]
        free = path.intersection(ground.around(x, y, AROUND_MM + path.length).buffer(2 * SAME_MM))
        for part in getattr(free, "geoms", [free]):
            if part.is_empty or shapely.distance(part, Point(start.x, start.y)) > 3 * SAME_MM:
                continue
            end = max(part.coords, key=lambda p: math.dist(p, (start.x, start.y)))
            if math.dist(end, from_) > far:
                best, far = (float(end[0]), float(end[1])), math.dist(end, from_)
    return best
