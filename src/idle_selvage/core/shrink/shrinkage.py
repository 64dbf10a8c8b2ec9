"""How much a cloth shrinks, how sure that is, and what to plan with.

Dimensional change is AATCC TM135's and ISO 5077's; the sign is turned round, so that shrinkage is
positive when the cloth gets smaller.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from ..wording import Sentence
from ..working import Figure, Source, Step, about, count, length, percent

TM135 = Source("standard", "AATCC TM135, ISO 5077", "dimensional change from marked distances")


GUM = Source("common practice", "uniform error of one graduation, k = 2", "how sure a tape reading is")


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


def scatter(before: Sequence[float], after: Sequence[float]) -> float | None:
    """Twice the standard error of the single readings' shrinkages, per cent; None below three readings."""
    n = len(before)
    if n < 3:
        return None
    each = [-dimensional_change(b, a) for b, a in zip(before, after, strict=True)]
    mean = math.fsum(each) / n
    deviation = math.sqrt(math.fsum((value - mean) ** 2 for value in each) / (n - 1))
    return 2.0 * deviation / math.sqrt(n)


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
    mean_before = math.fsum(before) / n
    mean_after = math.fsum(after) / n
    change = dimensional_change(mean_before, mean_after)
    shrunk = -change + 0.0
    tape = expanded_uncertainty(mean_before, graduation, n)
    spread = scatter(before, after)
    sure = max(tape, spread) if spread is not None else tape
    steps = [
        Step(
            f"mean before, {direction}",
            "sum of readings ÷ n",
            tuple((f"reading {i}", length(v)) for i, v in enumerate(before, 1)),
            length(mean_before),
        ),
        Step(
            f"mean after, {direction}",
            "sum of readings ÷ n",
            tuple((f"reading {i}", length(v)) for i, v in enumerate(after, 1)),
            length(mean_after),
        ),
        Step(
            "change",
            "100 × (after − before) ÷ before",
            (("before", length(mean_before)), ("after", length(mean_after))),
            percent(change),
        ),
        Step(
            "sureness of the tape",
            "2 × 100 ÷ before × √(2 r² ÷ 12 ÷ n)",
            (("before", length(mean_before)), ("r, one graduation", length(graduation)), ("n", count(n))),
            percent(tape),
        ),
    ]
    if spread is not None:
        steps.append(
            Step("scatter between readings", "2 × standard deviation ÷ √n", (("n", count(n)),), percent(spread))
        )
        steps.append(
            Step(
                "taken", "the larger of the two", (("tape", percent(tape)), ("scatter", percent(spread))), percent(sure)
            )
        )
    return Figure(shrunk, "percent", shrunk - sure, shrunk + sure, tuple(steps), (TM135, GUM))


def plan_with(shrinkage: Figure) -> Figure:
    """The pessimistic end, ``s + U`` (the top of the range), never below nought."""
    top = max(0.0, shrinkage.high if shrinkage.high is not None else shrinkage.value)
    step = Step(
        "plan with",
        "shrinkage + how unsure it is, at least 0",
        (("shrinkage", percent(shrinkage.value)), ("unsure by", percent(top - shrinkage.value))),
        percent(top),
    )
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
