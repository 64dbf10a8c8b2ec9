"""In which unit a drawing was made that does not say it: by how large the pieces of a garment are."""

from __future__ import annotations

from collections.abc import Sequence

from ..core.plan.outline import Point
from ..core.units import MM_PER_INCH

#: The largest piece of a garment is usually between these sizes, mm, from memory.
LIKELY_MM = (250.0, 2500.0)


def guessed_unit(runs: Sequence[Sequence[Point]]) -> tuple[str, float]:
    """The unit in which the longest side of the largest run is as long as a piece of a garment: millimetres where that
    does, else centimetres, else inches, else millimetres."""
    largest = max((max(_span(run)) for run in runs if run), default=0.0)
    for name, size in (("mm", 1.0), ("cm", 10.0), ("in", MM_PER_INCH)):
        if LIKELY_MM[0] <= largest * size <= LIKELY_MM[1]:
            return name, size
    return "mm", 1.0


def _span(run: Sequence[Point]) -> Point:
    xs, ys = [x for x, _ in run], [y for _, y in run]
    return max(xs) - min(xs), max(ys) - min(ys)


def likely(runs: Sequence[Sequence[Point]], size: float) -> bool:
    """Whether the largest of these runs is as long as a piece of a garment, where one unit is so many mm."""
    largest = max((max(_span(run)) for run in runs if run), default=0.0)
    return LIKELY_MM[0] <= largest * size <= LIKELY_MM[1]
