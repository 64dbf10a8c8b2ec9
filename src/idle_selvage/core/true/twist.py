"""Does it matter: what a slanting weft does to each piece that is cut as the cloth is."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..plan.outline import Outline
from ..plan.piece import Grain
from ..working import Figure, Quantity, Source, Step, length

TWIST = Source("common practice", "twist at the hem ≈ H × tan a", "a panel of length H on cloth with slant a")
TwistVerdict = Literal["harmless", "visible", "will not hang"]

#: Twist at the hem up to which nobody sees it, and from which the garment turns on the body, mm. From memory.
SEEN_MM = 10.0
HANGS_MM = 30.0
#: Bars that should meet: matched to this, seen from this, mm. Common practice, no source.
MATCHED_MM = 1.5
MISMATCH_MM = 3.0


@dataclass(frozen=True)
class Twist:
    """One piece: twist at its hem, how far a bar climbs from one side seam to the other, and the judgement."""

    piece: str
    twist: Figure
    drift: Figure
    verdict: TwistVerdict
    drift_told: str


def twist_of(
    name: str, outline: Outline, grain: Grain, angle: float, *, on_fold: bool = False, bars: bool = False
) -> Twist:
    """What a slant of ``angle`` degrees does to a piece cut as it is.

    A piece on the cross grain hangs along its weft, so its height is what lies across the cloth. On the bias both
    threads slant and the hem is levelled after hanging anyway: it is judged by the same twist over its height.
    """
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    # the outline has its top towards +x whatever its grain is: height is along x, width across it
    height = max(xs) - min(xs)
    width = (max(ys) - min(ys)) * (2 if on_fold else 1)
    slope = math.tan(math.radians(abs(angle)))
    twist, drift = height * slope, width * slope
    put = (("slant a", Quantity(abs(angle), "angle")),)
    verdict: TwistVerdict = "harmless" if twist <= SEEN_MM else "visible" if twist <= HANGS_MM else "will not hang"
    told = ""
    if bars and grain in ("lengthwise", "any"):
        if drift <= MATCHED_MM:
            told = "bars still meet at the seam"
        elif drift <= MISMATCH_MM:
            told = "bars miss each other a little at the seam"
        else:
            told = "bars do not meet at the seam"
    return Twist(
        name,
        Figure(
            twist,
            "length",
            steps=(Step("twist at the hem", "H × tan a", (("height H", length(height)), *put), length(twist)),),
            sources=(TWIST,),
        ),
        Figure(
            drift,
            "length",
            steps=(Step("a bar climbs", "width × tan a", (("width", length(width)), *put), length(drift)),),
            sources=(TWIST,),
        ),
        verdict,
        told,
    )


def sheared(outline: Outline, angle: float) -> Outline:
    """The piece as it hangs: every place is moved sideways by how far it lies below the top, times the slant."""
    top = max(x for x, _ in outline)
    slope = math.tan(math.radians(angle))
    return tuple((x, y + (top - x) * slope) for x, y in outline)
