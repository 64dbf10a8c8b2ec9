"""How much a cloth shrinks, how sure that is, and what to plan with.

Dimensional change is AATCC TM135's and ISO 5077's; the sign is turned round, so that shrinkage is
positive when the cloth gets smaller.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from statistics import stdev
from typing import Literal

from scipy.special import stdtrit

from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, count, length, numbered, of, percent

TM135 = Source("standard", "AATCC TM135, ISO 5077", "dimensional change from marked distances")


GUM = Source(
    "standard",
    "GUM, JCGM 100",
    "a tape’s error is uniform over one graduation, k = 2; scatter by Student’s t; the larger counts",
)


Direction = Literal["warp", "weft"]


#: Readings closer than this cannot be told from a slip of the tape.
LEAST_MARK_MM = 20.0
#: What a tape is read to at the finest and at the coarsest, mm.
GRADUATIONS_MM = (0.1, 20.0)
#: What a usual tape is read to, in mm, by the units on it: 1 mm, or 1/16 in. Common practice, no source.
TAPES_MM: dict[str, float] = {"metric": 1.0, "imperial": 25.4 / 16}
#: A swatch that is said to have shrunk or grown by more than this, per cent, was misread. From memory.
MOST_SHRUNK, MOST_GROWN = 50.0, 20.0


class BadReadings(ValueError):
    """Readings that cannot be worked with; the message is a sentence that says which and why."""


def dimensional_change(before: float, after: float) -> float:
    """Change in per cent, ``100 × (after − before) / before``; negative when it shrinks (AATCC TM135)."""
    return 100.0 * (after - before) / before


def expanded_uncertainty(before: float, graduation: float, readings: int) -> float:
    """``U = 2 × 100/before × √(2·r²/12 / n)`` in per cent, for a tape read to ``graduation`` millimetres."""
    return 2.0 * 100.0 / before * math.sqrt(2.0 * graduation**2 / 12.0 / readings)


#: How sure the mean of several readings is meant to be, one-sided. [GUM's way]
SURE = 0.975
#: From so many readings on their scatter is told by Student's t; two only tell half their difference.
LEAST_FOR_T = 3


def student_t(sure: float, n: int) -> float:
    """Student's t of ``n`` readings: what the mean's standard error is multiplied by to be sure to ``sure``."""
    return float(stdtrit(n - 1, sure))


def scatter(before: Sequence[float], after: Sequence[float]) -> float | None:
    """How far the mean may be off by what the single readings' shrinkages scatter, per cent; None for one reading.

    ``t(0.975, n − 1) × standard deviation ÷ √n`` from three readings on; of two, half their difference.
    """
    n = len(before)
    if n < 2:
        return None
    each = [-dimensional_change(b, a) for b, a in zip(before, after, strict=True)]
    if n < LEAST_FOR_T:
        return abs(each[0] - each[1]) / 2.0
    return student_t(SURE, n) * stdev(each) / math.sqrt(n)


def divide_not_add(needed: float, shrinkage_percent: float) -> float:
    """The length before washing that leaves ``needed`` after it: ``needed / (1 − s)``, millimetres."""
    return needed / (1.0 - shrinkage_percent / 100.0)


def check_readings(before: Sequence[float], after: Sequence[float], direction: Direction) -> None:
    """Raise :class:`BadReadings` when no shrinkage can be worked out from these."""
    along = "along the warp" if direction == "warp" else "along the weft"
    if len(before) != len(after):
        raise BadReadings(
            f"There are {len(before)} readings before and {len(after)} after {along}. "
            "Every reading before washing needs one after."
        )
    if not before:
        raise BadReadings(f"There is no reading {along} yet. Measure before and after washing.")
    for place, (b, a) in enumerate(zip(before, after, strict=True), start=1):
        if b < LEAST_MARK_MM or a <= 0:
            raise BadReadings(f"Reading {place} {along} is too small to be a swatch; give the marked distance.")
        change = -dimensional_change(b, a)
        if change > MOST_SHRUNK or change < -MOST_GROWN:
            verb = "shrunk" if change > 0 else "grown"
            raise BadReadings(
                f"Reading {place} {along} says the swatch has {verb} by {abs(change):.0f} %. "
                "Look at both numbers again: one may be in another unit or a slip of the tape."
            )


def swatch_shrinkage(
    before: Sequence[float], after: Sequence[float], graduation: float, direction: Direction
) -> Figure:
    """Shrinkage of one direction from ``n`` pairs of readings in millimetres, with how sure it is.

    ``value`` is the shrinkage in per cent, ``low``/``high`` its expanded range (k = 2).
    Raises :class:`BadReadings`.
    """
    check_readings(before, after, direction)
    n = len(before)
    befores, afters = (numbered(name, map(length, v)) for name, v in (("before", before), ("after", after)))
    mean_before, mean_after = math.fsum(before) / n, math.fsum(after) / n
    shrunk = -dimensional_change(mean_before, mean_after) + 0.0
    tape = expanded_uncertainty(mean_before, graduation, n)
    means = (("mean before", length(mean_before)), ("mean after", length(mean_after)))
    graduated = ("one graduation", length(graduation))
    steps = [
        Step(f"mean before, {direction}", of("mean", befores), befores, length(mean_before)),
        Step(f"mean after, {direction}", of("mean", afters), afters, length(mean_after)),
        Step("shrinkage", "(mean before − mean after) ÷ mean before", means, percent(shrunk)),
        Step(
            "sureness of the tape",
            "2 × √(2 × one graduation² ÷ 12 ÷ n) ÷ mean before",
            (means[0], graduated, ("n", count(n))),
            percent(tape),
        ),
    ]
    spread = scatter(before, after)
    sure = tape
    if spread is not None:
        sure = max(tape, spread)
        steps += _scattered(before, after, spread)
        both = (("sureness of the tape", percent(tape)), ("scatter", percent(spread)))
        steps.append(Step("unsure by", of("largest", both), both, percent(sure)))
    else:
        steps.append(
            Step("unsure by", "sureness of the tape", (("sureness of the tape", percent(tape)),), percent(sure))
        )
    ends = (("shrinkage", percent(shrunk)), ("unsure by", percent(sure)))
    steps.append(Step("at least", "shrinkage − unsure by", ends, percent(shrunk - sure)))
    steps.append(Step("at most", "shrinkage + unsure by", ends, percent(shrunk + sure)))
    note = ONE_READING if n == 1 else TWO_READINGS if n == 2 else ""
    return Figure(shrunk, "percent", shrunk - sure, shrunk + sure, tuple(steps), (TM135, GUM), note)


#: What too few readings cannot tell.
ONE_READING = "one reading cannot tell how the cloth differs from place to place: mark three"
TWO_READINGS = "two readings hardly tell how the cloth differs from place to place: mark a third"


def _scattered(before: Sequence[float], after: Sequence[float], spread: float) -> list[Step]:
    """The working of the scatter between readings."""
    n = len(before)
    each = numbered("shrinkage", (percent(-dimensional_change(b, a)) for b, a in zip(before, after, strict=True)))
    steps = [
        Step(name, "(before − after) ÷ before", (("before", length(b)), ("after", length(a))), value)
        for (name, value), b, a in zip(each, before, after, strict=True)
    ]
    if n < LEAST_FOR_T:
        ends = f"(largest of ({each[0][0]}, {each[1][0]}) − smallest of ({each[0][0]}, {each[1][0]})) ÷ 2"
        return [*steps, Step("scatter", ends, each, percent(spread), "half their difference")]
    deviation = percent(stdev([value.value for _, value in each]))
    t = Quantity(student_t(SURE, n), "ratio")
    put = (("t", t), ("deviation", deviation), ("n", count(n)))
    return [
        *steps,
        Step("deviation", of("deviation", each), each, deviation),
        Step("scatter", "t × deviation ÷ √(n)", put, percent(spread), f"Student’s t at {SURE:g} for n readings"),
    ]


def plan_with(shrinkage: Figure) -> Figure:
    """The pessimistic end, ``s + U`` (the top of the range), never below nought."""
    most = shrinkage.high if shrinkage.high is not None else shrinkage.value
    top = max(0.0, most)
    step = Step("plan with", "largest of (at most, 0)", (("at most", percent(most)),), percent(top))
    return Figure(top, "percent", None, None, (*shrinkage.steps, step), shrinkage.sources, shrinkage.note)


def least_swatch(graduation: float, readings: int, wanted: float = 1.0) -> float:
    """The marked distance, millimetres, at which the tape alone is sure to ``wanted`` per cent."""
    return 2.0 * 100.0 / wanted * math.sqrt(2.0 * graduation**2 / 12.0 / readings)


def check_graduation(graduation: float) -> None:
    """Raise :class:`BadReadings` for a tape that nobody has."""
    least, most = GRADUATIONS_MM
    if not least <= graduation <= most:
        told = "A tape's graduation lies between {least} and {most}; 1 mm or 1/16 in are usual."
        raise BadReadings(Sentence(told, least=about(least), most=about(most)))
