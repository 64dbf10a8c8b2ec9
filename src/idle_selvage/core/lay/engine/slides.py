"""Compiled: sliding rings towards the cut end, exactly, until they touch."""

from __future__ import annotations

import numpy as np
from numba import njit


@njit(cache=True)
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


@njit(cache=True)
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


@njit(cache=True)
def push_together(points, starts, by_x, moved):
    """Slide the rings of ``by_x`` towards −x as far as they go, in that order, until nothing gives; total gained."""
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
