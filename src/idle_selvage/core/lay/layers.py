"""What a placement on the folded cloth cuts: one copy, two that mirror each other in a fold, or one on the fold."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..plan.turning import turned
from .answer import Cut, Placement, Section
from .problem import TOLERANCE_MM, LayPiece

#: Turns in which a half piece can lie with its edge on a fold along the cloth, and on one across it.
ALONG_TURNS = (0, 180)
ACROSS_TURNS = (90, 270)


def fold_line(piece: LayPiece, entry: Placement, section: Section) -> float | None:
    """Where the fold lies behind which the second layer of a placement is: its y, of a crosswise fold its x. None where
    the cloth lies in one layer."""
    if not section.fold_at:
        return None
    if section.fold == "crosswise" or len(section.fold_at) == 1:
        return section.fold_at[0]
    ys = turned(np.array(piece.outline, dtype=np.float64), entry.turn, entry.mirrored)[:, 1] + entry.y
    middle = float(ys.min() + ys.max()) / 2
    return min(section.fold_at, key=lambda y: abs(y - middle))


def lies_on_fold(piece: LayPiece, entry: Placement, section: Section) -> bool:
    """Whether half a piece is pinned with its edge on a fold, so that one whole copy is cut."""
    at = fold_line(piece, entry, section)
    if at is None or not piece.on_fold or entry.layers != 2:
        return False
    if section.fold == "crosswise":
        return abs(entry.x - at) <= TOLERANCE_MM and entry.turn in ACROSS_TURNS
    return abs(entry.y - at) <= TOLERANCE_MM and entry.turn in ALONG_TURNS


def copies_of(piece: LayPiece, entry: Placement, section: Section) -> tuple[Cut, ...]:
    """The copies a placement cuts, on the open cloth and not numbered yet."""
    first = Cut(entry.piece, 0, entry.x, entry.y, entry.turn, entry.mirrored)
    at = fold_line(piece, entry, section)
    if entry.layers != 2 or at is None or lies_on_fold(piece, entry, section):
        return (first,)
    if section.fold == "crosswise":
        x, y, turn = 2 * at - entry.x, entry.y, (180 - entry.turn) % 360
    else:
        x, y, turn = entry.x, 2 * at - entry.y, -entry.turn % 360
    return (first, Cut(entry.piece, 0, round(x, 4), round(y, 4), turn, not entry.mirrored))


def pinned_keys(laid: Sequence[Placement]) -> tuple[str, ...]:
    """A name for each placement, by its piece and which of its placements it is, from 1."""
    seen: dict[str, int] = {}
    keys = []
    for entry in laid:
        seen[entry.piece] = seen.get(entry.piece, 0) + 1
        keys.append(f"{entry.piece}·{seen[entry.piece]}")
    return tuple(keys)
