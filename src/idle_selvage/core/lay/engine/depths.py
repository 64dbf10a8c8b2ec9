"""Compiled: depth maps. How deep one shape lies in another, at every offset on a raster of fine cells.

A shape becomes its chords at the middle of each row of cells. Two rows overlap at the offsets inside the
differences of their chords; the union over the rows is the no-fit mask, and its chamfer distance (3 for a
step, 4 for a diagonal one) is the depth, in thirds of a cell. Maps are kept by *phase*: all offsets that
differ by whole coarse cells lie next to one another, so a coarse field at any fine offset reads straight on.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

#: Rounds halves up, a hair of noise below them too.
HALF = 0.5 + 1e-7
#: Chords may share this part of a cell before it counts: the raster must not forbid what touches.
SHARE = 0.35


class Chords(NamedTuple):
    """Chords of all shapes: rows of shape s are ``row[s]``..``row[s + 1]``; their chords ``ptr``; millimetres."""

    row: Any
    ptr: Any
    lo: Any
    hi: Any
    #: extent of each shape along, millimetres
    length: Any


class Maps(NamedTuple):
    """Depth of shape s in shape t at cell offset d: see :func:`depth_at`. Square arrays per pair of shapes.

    Pairs share a map: (t, s) is (s, t) turned about the origin, and when ``flipped`` maps were asked for, both
    shapes mirrored or turned end for end have the map of the pair, mirrored or turned.
    """

    #: size of a cell along and across, millimetres; how many of them make a coarse one
    cell_x: float
    cell_y: float
    #: it is 2 to the power of ``bits``
    coarse: int
    bits: int
    #: rows of each shape
    rows: Any
    #: per pair: where its map begins and its size in coarse cells; cell = zero + sign · offset
    start: Any
    width: Any
    height: Any
    x_zero: Any
    y_zero: Any
    x_sign: Any
    y_sign: Any
    #: the pairs that have a map of their own
    own: Any
    data: Any


FLIPS = ((1, 1), (-1, -1), (1, -1), (-1, 1))


def chords_of(rings: list[NDArray[np.float64]], cell: float) -> Chords:
    """The chords of rings whose least x and y are 0."""
    corner = np.cumsum([0, *(len(ring) for ring in rings)])
    points = np.ascontiguousarray(np.concatenate(rings))
    row = np.cumsum([0, *(_rows(float(ring[:, 1].max()), cell) for ring in rings)])
    room = 16 * int(row[-1])
    while True:
        ptr, lo, hi = np.zeros(int(row[-1]) + 1, dtype=np.int64), np.empty(room), np.empty(room)
        if fill_chords(points, corner, row, cell, ptr, lo, hi):
            break
        room *= 4
    count = int(ptr[-1])
    length = np.array([float(ring[:, 0].max()) for ring in rings])
    return Chords(row, ptr, lo[:count].copy(), hi[:count].copy(), length)


def _rows(height: float, cell: float) -> int:
    return max(1, int(np.floor(height / cell + 0.5)))


@njit(cache=True)
def fill_chords(points, corner, row, cell, ptr, lo, hi):
    """Cross every ring with the middle of each of its rows; False when there is not enough room."""
    count = 0
    most = 0
    for s in range(row.shape[0] - 1):
        most = max(most, corner[s + 1] - corner[s])
    xs = np.empty(most)
    for s in range(row.shape[0] - 1):
        first = corner[s]
        last = corner[s + 1]
        height = 0.0
        for i in range(first, last):
            height = max(height, points[i, 1])
        rows = row[s + 1] - row[s]
        for k in range(rows):
            y = (k + 0.5) * cell if rows > 1 else height / 2
            y = min(y, height - 1e-6)
            found = 0
            for i in range(first, last):
                i2 = i + 1 if i + 1 < last else first
                ya = points[i, 1]
                yb = points[i2, 1]
                if (ya < y) != (yb < y):
                    x = points[i, 0] + (points[i2, 0] - points[i, 0]) * (y - ya) / (yb - ya)
                    j = found
                    while j > 0 and xs[j - 1] > x:
                        xs[j] = xs[j - 1]
                        j -= 1
                    xs[j] = x
                    found += 1
            if count + found >= lo.shape[0]:
                return False
            for i in range(0, found - 1, 2):
                lo[count] = xs[i]
                hi[count] = xs[i + 1]
                count += 1
            ptr[row[s] + k + 1] = count
    return True


def _flipped(rings: list[NDArray[np.float64]], flips: bool) -> list[list[int]]:
    """For every shape, which shape each of :data:`FLIPS` makes of it; −1 when that is none of them."""
    names = [_name(ring) for ring in rings]
    number = {name: k for k, name in enumerate(names)}
    found = []
    for k, ring in enumerate(rings):
        images = [k]
        for flip in FLIPS[1:]:
            images.append(number.get(_name(ring * np.array(flip)), -1) if flips else -1)
        found.append(images)
    return found


def _name(ring: NDArray[np.float64]) -> bytes:
    moved = np.round(ring - ring.min(axis=0), 2) + 0.0
    name: bytes = moved[np.lexsort(moved.T)].tobytes()
    return name


@dataclass(frozen=True)
class Sharing:
    """Which pairs share a map: that of (s, t) is the one of ``a[s, t]``, ``b[s, t]`` mirrored by the signs."""

    a: Any
    b: Any
    x_sign: Any
    y_sign: Any
    swapped: Any


def share_maps(rings: list[NDArray[np.float64]], *, flips: bool) -> Sharing:
    """Find the pairs that can share; always (t, s) with (s, t), with ``flips`` mirror images too."""
    count = len(rings)
    images = np.array(_flipped(rings, flips), dtype=np.int64)
    keys, signs = [], []
    for swapped in (False, True):
        for k, flip in enumerate(FLIPS):
            one, two = images[:, k][:, None], images[:, k][None, :]
            usable = (one >= 0) & (two >= 0)
            first, second = (two, one) if swapped else (one, two)
            keys.append(np.where(usable, first * count + second, count * count))
            signs.append((*flip, swapped))
    best = np.argmin(np.array(keys), axis=0)
    key = np.min(np.array(keys), axis=0)
    table = np.array(signs, dtype=np.int64)
    sharing = Sharing(key // count, key % count, table[best, 0], table[best, 1], table[best, 2].astype(np.bool_))
    # (t, s) is (s, t) turned about, whatever else it could share: a map mirrored is only nearly itself, and one side of
    # a pair must not say free where the other says that it overlaps
    below = np.tril_indices(count, -1)
    for table in (sharing.a, sharing.b, sharing.x_sign, sharing.y_sign):
        table[below] = table.T[below]
    sharing.swapped[below] = ~sharing.swapped.T[below]
    return sharing


def plan_maps(rings: list[NDArray[np.float64]], sharing: Sharing, cell_x: float, cell_y: float, coarse: int) -> Maps:
    """Maps of all pairs of shapes with no memory for their cells yet; ``data`` only has the size wanted."""
    count = len(rings)
    extent = np.array([float(ring[:, 0].max()) for ring in rings])
    tall = np.array([float(ring[:, 1].max()) for ring in rings])
    rows = np.array([_rows(h, cell_y) for h in tall], dtype=np.int64)
    long = np.ceil(extent / cell_x).astype(np.int64) + 2
    a, b = sharing.a, sharing.b
    width = -(-(long[a] + long[b]) // coarse)
    height = -(-(rows[a] + rows[b] + 2) // coarse)
    own, where = np.unique(a * count + b, return_inverse=True)
    pairs = np.stack([own // count, own % count], axis=1).astype(np.int64)
    p, q = pairs[:, 0], pairs[:, 1]
    sizes = -(-(long[p] + long[q]) // coarse) * -(-(rows[p] + rows[q] + 2) // coarse) * coarse * coarse
    begins = np.concatenate([[0], np.cumsum(sizes)])
    # mirrored, a shape's least corner is where its greatest was
    turn = np.where(sharing.swapped, -1, 1)
    shift_x = np.round((extent[None, :] - extent[:, None]) / cell_x).astype(np.int64) * (sharing.x_sign < 0)
    shift_y = np.round((tall[None, :] - tall[:, None]) / cell_y).astype(np.int64) * (sharing.y_sign < 0)
    return Maps(
        cell_x=cell_x,
        cell_y=cell_y,
        coarse=coarse,
        bits=coarse.bit_length() - 1,
        rows=rows,
        start=begins[where.reshape(count, count)].astype(np.int64),
        width=width.astype(np.int64),
        height=height.astype(np.int64),
        x_zero=(long[a] + turn * shift_x).astype(np.int64),
        y_zero=(rows[a] + turn * shift_y).astype(np.int64),
        x_sign=(sharing.x_sign * turn).astype(np.int64),
        y_sign=(sharing.y_sign * turn).astype(np.int64),
        own=pairs,
        data=np.broadcast_to(np.uint8(0), (int(begins[-1]),)),
    )


def make_maps(maps: Maps) -> Maps:
    """Planned maps with memory, all 0; see :func:`fill_maps`."""
    return maps._replace(data=np.zeros(maps.data.shape[0], dtype=np.uint8))


@njit(cache=True)
def fill_maps(chords, maps, first, last):
    """Work out the maps numbered ``first``..``last`` of those that are their own."""
    q = maps.coarse
    most = 0
    for k in range(first, last):
        s = maps.own[k, 0]
        t = maps.own[k, 1]
        most = max(most, (maps.width[s, t] * q + 2) * (maps.height[s, t] * q + 2))
    edges = np.zeros(most, dtype=np.int16)
    depth = np.zeros(most, dtype=np.uint8)
    for k in range(first, last):
        s = maps.own[k, 0]
        t = maps.own[k, 1]
        nx = maps.width[s, t] * q
        ny = maps.height[s, t] * q
        _mask(chords, maps, s, t, nx, ny, edges)
        _chamfer(edges, depth, nx, ny)
        _store(maps, s, t, depth, nx, ny)


@njit(cache=True)
def _mask(chords, maps, s, t, nx, ny, edges):
    edges[: nx * ny] = 0
    f = maps.cell_x
    give = SHARE * f
    x_zero = maps.x_zero[s, t]
    y_zero = maps.y_zero[s, t]
    for a in range(chords.row[s], chords.row[s + 1]):
        for b in range(chords.row[t], chords.row[t + 1]):
            line = (b - chords.row[t]) - (a - chords.row[s]) + y_zero
            for i in range(chords.ptr[a], chords.ptr[a + 1]):
                for j in range(chords.ptr[b], chords.ptr[b + 1]):
                    low = int(np.ceil((chords.lo[j] - chords.hi[i] + give) / f)) + x_zero
                    high = int(np.floor((chords.hi[j] - chords.lo[i] - give) / f)) + x_zero
                    if high >= low:
                        edges[line * nx + low] += 1
                        edges[line * nx + high + 1] -= 1
    for y in range(ny):
        inside = 0
        for x in range(nx):
            inside += edges[y * nx + x]
            edges[y * nx + x] = inside


@njit(cache=True)
def _chamfer(edges, depth, nx, ny):
    """Distance to the outside: the border of a map is never inside, so the inner cells need no looking."""
    for x in range(nx):
        depth[x] = 3 if edges[x] > 0 else 0
        depth[(ny - 1) * nx + x] = 3 if edges[(ny - 1) * nx + x] > 0 else 0
    for y in range(1, ny - 1):
        line = y * nx
        depth[line] = 3 if edges[line] > 0 else 0
        depth[line + nx - 1] = 3 if edges[line + nx - 1] > 0 else 0
        for x in range(1, nx - 1):
            at = line + x
            if edges[at] <= 0:
                depth[at] = 0
                continue
            straight = min(depth[at - 1], depth[at - nx])
            slant = min(depth[at - nx - 1], depth[at - nx + 1])
            depth[at] = min(255, min(straight + 3, slant + 4))
    for y in range(ny - 2, 0, -1):
        line = y * nx
        for x in range(nx - 2, 0, -1):
            at = line + x
            if depth[at] == 0:
                continue
            straight = min(depth[at + 1], depth[at + nx])
            slant = min(depth[at + nx + 1], depth[at + nx - 1])
            depth[at] = min(int(depth[at]), min(straight + 3, slant + 4))


@njit(cache=True)
def _store(maps, s, t, depth, nx, ny):
    q = maps.coarse
    bits = maps.bits
    start = maps.start[s, t]
    width = maps.width[s, t]
    height = maps.height[s, t]
    for y in range(ny):
        line = start + ((y & (q - 1)) * q * height + (y >> bits)) * width
        for x in range(nx):
            value = depth[y * nx + x]
            if value != 0:
                maps.data[line + (x & (q - 1)) * height * width + (x >> bits)] = value


@njit(cache=True)
def cell_of(maps, s, t, dx, dy):
    """Where in the data the depth of s in t at an offset stands; −1 outside the map."""
    q = maps.coarse
    x = maps.x_zero[s, t] + maps.x_sign[s, t] * dx
    y = maps.y_zero[s, t] + maps.y_sign[s, t] * dy
    width = maps.width[s, t]
    height = maps.height[s, t]
    if x < 0 or y < 0 or x >= width * q or y >= height * q:
        return -1
    phase = (y & (q - 1)) * q + (x & (q - 1))
    return maps.start[s, t] + (phase * height + (y >> maps.bits)) * width + (x >> maps.bits)


@njit(cache=True)
def depth_at(maps, s, t, dx, dy):
    """Depth of shape s in shape t, when s lies ``dx``, ``dy`` cells further than t; thirds of a cell."""
    at = cell_of(maps, s, t, dx, dy)
    return int(maps.data[at]) if at >= 0 else 0


@njit(cache=True)
def put_depth(maps, s, t, dx, dy, value):
    """Correct the map at one offset; the pair the other way round shares it."""
    at = cell_of(maps, s, t, dx, dy)
    if at >= 0:
        maps.data[at] = value
    if s == t:
        at = cell_of(maps, s, t, -dx, -dy)
        if at >= 0:
            maps.data[at] = value
