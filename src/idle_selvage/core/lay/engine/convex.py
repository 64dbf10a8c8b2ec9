"""Outlines as convex parts, and how far apart, or how deep in one another, two of them lie.

Two convex polygons are apart exactly when an edge of one of them has the other wholly on its far side
(separating axis theorem). The edge that shows the greatest distance is also the best half-plane to keep
them apart by, so the same code judges overlap and writes the rows of the linear programme.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Any, NamedTuple

import numpy as np
import shapely
from numba import njit
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

Ring = NDArray[np.float64]


class Hulls(NamedTuple):
    """Convex parts of all shapes: parts of shape s are ``part[s]``..``part[s + 1]``, corners ``corner``, mm."""

    part: Any
    corner: Any
    x: Any
    y: Any
    #: bounds of each part and of each shape: x0, y0, x1, y1
    box: Any
    whole: Any


def convex_parts(ring: Ring) -> list[Ring]:
    """A simple ring as convex parts, counter-clockwise: its triangles, joined while they stay convex."""
    return _parts(np.ascontiguousarray(ring).tobytes())


@lru_cache(maxsize=2000)
def _parts(corners_of_ring: bytes) -> list[Ring]:
    # the same outlines come back with every fold and every restart
    ring = np.frombuffer(corners_of_ring, dtype=np.float64).reshape(-1, 2)
    shape = orient(Polygon(ring))
    if not shape.is_valid:
        shape = orient(shape.buffer(0))
    corners = np.array(shape.exterior.coords[:-1])
    if _is_convex(corners):
        return [corners]
    triangles = shapely.constrained_delaunay_triangles(shape)
    number: dict[tuple[float, float], int] = {}
    points: list[tuple[float, float]] = []
    parts: list[list[int] | None] = []
    for triangle in triangles.geoms:
        part = []
        for x, y in orient(triangle).exterior.coords[:-1]:
            if (x, y) not in number:
                number[(x, y)] = len(points)
                points.append((x, y))
            part.append(number[(x, y)])
        parts.append(part)
    at = np.array(points)
    owner: dict[tuple[int, int], int] = {}
    for index, one in enumerate(parts):
        for a, b in _edges(one or []):
            owner[(a, b)] = index
    # long inner edges first: what they join is large
    inner = sorted(
        {(min(e), max(e)) for e in owner if (e[1], e[0]) in owner},
        key=lambda e: (-float(np.hypot(*(at[e[0]] - at[e[1]]))), e),
    )
    for a, b in inner:
        left, right = owner[(a, b)], owner[(b, a)]
        one, two = parts[left], parts[right]
        if left == right or one is None or two is None:
            continue
        i, j = one.index(b), two.index(a)
        joined = one[i:] + one[:i] + (two[j:] + two[:j])[1:-1]
        if _is_convex(at[joined]):
            parts[left], parts[right] = joined, None
            for edge in _edges(joined):
                owner[edge] = left
    return [at[part] for part in parts if part is not None]


def _edges(part: list[int]) -> list[tuple[int, int]]:
    return list(zip(part, part[1:] + part[:1], strict=True))


def _is_convex(points: Ring) -> bool:
    a = np.roll(points, -1, axis=0) - points
    b = np.roll(a, -1, axis=0)
    cross = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
    if (cross < -1e-7).any():
        return False
    # a ring that winds twice turns left everywhere too
    turned = np.arctan2(cross, (a * b).sum(axis=1)).sum()
    return bool(abs(turned - 2 * np.pi) < 1e-3)


def hulls_of(shapes: list[Ring]) -> Hulls:
    """The convex parts of all shapes, flat."""
    part, corner = [0], [0]
    rings: list[Ring] = []
    for shape in shapes:
        for ring in convex_parts(shape):
            rings.append(ring)
            corner.append(corner[-1] + len(ring))
        part.append(len(rings))
    points = np.concatenate(rings)
    box = np.array([[*r.min(axis=0), *r.max(axis=0)] for r in rings])
    whole = np.array([[*s.min(axis=0), *s.max(axis=0)] for s in shapes])
    return Hulls(
        np.array(part),
        np.array(corner),
        np.ascontiguousarray(points[:, 0]),
        np.ascontiguousarray(points[:, 1]),
        box,
        whole,
    )


@njit(cache=True)
def _widest(hulls, a, b, dx, dy, best, found):
    """The edge of part ``a`` with the greatest distance to part ``b`` moved by (dx, dy); fills its normal."""
    a0 = hulls.corner[a]
    a1 = hulls.corner[a + 1]
    b0 = hulls.corner[b]
    b1 = hulls.corner[b + 1]
    for i in range(a0, a1):
        i2 = i + 1 if i + 1 < a1 else a0
        ex = hulls.x[i2] - hulls.x[i]
        ey = hulls.y[i2] - hulls.y[i]
        long = np.sqrt(ex * ex + ey * ey)
        if long < 1e-9:
            continue
        nx = ey / long
        ny = -ex / long
        base = nx * (hulls.x[i] - dx) + ny * (hulls.y[i] - dy)
        least = np.inf
        for j in range(b0, b1):
            d = nx * hulls.x[j] + ny * hulls.y[j] - base
            if d < least:
                least = d
                if least <= best:
                    break
        if least > best:
            best = least
            found[0] = nx
            found[1] = ny
    return best


@njit(cache=True)
def parts_apart(hulls, a, b, dx, dy, found):
    """Signed distance of part ``b``, moved by (dx, dy), from part ``a`` along the best edge normal, which
    points from a to b and is written to ``found``. Negative: they overlap so deep."""
    best = _widest(hulls, a, b, dx, dy, -np.inf, found)
    nx = found[0]
    ny = found[1]
    other = _widest(hulls, b, a, -dx, -dy, best, found)
    if other > best:
        found[0] = -found[0]
        found[1] = -found[1]
        return other
    found[0] = nx
    found[1] = ny
    return best


@njit(cache=True)
def boxes_apart(box, a, b, dx, dy, reach):
    """Whether box ``b``, moved by (dx, dy), keeps ``reach`` away from box ``a``."""
    return (
        box[b, 0] + dx >= box[a, 2] + reach
        or box[b, 2] + dx <= box[a, 0] - reach
        or box[b, 1] + dy >= box[a, 3] + reach
        or box[b, 3] + dy <= box[a, 1] - reach
    )


@njit(cache=True)
def depth_between(hulls, s, t, dx, dy, enough):
    """How deep shape ``t``, moved by (dx, dy), lies in shape ``s``; 0 when apart. Stops above ``enough``."""
    if boxes_apart(hulls.whole, s, t, dx, dy, 0.0):
        return 0.0
    found = np.empty(2)
    deepest = 0.0
    for a in range(hulls.part[s], hulls.part[s + 1]):
        for b in range(hulls.part[t], hulls.part[t + 1]):
            if boxes_apart(hulls.box, a, b, dx, dy, 0.0):
                continue
            deep = -parts_apart(hulls, a, b, dx, dy, found)
            if deep > deepest:
                deepest = deep
                if deepest > enough:
                    return deepest
    return deepest


@njit(cache=True)
def worst_depth(hulls, skip, shape, x, y, enough):
    """The deepest overlap of any two placed shapes, millimetres. Stops above ``enough``."""
    n = shape.shape[0]
    worst = 0.0
    for i in range(n):
        for j in range(i):
            if not skip[i, j]:
                deep = depth_between(hulls, shape[i], shape[j], x[j] - x[i], y[j] - y[i], enough)
                if deep > worst:
                    worst = deep
                    if worst > enough:
                        return worst
    return worst


@njit(cache=True)
def half_planes(hulls, skip, shape, x, y, reach, pairs, rows):
    """Half-planes that keep every near pair of parts apart: ``rows`` gets (nx, ny, distance), ``pairs``
    (i, j). Moving i by u and j by v keeps them apart while ``n · (v − u) ≥ −distance``. Returns how many,
    or −1 when there are more than there is room for."""
    n = shape.shape[0]
    found = np.empty(2)
    count = 0
    for i in range(n):
        s = shape[i]
        for j in range(i):
            if skip[i, j]:
                continue
            t = shape[j]
            dx = x[j] - x[i]
            dy = y[j] - y[i]
            if boxes_apart(hulls.whole, s, t, dx, dy, reach):
                continue
            for a in range(hulls.part[s], hulls.part[s + 1]):
                for b in range(hulls.part[t], hulls.part[t + 1]):
                    if boxes_apart(hulls.box, a, b, dx, dy, reach):
                        continue
                    apart = parts_apart(hulls, a, b, dx, dy, found)
                    if apart >= reach:
                        continue
                    if count >= rows.shape[0]:
                        return -1
                    pairs[count, 0] = i
                    pairs[count, 1] = j
                    rows[count, 0] = found[0]
                    rows[count, 1] = found[1]
                    rows[count, 2] = apart
                    count += 1
    return count


@njit(cache=True)
def _lowest(ring):
    k = 0
    for i in range(ring.shape[0]):
        if ring[i, 1] < ring[k, 1] or (ring[i, 1] == ring[k, 1] and ring[i, 0] < ring[k, 0]):
            k = i
    return k


@njit(cache=True)
def convex_sum(a, b):
    """The Minkowski sum of two convex rings, counter-clockwise both: their edges in the order of their directions."""
    n = a.shape[0]
    m = b.shape[0]
    i0 = _lowest(a)
    j0 = _lowest(b)
    out = np.empty((n + m, 2))
    i = 0
    j = 0
    for k in range(n + m):
        ai = (i0 + i) % n
        bj = (j0 + j) % m
        out[k, 0] = a[ai, 0] + b[bj, 0]
        out[k, 1] = a[ai, 1] + b[bj, 1]
        if i == n:
            j += 1
            continue
        if j == m:
            i += 1
            continue
        an = (ai + 1) % n
        bn = (bj + 1) % m
        cross = (a[an, 0] - a[ai, 0]) * (b[bn, 1] - b[bj, 1]) - (a[an, 1] - a[ai, 1]) * (b[bn, 0] - b[bj, 0])
        if cross >= 0.0:
            i += 1
        else:
            j += 1
    return out
