"""What is known of a cloth's shrinkage, on what it rests, and what of it is still to come before cutting."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..cloth.make import Make
from ..working import Figure, Source, Step, percent
from .history import Past, from_history
from .ranges import blend_range, planned_from_range
from .shrinkage import BadReadings, Direction, plan_with
from .swatch import Swatch, in_all

Basis = Literal["swatch", "history", "range", "raw", "none"]


@dataclass(frozen=True)
class Shrinkage:
    """Shrinkage of one direction: what it rests on, the figure, and what to plan with; or what is wrong."""

    direction: Direction
    basis: Basis
    figure: Figure | None
    plan: Figure | None
    missing: str = ""


TREATED = Source("your own log", "pre-treated already", "what is left to lose is planned as nothing")


def known_shrinkage(make: Make, swatch: Swatch, past: Sequence[Past], direction: Direction) -> Shrinkage:
    """The washed swatch when there is one, else one's own tests of like cloth, else the range of the blend."""
    try:
        figure = in_all(swatch, direction)
    except BadReadings as fault:
        return Shrinkage(direction, "none", None, None, str(fault))
    if figure is not None:
        return Shrinkage(direction, "swatch", figure, plan_with(figure))
    own = from_history(past, direction)
    if own is not None:
        return Shrinkage(direction, "history", own, plan_with(own))
    entry = blend_range(make)
    if entry is None:
        return Shrinkage(direction, "none", None, None, "Wash a swatch, or say what the cloth is made of.")
    figure = planned_from_range(entry, direction)
    return Shrinkage(direction, "range", figure, plan_with(figure))


def nothing_left(direction: Direction, why: str, formula: str, sources: tuple[Source, ...]) -> Shrinkage:
    """Shrinkage to plan with when none is to come before cutting: the cloth was treated, or stays raw."""
    step = Step(why, formula, (("shrinkage before cutting", percent(0.0)),), percent(0.0))
    figure = Figure(0.0, "percent", steps=(step,), sources=sources, note=why)
    return Shrinkage(direction, "raw", figure, figure)


RAW_CUT = Source("common practice", "sew first, shrink to fit", "the pieces are enlarged instead of the cloth shrunk")
