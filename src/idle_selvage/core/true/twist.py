"""Does it matter: what a slanting weft does to each piece that is cut as the cloth is."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..cloth.bars import MATCHED_MM, MISMATCH_MM
from ..plan.allowance import cut_line
from ..plan.outline import Outline, whole_polygon
from ..plan.piece import Grain, Piece
from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, length

TWIST = Source("common practice", "twist at the hem ≈ H × tan a", "a panel of length H on cloth with slant a")
TwistVerdict = Literal["harmless", "visible", "will not hang"]

#: Twist at the hem up to which nobody sees it, and from which the garment turns on the body, mm. From memory.
SEEN_MM = 10.0
HANGS_MM = 30.0


@dataclass(frozen=True)
class Twist:
    """One piece: twist at its hem, how far a bar climbs from one side seam to the other, and the judgement."""

    piece: str
    twist: Figure
    drift: Figure
    verdict: TwistVerdict
    drift_told: str
    #: whether bars that should meet at its seams do; None where no bars are carried by the weft
    meets: bool | None = None


#: What the letters of the formula stand for.
TALL = "height H of the piece, slant a of the weft"


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
    put = (("a", Quantity(abs(angle), "angle")),)
    verdict: TwistVerdict = "harmless" if twist <= SEEN_MM else "visible" if twist <= HANGS_MM else "will not hang"
    told, meets = "", None
    if bars and grain in ("lengthwise", "any"):
        if drift <= MATCHED_MM:
            told = "bars still meet at the seam"
        elif drift <= MISMATCH_MM:
            told = "bars miss each other a little at the seam"
        else:
            told = "bars do not meet at the seam"
        meets = drift <= MISMATCH_MM
    return Twist(
        name,
        Figure(
            twist,
            "length",
            steps=(Step("twist at the hem", "H × tan(a)", (("H", length(height)), *put), length(twist), TALL),),
            sources=(TWIST,),
        ),
        Figure(
            drift,
            "length",
            steps=(Step("a bar climbs", "width × tan(a)", (("width", length(width)), *put), length(drift), "slant a"),),
            sources=(TWIST,),
        ),
        verdict,
        told,
        meets,
    )


def sheared(outline: Outline, angle: float) -> Outline:
    """The piece as it hangs: every place is moved sideways by how far it lies below the top, times the slant."""
    top = max(x for x, _ in outline)
    slope = math.tan(math.radians(angle))
    return tuple((x, y + (top - x) * slope) for x, y in outline)


def matters(twists: Sequence[Twist]) -> Sentence:
    """Does it matter, by the piece that fares worst; ``twists`` sorted so, the worst first."""
    if not twists:
        return Sentence("Does it matter?")
    worst = twists[0]
    if worst.verdict != "harmless":
        how = "it shows" if worst.verdict == "visible" else "it will not hang"
        told = "{piece} twists by {twist} at the hem: {how}"
        return Sentence(told, piece=worst.piece, twist=length(worst.twist.value), how=how)
    missed = next((twist.piece for twist in twists if twist.meets is False), None)
    if missed is not None:
        told = "Nothing twists so that it shows, but bars do not meet at the seams of {piece}"
        return Sentence(told, piece=missed)
    return Sentence("It does not matter: no piece twists so that it shows")


def limits_text() -> Sentence:
    """From which twist on it shows, and from which it does not hang."""
    told = (
        "Up to {seen} nobody sees it, from {hangs} a leg or skirt turns on the body (from memory). A panel of length H "
        "on a slant a twists by H × tan a."
    )
    return Sentence(told, seen=about(SEEN_MM), hangs=about(HANGS_MM))


def hanging_outline(piece: Piece) -> Outline:
    """The cut line of a whole piece, both halves of one on the fold. Raises BadPiece."""
    outline = cut_line(piece)
    if not piece.on_fold:
        return outline
    return tuple((float(x), float(y)) for x, y in whole_polygon(outline).exterior.coords[:-1])
