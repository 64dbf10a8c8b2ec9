"""Bias strips out of a rectangle."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..wording import Sentence
from ..working import Figure, Source, Step, count, length
from .ruffles import BadStrip

BIAS = Source("common practice", "area of the rectangle ÷ width of the strip", "less what corners and joins take")


@dataclass(frozen=True)
class Tape:
    """Bias strips from a rectangle: length of tape by each method, mm, joins of the one and rounds of the other."""

    strips: Figure
    joins: int
    continuous: Figure
    rounds: int


def bias_tape(long: float, wide: float, tape: float, seam: float = 6.0) -> Tape:
    """Bias tape of cut width ``tape`` out of a rectangle, mm. Raises :class:`BadStrip`.

    Strips: lines at 45°, a tape's width apart; a strip as long as its shorter edge is used, from the corner where it
    first has its whole width; strips are joined with allowances of ``seam`` on the slant. Continuous: the rectangle is
    sewn to a tube with the edges shifted by one tape's width, and cut round and round.
    """
    if min(long, wide, tape) <= 0:
        raise BadStrip("Rectangle and tape must each be more than nothing.")
    if tape * math.sqrt(2.0) >= min(long, wide):
        raise BadStrip("The rectangle is too small for one slanted strip of that width.")
    a, b = max(long, wide), min(long, wide)
    pitch = tape * math.sqrt(2.0)
    # strip k lies between the slants that leave the long side at k·pitch and (k+1)·pitch
    lengths = [_slant(a, b, k * pitch, (k + 1) * pitch) for k in range(int((a + b) / pitch))]
    # a strip shorter than two of its widths is all corner
    good = [value for value in lengths if value >= 2 * tape - 1e-6]
    total = math.fsum(good) - max(0, len(good) - 1) * 2 * seam
    step = Step(
        "cut strips",
        "the strips at 45° − what the joins take",
        (("strips", count(len(good))), ("joins", count(max(0, len(good) - 1))), ("allowance", length(seam))),
        length(total),
    )
    strips = Figure(total, "length", steps=(step,), sources=(BIAS,))
    return Tape(strips, max(0, len(good) - 1), *_continuous(a, b, tape, seam))


def _slant(a: float, b: float, low: float, high: float) -> float:
    """Length of the strip between the slants x + y = low and x + y = high in a rectangle a × b: its shorter edge."""

    def chord(at: float) -> float:
        start, end = max(0.0, at - b), min(a, at)
        return max(0.0, end - start) * math.sqrt(2.0)

    return min(chord(low), chord(high))


def _continuous(a: float, b: float, tape: float, seam: float) -> tuple[Figure, int]:
    """The parallelogram: sewn edges lose two allowances, and the tube is cut in whole rounds."""
    # a triangle is moved from one end to the other: a parallelogram of base a and height b, one seam across it
    base = a - 2 * seam
    height = b - 2 * seam
    if base <= 0 or height <= 0:
        raise BadStrip("Nothing is left of the rectangle beside the seam allowances.")
    rounds = int(base / (tape * math.sqrt(2.0)) + 1e-9)
    each = height * math.sqrt(2.0)
    total = rounds * each
    inputs = (("rounds", count(rounds)), ("each round", length(each)), ("allowance", length(seam)))
    step = Step("continuous", "whole rounds × (height less two allowances) × √2", inputs, length(total))
    return Figure(total, "length", steps=(step,), sources=(BIAS,)), rounds


def compared(tape: Tape) -> Sentence:
    """Which way gives more tape, and by how much."""
    better = "the continuous method" if tape.continuous.value > tape.strips.value else "cut strips"
    more = abs(tape.continuous.value - tape.strips.value)
    told = "{more} more by {better}; the continuous method has its joins made in one seam."
    return Sentence(told, more=length(more), better=better)


def slants(long: float, wide: float, tape: float) -> tuple[tuple[float, float, float, float], ...]:
    """The lines at 45° along which the rectangle is cut, as (x0, y0, x1, y1) in mm from its corner."""
    pitch = tape * math.sqrt(2.0)
    places = [k * pitch for k in range(1, int((long + wide) / pitch) + 1)] if pitch > 0 else []
    return tuple(
        (min(at, long), max(0.0, at - long), max(0.0, at - wide), min(at, wide))
        for at in (round(place, 1) for place in places[:MOST_SLANTS])
    )


#: So many lines are drawn at most; more could not be told apart.
MOST_SLANTS = 400
