"""A pinned piece: is it on grain by the two distances from its arrow's ends to the selvage or the fold."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, length


def tilt(first: float, second: float, arrow_length: float) -> float:
    """Tilt in degrees of an arrow whose ends measure ``first`` and ``second`` to the selvage."""
    return math.degrees(math.atan2(second - first, arrow_length))


PINNED = Source("common practice", "measured from both ends of the arrow", "only their difference counts")
#: Two distances that differ by no more than this are equal, mm. Common practice, no source.
ON_GRAIN_MM = 2.0


@dataclass(frozen=True)
class GrainCheck:
    """A pinned piece: tilt off its wanted grain in degrees, and how far the head is moved away from the edge (below
    nothing: towards it) with the tail left where it is, mm."""

    tilt: float
    move: float
    good: bool
    #: the tilt with its working
    figure: Figure


def check_grain(measured: tuple[float, float], wanted: tuple[float, float], arrow: float) -> GrainCheck:
    """Two distances from the arrow's tail and head to the selvage or fold, beside those of the lay; all mm.

    Only their difference counts: a piece may lie elsewhere, but not turned. Raises ValueError without an arrow.
    """
    if arrow <= 0:
        raise ValueError("An arrow without a length says nothing.")
    off = (measured[1] - measured[0]) - (wanted[1] - wanted[0])
    found = tilt(measured[0], measured[0] + off, arrow)
    read = (("read at the head", length(measured[1])), ("read at the tail", length(measured[0])))
    lay = (("the lay’s at the head", length(wanted[1])), ("the lay’s at the tail", length(wanted[0])))
    formula = "(read at the head − read at the tail) − (the lay’s at the head − the lay’s at the tail)"
    steps = (
        Step("off by", formula, (*read, *lay), length(off)),
        Step(
            "tilt",
            "atan(off by ÷ arrow)",
            (("off by", length(off)), ("arrow", length(arrow))),
            Quantity(found, "angle"),
        ),
    )
    figure = Figure(found, "angle", steps=steps, sources=(PINNED,))
    return GrainCheck(found, 0.0 - off, abs(off) <= ON_GRAIN_MM, figure)


def told(check: GrainCheck | None, edge: str) -> Sentence:
    """What to do with a pinned piece; nothing while it was not measured at both ends."""
    if check is None:
        return Sentence("")
    if check.good:
        return Sentence("on grain")
    way = "away from" if check.move > 0 else "towards"
    return Sentence("move the head {by} {way} the {edge}", by=length(abs(check.move)), way=way, edge=edge)


def limit_text() -> Sentence:
    """What difference is on grain, in words."""
    told_ = (
        "Measure from both ends of the arrow to the edge named. Only their difference counts: up to {most} is on grain "
        "(common practice)."
    )
    return Sentence(told_, most=about(ON_GRAIN_MM))
