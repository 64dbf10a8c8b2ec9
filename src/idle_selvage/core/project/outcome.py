"""How it came out: what is measured of the finished garment, beside what was predicted of it, and what that teaches.

A difference is always *measured − predicted*. What lies inside the predicted range came out as foreseen; where only one
value was predicted, what differs from it by no more than its kind is measured to.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from statistics import fmean, stdev
from typing import Literal

OutcomeKind = Literal["fit", "length", "twist", "seam", "pucker", "dye", "warp", "weft", "laying"]
#: mm, per cent, or a grade from 1 to 5.
OutcomeUnit = Literal["length", "percent", "grade"]
#: What it is measured of.
Of = Literal["garment", "piece", "seam", "cloth"]


@dataclass(frozen=True)
class KindFacts:
    """A kind of outcome: what it is called, in which unit, of what it is measured, how, and to what it is measured
    (``within``: a difference no larger is none)."""

    kind: OutcomeKind
    name: str
    unit: OutcomeUnit
    of: Of
    how: str
    within: float


#: Grades of puckered seams run from 5, smooth, to 1 (AATCC TM88B), those of dye from 5, none lost, to 1 (grey scale,
#: ISO 105-A03); both from memory. What a tape in a sewing room tells apart is common practice, no source.
KINDS: tuple[KindFacts, ...] = (
    KindFacts("fit", "How it fits", "grade", "garment", "From 5, as it was meant, to 1, it cannot be worn.", 0.0),
    KindFacts("length", "Finished length", "length", "piece",
              "Along its grain, from seam to seam, lying flat and not pulled.", 5.0),
    KindFacts("twist", "Twist at the hem", "length", "piece",
              "Hang it up, and measure how far its side seam has come round at the hem.", 3.0),
    KindFacts("seam", "Bars missing at a seam", "length", "seam",
              "Where they miss most, from bar to bar along the seam.", 1.0),
    KindFacts("pucker", "How smooth a seam is", "grade", "seam", "From 5, smooth, to 1, puckered all along.", 0.0),
    KindFacts("dye", "How the dye holds", "grade", "cloth", "From 5, as new, to 1, much of it gone or run.", 0.0),
    KindFacts("warp", "Shrinkage along, again", "percent", "cloth",
              "The same marked distance on the finished thing, before and after its washes.", 0.5),
    KindFacts("weft", "Shrinkage across, again", "percent", "cloth",
              "The same marked distance on the finished thing, before and after its washes.", 0.5),
    KindFacts("laying", "Laid beside its place", "length", "piece",
              "On the cut piece: how far its arrow lies from where the lay has it.", 0.5),
)  # fmt: skip
BY_KIND: dict[OutcomeKind, KindFacts] = {one.kind: one for one in KINDS}
#: Grades run from worst to best.
GRADES = (1, 5)


class BadOutcome(ValueError):
    """An outcome that cannot be; the message is a sentence."""


@dataclass(frozen=True)
class Predicted:
    """What was foreseen: its value, and the range it lies in where one is known."""

    value: float
    low: float | None = None
    high: float | None = None


@dataclass(frozen=True)
class Outcome:
    """One thing that was measured, beside what was predicted of it then (None: nothing was)."""

    kind: OutcomeKind
    name: str
    measured: float
    predicted: Predicted | None
    at: datetime

    @property
    def difference(self) -> float | None:
        """Measured − predicted."""
        return None if self.predicted is None else self.measured - self.predicted.value

    @property
    def foreseen(self) -> bool | None:
        """Whether it came out as foreseen; None where nothing was."""
        if self.predicted is None or self.difference is None:
            return None
        within = BY_KIND[self.kind].within
        low = self.predicted.value if self.predicted.low is None else self.predicted.low
        high = self.predicted.value if self.predicted.high is None else self.predicted.high
        return low - within <= self.measured <= high + within


def check_outcome(kind: OutcomeKind, measured: float) -> None:
    """Raise :class:`BadOutcome` for a value its kind cannot have."""
    facts = BY_KIND[kind]
    if facts.unit == "grade" and not (float(measured).is_integer() and GRADES[0] <= measured <= GRADES[1]):
        raise BadOutcome(f"{facts.name}: a grade is a whole number from {GRADES[0]} to {GRADES[1]}.")
    if facts.unit == "percent" and not -50.0 <= measured <= 50.0:
        raise BadOutcome(f"{facts.name}: {measured:.1f} % is more than cloth does; measure both distances again.")
    if facts.unit == "length" and not 0.0 <= measured <= 10_000.0:
        raise BadOutcome(f"{facts.name}: give a length up to 10 m.")


def shrunk(before: float, after: float) -> float:
    """The shrinkage of one marked distance, per cent, positive when it got smaller (TM135's formula, its sign turned).
    Raises :class:`BadOutcome`."""
    if before <= 0 or after <= 0:
        raise BadOutcome("Both distances must be measured: before the washes and after them.")
    return 100.0 * (before - after) / before


@dataclass(frozen=True)
class Learned:
    """What a kind's outcomes teach: how many had a prediction, how far off it was on the average and how much that
    scatters (None of fewer than two), and how many came out as foreseen."""

    kind: OutcomeKind
    count: int
    mean: float
    spread: float | None
    foreseen: int


def learned(outcomes: Sequence[Outcome]) -> tuple[Learned, ...]:
    """What is learned of each kind that was predicted at least once."""
    out = []
    for facts in KINDS:
        off = [one.difference for one in outcomes if one.kind == facts.kind and one.difference is not None]
        if off:
            hits = sum(one.foreseen is True for one in outcomes if one.kind == facts.kind)
            out.append(Learned(facts.kind, len(off), fmean(off), stdev(off) if len(off) > 1 else None, hits))
    return tuple(out)


@dataclass(frozen=True)
class Bought:
    """What was bought of a cloth, what was needed, mm, and what that costs; ``price`` of a metre, None: not said."""

    bought: float
    needed: float
    price: float | None = None

    @property
    def over(self) -> float:
        """Bought − needed, mm; negative where it was too little."""
        return self.bought - self.needed

    @property
    def cost(self) -> float | None:
        """What the part that was not needed cost."""
        return None if self.price is None else self.over / 1000.0 * self.price


def overbought(all_: Sequence[Bought]) -> tuple[float, float]:
    """How much was bought too much in all, mm, and as a share of what was needed."""
    over, needed = math.fsum(one.over for one in all_), math.fsum(one.needed for one in all_)
    return over, over / needed if needed > 0 else 0.0
