"""Quantities as people read them: decimal metric, or inches and yards in fractions."""

from __future__ import annotations

from fractions import Fraction

from .units import _VULGAR_OF, MM_PER_INCH, MM_PER_YARD, System
from .working import Quantity

#: A length this near to a whole number of quarter yards, in quarters, is said in yards.
ROUND_QUARTER = 1e-6


def fraction_text(value: float, parts: int) -> str:
    """Write ``value`` to the nearest ``1/parts`` as a mixed number: ``1 ⅜``, ``49 ½``, ``1/16``."""
    ticks = round(abs(value) * parts)
    sign = "−" if value < 0 and ticks else ""
    whole, rest = divmod(ticks, parts)
    if rest == 0:
        return f"{sign}{whole}"
    part = Fraction(rest, parts)
    written = _VULGAR_OF.get(part, f"{part.numerator}⁄{part.denominator}")
    return f"{sign}{whole} {written}" if whole else f"{sign}{written}"


def length_parts(mm: float, system: System, *, shop: bool = False) -> tuple[str, str]:
    """A length for reading, as (number, unit). ``shop`` asks for metres or yards as a counter does.

    Tape lengths are shown to 1 mm or 1/16 in, shop lengths to 1 cm or 1/8 yd, all to the nearest;
    anything that must be rounded *up* has been rounded before it comes here.
    """
    if system == "metric":
        return (f"{_zero(mm / 1000, 2):.2f}", "m") if shop else (f"{_zero(mm / 10, 1):.1f}", "cm")
    if shop:
        eighths = mm / MM_PER_YARD * 8
        # a metric step seen from an imperial eye: 1.50 m is no whole number of eighths
        return (
            (fraction_text(mm / MM_PER_YARD, 8), "yd")
            if abs(eighths - round(eighths)) < 1e-6
            else (fraction_text(mm / MM_PER_INCH, 16), "in")
        )
    return fraction_text(mm / MM_PER_INCH, 16), "in"


def _zero(value: float, digits: int) -> float:
    """Round, without ever giving minus nought."""
    return round(value, digits) + 0.0


def fine_length(mm: float, system: System) -> tuple[str, str]:
    """A length inside a working, where rounding to the tape would make the sums look wrong."""
    if system == "metric":
        number = f"{_zero(mm / 10, 2):.2f}"
        return (number[:-1] if number.endswith("0") else number), "cm"
    sixteenths = mm / MM_PER_INCH * 16
    if abs(sixteenths - round(sixteenths)) < 1e-6:
        return fraction_text(mm / MM_PER_INCH, 16), "in"
    return f"{_zero(mm / MM_PER_INCH, 3):.3f}", "in"


def printed_length(mm: float, system: System) -> tuple[str, str]:
    """A length printed on an envelope: whole eighths of a yard as they are, and in metric beside it."""
    yards = mm / MM_PER_YARD
    if abs(yards * 8 - round(yards * 8)) >= ROUND_QUARTER:
        return length_parts(mm, system)
    spoken = fraction_text(yards, 8)
    return (spoken, "yd") if system == "imperial" else (spoken, f"yd ({length_text(mm, system)})")


#: A length that a rule names is told in sixteenths of an inch below this, in eighths from here on, mm.
SIXTEENTHS_MM = 12.0


def round_length(mm: float, system: System) -> tuple[str, str]:
    """A length that a rule names, in the round numbers people say: 3 mm, 25 cm, 2 m; ⅛ in, 10 in, 2 ¼ yd."""
    if system == "metric":
        if mm < 10.0:
            return f"{_zero(mm, 1):g}", "mm"
        if mm < 1000.0:
            return f"{_zero(mm / 10.0, 1 if mm < 30.0 else 0):g}", "cm"
        return f"{_zero(mm / 1000.0, 1):g}", "m"
    if mm < MM_PER_INCH:
        return fraction_text(mm / MM_PER_INCH, 16 if mm < SIXTEENTHS_MM else 8), "in"
    if abs(mm / MM_PER_YARD * 4 - round(mm / MM_PER_YARD * 4)) < ROUND_QUARTER and mm >= MM_PER_YARD / 4:
        return fraction_text(mm / MM_PER_YARD, 4), "yd"
    if mm < MM_PER_YARD:
        return fraction_text(mm / MM_PER_INCH, 2), "in"
    return fraction_text(mm / MM_PER_YARD, 4 if mm < 10 * MM_PER_YARD else 1), "yd"


def quantity_parts(quantity: Quantity, system: System, *, fine: bool = False) -> tuple[str, str]:
    """Any quantity for reading, as (number, unit); ``fine`` gives a working's lengths their decimals."""
    number, unit = _quantity_parts(quantity, system, fine)
    return number.replace("-", "−"), unit


def _quantity_parts(quantity: Quantity, system: System, fine: bool) -> tuple[str, str]:
    value = quantity.value
    match quantity.kind:
        case "printed":
            return printed_length(value, system)
        case "about":
            return round_length(value, system)
        case "length":
            return fine_length(value, system) if fine else length_parts(value, system)
        case "purchase":
            return length_parts(value, system, shop=True)
        case "percent":
            return f"{_zero(value, 2 if fine else 1):.{2 if fine else 1}f}", "%"
        case "points":
            return f"{_zero(value, 1):.1f}", "points"
        case "money":
            return f"{_zero(value, 2):.2f}", ""
        case "mass":
            return f"{_zero(value, 0):.0f}", "g"
        case "angle":
            return f"{_zero(value, 2):.2f}", "°"
        case "count":
            return f"{value:g}", ""
        case "ratio":
            return f"{_zero(value, 4):g}", ""


def quantity_text(quantity: Quantity, system: System, *, fine: bool = False) -> str:
    """Any quantity as one string, ``3.2 %`` or ``49 ½ in``."""
    number, unit = quantity_parts(quantity, system, fine=fine)
    return f"{number}{unit}" if unit == "°" else f"{number} {unit}".rstrip()


def length_text(mm: float, system: System, *, shop: bool = False) -> str:
    """A length as one string that :func:`read_length` reads back."""
    number, unit = length_parts(mm, system, shop=shop)
    return f"{number} {unit}"
