"""What still has to be treated, and what of a cloth decides its load."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..cloth.dye import CLEAN
from ..cloth.make import PILE, Make


@dataclass(frozen=True)
class WashDone:
    """One wash of a length: the rag's grade if it was tested, and whether a stand-in made it up."""

    grade: int | None = None
    made_up: bool = False


def needs_treatment(washes: Sequence[WashDone]) -> bool:
    """Whether a length still has to be treated: it never was, or its dye still came off the last time.

    What a stand-in made up treats nothing. Common practice.
    """
    done = [wash for wash in washes if not wash.made_up]
    return not done or (done[-1].grade is not None and done[-1].grade < CLEAN)


def napped(make: Make, direction: str = "none") -> bool:
    """Whether its pile wants the water to itself: by its weave, or because it was said to have a nap or a stroke."""
    return make.weave in PILE or direction in ("nap", "stroke")
