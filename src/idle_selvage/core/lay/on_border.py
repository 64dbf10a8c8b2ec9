"""Pieces whose hems lie on a border: what their curve loses, and what of the border is left."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..plan.hem import hem_curve
from ..plan.outline import Outline, Point
from .drawing import PlacedShape
from .placing import place
from .problem import LayPiece, Selvage


@dataclass(frozen=True)
class HemOnCloth:
    """The hem of a placed piece: the run of its edge, what is lost where it is highest, mm, and that place."""

    edge: Outline
    lost: float
    at: Point


def hem_on_cloth(shape: PlacedShape, piece: LayPiece, off: float = 0.0) -> HemOnCloth | None:
    """What a straight border takes of a piece's hem; None where its hem lies on none, or is straight. ``off``: where
    the picture begins, mm from the cut end."""
    if piece.border is None or piece.border.edge != "hem":
        return None
    curve = hem_curve(piece.outline)
    if not curve.curved:
        return None
    x, y = shape.origin[0] - off, shape.origin[1]
    edge = place([*curve.edge, curve.at], x=x, y=y, turn=shape.turn, mirrored=shape.mirrored)
    return HemOnCloth(edge[:-1], curve.lost, edge[-1])


@dataclass(frozen=True)
class BorderLeft:
    """What of a border no hem lies on, within the lay: in all, and the longest stretch in one, mm."""

    side: Selvage
    left: float
    longest: float


def border_left(shapes: Sequence[PlacedShape], pieces: Mapping[str, LayPiece], length: float) -> tuple[BorderLeft, ...]:
    """Of each selvage on which hems lie, from the pieces opened out on ``length`` of cloth."""
    found = []
    sides: tuple[Selvage, ...] = ("low", "high")
    for side in sides:
        taken = []
        for shape in shapes:
            border = pieces[shape.piece_id].border
            if border is not None and border.selvage == side:
                taken.append(shape.from_end)
        if not taken:
            continue
        left, longest, at = 0.0, 0.0, 0.0
        for start, end in [*sorted(taken), (length, length)]:
            left += max(0.0, start - at)
            longest = max(longest, start - at)
            at = max(at, end)
        found.append(BorderLeft(side, left, longest))
    return tuple(found)
