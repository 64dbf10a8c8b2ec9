"""What is known of a cloth's shrinkage, on what it rests, and what of it is still to come before cutting."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from ..cloth.make import Make
from ..working import Figure, Source, Step, of, percent
from .history import Past, from_history, like
from .programme import Programme, beside
from .ranges import PlanningRange, blend_range, planned_from_range
from .shrinkage import BadReadings, Direction, plan_with
from .swatch import Swatch, in_all

Basis = Literal["swatch", "limit", "history", "range", "raw", "none"]


@dataclass(frozen=True)
class Shrinkage:
    """Shrinkage of one direction: what it rests on, the figure, and what to plan with; or what is ``missing``.

    The basis ``limit``: the swatch was washed less hard than the length will be, and is only a lower limit. ``told``:
    what is to be minded about it, a sentence, or nothing.
    """

    direction: Direction
    basis: Basis
    figure: Figure | None
    plan: Figure | None
    missing: str = ""
    told: str = ""


def known_shrinkage(
    make: Make,
    swatch: Swatch,
    past: Sequence[Past],
    direction: Direction,
    washes: int | None = None,
    how: Programme | None = None,
) -> Shrinkage:
    """The washed swatch when there is one, else one's own tests of like cloth, else the range of the blend.

    ``washes``: after so many of the swatch's washes, or the last that was measured; None: after all of them. What is
    planned with is never less than after an earlier wash. ``how`` the length will be washed; None: as the swatch was.
    """
    return _known(make, swatch, tuple(past), direction, washes, how)


# a page asks the same many times over: of every state, for width, length, purchase and set
@lru_cache(maxsize=512)
def _known(
    make: Make,
    swatch: Swatch,
    past: tuple[Past, ...],
    direction: Direction,
    washes: int | None,
    how: Programme | None,
) -> Shrinkage:
    try:
        found = _by_wash(swatch, direction, washes)
    except BadReadings as fault:
        return Shrinkage(direction, "none", None, None, str(fault))
    entry = blend_range(make)
    if found:
        return _by_swatch(swatch, _never_less(found), direction, entry, how)
    own = from_history(like(past, how), direction)
    if own is not None:
        return Shrinkage(direction, "history", own, plan_with(own))
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


def _never_less(found: Sequence[Figure]) -> Figure:
    """The last one, its high end never below an earlier one's: cloth does not give back what it once lost."""
    last = found[-1]
    ends = tuple(
        (f"at most after wash {k}", percent(one.value if one.high is None else one.high))
        for k, one in enumerate(found, 1)
    )
    high = max(value.value for _, value in ends)
    if last.high is None or high <= last.high:
        return last
    step = Step("at most", of("largest", ends), ends, percent(high), "never less than after an earlier wash")
    return replace(last, high=high, steps=(*last.steps, step))


def _by_swatch(
    swatch: Swatch, figure: Figure, direction: Direction, entry: PlanningRange | None, how: Programme | None
) -> Shrinkage:
    """What the swatch says of a length that will be washed so."""
    if swatch.how is None or how is None:
        told = "" if how is None else UNTOLD
        return Shrinkage(direction, "swatch", figure, plan_with(figure), told=told)
    stands = beside(swatch.how, how)
    if stands == "same":
        return Shrinkage(direction, "swatch", figure, plan_with(figure))
    ranged = None if entry is None else planned_from_range(entry, direction)
    if stands == "milder":
        milder = _widened(figure, ranged, "smallest")
        return Shrinkage(direction, "swatch", milder, plan_with(milder), told=MILDER)
    harsher = _widened(figure, ranged, "largest")
    return Shrinkage(direction, "limit", harsher, plan_with(harsher), told=HARSHER)


UNTOLD = "How the swatch was washed is not written down: say it under Shrink, so that it is known what it tells."
MILDER = (
    "The swatch was washed harder than the length will be: the length may shrink less, and is planned with what the "
    "swatch lost."
)
HARSHER = (
    "The length will be washed harder than the swatch was: the swatch is only a lower limit. Wash one as the length "
    "will be."
)
AS_WASHED = Source("common practice", "a swatch belongs to how it was washed", "for a harsher wash a lower limit only")


def _widened(figure: Figure, ranged: Figure | None, way: Literal["smallest", "largest"]) -> Figure:
    """The swatch's figure with its low end down to the planning range's, or its best and high up to it."""
    if ranged is None or ranged.low is None or ranged.high is None or figure.low is None or figure.high is None:
        return replace(figure, sources=(*figure.sources, AS_WASHED))

    def taken(label: str, mine: float, theirs: float) -> tuple[float, Step]:
        put = (("swatch", percent(mine)), ("planning range", percent(theirs)))
        value = min(mine, theirs) if way == "smallest" else max(mine, theirs)
        return value, Step(label, of(way, put), put, percent(value))

    steps = [*figure.steps, *ranged.steps]
    low, best, high = figure.low, figure.value, figure.high
    if way == "smallest":
        low, step = taken("at least", low, ranged.low)
        steps.append(step)
    else:
        best, step = taken("shrinkage", best, ranged.value)
        high, more = taken("at most", high, ranged.high)
        steps += [step, more]
    sources = (*figure.sources, *ranged.sources, AS_WASHED)
    return Figure(best, "percent", low, max(best, high), tuple(steps), sources, figure.note)


def nothing_left(direction: Direction, why: str, sources: tuple[Source, ...]) -> Shrinkage:
    """Shrinkage to plan with when none is to come before cutting: measured as it is, left alone, or cut raw."""
    step = Step("shrinkage before cutting", "0", (), percent(0.0), why)
    figure = Figure(0.0, "percent", steps=(step,), sources=sources, note=why)
    return Shrinkage(direction, "raw", figure, figure)


RAW_CUT = Source("common practice", "sew first, shrink to fit", "the pieces are enlarged instead of the cloth shrunk")
LEFT_ALONE = Source("common practice", "left alone before cutting", "cloth that is never washed is planned with none")
