"""The trade's formulas written a second time, from the trade's rules alone, to check the core by.

Nothing of the core is imported. Lengths are millimetres, shrinkages parts of one (not per cent). Student's t comes from
scipy.stats, the rest is arithmetic. Sources stand beside each.
"""

from __future__ import annotations

import math
from fractions import Fraction
from statistics import fmean, stdev

from scipy import stats

YARD = 914.4
INCH = 25.4

#: planning ranges before a swatch, parts of a hundred; common practice, from memory
RANGES = {
    "cotton": ((3, 5), (1, 4)),
    "linen": ((4, 8), (3, 6)),
    "viscose": ((5, 10), (3, 8)),
    "lyocell": ((2, 5), (1, 4)),
    "silk": ((2, 6), (1, 4)),
    "wool": ((2, 6), (2, 5)),
    "polyester": ((0, 1), (0, 1)),
    "nylon": ((0, 2), (0, 2)),
    "acetate": ((1, 3), (1, 3)),
}
GAUZE = ((5, 10), (5, 10))


def sureness(before: list[float], after: list[float], r: float) -> float:
    """U, parts of one: the larger of the tape's (each reading uniform over r, k = 2; GUM) and the scatter's (t for
    0.975; of two readings half their difference)."""
    n = len(before)
    tape = 2 / fmean(before) * math.sqrt(2 * r * r / 12 / n)
    single = [(b - a) / b for b, a in zip(before, after, strict=True)]
    if n == 1:
        return tape
    if n == 2:
        return max(tape, abs(single[0] - single[1]) / 2)
    return max(tape, float(stats.t.ppf(0.975, n - 1)) * stdev(single) / math.sqrt(n))


def swatch(rows: list[list[float]], washes: int, r: float) -> tuple[float, float, float]:
    """Low, best and high after so many washes (AATCC TM135: mean after against mean before); the high end never below
    that of an earlier wash."""
    highs, low, best = [], 0.0, 0.0
    for wash in range(1, washes + 1):
        before, after = [row[0] for row in rows], [row[wash] for row in rows]
        best = 1 - fmean(after) / fmean(before)
        u = sureness(before, after, r)
        low = best - u
        highs.append(best + u)
    return low, best, max(highs)


def expected(fibres: list[tuple[str, float]], gauze: bool, way: int) -> tuple[float, float, float]:
    """Low, middle and high of the range: of a blend, of the fibre with a fifth or more that may shrink most; crinkled
    cloth as crinkled cloth whatever it is of."""
    there = [RANGES[name][way] for name, share in fibres if share >= 20]
    if gauze:
        there = [GAUZE[way], *(one for (name, _), one in zip(fibres, there, strict=False) if name != "cotton")]
    low, high = max(there, key=lambda ends: (ends[1], ends[0]))
    return low / 100, (low + high) / 200, high / 100


def next_of(tests: list[float]) -> tuple[float, float]:
    """Mean of one's own like tests, and what the next is planned with: mean + t(0.95) × s × √(1 + 1/n)."""
    n = len(tests)
    return fmean(tests), fmean(tests) + float(stats.t.ppf(0.95, n - 1)) * stdev(tests) * math.sqrt(1 + 1 / n)


def left_of(all_: float, gone: float) -> float:
    """What is still to come of a shrinkage once part of it has gone."""
    return 1 - (1 - all_) / (1 - gone)


def usable(widths: list[float], s: float, margins: float) -> float:
    """W × (1 − s) − both margins, W the narrowest place; common practice."""
    return min(widths) * (1 - max(0.0, s)) - margins


def to_buy(
    lay: float, ends: float, spare: float, s: float, step: float, extra: float = 0.0, least: float = 0.0
) -> float:
    """[lay + ends + spare] ÷ (1 − s), what is bought on purpose, up to the shop's step; common practice."""
    asked = max((lay + ends + spare) / (1 - max(0.0, s)) + extra, least)
    return math.ceil(asked / step - 1e-6 / step) * step


def flaw(x: float, w: float, low: float, high: float) -> tuple[float, float]:
    """Where a flaw may lie after shrinking: from its near end at the high shrinkage to its far end at the low one."""
    return x * (1 - high), (x + w) * (1 - low)


def strips_needed(edge: float, fullness: float, width: float, a: float, ring: bool) -> tuple[int, float]:
    """How many strips of the cloth's width, and what they come to joined: n·l − 2n·a round, n·l − 2(n − 1)·a flat."""
    n = 1
    while True:
        joined = n * width - 2 * (n if ring else n - 1) * a
        if joined >= edge * fullness - 1e-6:
            return n, joined
        n += 1


def bias_strips(long: float, wide: float, tape: float, a: float) -> float:
    """Strips at 45° of a rectangle, each as long as its shorter edge, less 2√2·a at each join; a strip shorter than two
    of its widths is all corner. Common practice."""

    def slant(c: float) -> float:
        # the part of x + y = c inside the rectangle
        return max(0.0, min(c, long) - max(0.0, c - wide)) * math.sqrt(2)

    pitch = tape * math.sqrt(2)
    good = []
    c = 0.0
    while c + pitch <= long + wide + 1e-9:
        one = min(slant(c), slant(c + pitch))
        if one >= 2 * tape - 1e-6:
            good.append(one)
        c += pitch
    return sum(good) - (len(good) - 1) * 2 * math.sqrt(2) * a if good else 0.0


#: the width conversion table of home-economics extension services, typed from memory; yards
WIDTHS = ((35, 36), (39, 39), (41, 41), (44, 45), (50, 50), (52, 54), (58, 60))
TABLE = """
1.75 1.5 1.5 1.375 1.25 1.125 1
2 1.75 1.75 1.625 1.5 1.375 1.25
2.25 2 2 1.75 1.625 1.5 1.375
2.5 2.25 2.25 2.125 1.75 1.75 1.625
2.875 2.5 2.5 2.25 2 1.875 1.75
3.125 2.75 2.75 2.5 2.25 2 1.875
3.375 3 2.875 2.75 2.375 2.25 2
3.75 3.25 3.125 2.875 2.625 2.375 2.25
4.25 3.5 3.375 3.125 2.75 2.625 2.375
4.5 3.75 3.625 3.375 3 2.75 2.625
4.75 4 3.875 3.625 3.25 2.875 2.75
5 4.25 4.125 3.875 3.375 3.125 2.875
"""
ROWS = [[Fraction(x) for x in line.split()] for line in TABLE.strip().splitlines()]


def converted(yards: Fraction, printed: float, cloth: float) -> tuple[Fraction, int]:
    """Yards of a cloth so many inches wide for yards of a printed width: the cloth in its column or the next narrower,
    the printed width in its column or the next wider (so that too little is never bought), the next longer row, the
    first for anything below it; past the last row half of it, doubled. And how many columns lie between."""
    a = next(k for k, (_, high) in enumerate(WIDTHS) if printed <= high)
    b = max(k for k, (low, _) in enumerate(WIDTHS) if low <= cloth)
    parts = 1
    while yards / parts > ROWS[-1][a]:
        parts *= 2
    row = next(row for row in ROWS if row[a] >= yards / parts)
    return row[b] * parts, abs(a - b)


def size(bodies: list[float], mine: float, loose: bool, near: float = 5.0) -> int | None:
    """The size by its place: within 5 mm of one it is that; between two the smaller for loose garments; None past the
    ends by more than a size, or past the last for close ones."""
    for k, body in enumerate(bodies):
        if abs(body - mine) <= near:
            return k
    if mine < bodies[0]:
        return 0 if bodies[0] - mine <= bodies[1] - bodies[0] else None
    if mine > bodies[-1]:
        return len(bodies) - 1 if loose and mine - bodies[-1] <= bodies[-1] - bodies[-2] else None
    above = next(k for k, body in enumerate(bodies) if body >= mine)
    return above - 1 if loose else above


def skew(d: float, width: float) -> tuple[float, float]:
    """Per cent and degrees of a weft that is d off over the width; ASTM D3882."""
    return 100 * d / width, math.degrees(math.atan(d / width))


def twist(height: float, degrees: float) -> float:
    """How far a panel turns at the hem; common practice."""
    return height * math.tan(math.radians(degrees))
