"""Two-axis lattices: what the raster forbids although it only touches is allowed again, by an exact test.

Pieces whose place is bound along and across cannot be moved apart by a hair, nor pushed together; on them
half a cell decides between fitting and not. So the maps of such pairs are corrected, at the offsets the
lattice can reach, by the exact test of their convex parts.
"""

from __future__ import annotations

import numpy as np
from numba import njit

from .compact import TOUCH_MM
from .convex import Hulls, depth_between
from .depths import HALF, Maps, depth_at, put_depth
from .prepare import Frame
from .separate import Field

#: Deeper than this, in thirds of a cell, no rounding could have made it.
NEAR = 7


def exact_lattice(frame: Frame, field: Field, maps: Maps, hulls: Hulls) -> None:
    """Correct the maps of all pairs of variants bound on both axes."""
    bound = [
        k for k, spot in enumerate(frame.spots) if spot.variant.x_step > 0 and spot.variant.y_step > 0 and spot.count
    ]
    done: set[tuple[int, int, int, int, int]] = set()
    for a in bound:
        for b in bound:
            if frame.spots[a].variant.x_step != frame.spots[b].variant.x_step:
                continue
            dx = frame.spots[a].x_base - frame.spots[b].x_base
            dy = frame.spots[a].y_low - frame.spots[b].y_low
            sign = 1 if field.kind[a] <= field.kind[b] else -1
            key = (frame.spots[a].shape, frame.spots[b].shape, round(dx * 100), round(dy * 100), sign)
            if key in done:
                continue
            done.add(key)
            step_x, step_y = frame.spots[a].variant.x_step, frame.spots[a].variant.y_step
            correct(hulls, maps, frame.spots[a].shape, frame.spots[b].shape, dx, dy, step_x, step_y, sign)


@njit(cache=True)
def correct(hulls, maps, s, t, dx, dy, step_x, step_y, sign):
    """Test shape s at every lattice offset from t, which is (dx, dy) and whole steps.

    ``sign`` is 1 when the kind of s comes before that of t, else −1: so halves are rounded as in ``Field.pair``.
    """
    w = hulls.whole
    k0 = int(np.floor((-w[s, 2] - dx) / step_x))
    k1 = int(np.ceil((w[t, 2] - dx) / step_x))
    m0 = int(np.floor((-w[s, 3] - dy) / step_y))
    m1 = int(np.ceil((w[t, 3] - dy) / step_y))
    for k in range(k0, k1 + 1):
        for m in range(m0, m1 + 1):
            x = dx + k * step_x
            y = dy + m * step_y
            cell_x = sign * int(np.floor(sign * x / maps.cell_x + HALF))
            cell_y = sign * int(np.floor(sign * y / maps.cell_y + HALF))
            near = depth_at(maps, s, t, cell_x, cell_y)
            if near > NEAR:
                continue
            deep = depth_between(hulls, t, s, x, y, TOUCH_MM)
            if deep <= TOUCH_MM:
                put_depth(maps, s, t, cell_x, cell_y, 0)
            elif near == 0:
                put_depth(maps, s, t, cell_x, cell_y, 2)
