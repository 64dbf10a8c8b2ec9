"""Dye that comes off: rub and bleed grades, and which cloths may share water.

Grades run from 1, heavy staining, to 5, none (grey scale of ISO 105-A03; rubbing ISO 105-X12, AATCC TM8).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..working import Source

GREY_SCALE = Source("standard", "ISO 105-A03, ISO 105-X12, AATCC TM8", "grades of staining, 1 heavy to 5 none")

#: The scale in plain words.
GRADES: dict[int, str] = {
    1: "the rag is heavily stained",
    2: "clearly stained",
    3: "a tint all can see",
    4: "a trace, seen only beside a clean rag",
    5: "the rag stays clean",
}
#: At this grade a cloth counts as clean; below it, it is washed on its own until it is. Common practice, no source.
CLEAN = 5


@dataclass(frozen=True)
class Dye:
    """What is known of a cloth's dye: depth of colour, rub grade, grades of each wash's rag, the first wash first."""

    depth: str = "medium"
    rub: int | None = None
    washes: tuple[int, ...] = ()

    @property
    def last(self) -> int | None:
        """The newest grade."""
        return self.washes[-1] if self.washes else self.rub


def verdict(dye: Dye) -> str:
    """What to do about the dye, in a sentence."""
    if dye.last is None:
        return "Rub it with a wet white rag, and grade the rag." if dye.depth == "dark" else ""
    if dye.last >= CLEAN:
        return "The rag stays clean: nothing more to do."
    if dye.washes:
        return f"Grade {dye.last}: {GRADES[dye.last]}. Wash it again on its own, and test again."
    return f"Grade {dye.last}: {GRADES[dye.last]}. Wash it on its own, with a dye-catching sheet, and test again."


def alone(dye: Dye) -> str:
    """Why a cloth has the water to itself, or nothing when it may share."""
    if dye.last is not None and dye.last < CLEAN:
        return f"its dye comes off (grade {dye.last})"
    if dye.last is None and dye.depth == "dark":
        return "it is dark and was not rub tested"
    return ""


def may_share(a: Dye, b: Dye) -> bool:
    """Whether two cloths may share water: neither bleeds, light never goes with dark, nor with a colour that was never
    tested."""
    if alone(a) or alone(b):
        return False
    return not any(
        one.depth == "light" and (other.depth == "dark" or (other.depth != "light" and other.last is None))
        for one, other in ((a, b), (b, a))
    )


def all_share(cloths: Sequence[Dye]) -> bool:
    """Whether every two of them may."""
    return all(may_share(a, b) for i, a in enumerate(cloths) for b in cloths[i + 1 :])
