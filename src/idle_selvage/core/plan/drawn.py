"""From the draft on the paper to the piece as it is cut: turned so that its grain runs along +x, with what is drawn on
it."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from ..wording import sentence_of
from .draft import Draft, lean, outline_of, place_on, runs, starts
from .outline import BadPiece, Outline, Point
from .piece import Allowance, DrawnMark, Grain, Piece

#: A notch is drawn so long where no allowance says how long, mm.
NOTCH_MM = 6.0
#: The two ticks of a double notch lie so far apart, mm.
DOUBLE_MM = 6.0


@dataclass(frozen=True)
class HowCut:
    """How a piece is cut from one cloth; ``bare``: at the seam line, without any allowance; ``shorter``: so much is
    left off its low end by whoever cuts it. ``seam`` and ``shorter`` in mm."""

    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0
    bare: bool = False
    shorter: float = 0.0


def piece_of(name: str, draft: Draft, how: HowCut) -> Piece:
    """The piece as it is cut. One whose draft cannot be keeps what is wrong with it as its ``fault``, which whoever
    cuts it will raise."""
    try:
        return _piece_of(name, draft, how)
    except BadPiece as fault:
        told = sentence_of(fault)
        return Piece(name, tuple(p.at for p in draft.points), how.copies, how.pair, how.on_fold, how.grain,
                     how.one_way, how.seam, fault=told)  # fmt: skip


@lru_cache(maxsize=512)
def _piece_of(name: str, draft: Draft, how: HowCut) -> Piece:
    outline, given = outline_of(draft), stretches(draft)
    slant = lean(draft)
    arrow = draft.arrow
    if draft.half and arrow is not None:
        # along the fold to the hair, so that it says nothing else than the fold does
        arrow = (arrow[0], (arrow[1][0], arrow[0][1]))
    whole = Piece(
        name, outline, how.copies, how.pair, how.on_fold, how.grain, how.one_way, how.seam,
        given, draft.included, how.bare, arrow, slant, marks_of(draft, how.seam),
    )  # fmt: skip
    return turned_to(whole, -slant) if slant else whole


def stretches(draft: Draft) -> tuple[Allowance, ...]:
    """What is said of each stretch of the outline; nothing where no edge says anything."""
    if all(p.allowance is None and p.ends == "mitre" for p in draft.points):
        return ()
    begins = starts(draft)
    count = len(draft.points)
    of = {}
    for number, (first, following) in enumerate(zip(begins, [*begins[1:], begins[0] + count], strict=True)):
        said = draft.points[first]
        for i in range(first, following):
            of[i % count] = Allowance(number, said.allowance, said.ends)
    return tuple(of[i] for i, run in enumerate(runs(draft)) for _ in run)


def marks_of(draft: Draft, seam: float = 0.0) -> tuple[DrawnMark, ...]:
    """What is drawn on the piece, in the draft's axes. A notch that is measured from nowhere is left out."""
    out: list[DrawnMark] = []
    for notch in draft.notches:
        try:
            place, way = place_on(draft, notch.after, notch.at)
        except BadPiece:
            continue
        reach = -NOTCH_MM if draft.included > 0 or seam <= 0 else seam
        aside = (-way[1], way[0])
        for off in (-DOUBLE_MM / 2, DOUBLE_MM / 2) if notch.double else (0.0,):
            foot = (place[0] + aside[0] * off, place[1] + aside[1] * off)
            out.append(DrawnMark("notch", (_r(foot), _r((foot[0] + way[0] * reach, foot[1] + way[1] * reach)))))
    out += [DrawnMark(mark.kind, mark.places, mark.name) for mark in draft.marks if mark.kind != "level"]
    return tuple(out)


def _r(place: Point) -> Point:
    return (round(place[0], 4), round(place[1], 4))


def carried(piece: Piece, move: Callable[[Sequence[Point]], Outline]) -> Piece:
    """A piece with its outline, its arrow and its marks moved alike."""
    arrow = None if piece.arrow is None else move(piece.arrow)
    return replace(
        piece,
        outline=move(piece.outline),
        arrow=None if arrow is None else (arrow[0], arrow[1]),
        marks=tuple(replace(mark, line=move(mark.line)) for mark in piece.marks),
    )


def turned_to(piece: Piece, degrees: float) -> Piece:
    """A piece turned about its own corner by any angle, counter-clockwise."""
    return carried(piece, lambda points: spun(points, degrees))


def spun(points: Sequence[Point], degrees: float) -> Outline:
    """Points turned about the origin, counter-clockwise."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return tuple((round(c * x - s * y, 4), round(s * x + c * y, 4)) for x, y in points)
