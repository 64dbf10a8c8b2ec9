"""Allowed ground: where one copy of a lay may be moved to while all the others stay.

For dragging a piece by hand. Rows are rounded outwards, so that whatever is called free is free.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from .answer import Lay
from .engine import rows
from .engine.folds import fixed_ring
from .engine.prepare import Frame, rows_of
from .engine.strips import Image, Obstacle, Part, Strip, Variant
from .problem import Fixed, Problem


@dataclass(frozen=True)
class FreeRow:
    """With the origin of the piece at this ``y``, its x may be anywhere in these stretches, millimetres."""

    y: float
    stretches: tuple[tuple[float, float], ...]


def allowed_ground(problem: Problem, lay: Lay, copy: int, turn: int, mirrored: bool, length: float) -> list[FreeRow]:
    """Where ``lay.cut[copy]`` may lie on the open cloth, in a turn, up to ``length``; others stay where they are.

    Matching is not looked at: the maker sees the bars. Raises IndexError for a copy that is not there.
    """
    entry = lay.cut[copy]
    by_id = {p.id: p for p in problem.pieces}
    piece = by_id[entry.piece]
    others = [
        Obstacle(fixed_ring(by_id[c.piece], Fixed(c.x, c.y, c.turn, c.mirrored)))
        for k, c in enumerate(lay.cut)
        if k != copy
    ]
    others += [Obstacle(np.array(outline, dtype=np.float64)) for outline in problem.kept_off]
    ring = fixed_ring(replace(piece, fixed=()), Fixed(0.0, 0.0, turn, mirrored))
    low, high = -float(ring[:, 1].min()), problem.width - float(ring[:, 1].max())
    if high < low:
        return []
    variant = Variant(turn, mirrored, ring, low, high, 1, (Image(turn, mirrored),))
    strip = Strip("open", 0.0, problem.width, problem.gap, (Part(piece.id, 1, 1.0, (variant,)),), tuple(others))
    frame = Frame(strip)
    table, taken, h = rows_of(frame)
    for name in ("cnt", "lo", "hi"):
        ground = getattr(table, f"ground_{name}")
        target = getattr(taken, name)
        target[tuple(slice(0, n) for n in ground.shape)] = ground
    spot = frame.spots[0]
    end = length + 2 * frame.half_gap - float(frame.shapes[spot.shape][:, 0].max())
    lo, hi = np.empty(256), np.empty(256)
    found = []
    for at in range(int(table.row_count[0])):
        count = int(rows.free_stretches(table, taken, 0, int(table.row[0]) + at, end, lo, hi)) if end >= 0 else 0
        shift = spot.corner[0] + frame.start_x
        y = frame.placed(0, 0, 0.0, min(spot.y_low + at * h, spot.y_high)).y
        found.append(FreeRow(y, tuple((float(lo[k]) - shift, float(hi[k]) - shift) for k in range(count))))
    return found
