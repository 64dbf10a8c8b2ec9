"""Pieces beside one another on one sheet, each standing upright: along goes up, across to the left."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..core.plan.allowance import seam_line
from ..core.plan.arrow import grainline
from ..core.plan.draft import Draft, outline_of, place_on
from ..core.plan.drawn import DOUBLE_MM, NOTCH_MM, spun
from ..core.plan.outline import BadPiece, Outline, Point
from .drawn_pieces import PieceRead

#: Pieces lie so far apart on the sheet, mm.
APART_MM = 30.0


@dataclass(frozen=True)
class Standing:
    """A piece where it stands on the sheet: ``at`` is where its own origin lies, x to the right and y up, mm."""

    read: PieceRead
    at: Point

    def place(self, place: Point) -> Point:
        """A place of the piece on the sheet."""
        return (self.at[0] - place[1], self.at[1] + place[0])

    def run(self, places: Sequence[Point]) -> Outline:
        """A run of places of the piece on the sheet."""
        return tuple(self.place(one) for one in places)


def standing(pieces: Sequence[PieceRead]) -> Iterator[Standing]:
    """The pieces from left to right, their feet on one line. Raises :class:`BadPiece`."""
    left = 0.0
    for read in pieces:
        rings = [outline_of(read.draft), *(size.places for size in read.sizes)]
        xs, ys = [x for ring in rings for x, _ in ring], [y for ring in rings for _, y in ring]
        yield Standing(read, (left + max(ys), -min(xs)))
        left += max(ys) - min(ys) + APART_MM


def drafted_size(read: PieceRead) -> str:
    """The size whose points are those of the draft; the first where none is."""
    here = [point.at for point in read.draft.points]
    same = (s.size for s in read.sizes if all(math.dist(a, b) < 1e-3 for a, b in zip(s.places, here, strict=True)))
    return next(same, read.sizes[0].size if read.sizes else "")


def grain_of(draft: Draft) -> tuple[tuple[Point, Point], bool]:
    """The grainline to be drawn, and whether it is printed on the piece; else it runs where there is room."""
    if draft.arrow is not None:
        return draft.arrow, True
    return grainline(outline_of(draft), on_fold=draft.half), False


def notches_of(draft: Draft) -> list[tuple[Point, Point, bool]]:
    """Each notch: its place on the line, the way outwards there, whether it is double."""
    out = []
    for notch in draft.notches:
        try:
            place, way = place_on(draft, notch.after, notch.at)
        except BadPiece:
            continue
        out.append((place, way, notch.double))
    return out


def ticks(place: Point, way: Point, *, double: bool) -> list[tuple[Point, Point]]:
    """The ticks of a notch, across the line."""
    aside = (-way[1], way[0])
    out = []
    for off in (-DOUBLE_MM / 2, DOUBLE_MM / 2) if double else (0.0,):
        foot = (place[0] + aside[0] * off, place[1] + aside[1] * off)
        half = NOTCH_MM / 2
        out.append(((foot[0] - way[0] * half, foot[1] - way[1] * half),
                    (foot[0] + way[0] * half, foot[1] + way[1] * half)))  # fmt: skip
    return out


def sewn_along(read: PieceRead) -> Outline | None:
    """The line it is sewn along where that lies inside the drawn one, in the draft's own axes."""
    if read.draft.included <= 0:
        return None
    piece = read.piece
    try:
        line = seam_line(piece)
    except BadPiece:
        return None
    # a piece whose arrow leans stands turned as it is cut
    return spun(line, piece.slant) if piece.slant else line
