"""What a lay leaves over: the largest rectangles of cloth along the grain that no piece and no flaw touches."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import Polygon

from ..plan.outline import Outline

#: Cloth is looked at in squares of this side, mm; a square that is touched is not left over.
SQUARE_MM = 10.0
#: Rectangles with a side shorter than this are of no use, mm. Common practice, no source.
LEAST_SIDE_MM = 100.0
TOUCH_MM = 0.01
#: So many are told, the largest first.
MOST = 3


@dataclass(frozen=True)
class Rectangle:
    """From the cut end and the near side of the usable width, mm."""

    x: float
    y: float
    along: float
    across: float


def left_over(pieces: Sequence[Outline], length: float, width: float) -> tuple[Rectangle, ...]:
    """The largest rectangles beside these outlines on ``length`` of cloth, none over another."""
    columns, rows = int(length / SQUARE_MM), int(width / SQUARE_MM)
    if not columns or not rows:
        return ()
    free: NDArray[np.bool_] = np.ones((rows, columns), dtype=np.bool_)
    xs, ys = np.arange(columns) * SQUARE_MM, np.arange(rows) * SQUARE_MM
    squares = shapely.box(*np.meshgrid(xs, ys), *np.meshgrid(xs + SQUARE_MM, ys + SQUARE_MM))
    for outline in pieces:
        # what only runs along a square does not touch it
        shape = Polygon(outline).buffer(-TOUCH_MM)
        if shape.is_empty:
            continue
        shapely.prepare(shape)
        x0, y0, x1, y1 = shape.bounds
        part = np.s_[
            max(0, int(y0 / SQUARE_MM)) : max(0, int(y1 / SQUARE_MM) + 1),
            max(0, int(x0 / SQUARE_MM)) : max(0, int(x1 / SQUARE_MM) + 1),
        ]
        free[part] &= ~shapely.intersects(shape, squares[part])
    found: list[Rectangle] = []
    while len(found) < MOST:
        row, column, high, wide = _largest(free)
        if min(high, wide) * SQUARE_MM < LEAST_SIDE_MM:
            break
        found.append(Rectangle(column * SQUARE_MM, row * SQUARE_MM, wide * SQUARE_MM, high * SQUARE_MM))
        free[row : row + high, column : column + wide] = False
    return tuple(found)


def _largest(free: NDArray[np.bool_]) -> tuple[int, int, int, int]:
    """The largest all-free rectangle as (row, column, rows, columns): under each row the heights of free columns, and
    for each the widest run that is as high (the stack method for the largest rectangle in a histogram)."""
    best, found = 0, (0, 0, 0, 0)
    heights = np.zeros(free.shape[1] + 1, dtype=np.int64)
    least = int(LEAST_SIDE_MM / SQUARE_MM)
    for row in range(free.shape[0]):
        heights[:-1] = np.where(free[row], heights[:-1] + 1, 0)
        stack: list[tuple[int, int]] = []
        for column, high in enumerate(heights.tolist()):
            begin = column
            while stack and stack[-1][1] >= high:
                begin, tall = stack.pop()
                wide = column - begin
                if tall * wide > best and min(tall, wide) >= least:
                    best, found = tall * wide, (row - tall + 1, begin, tall, wide)
            stack.append((begin, high))
    return found
