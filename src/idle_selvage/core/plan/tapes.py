"""Points told by two tapes: the distances from two fixed marks, as on a big floor."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import length
from .draft import DraftPoint, keyed
from .outline import BadPiece

#: Tapes that miss each other by no more than this just touch: on the line between the marks nobody reads finer, mm.
TOUCH_MM = 2.0
#: From so many millimetres of place to one of reading on, a point is told badly.
BADLY = 3.0


@dataclass(frozen=True)
class TwoTapes:
    """A point ``first`` mm from the first mark and ``second`` mm from the second, on one side of the line from the
    first mark, which lies at 0 on the grainline, up to the second."""

    first: float
    second: float
    side: Literal["left", "right"] = "left"
    smooth: bool = False
    straight: bool = False


def point_by_tapes(apart: float, read: TwoTapes, number: int = 1) -> DraftPoint:
    """The point whose distances from two marks ``apart`` mm from each other were read: along = (a² − b² + c²) ÷ 2c,
    across = √(a² − along²). Raises :class:`BadPiece` where the tapes do not meet."""
    a, b, c = read.first, read.second, apart
    if c < 10.0:
        raise BadPiece("The two marks must be at least a centimetre apart; the further, the better.")
    if a + b < c - TOUCH_MM:
        told = "Point {number}: the two tapes do not reach each other, {a} and {b} are less than {c}."
        raise BadPiece(Sentence(told, number=str(number), a=length(a), b=length(b), c=length(c)))
    if abs(a - b) > c + TOUCH_MM:
        told = "Point {number}: the tapes miss each other: {a} and {b} differ by more than the {c} between the marks."
        raise BadPiece(Sentence(told, number=str(number), a=length(a), b=length(b), c=length(c)))
    along = (a * a - b * b + c * c) / (2.0 * c)
    across = math.sqrt(max(0.0, a * a - along * along))
    return DraftPoint(along, across if read.side == "left" else -across, read.smooth, read.straight)


def points_by_tapes(apart: float, read: Sequence[TwoTapes]) -> tuple[DraftPoint, ...]:
    """The run of points told by two tapes. Raises :class:`BadPiece`."""
    return keyed([point_by_tapes(apart, one, number) for number, one in enumerate(read, start=1)])


def sureness(apart: float, read: TwoTapes) -> float:
    """By how many millimetres the place moves, at most, when one reading is a millimetre off: 1 ÷ sine of the angle
    at which the tapes cross. Infinite on the line between the marks."""
    a, b, c = read.first, read.second, apart
    if a <= 0 or b <= 0:
        return 1.0
    cos = max(-1.0, min(1.0, (a * a + b * b - c * c) / (2 * a * b)))
    sine = math.sqrt(1.0 - cos * cos)
    return 1.0 / sine if sine > 1e-9 else math.inf
