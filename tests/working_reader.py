"""Works a step of a working out again from nothing but the texts that are shown: formula, inputs and result.

It knows nothing of the core. ``docs/figures.md`` says how a formula is written.
"""

from __future__ import annotations

import math
import re
import statistics
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

_VULGAR = {
    "½": 1 / 2, "⅓": 1 / 3, "⅔": 2 / 3, "¼": 1 / 4, "¾": 3 / 4, "⅕": 1 / 5, "⅖": 2 / 5, "⅗": 3 / 5, "⅘": 4 / 5,
    "⅙": 1 / 6, "⅚": 5 / 6, "⅛": 1 / 8, "⅜": 3 / 8, "⅝": 5 / 8, "⅞": 7 / 8,
}  # fmt: skip
#: What one of a unit is, in metres, grams, minutes, money and shares of one.
_UNITS = {
    "mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254, "yd": 0.9144, "cm²": 1e-4, "in²": 0.0254**2, "%": 0.01,
    "points": 0.01, "a metre": 1.0, "a yard": 1 / 0.9144, "g": 1.0, "kg": 1000.0, "g/m²": 1.0, "oz": 28.349523125,
    "lb": 453.59237, "oz/yd²": 28.349523125 / 0.9144**2,
    "min": 1.0, "h": 60.0,
    "min/m": 1.0, "min/yd": 1 / 0.9144, "°": 1.0, "": 1.0,
}  # fmt: skip


#: A percentage is its share of one.
SHARES = ("%", "points")
#: So many digits a unit is shown to in a working, those of money always; ``docs/figures.md``.
DIGITS = {
    "mm": 3, "cm": 3, "m": 5, "in": 4, "yd": 5, "cm²": 2, "in²": 3, "%": 4, "points": 4, "a metre": 4, "a yard": 4,
    "g": 2, "kg": 5, "g/m²": 3, "oz": 4, "lb": 2, "oz/yd²": 4, "min": 3, "h": 2, "min/m": 3, "min/yd": 3, "°": 4, "": 5,
}  # fmt: skip
MONEY_DIGITS = 2


class CannotWork(AssertionError):
    """A formula that cannot be worked out from what is shown."""


@dataclass(frozen=True)
class Shown:
    """A number as it is shown: what it means, by how much its digits may be off, and its unit."""

    value: float
    half: float
    unit: str

    @property
    def one(self) -> float:
        """What the number as it stands is multiplied by; a percentage is its share of one already."""
        return 1.0 if self.unit in SHARES else _UNITS[self.unit]


_PART = r"(?P<part>[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]|\d+⁄\d+)"
_SHOWN = (
    rf"(?P<sign>−?)(?P<number>\d+) {_PART} ?(?P<unit>.*)",
    rf"(?P<sign>−?){_PART} ?(?P<unit>.*)",
    r"(?P<sign>−?)(?P<number>\d+(?:\.\d+)?) ?(?P<unit>.*)",
)


def read_quantity(text: str) -> Shown:
    """A shown quantity: “12.35 cm”, “1 ⅜ yd”, “−4.03 %”, “12.50 a metre”, “6”."""
    found = next((one for pattern in _SHOWN if (one := re.fullmatch(pattern, text)) is not None), None)
    if found is None or found["unit"] not in _UNITS:
        raise CannotWork(f"“{text}” is no quantity")
    parts = found.groupdict()
    sign, number, part, unit = parts["sign"], parts.get("number"), parts.get("part"), parts["unit"]
    value = float(number or 0)
    digits = number.partition(".")[2] or None if number else None
    if part is not None:
        value += _VULGAR[part] if part in _VULGAR else int(part.split("⁄")[0]) / int(part.split("⁄")[1])
    scale = _UNITS[unit]
    # a fraction is shown only where it is exact, and so is a whole number; else noughts at the end are left out
    exact = part is not None or (unit in ("", "yd") and digits is None)
    kept = len(digits or "") if unit == "" and len(digits or "") == MONEY_DIGITS else DIGITS[unit]
    half = 0.0 if exact else 0.5 * 10.0**-kept
    return Shown((-value if sign else value) * scale, half * scale, unit)


_FUNCTIONS: dict[str, Callable[[Sequence[float]], float]] = {
    "mean of": statistics.fmean,
    "sum of": math.fsum,
    "largest of": max,
    "smallest of": min,
    "deviation of": statistics.stdev,
    "√": lambda v: math.sqrt(v[0]),
    "tan": lambda v: math.tan(math.radians(v[0])),
    "atan": lambda v: math.degrees(math.atan(v[0])),
}
_ROUNDED: dict[str, Callable[[float], float]] = {
    "rounded up to": lambda v: math.ceil(v - 1e-9),
    "rounded down to": lambda v: math.floor(v + 1e-9),
    "rounded to": lambda v: float(round(v)),
}


def tokens(formula: str, names: Sequence[str]) -> list[tuple[str, str]]:
    """The formula's parts: names of inputs (the longest that fits), numbers, functions and signs."""
    out: list[tuple[str, str]] = []
    by_length = sorted(names, key=len, reverse=True)
    words = sorted((*_ROUNDED, *_FUNCTIONS), key=len, reverse=True)
    at = 0
    while at < len(formula):
        rest = formula[at:]
        if rest[0] == " ":
            at += 1
            continue
        name = next((n for n in by_length if rest.startswith(n) and _ends(n, rest)), None)
        word = next((w for w in words if rest.startswith(w)), None)
        number = re.match(r"\d+(\.\d+)?", rest)
        if name is not None:
            out.append(("name", name))
            at += len(name)
        elif word is not None:
            out.append(("word", word))
            at += len(word)
        elif number is not None:
            out.append(("number", number[0]))
            at += len(number[0])
        elif rest[0] in "+−×÷²(),":
            out.append(("sign", rest[0]))
            at += 1
        else:
            raise CannotWork(f"“{formula}” cannot be read at “{rest[:20]}”, with {list(names)}")
    return out


def _ends(name: str, rest: str) -> bool:
    """A name does not end in the middle of a word."""
    after = rest[len(name) : len(name) + 1]
    return not (name[-1].isalnum() and (after.isalpha() or after.isdecimal()))


class _Reader:
    def __init__(self, parts: list[tuple[str, str]], values: Mapping[str, float]) -> None:
        self.parts, self.values, self.at, self.used = parts, values, 0, set[str]()

    def peek(self) -> tuple[str, str]:
        return self.parts[self.at] if self.at < len(self.parts) else ("end", "")

    def take(self, kind: str, text: str = "") -> str:
        found = self.peek()
        if found[0] != kind or (text and found[1] != text):
            raise CannotWork(f"expected {text or kind}, found {found}")
        self.at += 1
        return found[1]

    def rounded(self) -> float:
        value = self.sum()
        while self.peek()[0] == "word" and self.peek()[1] in _ROUNDED:
            how = _ROUNDED[self.take("word")]
            step = self.sum()
            value = how(value / step) * step
        return value

    def sum(self) -> float:
        value = self.product()
        while self.peek() in (("sign", "+"), ("sign", "−")):
            sign = self.take("sign")
            other = self.product()
            value = value + other if sign == "+" else value - other
        return value

    def product(self) -> float:
        value = self.power()
        while self.peek() in (("sign", "×"), ("sign", "÷")):
            sign = self.take("sign")
            other = self.power()
            value = value * other if sign == "×" else value / other
        return value

    def power(self) -> float:
        value = self.one()
        while self.peek() == ("sign", "²"):
            self.take("sign")
            value *= value
        return value

    def one(self) -> float:
        kind, text = self.peek()
        if kind == "name":
            self.take("name")
            self.used.add(text)
            return self.values[text]
        if kind == "number":
            return float(self.take("number"))
        if kind == "word" and text in _FUNCTIONS:
            self.take("word")
            self.take("sign", "(")
            values = [self.rounded()]
            while self.peek() == ("sign", ","):
                self.take("sign")
                values.append(self.rounded())
            self.take("sign", ")")
            return _FUNCTIONS[text](values)
        self.take("sign", "(")
        value = self.rounded()
        self.take("sign", ")")
        return value


def evaluate(formula: str, values: Mapping[str, float]) -> tuple[float, set[str]]:
    """What a formula comes to, and which of the inputs it used."""
    reader = _Reader(tokens(formula, list(values)), values)
    value = reader.rounded()
    if reader.peek()[0] != "end":
        raise CannotWork(f"“{formula}” goes on after its end")
    return value, reader.used


#: By how much the digits shown may leave a result open: half a millimetre, a twentieth of a per cent, half a cent …
MOST_OPEN = {"cm": 5e-4, "m": 5e-4, "in": 8e-4, "yd": 8e-4, "%": 5e-4, "points": 5e-4, "": 6e-3, "°": 5e-3}


def check_step(formula: str, inputs: Sequence[tuple[str, str]], result: str) -> None:
    """Work a step out again. Raises AssertionError when it does not give its result from the digits shown."""
    names = [name for name, _ in inputs]
    assert len(set(names)) == len(names), f"two inputs of one name in “{formula}”: {names}"
    shown = {name: read_quantity(text) for name, text in inputs}
    values = {name: one.value for name, one in shown.items()}
    found, used = evaluate(formula, values)
    assert used == set(names), f"“{formula}” leaves out {set(names) - used}"
    wanted = read_quantity(result)
    around = [found]
    open_ = wanted.half
    for name, one in shown.items():
        if one.half:
            ends = [evaluate(formula, {**values, name: one.value + way * one.half})[0] for way in (-1, 1)]
            around += ends
            open_ += max(abs(end - found) for end in ends)
    if "rounded" in formula:
        # so many steps of a rounded size are off by so many times its rounding
        near = wanted.half + 1e-4 * max(1.0, abs(wanted.value))
        assert any(abs(end - wanted.value) <= near for end in around), _said(formula, inputs, result, found)
        if abs(found - wanted.value) <= near:
            check_plainly(formula, shown, wanted, near)
        return
    assert abs(found - wanted.value) <= open_ + 1e-9, _said(formula, inputs, result, found)
    check_plainly(formula, shown, wanted, open_)
    unit = result.split(" ", 1)[1] if " " in result else "°" if result.endswith("°") else ""
    most = MOST_OPEN.get(unit.split(" ")[-1])
    if most is not None:
        assert open_ <= max(most, abs(wanted.value) * 1e-3), f"too few digits in {formula}: {inputs} leave {open_} open"


def check_plainly(formula: str, shown: Mapping[str, Shown], result: Shown, near: float) -> None:
    """The same from the bare numbers, as somebody works them out on paper: no unit has to be turned into another."""
    found, _ = evaluate(formula, {name: one.value / one.one for name, one in shown.items()})
    plain = result.value / result.one
    assert abs(found - plain) <= near / result.one + 1e-4 * max(1.0, abs(plain)), (
        f"“{formula}” with {shown} mixes units: {found:.8g} on paper, shown is {plain:.8g}"
    )


def _said(formula: str, inputs: Sequence[tuple[str, str]], result: str, found: float) -> str:
    return f"“{formula}” with {list(inputs)} gives {found:.8g}, shown is {result}"
