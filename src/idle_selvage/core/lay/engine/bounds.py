"""Lengths no lay can go below. Each bound is a theorem, stated with its proof in a line or two.

All are proved for the problem without its matching rules: a rule left out only lets more lays in, so a bound
without it holds with it too. Rounding is always in favour of a smaller bound.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..problem import Problem, piece_area
from .folds import SIMPLE, Way, fixed_end, strip_for, ways
from .matching import Matching
from .orientations import Ring
from .strips import CannotFold, Part, Strip

#: Overlap is only judged to 0.1 mm.
GIVE_MM = 0.1


def area_bound(strip: Strip, more: float = 0.0) -> float:
    """Theorem: length ≥ Σ area ÷ width.

    Parts lie inside the strip without overlap, so their areas add up to at most length × width; ``more`` is
    the area of what is fixed there already.
    """
    return (sum(part.area for part in strip.parts) + more) / (strip.width + GIVE_MM) - GIVE_MM


def longest_bound(strip: Strip) -> float:
    """Theorem: length ≥ the extent along the cloth of every part in its shortest allowed pose."""
    return max((_shortest(part) for part in strip.parts), default=0.0) - GIVE_MM


def _shortest(part: Part) -> float:
    return min(float(np.ptp(v.ring[:, 0])) for v in part.variants)


def middle_bound(strip: Strip) -> float:
    """Theorem: length ≥ Σ over parts of the least chord on the middle line they can show.

    A part taller than half the strip must cross the middle line, wherever it lies, at a height of its own
    between what its lowest and its highest position leave. Chords of different parts are disjoint stretches
    of one line, so they add up to at most the length.
    """
    middle = (strip.low + strip.high) / 2
    return line_bound(strip, middle)


def line_bound(strip: Strip, y: float) -> float:
    """Theorem: on any line along the strip the chords of all parts are disjoint, so that their least values,
    over every pose and position allowed, add up to at most the length."""
    known: dict[int, float] = {}
    total = 0.0
    for part in strip.parts:
        if id(part.variants) not in known:
            known[id(part.variants)] = _least_chord(part, y)
        total += known[id(part.variants)]
    return total


def side_by_side_bound(strip: Strip) -> float:
    """Theorem: length ≥ Σ of the shortest extents of rectangles taller than half the strip.

    Two of them cannot share a line across, which is shorter than their heights together; so their extents
    along are disjoint stretches of the length. (A shape that is no rectangle may nest, and is left out.)
    """
    total = 0.0
    for part in strip.parts:
        if min(float(np.ptp(v.ring[:, 1])) for v in part.variants) * 2 <= strip.width + GIVE_MM:
            continue
        if all(_is_box(v.ring) for v in part.variants):
            total += _shortest(part) - GIVE_MM
    return total


def _is_box(ring: Ring) -> bool:
    span = np.ptp(ring, axis=0)
    x, y = ring[:, 0], ring[:, 1]
    area = 0.5 * abs(float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))))
    return bool(area > span[0] * span[1] * (1 - 1e-9))


def strip_bound(strip: Strip, more: float = 0.0) -> float:
    """The greatest of the theorems above, millimetres."""
    lines = np.linspace(strip.low, strip.high, 17)[1:-1]
    found = max(
        area_bound(strip, more),
        longest_bound(strip),
        side_by_side_bound(strip),
        *(line_bound(strip, float(y)) for y in lines),
    )
    return max(0.0, found)


def bound_of(problem: Problem, fold: str) -> float:
    """A length no lay of the problem with this fold goes below.

    Every lay opens out to one on the open cloth, so the open bound holds for every fold; a fold's own strip
    may say more. Raises :class:`CannotFold` when the pieces are too wide for the cloth.
    """
    bare = replace(
        problem,
        pieces=tuple(replace(p, match=(), centre_on_axis=None, fixed=(), copies=p.copies) for p in problem.pieces),
    )
    left = {p.id: p.copies - len(p.fixed) for p in problem.pieces}
    more = sum(piece_area(p) * len(p.fixed) for p in problem.pieces)
    matching = Matching(bare)
    least = max(fixed_end(problem) - GIVE_MM, _bound(bare, ways(bare, "open")[0], matching, left, more))
    # what is fixed may lie on either layer, a depth may be chosen, and bars may keep a piece off its fold: only
    # plain folds say more
    matched = any(p.match or p.centre_on_axis for p in problem.pieces)
    if fold in SIMPLE and fold not in ("open", "partial") and not more and not matched:
        try:
            way = ways(bare, fold)[0]
            least = max(least, _bound(bare, way, matching, left, 0.0))
        except CannotFold:
            pass
    return least


def _bound(problem: Problem, way: Way, matching: Matching, left: dict[str, int], more: float) -> float:
    if not any(left.values()):
        return 0.0
    strip = strip_for(replace(problem, blocked=(), blocked_shapes=()), way, matching, (), copies=left)
    return strip_bound(strip, more) * strip.lengths


def _least_chord(part: Part, y: float) -> float:
    least = np.inf
    for variant in part.variants:
        # the line's height over the origin, from the highest position of the part to the lowest
        low, high = y - variant.high - GIVE_MM, y - variant.low + GIVE_MM
        if variant.high - variant.low < 1e-9:
            low = high = y - variant.low
        bottom, top = float(variant.ring[:, 1].min()), float(variant.ring[:, 1].max())
        if low <= bottom or high >= top:
            return 0.0
        least = min(least, _chord_over(variant.ring, low, high))
    return float(max(0.0, least - GIVE_MM))


def _chord_over(ring: Ring, low: float, high: float) -> float:
    """Least total chord at heights ``low..high``: linear between corners, so look on both sides of each."""
    eps = 1e-6
    heights = {low, high}
    for y in ring[:, 1]:
        for side in (-eps, eps):
            if low <= y + side <= high:
                heights.add(float(y + side))
    return float(sections([ring[:, ::-1]], np.array(sorted(heights))).min())


def sections(rings: list[Ring], at: NDArray[Any]) -> NDArray[np.float64]:
    """How much of each line x = ``at`` lies within the rings (even and odd), mm."""
    crossings: list[NDArray[np.float64]] = []
    for ring in rings:
        a, b = ring, np.roll(ring, -1, axis=0)
        over = (a[None, :, 0] < at[:, None]) != (b[None, :, 0] < at[:, None])
        run = b[:, 0] - a[:, 0]
        with np.errstate(divide="ignore", invalid="ignore"):
            y = a[None, :, 1] + (b[:, 1] - a[:, 1])[None, :] * (at[:, None] - a[None, :, 0]) / run[None, :]
        crossings.append(np.where(over, y, np.inf))
    if not crossings:
        return np.zeros(len(at))
    y = np.sort(np.concatenate(crossings, axis=1), axis=1)
    pairs = y.shape[1] // 2 * 2
    with np.errstate(invalid="ignore"):
        lengths = y[:, 1:pairs:2] - y[:, 0:pairs:2]
    found: NDArray[np.float64] = np.where(np.isfinite(lengths), lengths, 0.0).sum(axis=1)
    return found
