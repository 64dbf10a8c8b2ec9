"""Paper that measures by itself: a swatch template that shows shrinkage in per cent, rulers, and gauges of
allowances."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..wording import Sentence
from ..working import length

#: The smallest and the largest swatch that is drawn, mm. TM135 marks 250 mm (10 in) on a larger square.
LEAST_MM, MOST_MM = 100.0, 1000.0
#: How far a swatch may have grown or shrunk on the template, per cent.
GROWN, SHRUNK = 3, 15


class BadTemplate(ValueError):
    """A template that cannot be drawn, with a sentence."""


@dataclass(frozen=True)
class Graduation:
    """A line across an edge: how far from the corner where the washed swatch is laid, mm; and the shrinkage that an
    edge which ends there shows, per cent."""

    at: float
    percent: float
    numbered: bool


def graduations(side: float) -> tuple[Graduation, ...]:
    """The graduations of a template for a swatch that measured ``side`` mm before it was washed: every half per cent,
    whole ones numbered. Raises :class:`BadTemplate`.

    A swatch that has shrunk by p per cent ends at ``side × (1 − p / 100)``; so what is read off is the shrinkage of ISO
    3759 and AATCC TM135, 100 × (before − after) ÷ before, without arithmetic.
    """
    if not LEAST_MM <= side <= MOST_MM:
        told = "A swatch is from {least} to {most} square."
        raise BadTemplate(Sentence(told, least=length(LEAST_MM), most=length(MOST_MM)))
    halves = range(-2 * GROWN, 2 * SHRUNK + 1)
    return tuple(Graduation(side * (1 - half / 200), half / 2, half % 2 == 0) for half in halves)


def read_off(side: float, after: float) -> float:
    """The shrinkage that the template shows for an edge of ``after`` mm, per cent: the nearest graduation."""
    return min(graduations(side), key=lambda one: abs(one.at - after)).percent


@dataclass(frozen=True)
class Gauge:
    """A strip of card as wide as an allowance, to chalk along, and which edges have it."""

    wide: float
    used_by: tuple[str, ...]


def gauges(allowances: Sequence[tuple[str, float]]) -> tuple[Gauge, ...]:
    """A gauge for each allowance that is used, given as (piece, mm), the narrowest first."""
    found: dict[float, list[str]] = {}
    for piece, wide in allowances:
        if wide > 0:
            found.setdefault(round(wide, 1), []).append(piece)
    return tuple(Gauge(wide, tuple(dict.fromkeys(names))) for wide, names in sorted(found.items()))
