"""Labels for cut pieces: one for each copy, so that nothing is mixed up between the table and the machine."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..lay.answer import Cut
from ..lay.problem import LayPiece

#: What a grain is called on a label.
GRAIN_TOLD: dict[str, str] = {
    "lengthwise": "lengthwise grain",
    "crosswise": "cross grain",
    "bias": "bias",
    "any": "any grain",
}


@dataclass(frozen=True)
class Label:
    """What is written on one copy; ``top``: which way its top points when the label is read."""

    piece: str
    copy: int
    of: int
    face: str
    grain: str
    size: str
    cloth: str
    garment: str


def labels(
    cuts: Sequence[Cut], pieces: Mapping[str, LayPiece], *, size: str, cloth: str, garment: str
) -> tuple[Label, ...]:
    """A label for every copy that leaves the cloth, piece by piece. The wrong side is labelled: what is written there
    is read while it is sewn."""
    out = []
    for piece in pieces.values():
        mine = sorted((cut for cut in cuts if cut.piece == piece.id), key=lambda cut: cut.copy)
        # of a pair each copy is one hand or the other
        for number, cut in enumerate(mine, start=1):
            face = "mirrored" if cut.mirrored else "as drawn" if any(one.mirrored for one in mine) else ""
            grain = GRAIN_TOLD[piece.grain]
            out.append(Label(piece.called, number, len(mine), face, grain, size, cloth, garment))
    return tuple(out)
