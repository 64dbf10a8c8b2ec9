"""Quantities as people read them: decimal metric, or inches and yards in fractions."""

from __future__ import annotations

import math
import re
from fractions import Fraction

from .units import _VULGAR_OF, MM_PER_INCH, MM_PER_YARD, System
from .weights import GRAMS_PER_OUNCE, OUNCE_A_YARD2
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


def length_parts(mm: float, system: System) -> tuple[str, str]:
    """A length for reading, as (number, unit): to 1 mm or 1/16 in, to the nearest."""
    if system == "metric":
        return f"{_zero(mm / 10, 1):.1f}", "cm"
    return fraction_text(mm / MM_PER_INCH, 16), "in"


def shop_length(mm: float, system: System) -> tuple[str, str]:
    """A length as it is asked for at the counter, in the step the shop cuts: whole eighths of a yard in yards, whole
    centimetres in metres. Where that is not the person's own unit, theirs stands beside it; it is rounded up, never
    down, because a length that is asked for must not be too short.
    """
    eighths, centimetres = _is_whole(mm / MM_PER_YARD * 8), _is_whole(mm / 10)
    yards = fraction_text(mm / MM_PER_YARD, 8), "yd"
    metres = f"{_zero(_up(mm / 10) / 100, 2):.2f}", "m"
    inches = fraction_text(_up(mm / MM_PER_INCH * 16) / 16, 16), "in"
    if system == "imperial":
        return yards if eighths else (metres[0], f"m ({' '.join(inches)})") if centimetres else inches
    return (yards[0], f"yd ({' '.join(metres)})") if eighths and not centimetres else metres


def least_length(mm: float, system: System) -> tuple[str, str]:
    """A length that must be reached: up to the tape's next mark, 1 mm or 1/16 in."""
    mark = 1.0 if system == "metric" else MM_PER_INCH / 16
    return length_parts(_up(mm / mark) * mark, system)


def _is_whole(value: float) -> bool:
    return abs(value - round(value)) < WHOLE


def _up(value: float) -> float:
    return math.ceil(value - WHOLE)


#: A number of steps nearer than this to a whole one is whole: floats are not exact to the last bit.
WHOLE = 1e-6


def _zero(value: float, digits: int) -> float:
    """Round, without ever giving minus nought."""
    return round(value, digits) + 0.0


def fine_length(mm: float, system: System) -> tuple[str, str]:
    """A length inside a working, with digits enough for the sums to come out as they are shown."""
    if system == "metric":
        return _short(mm / 10, 3, 1), "cm"
    if _is_whole(mm / MM_PER_INCH * 16):
        return fraction_text(mm / MM_PER_INCH, 16), "in"
    return _short(mm / MM_PER_INCH, 4, 1), "in"


def fine_shop_length(mm: float, system: System) -> tuple[str, str]:
    """A length that is bought, inside a working: in metres or yards as a price is, with digits enough."""
    if system == "metric":
        return _short(mm / 1000, 5, 2), "m"
    yards = mm / MM_PER_YARD
    return (fraction_text(yards, 8), "yd") if _is_whole(yards * 8) else (_short(yards, 5, 2), "yd")


def _short(value: float, most: int, least: int) -> str:
    """A decimal number of at most ``most`` digits after the point, and not fewer than ``least``."""
    whole, _, rest = f"{_zero(value, most):.{most}f}".partition(".")
    kept = rest.rstrip("0").ljust(least, "0")
    return f"{whole}.{kept}" if kept else whole


def printed_length(mm: float, system: System) -> tuple[str, str]:
    """A length printed on an envelope: whole eighths of a yard as they are, and in metric beside it."""
    yards = mm / MM_PER_YARD
    if not _is_whole(yards * 8):
        return length_parts(mm, system)
    spoken = fraction_text(yards, 8)
    return (spoken, "yd") if system == "imperial" else (spoken, f"yd ({length_text(mm, system)})")


def chart_text(mm: float, system: System) -> str:
    """A length on an envelope's chart as one string that :func:`read_length` reads back: in yards where it is whole
    eighths, else in metres where it is whole centimetres."""
    if _is_whole(mm / MM_PER_YARD * 8) and not (system == "metric" and _is_whole(mm / 10)):
        return f"{fraction_text(mm / MM_PER_YARD, 8)} yd"
    return f"{_short(mm / 1000, 2, 2)} m" if _is_whole(mm / 10) else length_text(mm, system)


def range_text(low: float, high: float, system: System) -> str:
    """The two ends of a range as one string that :func:`~.units.read_range` reads back."""
    (first, unit), (second, last) = length_parts(low, system), length_parts(high, system)
    return f"{first}–{second} {unit}" if unit == last else f"{first} {unit} – {second} {last}"


def fine_printed(mm: float, system: System) -> tuple[str, str]:
    """A printed length inside a working: whole eighths of a yard in yards, and else as exactly as any."""
    yards = mm / MM_PER_YARD
    return (fraction_text(yards, 8), "yd") if _is_whole(yards * 8) else fine_length(mm, system)


#: A length that a rule names is told in sixteenths of an inch below this, in eighths from here on, mm.
SIXTEENTHS_MM = 12.0
#: Below this it is told in quarters, from here on in halves, mm.
QUARTERS_MM = 2 * MM_PER_INCH


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
        return fraction_text(mm / MM_PER_INCH, 4 if mm < QUARTERS_MM else 2), "in"
    return fraction_text(mm / MM_PER_YARD, 4 if mm < 10 * MM_PER_YARD else 1), "yd"


def quantity_parts(quantity: Quantity, system: System, *, fine: bool = False) -> tuple[str, str]:
    """Any quantity for reading, as (number, unit); ``fine`` gives a working's lengths their decimals."""
    number, unit = _quantity_parts(quantity, system, fine)
    return number.replace("-", "−"), unit


def _quantity_parts(quantity: Quantity, system: System, fine: bool) -> tuple[str, str]:
    value = quantity.value
    match quantity.kind:
        case "printed":
            return fine_printed(value, system) if fine else printed_length(value, system)
        case "about":
            return round_length(value, system)
        case "gap":
            return _gap_parts(value, system)
        case "length":
            return fine_length(value, system) if fine else length_parts(value, system)
        case "least":
            return fine_length(value, system) if fine else least_length(value, system)
        case "purchase":
            return fine_shop_length(value, system) if fine else shop_length(value, system)
        case "area":
            return _area_parts(value, system)
        case "percent":
            return _short(value, 4, 2) if fine else f"{_zero(value, 1):.1f}", "%"
        case "points":
            return _short(value, 4, 2) if fine else f"{_zero(value, 1):.1f}", "points"
        case "money":
            return f"{_zero(value, 2):.2f}", ""
        case "price":
            return _price_parts(value, system)
        case "mass" if system == "imperial":
            ounces = value / GRAMS_PER_OUNCE
            if fine or abs(ounces) < 16:
                return _short(ounces, 4 if fine else 1, 0), "oz"
            return _short(ounces / 16, 2, 0), "lb"
        case "mass":
            if fine:
                return _short(value, 2, 0), "g"
            return (f"{_zero(value, 0):.0f}", "g") if abs(value) < KILOGRAM else (_short(value / KILOGRAM, 2, 2), "kg")
        case "weight":
            return (
                (_short(value, 3, 0), "g/m²") if system == "metric" else (_short(value / OUNCE_A_YARD2, 4, 0), "oz/yd²")
            )
        case "minutes":
            if not fine and value >= HOURS_FROM_MIN:
                return _short(value / 60.0, 2, 0), "h"
            return _short(value, 3, 0) if fine else f"{_zero(value, 0):.0f}", "min"
        case "pace":
            return (_short(value, 3, 0), "min/m") if system == "metric" else (_short(value * YARD, 3, 0), "min/yd")
        case "angle":
            return _short(value, 4, 2) if fine else f"{_zero(value, 2):.2f}", "°"
        case "count":
            return f"{value:g}", ""
        case "ratio":
            return _short(value, 5, 0) if fine else f"{_zero(value, 4):g}", ""


#: From so many minutes on a time is said in hours.
HOURS_FROM_MIN = 120.0
#: A kilogram in grams.
KILOGRAM = 1000.0
#: A yard in metres.
YARD = MM_PER_YARD / 1000.0


def _area_parts(value: float, system: System) -> tuple[str, str]:
    if system == "metric":
        return _short(value / 100.0, 2, 0), "cm²"
    return _short(value / MM_PER_INCH**2, 3, 0), "in²"


def _gap_parts(value: float, system: System) -> tuple[str, str]:
    """What lies between bars that should meet: tenths of a millimetre, or thirty-seconds of an inch."""
    if system == "metric":
        return f"{_zero(value, 1):.1f}", "mm"
    inches = abs(value) / MM_PER_INCH
    if 0 < inches < 1 / 64:
        return "under 1/32", "in"
    return fraction_text(inches, 32), "in"


def _price_parts(value: float, system: System) -> tuple[str, str]:
    """Money for a metre, or for a yard."""
    return (_short(value, 4, 2), "a metre") if system == "metric" else (_short(value * YARD, 4, 2), "a yard")


def quantity_text(quantity: Quantity, system: System, *, fine: bool = False) -> str:
    """Any quantity as one string, ``3.2 %`` or ``49 ½ in``."""
    number, unit = quantity_parts(quantity, system, fine=fine)
    return f"{number}{unit}" if unit == "°" else f"{number} {unit}".rstrip()


_CELSIUS = re.compile(r"(\d+) °C(?! \()")


def with_fahrenheit(text: str, system: System) -> str:
    """A text of ours with its temperatures in both scales, for whoever works in inches: care labels have either."""
    if system == "metric":
        return text
    return _CELSIUS.sub(lambda found: f"{found[0]} ({int(found[1]) * 9 / 5 + 32:.0f} °F)", text)


def sided_text(mm: float, system: System) -> str:
    """A length to one side of the tape as :func:`read_sided` reads it back: left is positive, right is said."""
    written = length_text(abs(mm), system)
    return f"{written} right" if mm < 0 and written != length_text(0.0, system) else written


def minus_text(mm: float, system: System) -> str:
    """A length that may lie below where the tape begins, with a minus then."""
    written = length_text(abs(mm), system)
    return f"−{written}" if mm < 0 and written != length_text(0.0, system) else written


def length_text(mm: float, system: System) -> str:
    """A length as one string that :func:`read_length` reads back."""
    number, unit = length_parts(mm, system)
    return f"{number} {unit}"
