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


def known_shrinkage(
    make: Make, swatch: Swatch, past: Sequence[Past], direction: Direction, washes: int | None = None
) -> Shrinkage:
    """The washed swatch when there is one, else one's own tests of like cloth, else the range of the blend.

    ``washes``: after so many of the swatch's washes, or the last that was measured; None: after all of them. What is
    planned with is never less than after an earlier wash.
    """
    try:
        found = _by_wash(swatch, direction, washes)
    except BadReadings as fault:
        return Shrinkage(direction, "none", None, None, str(fault))
    if found:
        return Shrinkage(
            direction, "swatch", found[-1], max((plan_with(f) for f in found), key=lambda plan: plan.value)
        )
    own = from_history(past, direction)
    if own is not None:
        return Shrinkage(direction, "history", own, plan_with(own))
    entry = blend_range(make)
    if entry is None:
        return Shrinkage(direction, "none", None, None, "Wash a swatch, or say what the cloth is made of.")
    figure = planned_from_range(entry, direction)
    return Shrinkage(direction, "range", figure, plan_with(figure))


def _by_wash(swatch: Swatch, direction: Direction, washes: int | None) -> list[Figure]:
    """Shrinkage since before washing after each wash that was measured, up to ``washes``."""
    measured = swatch.washes(direction)
    last = measured if washes is None else min(washes, measured)
    found = (in_all(swatch, direction, wash) for wash in range(1, last + 1))
    return [figure for figure in found if figure is not None]


def nothing_left(direction: Direction, why: str, formula: str, sources: tuple[Source, ...]) -> Shrinkage:
    """Shrinkage to plan with when none is to come before cutting: measured as it is, left alone, or cut raw."""
    step = Step(why, formula, (("shrinkage before cutting", percent(0.0)),), percent(0.0))
    figure = Figure(0.0, "percent", steps=(step,), sources=sources, note=why)
    return Shrinkage(direction, "raw", figure, figure)


RAW_CUT = Source("common practice", "sew first, shrink to fit", "the pieces are enlarged instead of the cloth shrunk")
LEFT_ALONE = Source("common practice", "left alone before cutting", "cloth that is never washed is planned with none")
