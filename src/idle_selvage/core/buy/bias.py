"""Bias strips out of a rectangle."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..wording import Sentence
from ..working import Figure, Source, Step, count, length, numbered, of
from .ruffles import BadStrip

#: Strips joined on the straight grain lose so many allowances in length at each join: both ends are cut at 45°.
JOIN_TAKES = 2.0 * math.sqrt(2.0)
JOINED = Source("common practice", "a join on the straight grain takes 2√2 allowances of a strip’s length")
#: Out of one rectangle no more strips are cut: a metre square in a tape of 1 mm is fourteen hundred.
MOST_STRIPS = 2000
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
    if a + b > MOST_STRIPS * pitch:
        told = "That would be more than {most} strips; take a wider tape or a smaller rectangle."
        raise BadStrip(told.format(most=MOST_STRIPS))
    # strip k lies between the slants that leave the long side at k·pitch and (k+1)·pitch
    lengths = [_slant(a, b, k * pitch, (k + 1) * pitch) for k in range(int((a + b) / pitch))]
    # a strip shorter than two of its widths is all corner
    good = [value for value in lengths if value >= 2 * tape - 1e-6]
    joins = max(0, len(good) - 1)
    total = math.fsum(good) - joins * JOIN_TAKES * seam
    each = numbered("strip", map(length, good))
    in_all = ("strips in all", length(math.fsum(good)))
    put = (in_all, ("joins", count(joins)), ("allowance", length(seam)))
    steps = (
        Step(in_all[0], of("sum", each), each, in_all[1], "by their shorter edges, as they lie at 45°"),
        Step("cut strips", "strips in all − joins × 2 × √(2) × allowance", put, length(total)),
    )
    strips = Figure(total, "length", steps=steps, sources=(BIAS, JOINED))
    return Tape(strips, joins, *_continuous(a, b, tape, seam))


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
    allowance = ("allowance", length(seam))
    cut = Step(
        "rounds",
        "(long side − 2 × allowance) ÷ (tape × √(2)) rounded down to 1",
        (("long side", length(a)), allowance, ("tape", length(tape))),
        count(rounds),
    )
    round_ = Step(
        "each round", "(short side − 2 × allowance) × √(2)", (("short side", length(b)), allowance), length(each)
    )
    put = (("rounds", count(rounds)), ("each round", length(each)))
    steps = (cut, round_, Step("continuous", "rounds × each round", put, length(total)))
    return Figure(total, "length", steps=steps, sources=(BIAS,)), rounds


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
