"""One length in every unit a shop or a tape speaks, always saying which way it was rounded."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ..units import MM_PER_INCH, MM_PER_YARD
from ..working import Figure, Source, Step, count, length
from ..written import fraction_text

YARD = Source("standard", "international yard, 1959", "1 yd = 0.9144 m exactly, so 1 in = 25.4 mm")

Way = Literal["exact", "up", "nearest"]
#: A length closer than this to a mark of the scale is that mark, mm.
EXACT_MM = 1e-6


@dataclass(frozen=True)
class Spoken:
    """A length in one unit: as text, what that text means in mm, which way it was rounded to get there, and how."""

    unit: str
    text: str
    mm: float
    rounded: Way
    figure: Figure


def spoken(mm: float) -> tuple[Spoken, ...]:
    """The length in eighths of a yard and in shop centimetres (rounded up), on the tape, and to the millimetre."""
    return (
        _on(mm, MM_PER_YARD, 8, "yd", "eighths of a yard", up=True),
        _on(mm, MM_PER_INCH, 16, "in", "inches, on a tape", up=False),
        _decimal(mm, 10.0, "m", 1000.0, 2, "metres, as a shop cuts", up=True),
        _decimal(mm, 1.0, "cm", 10.0, 1, "centimetres, on a tape", up=False),
    )


def _worked(mm: float, unit_mm: float, parts: int, ticks: int, up: bool) -> Figure:
    """From the length to whole parts of a unit, and back to what they mean."""
    one = ("one", length(unit_mm))
    put = (("length", length(mm)), one, ("parts", count(parts)))
    formula = f"length × parts ÷ one rounded {'up ' if up else ''}to 1"
    counted = Step("marks", formula, put, count(ticks), "parts of one yard, inch, metre or centimetre")
    got = ticks * unit_mm / parts
    back = Step("spoken", "marks × one ÷ parts", (("marks", count(ticks)), one, put[2]), length(got))
    return Figure(got, "length", steps=(counted, back), sources=(YARD,))


def _way(mm: float, got: float, up: bool) -> Way:
    if abs(mm - got) <= EXACT_MM:
        return "exact"
    if up:
        return "up"
    return "nearest"


def _ticks(value: float, up: bool) -> int:
    return math.ceil(value - 1e-9) if up else round(value)


def _on(mm: float, unit_mm: float, parts: int, sign: str, name: str, *, up: bool) -> Spoken:
    ticks = _ticks(mm / unit_mm * parts, up)
    got = ticks * unit_mm / parts
    text = f"{fraction_text(ticks / parts, parts)} {sign}"
    return Spoken(name, text, got, _way(mm, got, up), _worked(mm, unit_mm, parts, ticks, up))


def _decimal(mm: float, step: float, sign: str, unit_mm: float, digits: int, name: str, *, up: bool) -> Spoken:
    ticks = _ticks(mm / step, up)
    got = ticks * step
    text = f"{got / unit_mm:.{digits}f} {sign}"
    return Spoken(name, text, got, _way(mm, got, up), _worked(mm, unit_mm, round(unit_mm / step), ticks, up))


@dataclass(frozen=True)
class FractionRow:
    """One fraction of a yard: in inches (exact), in centimetres to the millimetre, and that rounding."""

    fraction: Fraction
    inches: Fraction
    mm: float
    centimetres: Spoken


def yard_table() -> tuple[FractionRow, ...]:
    """Eighths and thirds of a yard up to one."""
    parts = sorted({*(Fraction(k, 8) for k in range(1, 9)), Fraction(1, 3), Fraction(2, 3)})
    rows = []
    for part in parts:
        mm = float(part) * MM_PER_YARD
        rows.append(FractionRow(part, part * 36, mm, _decimal(mm, 1.0, "cm", 10.0, 1, "centimetres", up=True)))
    return tuple(rows)
