"""How much a cloth shrinks, how sure that is, and what to plan with.

Dimensional change is AATCC TM135's and ISO 5077's; the sign is turned round, so that shrinkage is
positive when the cloth gets smaller.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..working import Figure, Source, Step, count, length, percent

TM135 = Source("standard", "AATCC TM135, ISO 5077", "dimensional change from marked distances")
GUM = Source("common practice", "uniform error of one graduation, k = 2", "how sure a tape reading is")
PLANNING = Source("from memory", "planning ranges of common practice", "ranges, not promises: wash a swatch")

Direction = Literal["warp", "weft"]

#: Readings closer than this cannot be told from a slip of the tape.
LEAST_MARK_MM = 20.0


class BadReadings(ValueError):
    """Readings that cannot be worked with; the message is a sentence that says which and why."""


@dataclass(frozen=True)
class PlanningRange:
    """Shrinkage to expect before any swatch was washed, per cent."""

    kind: str
    label: str
    warp: tuple[float, float]
    weft: tuple[float, float]
    pre_treatment: str


#: Common practice, from memory. Ranges, not promises.
PLANNING_RANGES: tuple[PlanningRange, ...] = (
    PlanningRange("cotton", "Cotton, plain", (3, 5), (1, 4), "warm wash, warm or hot tumble, press damp"),
    PlanningRange(
        "flannel",
        "Cotton flannel, loose weave",
        (5, 10),
        (3, 8),
        "warm wash, warm or hot tumble, press damp, often twice",
    ),
    PlanningRange("gauze", "Double or triple gauze", (5, 10), (5, 10), "warm wash, tumble low, do not press flat"),
    PlanningRange("denim-raw", "Denim, raw", (7, 10), (3, 6), "hot soak or wash, up to three times"),
    PlanningRange("denim-washed", "Denim, washed", (2, 3), (1, 3), "one wash as the garment"),
    PlanningRange(
        "velveteen",
        "Corduroy or velveteen, cotton",
        (3, 6),
        (1, 3),
        "cool to warm, gentle, on its own or with a towel; tumble 5–10 min, then dry flat",
    ),
    PlanningRange("linen", "Linen", (4, 8), (3, 6), "warm wash, tumble and take out damp, press damp"),
    PlanningRange("viscose", "Viscose or modal", (5, 10), (3, 8), "cool hand wash, dry flat, never hang"),
    PlanningRange("lyocell", "Lyocell", (2, 5), (1, 4), "cool gentle, low tumble or line"),
    PlanningRange("silk", "Silk, washable", (2, 6), (1, 4), "cool hand wash, hang; steam only when dry-clean"),
    PlanningRange("wool", "Wool, woven", (2, 6), (2, 5), "steam, no agitation; wash only if the garment will be"),
    PlanningRange("polyester", "Polyester", (0, 1), (0, 1), "any wash its label allows"),
    PlanningRange("nylon", "Nylon", (0, 2), (0, 2), "cool, low tumble"),
    PlanningRange("acetate", "Acetate", (1, 3), (1, 3), "cool, weak when wet, dry flat, cool iron"),
    PlanningRange("fur", "Fur fabric, synthetic pile", (0, 2), (0, 2), "cool gentle, air dry, no dryer heat"),
)


def planning_range(kind: str) -> PlanningRange | None:
    """The planning range of a fibre and kind, or None when there is none."""
    return next((entry for entry in PLANNING_RANGES if entry.kind == kind), None)


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
        if change > 50 or change < -20:
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


def planned_from_range(entry: PlanningRange, direction: Direction) -> Figure:
    """Shrinkage before any swatch: the middle of the planning range, its ends as low and high."""
    low, high = entry.warp if direction == "warp" else entry.weft
    step = Step(
        f"{entry.label}, {direction}",
        "planning range until a swatch is washed",
        (("from", percent(low)), ("to", percent(high))),
        percent(high),
    )
    return Figure(
        (low + high) / 2,
        "percent",
        low,
        high,
        (step,),
        (PLANNING,),
        note="a range of common practice, not a measurement",
    )


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
