"""Loose lines gathered into closed outlines: what was drawn stroke by stroke, or cut at the edges of pages."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..core.plan.outline import Point

#: Ends nearer than this are one, mm: a thin pen's width.
JOIN_MM = 0.3
#: Points of a run nearer than this are one, mm.
SAME_MM = 1e-4


@dataclass(frozen=True)
class Gathered:
    """Closed rings (the first point not repeated), runs that stay open, and how many gaps were bridged, the widest
    ``gap`` mm wide."""

    rings: tuple[tuple[Point, ...], ...]
    open: tuple[tuple[Point, ...], ...]
    joined: int
    gap: float


def gathered(runs: Sequence[Sequence[Point]], within: float = JOIN_MM) -> Gathered:
    """Runs joined end to end where exactly two ends meet, until they close or nothing meets any more.

    Of runs that lie one on the other, as in a drawing that holds its lines twice, one is kept.
    """
    kept = _once([_slim(run) for run in runs])
    rings = [run for run in kept if _closed(run, within)]
    loose = [run for run in kept if not _closed(run, within)]
    chains, joined, gap = _chained(loose, within)
    rings += [run for run in chains if _closed(run, within)]
    still = [run for run in chains if not _closed(run, within)]
    return Gathered(tuple(_open_end(ring) for ring in rings), tuple(tuple(run) for run in still), joined, gap)


def ring_area(ring: Sequence[Point]) -> float:
    """The area inside a ring, mm²; negative where it runs clockwise."""
    return 0.5 * sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))


def _slim(run: Sequence[Point]) -> list[Point]:
    return [p for i, p in enumerate(run) if i == 0 or math.dist(p, run[i - 1]) > SAME_MM]


def _closed(run: Sequence[Point], within: float) -> bool:
    return len(run) > 3 and math.dist(run[0], run[-1]) <= within


def _open_end(ring: Sequence[Point]) -> tuple[Point, ...]:
    return tuple(ring[:-1]) if math.dist(ring[0], ring[-1]) <= JOIN_MM else tuple(ring)


def _once(runs: Sequence[list[Point]]) -> list[list[Point]]:
    seen = set()
    out = []
    for run in runs:
        if len(run) < 2:
            continue
        key = tuple((round(x, 2), round(y, 2)) for x, y in run)
        # drawn from either end; of a ring from any of its points
        low = min(range(len(key)), key=lambda i, k=key: k[i])  # type: ignore[misc]
        same = (frozenset(key), len(key), key[low]) if key[0] == key[-1] else min(key, key[::-1])
        if same not in seen:
            seen.add(same)
            out.append(run)
    return out


def _chained(runs: list[list[Point]], within: float) -> tuple[list[list[Point]], int, float]:
    """Open runs joined where two ends meet and no third."""
    if not runs:
        return [], 0, 0.0
    ends = np.array([place for run in runs for place in (run[0], run[-1])])
    # a quarter of a second to import, and only what joins lines needs it
    from scipy.spatial import cKDTree

    tree = cKDTree(ends)
    near = tree.query_ball_point(ends, within)
    partner: dict[int, int] = {}
    for i, found in enumerate(near):
        others = [j for j in found if j != i]
        if len(others) == 1 and len(near[others[0]]) == 2:
            partner[i] = others[0]
    used = [False] * len(runs)
    out: list[list[Point]] = []
    joined, gap = 0, 0.0
    for start in _starts(len(runs), partner):
        if used[start // 2]:
            continue
        chain: list[Point] = []
        end = start
        while True:
            number = end // 2
            used[number] = True
            run = runs[number] if end % 2 == 0 else runs[number][::-1]
            chain += run if not chain else [p for p in run if math.dist(p, chain[-1]) > SAME_MM]
            far = partner.get(end ^ 1)
            if far is None or used[far // 2]:
                if far is not None and far == start and len(chain) > 2:
                    joined, gap = joined + 1, max(gap, math.dist(chain[0], chain[-1]))
                break
            joined, gap = joined + 1, max(gap, float(np.hypot(*(ends[far] - ends[end ^ 1]))))
            end = far
        out.append(chain)
    return out, joined, gap


def _starts(count: int, partner: dict[int, int]) -> list[int]:
    """Ends that meet nothing first, so that a chain begins at its end; then what goes round."""
    ends = range(2 * count)
    return [i for i in ends if i not in partner] + [i for i in ends if i in partner]
