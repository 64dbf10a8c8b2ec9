"""What is asked back about a piece before it is kept: readings that can be, but are hardly meant."""

from __future__ import annotations

from collections.abc import Sequence

from ..wording import Sentence
from ..working import about, length
from .draft import DraftPoint

#: The widest cloth one meets; a piece of clothing that is wider is made of two. Common practice, from memory.
WIDEST_MM = 3200.0
#: Longer than this no pattern piece is drawn in one. Common practice, from memory.
LONGEST_MM = 5000.0
#: A reading so many times the next largest on any side is a slip of a digit or of a unit.
TIMES = 5.0
#: Below this no reading is large, mm.
SMALL_MM = 300.0


def doubts(points: Sequence[DraftPoint], name: str = "") -> tuple[Sentence, ...]:
    """What looks like a slip in the points of a piece, each as a question with its number."""
    what = name or "The piece"
    along, across = [p.along for p in points], [p.across for p in points]
    long, wide = max(along) - min(along), max(across) - min(across)
    out: list[Sentence] = []
    slip = _outlier(points, long)
    if slip is not None:
        side = "left" if slip.across > 0 else "right"
        told = "At {along} along, is it {across} to the {side}, on a piece {long} long?"
        out.append(Sentence(told, along=length(slip.along), across=length(abs(slip.across)), side=side,
                            long=length(long)))  # fmt: skip
    elif wide > WIDEST_MM:
        told = "Is {what} {wide} wide? Cloth is at most {most}."
        out.append(Sentence(told, what=what, wide=length(wide), most=about(WIDEST_MM)))
    if long > LONGEST_MM:
        told = "Is {what} {long} long? Pattern pieces are hardly longer than {most}."
        out.append(Sentence(told, what=what, long=length(long), most=about(LONGEST_MM)))
    return tuple(out)


def _outlier(points: Sequence[DraftPoint], long: float) -> DraftPoint | None:
    """The one reading across that all others are small beside, and the piece's length too."""
    order = sorted(points, key=lambda p: abs(p.across))
    if len(order) < 3:
        return None
    last, before = order[-1], order[-2]
    far = abs(last.across)
    if far > SMALL_MM and far > TIMES * abs(before.across) and far > long:
        return last
    return None
