"""Compiled geometry of the search: outlines as intervals per row, placing, and pushing together.

A strip is cut into rows of equal height. A piece, in one of its poses, becomes the x-intervals it
covers in each row, rounded outwards, so that pieces whose intervals are disjoint cannot overlap.
x stays continuous. Signatures are explicit and results cached, so that nothing compiles while a user
waits (:func:`compile_ahead` runs at set-up).
"""

from __future__ import annotations

import numpy as np
from numba import njit

#: Room for this many separate intervals in one row of one piece.
MAX_PER_ROW = 64
#: A piece this much taller than a whole number of rows does not take another row.
ROW_SLACK_MM = 0.02


@njit("int64(float64[:,:], float64, int64, float64[:], float64[:], int64[:])", cache=True)
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
        c = 0
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
                # insert, keeping the list sorted and merged
                j = c
                while j > 0 and lo[j - 1] > left:
                    j -= 1
                if c + 1 >= lo.shape[0]:
                    return -1
                for t in range(c, j, -1):
                    lo[t] = lo[t - 1]
                    hi[t] = hi[t - 1]
                lo[j] = left
                hi[j] = right
                c += 1
                w = 0
                for t in range(1, c):
                    if lo[t] <= hi[w] + 1e-9:
                        if hi[t] > hi[w]:
                            hi[w] = hi[t]
                    else:
                        w += 1
                        lo[w] = lo[t]
                        hi[w] = hi[t]
                c = w + 1
        if c > MAX_PER_ROW or total + c > out_lo.shape[0]:
            return -1
        for t in range(c):
            out_lo[total] = lo[t]
            out_hi[total] = hi[t]
            total += 1
        out_ptr[k + 1] = total
    return total


@njit(
    "float64(int64, int64, int64, int64[:], float64[:], float64[:], int64[:], float64[:,:], float64[:,:], float64)",
    cache=True,
)
def leftmost(first, nrows, r, ptr, lo, hi, cnt, occ_lo, occ_hi, give_up):
    """The least x at which a pose, its bottom on row ``r``, is free of all laid intervals."""
    x = 0.0
    done = 0
    k = 0
    while done < nrows:
        row = r + k
        for p in range(ptr[first + k], ptr[first + k + 1]):
            a = lo[p]
            b = hi[p]
            for o in range(cnt[row]):
                if occ_lo[row, o] >= x + b - 1e-9:
                    break
                if occ_hi[row, o] > x + a + 1e-9:
                    x = occ_hi[row, o] - a
                    done = 0
                    if x >= give_up:
                        return x
        done += 1
        k += 1
        if k == nrows:
            k = 0
    return x


@njit(
    "void(int64, int64, int64, float64, int64[:], float64[:], float64[:], int64[:], float64[:,:], float64[:,:])",
    cache=True,
)
def occupy(first, nrows, r, x, ptr, lo, hi, cnt, occ_lo, occ_hi):
    """Mark a pose's intervals as taken, keeping every row sorted."""
    for k in range(nrows):
        row = r + k
        for p in range(ptr[first + k], ptr[first + k + 1]):
            a = x + lo[p]
            j = cnt[row]
            while j > 0 and occ_lo[row, j - 1] > a:
                occ_lo[row, j] = occ_lo[row, j - 1]
                occ_hi[row, j] = occ_hi[row, j - 1]
                j -= 1
            occ_lo[row, j] = a
            occ_hi[row, j] = x + hi[p]
            cnt[row] += 1


_DECODE = (
    "float64(int64[:], int64[:], int64[:], int64[:], boolean[:], float64[:], int64[:], int64[:], float64[:], "
    "int64[:], int64[:], float64[:], float64[:], int64[:], float64[:,:], float64[:,:], float64, float64, "
    "boolean, float64[:], int64[:])"
)


@njit(_DECODE, cache=True)
def decode(
    order,
    pose,
    pose_from,
    pose_to,
    on_fold,
    area,
    pose_rows,
    pose_first,
    pose_len,
    pose_last_row,
    ptr,
    lo,
    hi,
    cnt,
    occ_lo,
    occ_hi,
    limit,
    give_up,
    greedy,
    out_x,
    out_row,
):
    """Lay the items in ``order``, each as far left, then as low, as it goes; the cost of the result.

    ``pose[i]`` is the pose of item i; with ``greedy`` the pose ending furthest left is chosen and written
    back. An item that would end past ``limit`` is left out (``out_row`` −1) and costs more than any that
    fits. Stops early, returning infinity, once the cost must exceed ``give_up``.
    """
    cnt[:] = 0
    longest = 0.0
    ends = 0.0
    missing = 0.0
    for place in range(order.shape[0]):
        i = order[place]
        best_end = np.inf
        best_x = 0.0
        best_row = -1
        best_pose = pose[i]
        first_pose = pose_from[i] if greedy else pose[i]
        last_pose = pose_to[i] if greedy else pose[i] + 1
        for v in range(first_pose, last_pose):
            length = pose_len[v]
            last = 0 if on_fold[i] else pose_last_row[v]
            for r in range(last + 1):
                x = leftmost(pose_first[v], pose_rows[v], r, ptr, lo, hi, cnt, occ_lo, occ_hi, best_end - length)
                if x + length < best_end - 1e-7:
                    best_end = x + length
                    best_x = x
                    best_row = r
                    best_pose = v
                    if x == 0.0 and not greedy:
                        break
        if best_end > limit:
            out_row[i] = -1
            out_x[i] = 0.0
            missing += area[i]
        else:
            pose[i] = best_pose
            out_x[i] = best_x
            out_row[i] = best_row
            occupy(pose_first[best_pose], pose_rows[best_pose], best_row, best_x, ptr, lo, hi, cnt, occ_lo, occ_hi)
            longest = max(longest, best_end)
            ends += best_end
        if longest + missing * 10.0 > give_up:
            return np.inf
    return longest + 0.02 * ends / order.shape[0] + missing * 10.0


@njit("uint64(uint64[:])", cache=True)
def draw(state):
    """The next number of a xorshift generator; the same seed gives the same search everywhere."""
    x = state[0]
    x ^= x << np.uint64(13)
    x ^= x >> np.uint64(7)
    x ^= x << np.uint64(17)
    state[0] = x
    return x


@njit("int64(uint64[:], int64)", cache=True)
def below(state, n):
    """A number from 0 to n − 1."""
    return np.int64((draw(state) >> np.uint64(11)) % np.uint64(n))


_SEARCH = (
    "int64(int64, uint64[:], int64[:], int64[:], int64[:], int64[:], float64[:], float64[:], int64[:], "
    "int64[:], int64[:], boolean[:], float64[:], int64[:], int64[:], float64[:], int64[:], int64[:], "
    "float64[:], float64[:], int64[:], float64[:,:], float64[:,:], float64, float64[:], int64[:])"
)


@njit(_SEARCH, cache=True)
def search(
    steps,
    rng,
    order,
    pose,
    best_order,
    best_pose,
    costs,
    history,
    counters,
    pose_from,
    pose_to,
    on_fold,
    area,
    pose_rows,
    pose_first,
    pose_len,
    pose_last_row,
    ptr,
    lo,
    hi,
    cnt,
    occ_lo,
    occ_hi,
    limit,
    out_x,
    out_row,
):
    """Late-acceptance search over order and poses for ``steps`` layings; how often the best improved.

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
            span = pose_to[i] - pose_from[i]
            if span > 1:
                try_pose[i] = pose_from[i] + below(rng, span)
            else:
                kind = 50
        if 25 <= kind < 65 and n > 1:
            a = below(rng, n)
            b = below(rng, n)
            for _again in range(8):
                if pose_from[try_order[a]] != pose_from[try_order[b]]:
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
        cost = decode(
            try_order,
            try_pose,
            pose_from,
            pose_to,
            on_fold,
            area,
            pose_rows,
            pose_first,
            pose_len,
            pose_last_row,
            ptr,
            lo,
            hi,
            cnt,
            occ_lo,
            occ_hi,
            limit,
            threshold,
            False,
            out_x,
            out_row,
        )
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


@njit("float64(float64[:,:], int64, int64, float64[:,:], int64, int64, float64)", cache=True)
def room_between(points, a0, a1, others, b0, b1, y):
    """How far ring a may slide towards −x before it meets ring b on the line at height ``y``."""
    room = np.inf
    for i in range(a0, a1):
        i2 = i + 1 if i + 1 < a1 else a0
        ya = points[i, 1]
        yb = points[i2, 1]
        if (ya < y) == (yb < y):
            continue
        x = points[i, 0] + (points[i2, 0] - points[i, 0]) * (y - ya) / (yb - ya)
        for j in range(b0, b1):
            j2 = j + 1 if j + 1 < b1 else b0
            yc = others[j, 1]
            yd = others[j2, 1]
            if (yc < y) == (yd < y):
                continue
            z = others[j, 0] + (others[j2, 0] - others[j, 0]) * (y - yc) / (yd - yc)
            # a hair of old overlap counts as touching, not as being on the far side
            if z <= x + 0.05:
                room = min(room, max(0.0, x - z))
    return room


@njit("float64(float64[:,:], int64[:], int64, float64)", cache=True)
def slide_room(points, starts, piece, least):
    """How far a ring may slide towards −x, exactly: between its own and its neighbours' corners the room
    changes linearly, so it is enough to look just above and below every corner."""
    a0 = starts[piece]
    a1 = starts[piece + 1]
    lo_a = np.inf
    hi_a = -np.inf
    left = np.inf
    for i in range(a0, a1):
        lo_a = min(lo_a, points[i, 1])
        hi_a = max(hi_a, points[i, 1])
        left = min(left, points[i, 0])
    room = left - least
    eps = 1e-4
    for other in range(starts.shape[0] - 1):
        if other == piece:
            continue
        b0 = starts[other]
        b1 = starts[other + 1]
        lo_b = np.inf
        hi_b = -np.inf
        x_b = np.inf
        x_b1 = -np.inf
        for j in range(b0, b1):
            lo_b = min(lo_b, points[j, 1])
            hi_b = max(hi_b, points[j, 1])
            x_b = min(x_b, points[j, 0])
            x_b1 = max(x_b1, points[j, 0])
        # rows may share up to ROW_SLACK_MM where one piece ends and the next begins
        lo = max(lo_a, lo_b)
        hi = min(hi_a, hi_b)
        if hi - lo < 0.03:
            continue
        if x_b1 < left - room:
            continue
        for i in range(a0, a1):
            y = points[i, 1]
            if lo < y - eps and y - eps < hi:
                room = min(room, room_between(points, a0, a1, points, b0, b1, y - eps))
            if lo < y + eps and y + eps < hi:
                room = min(room, room_between(points, a0, a1, points, b0, b1, y + eps))
        for j in range(b0, b1):
            y = points[j, 1]
            if lo < y - eps and y - eps < hi:
                room = min(room, room_between(points, a0, a1, points, b0, b1, y - eps))
            if lo < y + eps and y + eps < hi:
                room = min(room, room_between(points, a0, a1, points, b0, b1, y + eps))
        if room <= 0.0:
            return 0.0
    return room


@njit("float64(float64[:,:], int64[:], int64[:], float64[:])", cache=True)
def push_together(points, starts, by_x, moved):
    """Slide every ring towards −x as far as it goes, nearest first, until nothing gives; total gained."""
    total = 0.0
    for _ in range(6):
        gained = 0.0
        for place in range(by_x.shape[0]):
            piece = by_x[place]
            room = slide_room(points, starts, piece, 0.0)
            if room > 0.01:
                for i in range(starts[piece], starts[piece + 1]):
                    points[i, 0] -= room
                moved[piece] += room
                gained += room
        total += gained
        if gained < 0.05:
            break
    return total


def compile_ahead() -> int:
    """Make sure everything above is compiled and cached; how many functions there are."""
    # explicit signatures compile when the module is imported; importing was the work
    return len((row_intervals, leftmost, occupy, decode, draw, below, search, room_between, slide_room, push_together))
