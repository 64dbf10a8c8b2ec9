"""Gathered strips and ruffles, joined or cut in one."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import Figure, Inputs, Quantity, Source, Step, count, length

GATHERING = Source("common practice", "strips joined with seam allowances", "each join takes two")


MOST_STRIPS = 500


class BadStrip(ValueError):
    """Strips that cannot be cut; the message is a sentence."""


def joined_length(n: int, each: float, seam: float, ring: bool) -> float:
    """Length of ``n`` strips of ``each`` mm joined with allowances of ``seam``, flat or into a ring."""
    joins = n if ring else n - 1
    return n * each - 2 * joins * seam


@dataclass(frozen=True)
class Ruffle:
    """What is wanted. ``edge``: length of the edge it is sewn to; ``depth`` finished; ``hem`` turned up below and
    ``seam`` at the top and at joins; ``width`` usable of the cloth; all mm."""

    edge: float
    fullness: float
    depth: float
    width: float
    hem: float = 20.0
    seam: float = 15.0
    ring: bool = True


@dataclass(frozen=True)
class Way:
    """One way to cut it: how many strips, how long each, what they come to joined, and the length of cloth it takes:
    over its whole width for strips across, over ``deep`` of its width for one along. Cloth as it is cut, mm."""

    key: Literal["across", "along"]
    name: str
    strips: int
    each: float
    joined: Figure
    fullness: Figure
    cloth: Figure
    #: depth of each strip as cut, mm
    deep: float
    #: the cloth that is in the strips, mm²
    area: float


def cut_depth(ruffle: Ruffle) -> float:
    """Depth of a strip as cut: finished depth, hem below, allowance above, mm."""
    return ruffle.depth + ruffle.hem + ruffle.seam


def ways(ruffle: Ruffle) -> tuple[Way, ...]:
    """Strips joined across the cloth and one long strip along it, the one that takes less cloth first.

    What lies beside a strip along the cloth stays for pieces; of strips across nothing does. Raises BadStrip.
    """
    if ruffle.edge <= 0 or ruffle.depth <= 0 or ruffle.width <= 0:
        raise BadStrip("Edge, depth and width must each be more than nothing.")
    if not 1.0 <= ruffle.fullness <= 10.0:
        raise BadStrip("Fullness goes from 1 (not gathered) to 10; 1.5 to 3 is usual.")
    if ruffle.width <= 2 * ruffle.seam:
        raise BadStrip("The cloth is no wider than two seam allowances.")
    wanted = ruffle.edge * ruffle.fullness
    deep = cut_depth(ruffle)
    found = [_across(ruffle, wanted, deep)]
    if deep <= ruffle.width:
        found.append(_along(ruffle, wanted, deep))
    return tuple(sorted(found, key=lambda way: way.area))


def _joined_figure(n: int, each: float, ruffle: Ruffle) -> Figure:
    value = joined_length(n, each, ruffle.seam, ruffle.ring)
    formula = "n × l − 2 × n × a" if ruffle.ring else "n × l − 2 × (n − 1) × a"
    inputs = (("n", count(n)), ("l", length(each)), ("a", length(ruffle.seam)))
    name = "joined into a ring" if ruffle.ring else "joined flat"
    step = Step(name, formula, inputs, length(value), "n strips of length l, allowance a")
    return Figure(value, "length", steps=(step,), sources=(GATHERING,))


def _fullness(joined: Figure, ruffle: Ruffle) -> Figure:
    value = joined.value / ruffle.edge
    inputs = (("joined", length(joined.value)), ("edge", length(ruffle.edge)))
    step = Step("fullness", "joined ÷ edge", inputs, Quantity(value, "ratio"))
    return Figure(value, "ratio", steps=(*joined.steps, step), sources=(GATHERING,))


def _across(ruffle: Ruffle, wanted: float, deep: float) -> Way:
    each = ruffle.width
    more = 0.0 if ruffle.ring else 2 * ruffle.seam
    n = max(1, math.ceil((wanted - more) / (each - 2 * ruffle.seam) - 1e-9))
    if n > MOST_STRIPS:
        raise BadStrip(f"That would be {n} strips; check the units of edge and width.")
    joined = _joined_figure(n, each, ruffle)
    taken = n * deep
    cut, deep_step = _deep(ruffle)
    put = (("strips", count(n)), cut)
    step = Step("cloth", "strips × depth as cut", put, length(taken), "over its whole width")
    cloth = Figure(taken, "length", steps=(deep_step, step), sources=(GATHERING,))
    name = "joined, from selvage to selvage"
    return Way("across", name, n, each, joined, _fullness(joined, ruffle), cloth, deep, taken * ruffle.width)


def _deep(ruffle: Ruffle) -> tuple[tuple[str, Quantity], Step]:
    """The depth of a strip as it is cut, with its working."""
    put = (("depth", length(ruffle.depth)), ("hem", length(ruffle.hem)), ("allowance", length(ruffle.seam)))
    found = length(cut_depth(ruffle))
    return ("depth as cut", found), Step("depth as cut", "depth + hem + allowance", put, found)


def _along(ruffle: Ruffle, wanted: float, deep: float) -> Way:
    each = wanted + (2 * ruffle.seam if ruffle.ring else 0.0)
    joined = _joined_figure(1, each, ruffle)
    put: Inputs = (("edge", length(ruffle.edge)), ("fullness", Quantity(ruffle.fullness, "ratio")))
    formula = "edge × fullness"
    if ruffle.ring:
        put, formula = (*put, ("allowance", length(ruffle.seam))), "edge × fullness + 2 × allowance"
    step = Step("the strip’s length", formula, put, length(each), "along the selvage, beside other pieces")
    cloth = Figure(each, "length", steps=(_deep(ruffle)[1], step), sources=(GATHERING,))
    name = "one long strip along the selvage"
    return Way("along", name, 1, each, joined, _fullness(joined, ruffle), cloth, deep, each * deep)


def other_fullness(way: Way, wished: float) -> bool:
    """Whether the strips come out gathered otherwise than wished, so that it has to be said."""
    return abs(way.fullness.value - wished) > SAME_FULLNESS


#: Fullness nearer than this to the wished one is it.
SAME_FULLNESS = 0.005


def headline(found: Sequence[Way]) -> Sentence:
    """What to cut, by the way that takes least cloth."""
    if not found:
        return Sentence("Strips, gathered and on the bias")
    best = found[0]
    strips = "one strip" if best.strips == 1 else f"{best.strips} strips"
    return Sentence(
        "Cut {strips} {deep} deep, {each} long", strips=strips, deep=length(best.deep), each=length(best.each)
    )
