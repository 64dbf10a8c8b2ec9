"""A computed figure carries its working: the steps, the numbers put in, and the sources.

Nothing here knows how a number is written for a reader; that is :mod:`.units`.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

Kind = Literal[
    "length", "least", "area", "purchase", "percent", "points", "money", "price", "mass", "weight", "minutes", "pace",
    "count", "ratio", "angle", "about", "printed", "gap",
]  # fmt: skip
SourceKind = Literal["standard", "handbook", "common practice", "from memory", "your own log"]


@dataclass(frozen=True)
class Quantity:
    """A number and what it measures.

    ``length`` and ``purchase`` are millimetres (the second is spoken of as a shop does), ``least`` is a length in
    millimetres that must be reached and is rounded up, ``percent`` is per hundred, ``points`` is a difference of two
    percentages, ``mass`` is grams, ``weight`` is grams of a square metre, ``area`` is square millimetres, ``price`` is
    money for a metre, ``pace`` is minutes for a metre, ``angle`` is degrees. ``about`` is a length of the trade's rules
    in millimetres, said in round numbers; ``printed`` one off an envelope, whose whole eighths of a yard are kept;
    ``gap`` is how far what should meet lies apart, in millimetres.
    """

    value: float
    kind: Kind


@dataclass(frozen=True)
class Source:
    """Where a rule or a number comes from."""

    kind: SourceKind
    name: str
    note: str = ""


@dataclass(frozen=True)
class Step:
    """One line of working: what is found, by which formula, from which numbers.

    The formula can be worked out from the inputs as they are shown: it holds their names, numbers, ``+ − × ÷ ²``,
    brackets, ``√(…)``, ``tan(…)``, ``atan(…)``, ``mean of``, ``sum of``, ``largest of``, ``smallest of`` and
    ``deviation of (…, …)``, and ``rounded up to`` and ``rounded down to`` a step. A percentage is its share of one:
    4 % is 0.04. ``docs/figures.md`` has it in full. ``why``: a word on the formula, or nothing.
    """

    label: str
    formula: str
    inputs: tuple[tuple[str, Quantity], ...]
    result: Quantity
    why: str = ""


@dataclass(frozen=True)
class Figure:
    """A result with the range it is sure to lie in (``low``..``high``) and its working."""

    value: float
    unit: Kind
    low: float | None = None
    high: float | None = None
    steps: tuple[Step, ...] = ()
    sources: tuple[Source, ...] = ()
    note: str = ""

    @property
    def quantity(self) -> Quantity:
        return Quantity(self.value, self.unit)


Inputs = tuple[tuple[str, Quantity], ...]


def numbered(name: str, values: Iterable[Quantity]) -> Inputs:
    """Several of a kind as inputs of a step: “reading 1”, “reading 2” …"""
    return tuple((f"{name} {k}", value) for k, value in enumerate(values, 1))


def of(function: str, inputs: Iterable[tuple[str, Quantity]]) -> str:
    """A function of all these inputs, as a formula has it: “mean of (reading 1, reading 2)”."""
    return f"{function} of ({', '.join(name for name, _ in inputs)})"


def given(label: str, value: Quantity, why: str = "as given") -> Step:
    """The step of a number that was measured or told: it is what it is."""
    return Step(label, label, ((label, value),), value, why)


def length(value: float) -> Quantity:
    """A length in millimetres."""
    return Quantity(value, "length")


def gap(value: float) -> Quantity:
    """How far what should meet lies apart, in millimetres."""
    return Quantity(value, "gap")


def percent(value: float) -> Quantity:
    """A share per hundred."""
    return Quantity(value, "percent")


def count(value: float) -> Quantity:
    """A plain number of things."""
    return Quantity(value, "count")


def about(value: float) -> Quantity:
    """A length in millimetres that a rule names: 3 mm, 2 m, a quarter of a yard; said in round numbers."""
    return Quantity(value, "about")
