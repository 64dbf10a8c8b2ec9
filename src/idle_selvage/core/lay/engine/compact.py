"""Making exact: pieces pushed together by a linear programme, never through one another.

Every near pair of convex parts is kept apart by a half-plane (:mod:`convex`), which is valid for any move
that respects it; within a trust region the shortest strip is then a linear programme (HiGHS). Overlap left
by the raster is taken out by the same rows, with a dear slack, so that the strip may grow a little for it.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .convex import Hulls, half_planes, worst_depth

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Outlines may share this much, millimetres; the checker allows 0.1.
TOUCH_MM = 0.02
#: Kept beyond touching by the programme, for its own rounding.
CLEAR_MM = 0.002


@dataclass(frozen=True)
class Motion:
    """How placed shapes may move. Arrays over the shapes; a group moves as one.

    ``x_group``/``y_group``: −1 moves by itself, −2 does not move, else the number of its group.
    ``y_sign``: −1 when the group's move across is mirrored for it. ``y_low``/``y_high``: limits of y.
    """

    x_group: Ints
    y_group: Ints
    y_sign: Floats
    y_low: Floats
    y_high: Floats
    length: Floats
    movable: NDArray[np.bool_]


def compact(
    hulls: Hulls,
    skip: NDArray[np.bool_],
    shape: Ints,
    x: Floats,
    y: Floats,
    motion: Motion,
    *,
    rounds: int = 4,
    trust: float = 12.0,
) -> tuple[Floats, Floats, float] | None:
    """Positions pushed together and the length they need, or None when overlap cannot be taken out.

    ``x`` are left ends (≥ 0) and ``y`` positions; shapes are normalised to least x and y of 0.
    """
    best: tuple[Floats, Floats, float] | None = None
    for turn in range(rounds):
        step = _step(hulls, skip, shape, x, y, motion, trust)
        if step is None:
            break
        x, y = step
        length = float((x + motion.length)[motion.movable].max())
        clean = float(worst_depth(hulls, skip, shape, x, y, TOUCH_MM)) <= TOUCH_MM
        if clean:
            if best is not None and best[2] - length < 0.3:
                if length < best[2]:
                    best = (x, y, length)
                break
            best = (x, y, length)
        elif best is not None or turn >= 2:
            break
    return best


def _step(
    hulls: Hulls, skip: NDArray[np.bool_], shape: Ints, x: Floats, y: Floats, motion: Motion, trust: float
) -> tuple[Floats, Floats] | None:
    # half a second to import, and a first answer does not need it
    from scipy.optimize import linprog
    from scipy.sparse import csr_array

    n = len(shape)
    # two movers come nearer by at most this much
    reach = 2 * np.sqrt(2.0) * trust
    room = 2000
    while True:
        pairs, rows = np.empty((room, 2), dtype=np.int64), np.empty((room, 3))
        count = int(half_planes(hulls, skip, shape, x, y, reach, pairs, rows))
        if count >= 0:
            break
        room *= 2
    pairs, rows = pairs[:count], rows[:count]
    column_x, column_y, columns = _columns(motion, n)
    # of two parts of one pair kept apart in nearly the same direction the nearer one says it all
    along, across, distance = rows[:, 0], rows[:, 1], rows[:, 2]
    overlapping = distance < CLEAR_MM
    slack_of = np.full(count, -1, dtype=np.int64)
    slacks = 0
    if overlapping.any():
        keys = pairs[:, 0] * n + pairs[:, 1]
        guilty, number = np.unique(keys[overlapping], return_inverse=True)
        slacks = len(guilty)
        slack_of[overlapping] = number
    length_column = columns
    total = columns + 1 + slacks
    # n·(v − u) ≥ clear − distance   →   −n·v + n·u ≤ distance − clear
    data: list[Floats] = []
    row_at: list[Ints] = []
    column_at: list[Ints] = []
    index = np.arange(count)

    def put(where: Ints, sign: Floats, at: Ints) -> None:
        kept = where >= 0
        data.append(sign[kept])
        row_at.append(at[kept])
        column_at.append(where[kept])

    i, j = pairs[:, 0], pairs[:, 1]
    put(column_x[i], along, index)
    put(column_y[i], across * motion.y_sign[i], index)
    put(column_x[j], -along, index)
    put(column_y[j], -across * motion.y_sign[j], index)
    put(np.where(slack_of >= 0, slack_of + columns + 1, -1), -np.ones(count), index)
    limits = [np.maximum(distance - CLEAR_MM, -1e6)]
    # x + length ≤ L
    movers = np.flatnonzero(motion.movable)
    at = count + np.arange(len(movers))
    put(column_x[movers], np.ones(len(movers)), at)
    put(np.full(len(movers), length_column), -np.ones(len(movers)), at)
    limits.append(-(x + motion.length)[movers])
    matrix = csr_array(
        (np.concatenate(data), (np.concatenate(row_at), np.concatenate(column_at))), shape=(count + len(movers), total)
    )
    low, high = np.full(total, -trust), np.full(total, trust)
    for k in movers:
        if column_x[k] >= 0:
            low[column_x[k]] = max(low[column_x[k]], -float(x[k]))
        if column_y[k] >= 0:
            down, up = float(motion.y_low[k] - y[k]), float(motion.y_high[k] - y[k])
            if motion.y_sign[k] < 0:
                down, up = -up, -down
            low[column_y[k]] = max(low[column_y[k]], down)
            high[column_y[k]] = min(high[column_y[k]], up)
    low[length_column], high[length_column] = 0.0, np.inf
    low[columns + 1 :], high[columns + 1 :] = 0.0, np.inf
    # what a rounding put a hair outside is first brought back
    high = np.maximum(high, low)
    cost = np.zeros(total)
    cost[length_column] = 1.0
    for column in column_x[movers]:
        if column >= 0:
            cost[column] += 0.02 / len(movers)
    cost[columns + 1 :] = 50.0
    found: Any = linprog(
        cost, A_ub=matrix, b_ub=np.concatenate(limits), bounds=np.column_stack([low, high]), method="highs"
    )
    if found.status != 0:
        return None
    move = found.x
    new_x, new_y = x.copy(), y.copy()
    for k in movers:
        if column_x[k] >= 0:
            new_x[k] = max(0.0, new_x[k] + move[column_x[k]])
        if column_y[k] >= 0:
            new_y[k] += motion.y_sign[k] * move[column_y[k]]
    return new_x, new_y


def _columns(motion: Motion, n: int) -> tuple[Ints, Ints, int]:
    """The column of each shape's move along and across (−1: does not move), and how many columns there are."""
    column_x, column_y = np.full(n, -1, dtype=np.int64), np.full(n, -1, dtype=np.int64)
    count = 0
    shared: dict[tuple[str, int], int] = {}
    for k in range(n):
        if not motion.movable[k]:
            continue
        for axis, group, columns in (("x", motion.x_group, column_x), ("y", motion.y_group, column_y)):
            number = int(group[k])
            if number == -2:
                continue
            if number == -1:
                columns[k] = count
                count += 1
                continue
            if (axis, number) not in shared:
                shared[axis, number] = count
                count += 1
            columns[k] = shared[axis, number]
    return column_x, column_y, count
