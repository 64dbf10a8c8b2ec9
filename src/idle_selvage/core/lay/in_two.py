"""A piece joined of two, where there is no room for it in one."""

from __future__ import annotations

from dataclasses import replace

from ..plan.piece import DrawnMark
from ..plan.shorter import part_between
from .problem import LayPiece

#: A seam allowance on either side of a join, mm. Common practice.
JOIN_SEAM_MM = 15.0
#: What the two parts are called behind their piece.
PARTS = (", lower part", ", upper part")
#: What the line is called along which two parts are joined.
JOIN = "join"


def in_two(piece: LayPiece) -> tuple[LayPiece, LayPiece] | None:
    """The piece as two, each with a seam allowance at the join."""
    xs = [x for x, _ in piece.outline]
    middle = (min(xs) + max(xs)) / 2
    lower = part_between(piece.outline, min(xs), middle + JOIN_SEAM_MM)
    upper = part_between(piece.outline, middle - JOIN_SEAM_MM, max(xs))
    if lower is None or upper is None or max(xs) - min(xs) < 6 * JOIN_SEAM_MM:
        return None
    ys = [y for _, y in piece.outline]
    join = DrawnMark(JOIN, ((middle, min(ys)), (middle, max(ys))))

    def marks_of(low: float, high: float) -> tuple[DrawnMark, ...]:
        return (*(mark for mark in piece.marks if all(low <= x <= high for x, _ in mark.line)), join)

    # an arrow that runs over the join would leave its part
    lower_part = replace(piece, id=piece.id + PARTS[0], name=piece.called + PARTS[0], outline=lower)
    upper_part = replace(piece, id=piece.id + PARTS[1], name=piece.called + PARTS[1], outline=upper)
    return (
        replace(lower_part, arrow=None, marks=marks_of(min(xs), middle)),
        replace(upper_part, arrow=None, marks=marks_of(middle, max(xs))),
    )
