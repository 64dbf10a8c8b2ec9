"""A computed figure carries its working: the steps, the numbers put in, and the sources.

Nothing here knows how a number is written for a reader; that is :mod:`.units`.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Kind = Literal[
    "length", "purchase", "percent", "points", "money", "mass", "count", "ratio", "angle", "about", "printed"
]
SourceKind = Literal["standard", "handbook", "common practice", "from memory", "your own log"]


@dataclass(frozen=True)
class Quantity:
    """A number and what it measures.

    ``length`` and ``purchase`` are millimetres (the second is spoken of as a shop does), ``percent`` is
    per hundred, ``points`` is a difference of two percentages, ``mass`` is grams, ``angle`` is degrees. ``about`` is a
    length of the trade's rules in millimetres, said in round numbers; ``printed`` one off an envelope, whose whole
    eighths of a yard are kept.
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
    """One line of working: what is found, by which formula, from which numbers."""

    label: str
    formula: str
    inputs: tuple[tuple[str, Quantity], ...]
    result: Quantity


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


def length(value: float) -> Quantity:
    """A length in millimetres."""
    return Quantity(value, "length")


def percent(value: float) -> Quantity:
    """A share per hundred."""
    return Quantity(value, "percent")


def count(value: float) -> Quantity:
    """A plain number of things."""
    return Quantity(value, "count")


def about(value: float) -> Quantity:
    """A length in millimetres that a rule names: 3 mm, 2 m, a quarter of a yard; said in round numbers."""
    return Quantity(value, "about")
