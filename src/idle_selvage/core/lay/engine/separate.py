"""Compiled: guided local search. Pieces that overlap are moved until none does.

All parts lie on the strip, overlapping. Each round moves every overlapping part, in random order, to a
place of less weighted overlap: downhill from where it lies if that makes it free, else from the deepest
hollows of the coarse field over the whole strip and all its variants; then pairs still overlapping grow
heavier. Positions are whole fine cells. Every decision hangs on counts and the generator.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from .draws import below, unit

#: Weights grow by a factor between these, the more the deeper the overlap; other pairs slowly forget.
GROW_LEAST, GROW_MOST, FORGET = 1.2, 2.0, 0.95
#: Rounds without a smaller overlap after which the search counts as stuck.
PATIENCE = 100
#: A coarse place this many times worse than the best one is not looked at more finely.
HOPE = 2.0
#: So many hollows of the coarse field are looked at more finely.
HOLLOWS = 6
#: A descent minds only what it can meet within so many cells; further on it looks around again.
NEAR = 12
#: Columns of a row of :attr:`Field.pair`.
START, WIDTH, HEIGHT, X_ZERO, Y_ZERO, X_SIGN, Y_SIGN, COLUMNS = 0, 1, 2, 3, 4, 5, 6, 8


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
    #: per variant: which kind it is (its shape and what it has beyond its cell)
    kind: Any
    #: per pair of kinds a row: where their map begins, its size in coarse cells, cell = zero + sign · offset
    pair: Any


class Here(NamedTuple):
    """Where every part is: variant, cell along, cell across."""

    v: Any
    x: Any
    y: Any


@njit(cache=True)
def pair_depth(maps, field, v, x, y, u, ux, uy):
    """Depth of variant ``v`` at (x, y) in variant ``u`` at (ux, uy); the same from both sides."""
    a = field.kind[v]
    b = field.kind[u]
    q = maps.coarse
    at_x = field.pair[a, b, X_ZERO] + field.pair[a, b, X_SIGN] * (x - ux)
    at_y = field.pair[a, b, Y_ZERO] + field.pair[a, b, Y_SIGN] * (y - uy)
    width = field.pair[a, b, WIDTH]
    height = field.pair[a, b, HEIGHT]
    if at_x < 0 or at_y < 0 or at_x >= width * q or at_y >= height * q:
        return 0
    phase = (at_y & (q - 1)) * q + (at_x & (q - 1))
    at = field.pair[a, b, START] + (phase * height + (at_y >> maps.bits)) * width + (at_x >> maps.bits)
    return int(maps.data[at])


@njit(cache=True)
def last_place(maps, field, v, length):
    """The greatest k with ``x_base + k · x_step`` still inside a strip of ``length`` mm; −1 if none."""
    room = (length - field.length[v] - field.x_rest[v]) / maps.cell_x + 0.5
    k = int(np.floor((room - field.x_base[v]) / field.x_step[v]))
    return k if k >= 0 else -1


@njit(cache=True)
def _look_around(maps, field, here, i, v, x, y, near):
    """List the parts that ``i`` as ``v`` can meet within :data:`NEAR` cells of (x, y); how many there are."""
    count = 0
    a = field.kind[v]
    q = maps.coarse
    for j in range(here.v.shape[0]):
        if j == i or field.skip[i, j]:
            continue
        b = field.kind[here.v[j]]
        at = field.pair[a, b, X_ZERO] + field.pair[a, b, X_SIGN] * (x - here.x[j])
        if at < -NEAR or at >= field.pair[a, b, WIDTH] * q + NEAR:
            continue
        at = field.pair[a, b, Y_ZERO] + field.pair[a, b, Y_SIGN] * (y - here.y[j])
        if at < -NEAR or at >= field.pair[a, b, HEIGHT] * q + NEAR:
            continue
        near[count] = j
        count += 1
    return count


@njit(cache=True)
def _weighted(maps, field, here, weights, i, v, x, y, near, count, enough):
    """Weighted overlap of part ``i`` with those listed, were it there; stops once it is ``enough``."""
    total = 0.0
    for k in range(count):
        j = near[k]
        d = pair_depth(maps, field, v, x, y, here.v[j], here.x[j], here.y[j])
        if d > 0:
            total += weights[i, j] * d
            if total >= enough:
                return total
    return total


@njit(cache=True)
def _add(maps, field, sums, v, x0, xs, nx, y0, ys, ny, u, ux, uy, weight):
    """Add the weighted depth in ``u`` at a grid of positions of ``v`` to ``sums`` (ny × nx, flat)."""
    a = field.kind[v]
    b = field.kind[u]
    q = maps.coarse
    bits = maps.bits
    # 64 bits from here on: the places in the data are worked out from them
    width = np.int64(field.pair[a, b, WIDTH])
    height = np.int64(field.pair[a, b, HEIGHT])
    start = np.int64(field.pair[a, b, START])
    sx = np.int64(field.pair[a, b, X_SIGN])
    sy = np.int64(field.pair[a, b, Y_SIGN])
    at_x = np.int64(field.pair[a, b, X_ZERO]) + sx * (x0 - ux)
    at_y = np.int64(field.pair[a, b, Y_ZERO]) + sy * (y0 - uy)
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
def move(maps, field, here, weights, depths, i, length, rng, sums, near, hollows):
    """Move part ``i`` to a place of less weighted overlap; that overlap.

    First downhill from where it lies: free there, it stays there. Else the deepest hollows of the coarse field at a
    random phase, over all its variants, are looked at more finely, and the least of all is taken.
    """
    best_v = here.v[i]
    last = last_place(maps, field, best_v, length)
    best, best_x, best_y = _descend(maps, field, here, weights, i, best_v, here.x[i], here.y[i], last, near)
    if best > 0.0:
        hollows[:, 0] = np.inf
        for v in range(field.start[i], field.stop[i]):
            _hollows(maps, field, here, weights, i, v, length, rng, sums, hollows)
        least = hollows[0, 0]
        for k in range(HOLLOWS):
            # what is far worse on coarse cells does not become the best on fine ones
            if hollows[k, 0] == np.inf or hollows[k, 0] > HOPE * least:
                break
            v = int(hollows[k, 1])
            last = last_place(maps, field, v, length)
            value, x, y = _descend(maps, field, here, weights, i, v, int(hollows[k, 2]), int(hollows[k, 3]), last, near)
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
    _know(maps, field, here, depths, i)
    return best


@njit(cache=True)
def _hollows(maps, field, here, weights, i, v, length, rng, sums, hollows):
    """Add the lowest hollows of the coarse field of ``v``, at a random phase, to the list."""
    q = maps.coarse
    last = last_place(maps, field, v, length)
    if last < 0:
        return
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
    n = nx * ny
    sums[:n] = 0.0
    for j in range(here.v.shape[0]):
        if j != i and not field.skip[i, j]:
            _add(maps, field, sums, v, x0, xs, nx, y0, ys, ny, here.v[j], here.x[j], here.y[j], weights[i, j])
    # of equals that from a random place on: which corner of the strip comes first must not decide
    begin = below(rng, n)
    for k in range(n):
        at = begin + k
        if at >= n:
            at -= n
        value = sums[at]
        if value >= hollows[HOLLOWS - 1, 0]:
            continue
        col = at % nx
        row = at // nx
        lowest = True
        for dy in range(-1, 2):
            if row + dy < 0 or row + dy >= ny or not lowest or value == 0.0:
                continue
            for dx in range(-1, 2):
                if col + dx < 0 or col + dx >= nx:
                    continue
                other = sums[at + dy * nx + dx]
                # of a flat bottom one cell
                if other < value or (other == value and (dy < 0 or (dy == 0 and dx < 0))):
                    lowest = False
        if lowest:
            _keep(hollows, value, v, x0 + col * xs, y0 + row * ys)
            if value == 0.0:
                return


@njit(cache=True)
def _keep(hollows, value, v, x, y):
    for k in range(HOLLOWS):
        if value < hollows[k, 0]:
            for m in range(HOLLOWS - 1, k, -1):
                hollows[m] = hollows[m - 1]
            hollows[k, 0] = value
            hollows[k, 1] = v
            hollows[k, 2] = x
            hollows[k, 3] = y
            return


@njit(cache=True)
def _descend(maps, field, here, weights, i, v, x, y, last, near):
    """Follow the fine cells downhill from (x, y): the overlap there, and where it is."""
    free_x = field.x_step[v] == 1
    free_y = field.y_step[v] == 1 and field.y_count[v] > 1
    low_y = field.y_base[v]
    high_y = low_y + field.y_count[v] - 1
    from_x = x
    from_y = y
    count = _look_around(maps, field, here, i, v, x, y, near)
    value = _weighted(maps, field, here, weights, i, v, x, y, near, count, np.inf)
    step = max(1, maps.coarse // 2)
    while step >= 1 and value > 0.0:
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
            if abs(tx - from_x) > NEAR or abs(ty - from_y) > NEAR:
                from_x = tx
                from_y = ty
                count = _look_around(maps, field, here, i, v, tx, ty, near)
            other = _weighted(maps, field, here, weights, i, v, tx, ty, near, count, value)
            if other < value:
                value = other
                x = tx
                y = ty
                better = True
                break
        if not better:
            step //= 2
    return value, x, y


@njit(cache=True)
def _know(maps, field, here, depths, i):
    """Part ``i`` has moved: how deep it lies in each other one."""
    for j in range(here.v.shape[0]):
        if j != i and not field.skip[i, j]:
            d = pair_depth(maps, field, here.v[i], here.x[i], here.y[i], here.v[j], here.x[j], here.y[j])
            depths[i, j] = d
            depths[j, i] = d


@njit(cache=True)
def know_all(maps, field, here, depths):
    """How deep every part lies in every other one."""
    depths[:] = 0
    n = here.v.shape[0]
    for i in range(n):
        for j in range(i):
            if not field.skip[i, j]:
                d = pair_depth(maps, field, here.v[i], here.x[i], here.y[i], here.v[j], here.x[j], here.y[j])
                depths[i, j] = d
                depths[j, i] = d


@njit(cache=True)
def overlap(depths, each):
    """Total depth over all pairs; ``each[i]`` becomes what part i has of it."""
    n = depths.shape[0]
    total = 0
    for i in range(n):
        mine = 0
        for j in range(n):
            mine += depths[i, j]
        each[i] = mine
        total += mine
    return total // 2


@njit(cache=True)
def reweigh(depths, weights):
    """Heavier for pairs that overlap, the deepest most."""
    n = depths.shape[0]
    deepest = 0
    for i in range(n):
        for j in range(i):
            deepest = max(deepest, depths[i, j])
    if deepest == 0:
        return
    for i in range(n):
        for j in range(i):
            d = depths[i, j]
            if d > 0:
                w = weights[i, j] * (GROW_LEAST + (GROW_MOST - GROW_LEAST) * d / deepest)
            else:
                w = max(1.0, weights[i, j] * FORGET)
            w = min(w, 1e6)
            weights[i, j] = w
            weights[j, i] = w


@njit(cache=True)
def separate(maps, field, here, best, weights, depths, length, rng, sums, each, order, counters, moves):
    """Up to about ``moves`` moves. 1: nothing overlaps any more; 2: stuck; 0: not at an end yet.

    ``best`` is the state of least overlap since ``counters`` were reset; ``counters`` are (moves so far,
    rounds without a smaller overlap, least overlap, whether ``depths`` are those of ``here``).
    """
    n = here.v.shape[0]
    near = np.empty(n, dtype=np.int64)
    hollows = np.empty((HOLLOWS, 4))
    if counters[3] == 0:
        know_all(maps, field, here, depths)
        counters[3] = 1
    done = 0
    while done < moves:
        total = overlap(depths, each)
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
            if each[i] > 0 and not field.held[i]:
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
            still = False
            for j in range(n):
                still = still or depths[i, j] > 0
            if still:
                move(maps, field, here, weights, depths, i, length, rng, sums, near, hollows)
                done += 1
                counters[0] += 1
        reweigh(depths, weights)
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
