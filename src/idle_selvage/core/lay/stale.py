"""Is a lay still right: what changed since it was made, by comparing two problems."""

from __future__ import annotations

from collections.abc import Mapping

from ..shrink.shrinkage import Direction
from ..wording import Sentence
from ..working import length, percent
from .problem import Problem

#: Shrinkages and widths nearer than this are the same: per cent, and mm.
SAME_PERCENT = 0.05
SAME_WIDTH_MM = 0.05

_WAYS: dict[Direction, str] = {"warp": "along", "weft": "across"}


def changes(
    then: Problem, now: Problem, planned_then: Mapping[str, float], planned_now: Mapping[str, float]
) -> tuple[Sentence, ...]:
    """What changed since a lay was made for ``then``, each as the end of a sentence; none: it is still right.

    ``planned_…``: the shrinkages planned with, per cent, by direction.
    """
    found: list[Sentence] = []
    for direction, way in _WAYS.items():
        before, after = planned_then.get(direction), planned_now.get(direction)
        if before is not None and after is not None and abs(before - after) > SAME_PERCENT:
            told = "the shrinkage {way} to plan with went from {before} to {after}"
            found.append(Sentence(told, way=way, before=percent(before), after=percent(after)))
    if abs(then.width - now.width) > SAME_WIDTH_MM:
        told = "the usable width went from {before} to {after}"
        found.append(Sentence(told, before=length(then.width), after=length(now.width)))
    for changed, what in (
        (then.one_way != now.one_way, "the cloth's direction was changed"),
        (then.reversible != now.reversible, "which side shows was changed"),
        (then.gap != now.gap, "the room between pieces was changed"),
        (then.blocked != now.blocked, "the flaws to lay around were changed"),
        (then.bars != now.bars, "the bars to meet were changed"),
        (then.pieces != now.pieces, "the pieces were changed"),
    ):
        if changed:
            found.append(Sentence(what))
    return tuple(found)
