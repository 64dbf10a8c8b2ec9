"""Lengths no lay can go below. Each bound is a theorem, stated with its proof in a line or two."""

from __future__ import annotations

import numpy as np

from .folds import Item, Strip
from .orientations import Ring

#: Rounding is always in favour of a smaller bound: overlap is only judged to 0.1 mm.
GIVE_MM = 0.1


def area_bound(strip: Strip) -> float:
    """Theorem: length ≥ Σ area ÷ width.

    Items lie inside the strip without overlap, so their areas add up to at most length × width. An item
    on two layers takes its outline once on the strip; an on-fold item half of its whole area.
    """
    on_strip = sum(item.area / 2 if item.on_fold else item.area for item in strip.items)
    return on_strip / (strip.width + GIVE_MM)


def longest_bound(strip: Strip) -> float:
    """Theorem: length ≥ the extent along the cloth of every item in its shortest allowed pose."""
    return max((min(p.size[0] for p in item.poses) for item in strip.items), default=0.0) - GIVE_MM


def middle_bound(strip: Strip) -> float:
    """Theorem: length ≥ Σ over items of the least chord on the middle line they can show.

    An item taller than half the strip must cross the middle line, wherever it lies, at a height of its own
    between ``h − w/2`` and ``w/2``. Chords of different items are disjoint stretches of one line, so they
    add up to at most the length. (On the fold the item's own height is fixed, which only narrows the range.)
    """
    found: dict[int, float] = {}
    for item in strip.items:
        # copies of one piece share their poses
        if id(item.poses) not in found:
            found[id(item.poses)] = _least_chord(item, strip.width)
    return sum(found[id(item.poses)] for item in strip.items)


def strip_bound(strip: Strip) -> float:
    """The greatest of the theorems above, millimetres."""
    return max(area_bound(strip), longest_bound(strip), middle_bound(strip))


def _least_chord(item: Item, width: float) -> float:
    least = np.inf
    for pose in item.poses:
        height = pose.size[1]
        low, high = height - width / 2 - GIVE_MM, width / 2 + GIVE_MM
        if low <= 0.0:
            return 0.0
        ring = pose.ring - pose.ring.min(axis=0)
        if item.on_fold:
            low = high = width / 2
        least = min(least, _chord_over(ring, low, min(high, height)))
    return float(max(0.0, least - GIVE_MM))


def _chord_over(ring: Ring, low: float, high: float) -> float:
    """Least total chord at heights ``low..high``: linear between corners, so look on both sides of each."""
    eps = 1e-6
    heights = {low, high}
    for y in ring[:, 1]:
        for side in (-eps, eps):
            if low <= y + side <= high:
                heights.add(float(y + side))
    return min(_chord(ring, y) for y in heights)


def _chord(ring: Ring, y: float) -> float:
    a, b = ring, np.roll(ring, -1, axis=0)
    crossing = (a[:, 1] < y) != (b[:, 1] < y)
    if not crossing.any():
        return 0.0
    a, b = a[crossing], b[crossing]
    xs = np.sort(a[:, 0] + (b[:, 0] - a[:, 0]) * (y - a[:, 1]) / (b[:, 1] - a[:, 1]))
    return float((xs[1::2] - xs[0::2]).sum())
