"""Lengths as people type them: decimal metric, or inches and yards in fractions.

Inside, a length is a float in millimetres. The international yard is 0.9144 m exactly, so an inch is
25.4 mm (international yard and pound agreement, 1959).
"""

from __future__ import annotations

import math
import re
from fractions import Fraction
from typing import Literal

System = Literal["metric", "imperial"]


MM_PER_INCH = 25.4


MM_PER_YARD = 914.4


_UNIT_MM: dict[str, float] = {
    "mm": 1.0,
    "millimetre": 1.0,
    "millimetres": 1.0,
    "millimeter": 1.0,
    "millimeters": 1.0,
    "cm": 10.0,
    "centimetre": 10.0,
    "centimetres": 10.0,
    "centimeter": 10.0,
    "centimeters": 10.0,
    "m": 1000.0,
    "metre": 1000.0,
    "metres": 1000.0,
    "meter": 1000.0,
    "meters": 1000.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    "inches": MM_PER_INCH,
    '"': MM_PER_INCH,
    "″": MM_PER_INCH,
    "”": MM_PER_INCH,
    "''": MM_PER_INCH,
    "ft": 304.8,
    "foot": 304.8,
    "feet": 304.8,
    "'": 304.8,
    "′": 304.8,
    "’": 304.8,
    "yd": MM_PER_YARD,
    "yds": MM_PER_YARD,
    "yard": MM_PER_YARD,
    "yards": MM_PER_YARD,
}


_VULGAR: dict[str, Fraction] = {
    "½": Fraction(1, 2),
    "⅓": Fraction(1, 3),
    "⅔": Fraction(2, 3),
    "¼": Fraction(1, 4),
    "¾": Fraction(3, 4),
    "⅕": Fraction(1, 5),
    "⅖": Fraction(2, 5),
    "⅗": Fraction(3, 5),
    "⅘": Fraction(4, 5),
    "⅙": Fraction(1, 6),
    "⅚": Fraction(5, 6),
    "⅛": Fraction(1, 8),
    "⅜": Fraction(3, 8),
    "⅝": Fraction(5, 8),
    "⅞": Fraction(7, 8),
}


_VULGAR_OF = {value: sign for sign, value in _VULGAR.items()}


_TOKEN = re.compile(
    r"\s*(?:(?P<frac>\d{1,6}\s*[/⁄]\s*\d{1,6})|(?P<num>\d{1,9}(?:[.,]\d{1,9})?|[.,]\d{1,9})"
    r"|(?P<vulgar>[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])|(?P<unit>''|[a-zA-Z]+\.?|[\"'″′”’])|(?P<join>[-+]))"
)


#: No cloth, table or pattern of a home dressmaker is longer than this.
LONGEST_MM = 1_000_000.0


class BadEntry(ValueError):
    """Something typed could not be read. The message is a sentence for the person who typed it."""


def default_unit(system: System) -> str:
    """The unit a bare number is taken to be in."""
    return "cm" if system == "metric" else "in"


def read_number(text: str) -> float:
    """Read a plain number: ``3``, ``3.5``, ``3,5``, ``3 1/2`` or ``3½``.

    Raises :class:`BadEntry` with a sentence when it cannot.
    """
    total, unit = _read(text, "a number such as 3.5 or 3 1/2")
    if unit is not None:
        raise BadEntry(f"“{text.strip()}” has the unit “{unit}”, where only a number belongs, such as 3.5.")
    return total


def read_length(text: str, system: System = "metric", *, unit: str | None = None) -> float:
    """Read a typed length and return millimetres.

    Understands ``126 cm``, ``1,26 m``, ``49.5"``, ``1 3/8 yd``, ``1⅜ yd``, ``1 yd 4 1/2 in``, and a bare
    number in ``unit`` (or the system's tape unit: cm, or inches). Raises :class:`BadEntry` with a
    sentence that says what could not be read.
    """
    shown = text.strip()
    example = "126 cm or 1,26 m" if system == "metric" else "49 1/2 or 1 3/8 yd"
    if not shown:
        raise BadEntry(f"Nothing was entered here. Give a length, such as {example}.")
    if len(shown) > 60:
        raise BadEntry(f"“{shown[:20]}…” is too long to be a length. Give one such as {example}.")
    bare = _UNIT_MM[unit or default_unit(system)]
    parts = _parts(shown, example)
    _ask_back(shown, [name for _, name in parts])
    total = 0.0
    last = math.inf
    for amount, name in parts:
        if name is None:
            if len(parts) > 1:
                raise BadEntry(f"In “{shown}” the {_plain(amount)} has no unit. Write it as in {example}.")
            factor = bare
        else:
            factor = _UNIT_MM.get(name.lower(), _UNIT_MM.get(name, 0.0))
            if factor == 0.0:
                raise BadEntry(f"“{name}” in “{shown}” is not a unit known here. Use mm, cm, m, in, ft or yd.")
        if factor >= last:
            raise BadEntry(f"In “{shown}” the larger unit comes first, as in 1 yd 4 in.")
        last = factor
        total += float(amount) * factor
    if total > LONGEST_MM:
        raise BadEntry(f"“{shown}” is more than a kilometre. Check the unit.")
    return total


#: Between the two ends of a range; a stroke only between numbers of two figures, or it is a fraction.
_BETWEEN = re.compile(r"\s*(?:[–—]|(?<!\s)-(?=\s*\d)|\s-\s|\bto\b|(?<=\d\d)/(?=\d\d))\s*", re.IGNORECASE)
_FIGURES = re.compile(r"^[\d\s.,/⁄½¼¾⅛⅜⅝⅞]+")


def read_range(text: str, system: System = "metric", *, unit: str | None = None) -> tuple[float, float]:
    """Read one length, or two with a dash between them, in mm: ``36–38 in``, ``44/45 in``, ``91 to 97``.

    A unit written once counts for both. Raises :class:`BadEntry`.
    """
    parts = [part for part in _BETWEEN.split(text.strip()) if part]
    if len(parts) != 2 or not all(part[0].isdigit() for part in parts):
        found = read_length(text, system, unit=unit)
        return found, found
    first, second = parts
    tail = _FIGURES.sub("", second)
    if _FIGURES.sub("", first) == "":
        first = f"{first} {tail}"
    low, high = (read_length(part, system, unit=unit) for part in (first, second))
    if high < low:
        # a hyphen before a fraction joins it to its whole number, as in 1-3/8
        try:
            found = read_length(text, system, unit=unit)
        except BadEntry:
            raise BadEntry(f"In “{text.strip()}” the smaller comes first, as in 36–38 in.") from None
        return found, found
    return low, high


_SIDED = re.compile(
    r"^(?:(?P<before>l|left|r|right)(?![a-z])\s*)?(?P<sign>[-−–+]?)\s*(?P<rest>.*?)(?:(?<![a-z])\s*(?P<after>l|left|r|right))?$",
    re.IGNORECASE,
)


def read_sided(text: str, system: System = "metric") -> float:
    """Read a length that lies to one side of the tape, and return millimetres: left is positive, right negative.

    Understands ``12 cm``, ``L 12``, ``12 left``, ``-12``, ``R 12 cm`` and ``4 1/2 right``. Raises :class:`BadEntry`.
    """
    found = _SIDED.match(text.strip())
    if found is None:
        return read_length(text, system)
    before, sign, rest, after = found.group("before", "sign", "rest", "after")
    sides = {word[0].lower() for word in (before, after) if word}
    minus = sign in ("-", "−", "–")
    if len(sides) > 1 or (sides and sign):
        raise BadEntry(f"“{text.strip()}” says two sides. Write left or right, or a minus for right.")
    value = read_length(rest, system)
    return -value if value and (minus or "r" in sides) else value


#: Parts that a tape, a rule or an envelope has.
TAPE_PARTS = (2, 3, 4, 5, 6, 8, 10, 12, 16, 32, 64)
#: Two numbers from here on with a stroke between them are two widths, as 44/45 in; common practice.
TWO_WIDTHS = 30
_STROKE = re.compile(r"(\d+)\s*[/⁄]\s*(\d+)")
_THREE = re.compile(r"(?<![\d.,])([1-9]\d{0,2})([.,])(\d{3})(?!\d)")


def _ask_back(shown: str, units: list[str | None]) -> None:
    """Refuse what can be read in two ways: two widths, and thousands that look like decimals. Raises BadEntry."""
    for found in _STROKE.finditer(shown):
        top, bottom = int(found[1]), int(found[2])
        if top >= TWO_WIDTHS and bottom >= TWO_WIDTHS:
            told = f"“{found[0]}” could be one of two widths or a fraction. Give one of them, such as {bottom} in."
            raise BadEntry(told)
        if bottom and bottom not in TAPE_PARTS:
            raise BadEntry(f"“{found[0]}” is no part that a tape has. Write a fraction such as 3/8, or one number.")
    for found in _THREE.finditer(shown):
        whole, sign, rest = found.groups()
        unit = next((name for name in units if name is not None), None)
        mm = _UNIT_MM.get((unit or "").rstrip(".").lower(), 1.0)
        # a point and three digits are thousandths, but no tape tells those of a millimetre
        if (sign == "," or mm == 1.0) and float(whole + rest) * mm <= LONGEST_MM:
            with_unit = f" {unit}" if unit else ""
            told = (
                f"“{shown}” could be {whole}{rest}{with_unit} or {whole}.{rest.rstrip('0') or '0'}{with_unit}. "
                "Write it without the sign between thousands, or with a point."
            )
            raise BadEntry(told)


def _plain(amount: Fraction) -> str:
    return f"{float(amount):g}"


def _parts(text: str, example: str) -> list[tuple[Fraction, str | None]]:
    if text.startswith(("-", "−")):
        raise BadEntry(f"“{text}” is below zero; a length here is zero or more, such as {example}.")
    parts: list[tuple[Fraction, str | None]] = []
    amount: Fraction | None = None
    whole_only = True
    place = 0
    while place < len(text):
        found = _TOKEN.match(text, place)
        if not found or found.end() == place:
            if not text[place:].strip():
                break
            raise BadEntry(f"“{text}” could not be read at “{text[place:].strip()[:12]}”. Write it as {example}.")
        place = found.end()
        if found["join"]:
            # the dash of "1-3/8" joins a whole number to its fraction, nothing else
            if amount is None or not whole_only or not re.match(r"\s*(\d+\s*[/⁄]|[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])", text[place:]):
                raise BadEntry(f"“{text}” could not be read at “{found['join']}”. Write it as {example}.")
            continue
        if found["unit"]:
            if amount is None:
                raise BadEntry(f"In “{text}” the unit “{found['unit']}” has no number before it, as in {example}.")
            parts.append((amount, found["unit"].rstrip(".")))
            amount, whole_only = None, True
            continue
        if found["num"]:
            if amount is not None:
                raise BadEntry(f"“{text}” has two numbers side by side. Write it as {example}.")
            amount = Fraction(found["num"].replace(",", "."))
            whole_only = amount.denominator == 1 and "." not in found["num"] and "," not in found["num"]
            continue
        if found["frac"]:
            top, bottom = (int(n) for n in re.split(r"\s*[/⁄]\s*", found["frac"]))
            if bottom == 0:
                raise BadEntry(f"“{found['frac']}” divides by nothing. Write a fraction such as 3/8.")
            piece = Fraction(top, bottom)
        else:
            piece = _VULGAR[found["vulgar"]]
        if amount is not None and not whole_only:
            raise BadEntry(f"“{text}” mixes a decimal with a fraction. Write it as {example}.")
        amount = piece if amount is None else amount + piece
        whole_only = False
    if amount is not None:
        parts.append((amount, None))
    if not parts:
        raise BadEntry(f"“{text}” has no number in it. Write it as {example}.")
    return parts


def _read(text: str, example: str) -> tuple[float, str | None]:
    shown = text.strip()
    if not shown or len(shown) > 60:
        raise BadEntry(f"Nothing that could be read was entered here. Give {example}.")
    parts = _parts(shown, example)
    if len(parts) > 1:
        raise BadEntry(f"“{shown}” holds more than one number. Give {example}.")
    return float(parts[0][0]), parts[0][1]
