"""Compiled: guided local search. Pieces that overlap are moved until none does.

All parts lie on the strip, overlapping. Each round moves every overlapping part, in random order, to the
place of least weighted overlap over the whole strip and all its variants; then pairs still overlapping
grow heavier. Positions are whole fine cells. Every decision hangs on counts and the generator.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from .depths import HALF, depth_at
from .draws import below, unit

#: Weights grow by a factor between these, the more the deeper the overlap; other pairs slowly forget.
GROW_LEAST, GROW_MOST, FORGET = 1.2, 2.0, 0.95
#: Rounds without a smaller overlap after which the search counts as stuck.
PATIENCE = 100
#: A coarse place this many times worse than the best one is not looked at more finely.
HOPE = 2.0


class Field(NamedTuple):
    """What may lie where. Lengths in cells of the maps, remainders in millimetres."""

    #: per part: its variants ``start``..``stop``; held parts never move
    start: Any
    stop: Any
    held: Any
    #: pairs of parts whose overlap does not count
    skip: Any
    #: per variant: shape, extent along (mm), cell positions ``base + k · step``
    shape: Any
    length: Any
    x_base: Any
    x_step: Any
    y_base: Any
    y_step: Any
    y_count: Any
    #: per variant: what the real position has beyond its cell, millimetres
    x_rest: Any
    y_rest: Any


class Here(NamedTuple):
    """Where every part is: variant, cell along, cell across."""

    v: Any
    x: Any
    y: Any


@njit(cache=True)
def pair_depth(maps, field, v, x, y, u, ux, uy):
    """Depth of variant ``v`` at (x, y) in variant ``u`` at (ux, uy)."""
    # rounding halves up is not the same from both sides: of the two variants the first decides
    sign = 1 if v <= u else -1
    dx = x - ux + sign * int(np.floor(sign * (field.x_rest[v] - field.x_rest[u]) / maps.cell_x + HALF))
    dy = y - uy + sign * int(np.floor(sign * (field.y_rest[v] - field.y_rest[u]) / maps.cell_y + HALF))
    return depth_at(maps, field.shape[v], field.shape[u], dx, dy)


@njit(cache=True)
def last_place(maps, field, v, length):
    """The greatest k with ``x_base + k · x_step`` still inside a strip of ``length`` mm; −1 if none."""
    room = (length - field.length[v] - field.x_rest[v]) / maps.cell_x + 0.5
    k = int(np.floor((room - field.x_base[v]) / field.x_step[v]))
    return k if k >= 0 else -1


@njit(cache=True)
def _weighted(maps, field, here, weights, i, v, x, y, enough):
    """Weighted overlap of part ``i``, were it there; stops once it is ``enough``."""
    total = 0.0
    for j in range(here.v.shape[0]):
        if j != i and not field.skip[i, j]:
            d = pair_depth(maps, field, v, x, y, here.v[j], here.x[j], here.y[j])
            if d > 0:
                total += weights[i, j] * d
                if total >= enough:
                    return total
    return total


@njit(cache=True)
def _add(maps, field, sums, v, x0, xs, nx, y0, ys, ny, u, ux, uy, weight):
    """Add the weighted depth in ``u`` at a grid of positions of ``v`` to ``sums`` (ny × nx, flat)."""
    s = field.shape[v]
    t = field.shape[u]
    q = maps.coarse
    bits = maps.bits
    width = maps.width[s, t]
    height = maps.height[s, t]
    start = maps.start[s, t]
    sx = maps.x_sign[s, t]
    sy = maps.y_sign[s, t]
    sign = 1 if v <= u else -1
    dx = x0 - ux + sign * int(np.floor(sign * (field.x_rest[v] - field.x_rest[u]) / maps.cell_x + HALF))
    dy = y0 - uy + sign * int(np.floor(sign * (field.y_rest[v] - field.y_rest[u]) / maps.cell_y + HALF))
    at_x = maps.x_zero[s, t] + sx * dx
    at_y = maps.y_zero[s, t] + sy * dy
    weight = np.float32(weight)
    # rows of the grid that meet the map
    if sy > 0:
        from_y = max(0, -(at_y // ys)) if at_y < 0 else 0
        to_y = min(ny, (height * q - 1 - at_y) // ys + 1)
    else:
        from_y = max(0, (at_y - height * q + ys) // ys)
        to_y = min(ny, at_y // ys + 1)
    if xs == q:
        phase = at_x & (q - 1)
        c0 = at_x >> bits
        if sx > 0:
            from_x = max(0, -c0)
            to_x = min(nx, width - c0)
            first = c0 + from_x
        else:
            from_x = max(0, c0 - width + 1)
            to_x = min(nx, c0 + 1)
            first = c0 - to_x + 1
        n = to_x - from_x
        if n <= 0:
            return
        for k in range(from_y, to_y):
            y = at_y + sy * k * ys
            base = start + (((y & (q - 1)) * q + phase) * height + (y >> bits)) * width + first
            line = k * nx + from_x
            # slices, so that the loop starts at 0 and the compiler can work on many cells at once
            into = sums[line : line + n]
            from_map = maps.data[base : base + n]
            if sx > 0:
                for i in range(n):
                    into[i] += weight * np.float32(from_map[i])
            else:
                for i in range(n):
                    into[i] += weight * np.float32(from_map[n - 1 - i])
        return
    for k in range(from_y, to_y):
        y = at_y + sy * k * ys
        for i in range(nx):
            x = at_x + sx * i * xs
            if x < 0 or x >= width * q:
                continue
            at = start + (((y & (q - 1)) * q + (x & (q - 1))) * height + (y >> bits)) * width + (x >> bits)
            sums[k * nx + i] += weight * np.float32(maps.data[at])


@njit(cache=True)
def move(maps, field, here, weights, i, length, rng, sums):
    """Move part ``i`` to the place of least weighted overlap; that overlap."""
    q = maps.coarse
    n = here.v.shape[0]
    best = np.inf
    best_v = here.v[i]
    best_x = here.x[i]
    best_y = here.y[i]
    tries = np.empty((3, 4))
    tries[:, 0] = np.inf
    for v in range(field.start[i], field.stop[i]):
        last = last_place(maps, field, v, length)
        if last < 0:
            continue
        x0 = field.x_base[v]
        xs = field.x_step[v]
        nx = last + 1
        if xs == 1:
            xs = q
            x0 = below(rng, min(q, last + 1))
            nx = (last - x0) // q + 1
        y0 = field.y_base[v]
        ys = field.y_step[v]
        ny = field.y_count[v]
        if ys == 1 and ny > 1:
            ys = q
            shift = below(rng, min(q, ny))
            y0 += shift
            ny = (ny - 1 - shift) // q + 1
        sums[: nx * ny] = 0.0
        for j in range(n):
            if j != i and not field.skip[i, j]:
                _add(maps, field, sums, v, x0, xs, nx, y0, ys, ny, here.v[j], here.x[j], here.y[j], weights[i, j])
        field_sums = sums[: nx * ny]
        least = np.float32(3e38)
        for at in range(field_sums.shape[0]):
            least = min(least, field_sums[at])
        # one of the equals: the first from a random place on
        at = below(rng, nx * ny)
        while field_sums[at] != least:
            at += 1
            if at == nx * ny:
                at = 0
        _keep(tries, least, v, x0 + (at % nx) * xs, y0 + (at // nx) * ys)
    for k in range(3):
        # what is far worse on coarse cells does not become the best on fine ones
        if tries[k, 0] > HOPE * tries[0, 0] or tries[k, 0] == np.inf:
            break
        v = int(tries[k, 1])
        x = int(tries[k, 2])
        y = int(tries[k, 3])
        last = last_place(maps, field, v, length)
        value = float(tries[k, 0])
        if value > 0.0:
            value, x, y = _descend(maps, field, here, weights, i, v, x, y, last, value)
        if value < best:
            best = value
            best_v = v
            best_x = x
            best_y = y
        if best == 0.0:
            break
    here.v[i] = best_v
    here.x[i] = best_x
    here.y[i] = best_y
    return best


@njit(cache=True)
def _keep(tries, value, v, x, y):
    for k in range(3):
        if value < tries[k, 0]:
            for m in range(2, k, -1):
                tries[m] = tries[m - 1]
            tries[k, 0] = value
            tries[k, 1] = v
            tries[k, 2] = x
            tries[k, 3] = y
            return


@njit(cache=True)
def _descend(maps, field, here, weights, i, v, x, y, last, value):
    """Follow the fine cells downhill."""
    free_x = field.x_step[v] == 1
    free_y = field.y_step[v] == 1 and field.y_count[v] > 1
    low_y = field.y_base[v]
    high_y = low_y + field.y_count[v] - 1
    step = max(1, maps.coarse // 2)
    while step >= 1:
        better = False
        for way in range(8):
            sx = (1, -1, 0, 0, 1, 1, -1, -1)[way]
            sy = (0, 0, 1, -1, 1, -1, 1, -1)[way]
            if (sx != 0 and not free_x) or (sy != 0 and not free_y):
                continue
            tx = x + sx * step
            ty = y + sy * step
            if tx < 0 or tx > last or ty < low_y or ty > high_y:
                continue
            other = _weighted(maps, field, here, weights, i, v, tx, ty, value)
            if other < value:
                value = other
                x = tx
                y = ty
                better = True
                break
        if value == 0.0:
            break
        if not better:
            step //= 2
    return value, x, y


@njit(cache=True)
def overlap(maps, field, here, each):
    """Total depth over all pairs; ``each[i]`` becomes what part i has of it."""
    n = here.v.shape[0]
    each[:] = 0.0
    total = 0.0
    for i in range(n):
        for j in range(i):
            if field.skip[i, j]:
                continue
            d = pair_depth(maps, field, here.v[i], here.x[i], here.y[i], here.v[j], here.x[j], here.y[j])
            if d > 0:
                each[i] += d
                each[j] += d
                total += d
    return total


@njit(cache=True)
def reweigh(maps, field, here, weights):
    """Heavier for pairs that overlap, the deepest most."""
    n = here.v.shape[0]
    deepest = 0
    for i in range(n):
        for j in range(i):
            if not field.skip[i, j]:
                d = pair_depth(maps, field, here.v[i], here.x[i], here.y[i], here.v[j], here.x[j], here.y[j])
                deepest = max(deepest, d)
    if deepest == 0:
        return
    for i in range(n):
        for j in range(i):
            if field.skip[i, j]:
                continue
            d = pair_depth(maps, field, here.v[i], here.x[i], here.y[i], here.v[j], here.x[j], here.y[j])
            if d > 0:
                w = weights[i, j] * (GROW_LEAST + (GROW_MOST - GROW_LEAST) * d / deepest)
            else:
                w = max(1.0, weights[i, j] * FORGET)
            w = min(w, 1e6)
            weights[i, j] = w
            weights[j, i] = w


@njit(cache=True)
def separate(maps, field, here, best, weights, length, rng, sums, each, order, counters, moves):
    """Up to about ``moves`` moves. 1: nothing overlaps any more; 2: stuck; 0: not at an end yet.

    ``best`` is the state of least overlap since ``counters`` were reset; ``counters`` are (moves so far,
    rounds without a smaller overlap, least overlap).
    """
    n = here.v.shape[0]
    done = 0
    while done < moves:
        total = overlap(maps, field, here, each)
        if total < counters[2]:
            counters[2] = total
            counters[1] = 0
            best.v[:] = here.v
            best.x[:] = here.x
            best.y[:] = here.y
        else:
            counters[1] += 1
        if total == 0:
            return 1
        if counters[1] > PATIENCE:
            return 2
        count = 0
        for i in range(n):
            if each[i] > 0.0 and not field.held[i]:
                order[count] = i
                count += 1
        if count == 0:
            return 2
        for k in range(count - 1, 0, -1):
            other = below(rng, k + 1)
            order[k], order[other] = order[other], order[k]
        for k in range(count):
            i = order[k]
            # the part before may have cleared it
            now = _weighted(maps, field, here, weights, i, here.v[i], here.x[i], here.y[i], 0.5)
            if now > 0.0:
                move(maps, field, here, weights, i, length, rng, sums)
                done += 1
                counters[0] += 1
        reweigh(maps, field, here, weights)
    return 0


@njit(cache=True)
def put_at(maps, field, here, i, v, x, y, length):
    """Put part ``i`` in variant ``v`` at the allowed place nearest cell (x, y). False when it is too long."""
    last = last_place(maps, field, v, length)
    if last < 0:
        return False
    k = int(np.floor((x - field.x_base[v]) / field.x_step[v] + 0.5))
    here.x[i] = field.x_base[v] + min(max(k, 0), last) * field.x_step[v]
    k = int(np.floor((y - field.y_base[v]) / field.y_step[v] + 0.5))
    here.y[i] = field.y_base[v] + min(max(k, 0), field.y_count[v] - 1) * field.y_step[v]
    here.v[i] = v
    return True


@njit(cache=True)
def squeeze(maps, field, here, length, by, rng):
    """Shorten: what lies right of a random cut moves left by ``by`` mm; all must end inside ``length``."""
    n = here.v.shape[0]
    cut = unit(rng) * (length + by) / maps.cell_x
    shift = by / maps.cell_x
    for i in range(n):
        if field.held[i]:
            continue
        x = here.x[i] + 0.5 * field.length[here.v[i]] / maps.cell_x
        to = float(here.x[i])
        if x > cut:
            to -= shift
        if not put_at(maps, field, here, i, here.v[i], to, float(here.y[i]), length):
            for v in range(field.start[i], field.stop[i]):
                if put_at(maps, field, here, i, v, to, float(here.y[i]), length):
                    break


@njit(cache=True)
def exchange(maps, field, here, i, j, length):
    """Exchange two parts, centre for centre."""
    xi, yi = _centre(maps, field, here, i)
    xj, yj = _centre(maps, field, here, j)
    _centre_at(maps, field, here, i, xj, yj, length)
    _centre_at(maps, field, here, j, xi, yi, length)


@njit(cache=True)
def _centre(maps, field, here, i):
    v = here.v[i]
    return here.x[i] + 0.5 * field.length[v] / maps.cell_x, here.y[i] + 0.5 * maps.rows[field.shape[v]]


@njit(cache=True)
def _centre_at(maps, field, here, i, x, y, length):
    v = here.v[i]
    x -= 0.5 * field.length[v] / maps.cell_x
    put_at(maps, field, here, i, v, x, y - 0.5 * maps.rows[field.shape[v]], length)


@njit(cache=True)
def _different(field, area, here, i, rng):
    """Another part that moves and is not the same piece, if a few draws find one; large ones rather."""
    n = here.v.shape[0]
    found = -1
    for _ in range(12):
        j = below(rng, n)
        if j != i and not field.held[j] and field.start[j] != field.start[i]:
            if found < 0 or area[j] > area[found]:
                found = j
            if found >= 0 and unit(rng) < 0.4:
                break
    return found


@njit(cache=True)
def kick(maps, field, area, here, length, rng):
    """Shake the state: exchanges of different pieces, relocations, turns, moves of two."""
    n = here.v.shape[0]
    free = 0
    for i in range(n):
        if not field.held[i]:
            free += 1
    if free == 0:
        return
    kind = below(rng, 100)
    i = below(rng, n)
    while field.held[i]:
        i = below(rng, n)
    rounds = 1
    if 50 <= kind < 65 or kind >= 90:
        rounds = 2
    for _ in range(rounds):
        if kind < 65:
            j = _different(field, area, here, i, rng)
            if j >= 0:
                exchange(maps, field, here, i, j, length)
                i = below(rng, n)
                while field.held[i]:
                    i = below(rng, n)
                continue
        v = here.v[i]
        if kind >= 80 or kind < 65:
            v = field.start[i] + below(rng, field.stop[i] - field.start[i])
        x = unit(rng) * length / maps.cell_x
        if 80 <= kind < 90:
            x = float(here.x[i])
        y = field.y_base[v] + unit(rng) * field.y_count[v] * field.y_step[v]
        put_at(maps, field, here, i, v, x, y, length)
        i = below(rng, n)
        while field.held[i]:
            i = below(rng, n)
