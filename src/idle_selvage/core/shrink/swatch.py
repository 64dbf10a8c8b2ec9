"""A swatch over several washes: change per cycle and in all, its shape, and whether it has come to rest."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, length, percent
from .programme import Programme
from .shrinkage import (
    LEAST_MARK_MM,
    BadReadings,
    Direction,
    check_readings,
    dimensional_change,
    expanded_uncertainty,
    least_swatch,
    scatter,
    swatch_shrinkage,
)

TM179 = Source("standard", "AATCC TM179", "skew from the diagonals of a marked square; from memory")

BOTH_WAYS: tuple[Direction, Direction] = ("warp", "weft")
#: A wash that adds less than this, per cent, in both directions is the last.
AT_REST = 0.5
RESTS = Source("common practice", f"stop when a wash adds less than {AT_REST:g} % in both directions")
#: Kinds that usually want more than one wash. Common practice, no source.
WASH_TWICE = ("denim-raw", "flannel", "gauze")
MOST_WASHES = 8
#: A tape that leaves more than this, per cent, wants a larger swatch. Common practice, no source.
FINE_ENOUGH = 1.0
#: A square swatch as most people cut it, mm each way. Common practice, no source.
SQUARE_MM = 250.0
#: Diagonals of one square further apart than this share of their mean are a slip of the tape.
MOST_SKEW = 0.3

#: One marked distance: before, then after each wash; None where it was not measured.
Row = tuple[float | None, ...]
RestVerdict = Literal["unwashed", "once", "again", "stable", "unsure"]


@dataclass(frozen=True)
class Swatch:
    """Marked distances in millimetres, the tape's graduation, and the two diagonals before and after each wash.
    ``how`` it was washed and dried; None where that is not written down."""

    warp: tuple[Row, ...] = ()
    weft: tuple[Row, ...] = ()
    graduation: float = 1.0
    diagonals: tuple[tuple[float, float] | None, ...] = ()
    how: Programme | None = None

    def rows(self, direction: Direction) -> tuple[Row, ...]:
        return self.warp if direction == "warp" else self.weft

    def washes(self, direction: Direction) -> int:
        """How many washes were measured in a direction."""
        return max((i for row in self.rows(direction) for i, v in enumerate(row) if v is not None), default=0)

    def pairs(self, direction: Direction, wash: int | None = None, since: int = 0) -> list[tuple[float, float]]:
        """Readings at ``since`` (0: before) and after a wash (the last when None), where both were taken."""
        k = self.washes(direction) if wash is None else wash
        if k == since:
            return []
        found = []
        for row in self.rows(direction):
            if len(row) > k and row[since] is not None and row[k] is not None:
                found.append((float(row[since] or 0), float(row[k] or 0)))
        return found


@dataclass(frozen=True)
class Cycle:
    """One wash: change in all since before, and what this wash alone added, per cent; None where not measured."""

    wash: int
    warp: Figure | None
    weft: Figure | None
    warp_added: float | None
    weft_added: float | None
    skew: Figure | None


@lru_cache(maxsize=512)
def in_all(swatch: Swatch, direction: Direction, wash: int | None = None) -> Figure | None:
    """Shrinkage since before washing, per cent. Raises BadReadings for readings that cannot be."""
    pairs = swatch.pairs(direction, wash)
    if not pairs:
        return None
    return swatch_shrinkage([b for b, _ in pairs], [a for _, a in pairs], swatch.graduation, direction)


def added(swatch: Swatch, direction: Direction, wash: int) -> float | None:
    """What one wash added to the shrinkage, per cent of the length it began with."""
    pairs = swatch.pairs(direction, wash, wash - 1)
    if not pairs:
        return None
    return -dimensional_change(math.fsum(b for b, _ in pairs), math.fsum(a for _, a in pairs)) + 0.0


def cycles(swatch: Swatch) -> tuple[Cycle, ...]:
    """Every wash that was measured in either direction."""
    last = max(swatch.washes("warp"), swatch.washes("weft"))
    return tuple(
        Cycle(
            wash,
            in_all(swatch, "warp", wash),
            in_all(swatch, "weft", wash),
            added(swatch, "warp", wash),
            added(swatch, "weft", wash),
            skew_of(swatch, wash),
        )
        for wash in range(1, last + 1)
    )


def skew_from_diagonals(ac: float, bd: float) -> float:
    """Skew of a marked square from its diagonals, ``100 × 2 (AC − BD) ÷ (AC + BD)`` per cent (AATCC TM179)."""
    return 100.0 * 2.0 * (ac - bd) / (ac + bd)


def skew_of(swatch: Swatch, wash: int) -> Figure | None:
    """Skew after a wash (0: before any), when both diagonals were measured then."""
    if wash >= len(swatch.diagonals) or swatch.diagonals[wash] is None:
        return None
    ac, bd = swatch.diagonals[wash] or (0.0, 0.0)
    value = skew_from_diagonals(ac, bd)
    step = Step(
        "skew",
        "2 × (AC − BD) ÷ (AC + BD)",
        (("AC", length(ac)), ("BD", length(bd))),
        percent(value),
    )
    return Figure(value, "percent", steps=(step,), sources=(TM179,))


def corners(
    along: float, across: float, ac: float | None = None, bd: float | None = None
) -> tuple[tuple[float, float], ...]:
    """The swatch's true shape: corners from A, counter-clockwise, warp along x, millimetres.

    A parallelogram of sides a and b whose far side is shifted by s has AC² − BD² = 4 a s.
    """
    shift = 0.0
    if ac and bd and along > 0:
        shift = (ac * ac - bd * bd) / (4.0 * along)
        shift = max(-across, min(across, shift))
    high = math.sqrt(max(0.0, across * across - shift * shift))
    return ((0.0, 0.0), (along, 0.0), (along + shift, high), (shift, high))


_NTH = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


def verdict(swatch: Swatch, kind: str = "") -> tuple[RestVerdict, str]:
    """Whether the cloth has come to rest, and the sentence that says so.

    A wash is told of only where it was measured and the one before it too, and its change only where the swatch and
    its tape can tell it.
    """
    every = cycles(swatch)
    if not any(c.warp is not None and c.weft is not None for c in every):
        return "unwashed", "Wash the swatch as the garment will be washed, and measure it again."
    last = every[-1]
    name = _NTH[last.wash - 1]
    one, other = last.warp_added, last.weft_added
    if one is None or other is None:
        return _half_known(last, name)
    most, unsure = max(one, other), max(sure_of(swatch, way, last.wash) for way in BOTH_WAYS)
    if abs(one) < AT_REST and abs(other) < AT_REST:
        if unsure >= AT_REST:
            return "unsure", (
                f"The {name} wash seems to have added less than {AT_REST:g} %, but this swatch and tape tell it only "
                f"to ± {unsure:.1f} %. Measure a larger one."
            )
        return "stable", f"At rest: the {name} wash added less than {AT_REST:g} % both ways."
    if most < AT_REST:
        return "again", f"The {name} wash let it grow: look at the readings, press it, and measure again."
    if most <= unsure and last.wash > 1:
        return "unsure", (
            f"The {name} wash seems to have taken {most:.1f} % more, but this swatch and tape tell it only to "
            f"± {unsure:.1f} %. Measure a larger one."
        )
    if last.wash == 1 and kind not in WASH_TWICE:
        return "once", (
            f"One wash took {most:.1f} %. Whether that is all, only a second wash of the swatch can tell: for most "
            "cloth it is."
        )
    return "again", f"The {name} wash still took {most:.1f} %: wash once more."


def _half_known(last: Cycle, name: str) -> tuple[RestVerdict, str]:
    """The verdict where the last wash's own change is not known in both directions."""
    measured = [added for added in (last.warp_added, last.weft_added) if added is not None]
    if measured and max(measured) >= AT_REST:
        return "again", f"The {name} wash still took {max(measured):.1f} %: wash once more."
    if last.warp is None or last.weft is None:
        way = "warp" if last.warp is None else "weft"
        return "unsure", f"Measure along the {way} after the {name} wash too: what it added there is not known."
    before = _NTH[last.wash - 2]
    return "unsure", (
        f"Not every distance was measured after the {before} wash, so what the {name} one added is not known. Wash "
        "once more and measure after it."
    )


def sure_of(swatch: Swatch, direction: Direction, wash: int) -> float:
    """How unsure the change of one wash is, by the tape and by the readings' scatter, per cent; nought where it was not
    measured."""
    pairs = swatch.pairs(direction, wash, wash - 1)
    if not pairs:
        return 0.0
    before, after = [b for b, _ in pairs], [a for _, a in pairs]
    tape = expanded_uncertainty(math.fsum(before) / len(before), swatch.graduation, len(pairs))
    return max(tape, scatter(before, after) or 0.0)


def at_rest_unless(swatch: Swatch, kind: str) -> str:
    """What the last wash leaves open, as a sentence, or nothing."""
    state, said = verdict(swatch, kind)
    return said if state in ("again", "unsure") else ""


def too_small(swatch: Swatch) -> float | None:
    """When the tape alone leaves more than ±1 %, the marked distance that would do, millimetres; else None."""
    worst: float | None = None
    for direction in BOTH_WAYS:
        marks = [before for row in swatch.rows(direction) if row and (before := row[0]) is not None and before > 0]
        if not marks:
            continue
        mean = math.fsum(marks) / len(marks)
        if expanded_uncertainty(mean, swatch.graduation, len(marks)) > FINE_ENOUGH:
            worst = max(worst or 0.0, least_swatch(swatch.graduation, len(marks)))
    return worst


def marks_told(least: float, small: float | None, readings: int) -> Sentence:
    """How far apart marks must be, mm: ``least`` for so many readings, or ``small`` where a swatch's will not do."""
    fine = f"{FINE_ENOUGH:g} %"
    if small is not None:
        told = "Too small to tell {fine} with this tape: mark at least {small}, or read it more often."
        return Sentence(told, fine=fine, small=Quantity(small, "least"))
    told = "Marks {least} apart or more tell {fine} with this tape and {readings}."
    said = "1 reading" if readings == 1 else f"{readings} readings"
    return Sentence(told, least=Quantity(least, "least"), fine=fine, readings=said)


def how_to_begin() -> Sentence:
    """How a swatch is cut, marked and washed. Common practice."""
    return Sentence(
        "Cut a square of {side} along the selvage, stitch its edges, mark the warp, measure, wash and dry it as the "
        "finished thing will be, press it, and measure again.",
        side=about(SQUARE_MM),
    )


def row_fault(row: Sequence[float | None]) -> str:
    """What is wrong with one row's order, as a sentence, or nothing."""
    if not row or row[0] is None:
        return "Give the distance before washing first."
    if row[0] < LEAST_MARK_MM:
        return Sentence("That is too small to be a swatch; mark at least {least}.", least=about(LEAST_MARK_MM))
    if len(row) > MOST_WASHES + 1:
        return f"At most {MOST_WASHES} washes of one swatch can be kept."
    return ""


class BadReading(ValueError):
    """One reading of a swatch that cannot be. ``place``: which row, ``wash``: after which wash (0: before)."""

    def __init__(self, told: str, place: int, wash: int = 0) -> None:
        super().__init__(told)
        self.told, self.place, self.wash = told, place, wash


def trimmed(row: Sequence[float | None]) -> list[float | None]:
    """Without the nulls at the end: what was not measured yet."""
    kept = list(row)
    while kept and kept[-1] is None:
        kept.pop()
    return kept


def check_rows(rows: Sequence[Sequence[float | None]], direction: Direction) -> None:
    """Raise :class:`BadReading` for single readings that cannot be."""
    for place, row in enumerate(rows):
        fault = row_fault(row)
        before = row[0] if row else None
        if fault or before is None:
            raise BadReading(fault, place)
        for wash, after in enumerate(row[1:], start=1):
            if after is None:
                continue
            try:
                check_readings([before], [after], direction)
            except BadReadings as wrong:
                raise BadReading(str(wrong).replace("Reading 1", f"Reading {place + 1}"), place, wash) from None


#: Beyond these a change is asked back, per cent: no planning range reaches so far. Common practice, no source.
USUAL_SHRUNK, USUAL_GROWN = 14.0, 2.0


def odd_reading(rows: Sequence[Sequence[float | None]]) -> BadReading | None:
    """The first reading after a wash that looks like a slip: shrunk or grown by more than any cloth usually does."""
    for place, row in enumerate(rows):
        for wash, after in enumerate(row[1:], start=1):
            before = row[0]
            if before is None or after is None:
                continue
            lost = 100.0 * (before - after) / before
            if lost > USUAL_SHRUNK or lost < -USUAL_GROWN:
                verb = "shrunk" if lost > 0 else "grown"
                told = f"By this the swatch has {verb} by {abs(lost):.1f} %, which is unusual. Read the tape once more."
                return BadReading(f"{told} If it is so, keep it once more.", place, wash)
    return None


def read_diagonals(given: Sequence[Sequence[float | None] | None]) -> list[list[float | None] | None]:
    """Pairs of diagonals; one of a pair may still be missing, and is kept until the other is measured.

    Raises :class:`BadReading`.
    """
    kept: list[list[float | None] | None] = []
    for place, pair in enumerate(given):
        if pair is None or all(d is None for d in pair):
            if pair is not None and len(pair) != 2:
                raise BadReading("Give both diagonals of the square, corner to corner.", place)
            kept.append(None)
            continue
        if len(pair) != 2 or min((d for d in pair if d is not None), default=1.0) <= 0:
            raise BadReading("Give both diagonals of the square, corner to corner.", place)
        ac, bd = pair
        if ac is not None and bd is not None and abs(ac - bd) > MOST_SKEW * (ac + bd) / 2:
            told = f"These two diagonals differ by more than {100 * MOST_SKEW:.0f} %: look at both numbers again."
            raise BadReading(told, place)
        kept.append(list(pair))
    while kept and kept[-1] is None:
        kept.pop()
    return kept


def mean_marks(swatch: Swatch, direction: Direction, wash: int) -> float | None:
    """The mean of the marked distances of a direction after a wash (0: before any), mm."""
    values = [v for r in swatch.rows(direction) if len(r) > wash and (v := r[wash]) is not None]
    return math.fsum(values) / len(values) if values else None


def shape_of(swatch: Swatch, wash: int) -> tuple[tuple[float, float], ...]:
    """The swatch's true shape after a wash; none until both ways were measured."""
    along, across = mean_marks(swatch, "warp", wash), mean_marks(swatch, "weft", wash)
    if along is None or across is None:
        return ()
    pair = swatch.diagonals[wash] if wash < len(swatch.diagonals) else None
    return corners(along, across, *(pair or (None, None)))
