"""Compiled: outlines as intervals per row, and laying bottom-left on them.

A strip is cut into rows of equal height. A piece, in one of its variants, becomes the x-intervals it
covers in each row, rounded outwards, so that pieces whose intervals are disjoint cannot overlap.
x stays continuous, or keeps to its lattice.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from .draws import below

#: Room for this many separate intervals in one row of one piece.
MAX_PER_ROW = 64
#: A piece this much taller than a whole number of rows does not take another row.
ROW_SLACK_MM = 0.02


class Rows(NamedTuple):
    """The table the compiled code works on; one entry per part, per variant, or per interval."""

    #: per part: its variants are ``start[i]``..``stop[i]``; what leaving it out costs; whether it goes first
    start: Any
    stop: Any
    weight: Any
    early: Any
    #: per variant: first row pointer, rows, extent along, lowest row, rows between positions, positions
    first: Any
    rows: Any
    length: Any
    row: Any
    row_step: Any
    row_count: Any
    #: per variant: x of the left end is ``base + k · step``; step 0 leaves it free
    x_base: Any
    x_step: Any
    #: intervals: rows of all variants one after another
    ptr: Any
    lo: Any
    hi: Any
    #: what is taken before anything is laid (all parts), and after the early parts are
    ground_cnt: Any
    ground_lo: Any
    ground_hi: Any
    late_cnt: Any
    late_lo: Any
    late_hi: Any


class Taken(NamedTuple):
    """What is taken so far, per row, sorted; scratch memory of :func:`decode`."""

    cnt: Any
    lo: Any
    hi: Any


@njit(cache=True)
def insert(lo, hi, count, a, b, share):
    """Put the interval a..b among ``count`` sorted disjoint ones, joining those that share more than ``share``;
    how many there are then. There must be room for one more."""
    j = count
    while j > 0 and lo[j - 1] > a:
        j -= 1
    for t in range(count, j, -1):
        lo[t] = lo[t - 1]
        hi[t] = hi[t - 1]
    lo[j] = a
    hi[j] = b
    w = 0
    for t in range(1, count + 1):
        if lo[t] < hi[w] - share:
            hi[w] = max(hi[w], hi[t])
        else:
            w += 1
            lo[w] = lo[t]
            hi[w] = hi[t]
    return w + 1


@njit(cache=True)
def row_intervals(ring, h, nrows, out_lo, out_hi, out_ptr):
    """Cover a ring (n, 2), lying at minimum 0, 0, by x-intervals per row of height ``h``.

    Fills ``out_lo``/``out_hi`` with disjoint sorted intervals, row ``k`` from ``out_ptr[k]`` to
    ``out_ptr[k + 1]``. Returns the number of intervals, or -1 when a row needs too many.
    """
    n = ring.shape[0]
    total = 0
    out_ptr[0] = 0
    ys = np.empty(n + 2)
    top = 0.0
    for i in range(n):
        top = max(top, ring[i, 1])
    xm = np.empty(n)
    xa = np.empty(n)
    xb = np.empty(n)
    lo = np.empty(MAX_PER_ROW * 8)
    hi = np.empty(MAX_PER_ROW * 8)
    for k in range(nrows):
        y0 = k * h
        y1 = top if k == nrows - 1 else (k + 1) * h
        m = 0
        ys[m] = y0
        m += 1
        for i in range(n):
            y = ring[i, 1]
            if y0 < y < y1:
                j = m
                while j > 0 and ys[j - 1] > y:
                    ys[j] = ys[j - 1]
                    j -= 1
                ys[j] = y
                m += 1
        ys[m] = y1
        m += 1
        # a plain 0 would be a type of its own, and what is called with it compiled a second time
        c = np.int64(0)
        for e in range(m - 1):
            a = ys[e]
            b = ys[e + 1]
            if b - a < 1e-9:
                continue
            mid = 0.5 * (a + b)
            q = 0
            for i in range(n):
                i2 = i + 1 if i + 1 < n else 0
                ya = ring[i, 1]
                yb = ring[i2, 1]
                if (ya < mid) != (yb < mid):
                    slope = (ring[i2, 0] - ring[i, 0]) / (yb - ya)
                    x_mid = ring[i, 0] + slope * (mid - ya)
                    j = q
                    while j > 0 and xm[j - 1] > x_mid:
                        xm[j] = xm[j - 1]
                        xa[j] = xa[j - 1]
                        xb[j] = xb[j - 1]
                        j -= 1
                    xm[j] = x_mid
                    xa[j] = ring[i, 0] + slope * (a - ya)
                    xb[j] = ring[i, 0] + slope * (b - ya)
                    q += 1
            for p in range(0, q - 1, 2):
                left = min(xa[p], xb[p])
                right = max(xa[p + 1], xb[p + 1])
                if c + 1 >= lo.shape[0]:
                    return -1
                c = insert(lo, hi, c, left, right, -1e-9)
        if c > MAX_PER_ROW or total + c > out_lo.shape[0]:
            return -1
        for t in range(c):
            out_lo[total] = lo[t]
            out_hi[total] = hi[t]
            total += 1
        out_ptr[k + 1] = total
    return total


@njit(cache=True)
def leftmost(table, taken, v, r, give_up):
    """The least x at which variant ``v``, its bottom on row ``r``, is free of all that is taken."""
    first = table.first[v]
    nrows = table.rows[v]
    base = table.x_base[v]
    step = table.x_step[v]
    x = base if step > 0.0 else 0.0
    done = 0
    k = 0
    while done < nrows:
        row = r + k
        for p in range(table.ptr[first + k], table.ptr[first + k + 1]):
            a = table.lo[p]
            b = table.hi[p]
            for o in range(taken.cnt[row]):
                if taken.lo[row, o] >= x + b - 1e-9:
                    break
                if taken.hi[row, o] > x + a + 1e-9:
                    x = taken.hi[row, o] - a
                    if step > 0.0:
                        x = base + np.ceil((x - base) / step - 1e-9) * step
                    done = 0
                    if x >= give_up:
                        return x
        done += 1
        k += 1
        if k == nrows:
            k = 0
    return x


@njit(cache=True)
def take(taken, row, a, b):
    """Mark one interval of a row as taken, keeping the row sorted."""
    j = taken.cnt[row]
    while j > 0 and taken.lo[row, j - 1] > a:
        taken.lo[row, j] = taken.lo[row, j - 1]
        taken.hi[row, j] = taken.hi[row, j - 1]
        j -= 1
    taken.lo[row, j] = a
    taken.hi[row, j] = b
    taken.cnt[row] += 1


@njit(cache=True)
def decode(table, taken, order, pose, limit, give_up, greedy, out_x, out_at):
    """Lay the parts in ``order``, each as far left, then as low, as it goes; the cost of the result.

    ``pose[i]`` is the variant of part i; with ``greedy`` the one ending furthest left is chosen and written
    back. ``out_at[i]`` is the number of its place across. A part that would end past ``limit`` is left out
    (−1) and costs more than any that fits. Stops early, returning infinity, once the cost must exceed
    ``give_up``.
    """
    rows = taken.cnt.shape[0]
    for r in range(rows):
        taken.cnt[r] = table.ground_cnt[r]
        for o in range(table.ground_cnt[r]):
            taken.lo[r, o] = table.ground_lo[r, o]
            taken.hi[r, o] = table.ground_hi[r, o]
    longest = 0.0
    ends = 0.0
    missing = 0.0
    for turn in range(2):
        if turn == 1:
            for r in range(rows):
                for o in range(table.late_cnt[r]):
                    take(taken, r, table.late_lo[r, o], table.late_hi[r, o])
        for place in range(order.shape[0]):
            i = order[place]
            if table.early[i] != (turn == 0):
                continue
            best_end = np.inf
            best_x = 0.0
            best_at = -1
            best = pose[i]
            first = table.start[i] if greedy else pose[i]
            last = table.stop[i] if greedy else pose[i] + 1
            for v in range(first, last):
                length = table.length[v]
                for at in range(table.row_count[v]):
                    x = leftmost(table, taken, v, table.row[v] + at * table.row_step[v], best_end - length)
                    if x + length < best_end - 1e-7:
                        best_end = x + length
                        best_x = x
                        best_at = at
                        best = v
                        if x == 0.0 and not greedy:
                            break
            if best_end > limit:
                out_at[i] = -1
                out_x[i] = 0.0
                missing += table.weight[i]
            else:
                pose[i] = best
                out_x[i] = best_x
                out_at[i] = best_at
                base = table.row[best] + best_at * table.row_step[best]
                for k in range(table.rows[best]):
                    for p in range(table.ptr[table.first[best] + k], table.ptr[table.first[best] + k + 1]):
                        take(taken, base + k, best_x + table.lo[p], best_x + table.hi[p])
                longest = max(longest, best_end)
                ends += best_end
            if longest + missing * 10.0 > give_up:
                return np.inf
    return longest + 0.02 * ends / order.shape[0] + missing * 10.0


@njit(cache=True)
def search(
    table, taken, steps, rng, order, pose, best_order, best_pose, costs, history, counters, limit, out_x, out_at
):
    """Late-acceptance search over order and variants for ``steps`` layings; how often the best improved.

    ``costs`` holds (present, best); ``counters`` (steps so far, steps since the best improved).
    Every decision hangs on counts and ``rng``, never on the clock.
    """
    n = order.shape[0]
    try_order = np.empty_like(order)
    try_pose = np.empty_like(pose)
    improved = 0
    for _ in range(steps):
        counters[0] += 1
        counters[1] += 1
        if counters[1] > 400 + 40 * n:
            # stuck: go back to the best and shake it
            order[:] = best_order
            pose[:] = best_pose
            for _kick in range(3 + below(rng, 3)):
                a = below(rng, n)
                b = below(rng, n)
                order[a], order[b] = order[b], order[a]
            costs[0] = np.inf
            history[:] = costs[1] * 1.04
            counters[1] = 0
        try_order[:] = order
        try_pose[:] = pose
        kind = below(rng, 100)
        if kind < 25:
            i = below(rng, n)
            span = table.stop[i] - table.start[i]
            if span > 1:
                try_pose[i] = table.start[i] + below(rng, span)
            else:
                kind = 50
        if 25 <= kind < 65 and n > 1:
            a = below(rng, n)
            b = below(rng, n)
            for _again in range(8):
                if table.start[try_order[a]] != table.start[try_order[b]]:
                    break
                b = below(rng, n)
            try_order[a], try_order[b] = try_order[b], try_order[a]
        elif kind >= 65 and n > 1:
            a = below(rng, n)
            b = below(rng, n)
            moved = try_order[a]
            if a < b:
                for t in range(a, b):
                    try_order[t] = try_order[t + 1]
            else:
                for t in range(a, b, -1):
                    try_order[t] = try_order[t - 1]
            try_order[b] = moved
        slot = counters[0] % history.shape[0]
        threshold = max(history[slot], costs[0])
        cost = decode(table, taken, try_order, try_pose, limit, threshold, False, out_x, out_at)
        if cost <= threshold:
            order[:] = try_order
            pose[:] = try_pose
            costs[0] = cost
            if cost < costs[1] - 1e-6:
                costs[1] = cost
                best_order[:] = order
                best_pose[:] = pose
                counters[1] = 0
                improved += 1
        history[slot] = min(history[slot], costs[0])
    return improved
