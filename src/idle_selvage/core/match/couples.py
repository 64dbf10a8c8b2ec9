"""Which cut copies meet at a seam: hands and halves of pieces, and who is sewn to whom."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..lay.answer import Cut
from ..lay.placing import place
from ..lay.problem import LayPiece
from ..plan.outline import Outline, is_mirror_symmetric
from ..plan.seams import Sewn


@dataclass(frozen=True)
class Flank:
    """A copy as it is cut, or one half of one cut on the fold. ``hand`` 1: as drawn, -1: its mirror image; ``over``:
    a place (x, y) of the drawn piece is its place (x, over − y), where the drawn side stands for the other one."""

    cut: Cut
    hand: int
    over: float | None = None

    def placed(self, run: Outline) -> Outline:
        """A run of the drawn piece on the open cloth, mm."""
        if self.over is not None:
            run = tuple((x, self.over - y) for x, y in run)
        cut = self.cut
        return place(run, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)


@dataclass(frozen=True)
class Couple:
    """Two flanks that are sewn together at a seam."""

    a: Flank
    b: Flank

    @property
    def mirrored(self) -> bool:
        """Whether side a is of the mirrored hand: the same seam on the other side of the body."""
        return self.a.hand < 0


def flanks(piece: LayPiece, cuts: Sequence[Cut]) -> tuple[Flank, ...]:
    """The copies of a piece with their hands, those as drawn first."""
    ours = [cut for cut in cuts if cut.piece == piece.id]
    if piece.on_fold:
        return (*(Flank(cut, 1) for cut in ours), *(Flank(cut, -1, 0.0) for cut in ours))
    if not piece.pair:
        # one that was turned over on cloth without a wrong side is turned back when it is sewn
        return tuple(Flank(cut, 1) for cut in ours)
    turned = [cut for cut in ours if cut.mirrored]
    if 2 * len(turned) != len(ours):
        half = len(ours) // 2
        return tuple(Flank(cut, 1 if k < half else -1) for k, cut in enumerate(ours))
    return (*(Flank(cut, 1) for cut in ours if not cut.mirrored), *(Flank(cut, -1) for cut in turned))


def couples(sewn: Sewn, a: LayPiece, b: LayPiece, cuts: Sequence[Cut]) -> tuple[Couple, ...]:
    """Who is sewn to whom at a seam, copy by copy, as drawn first and then on the other side of the body."""
    ours, theirs = flanks(a, cuts), flanks(b, cuts)
    if a is b:
        return _with_itself(sewn, ours)
    swap = -1 if sewn.mirrors else 1
    found: list[Couple] = []
    left = list(theirs)
    for one in ours:
        # a copy that is its own mirror image does for either hand
        hands = (one.hand * swap,) if not _either(a) else (one.hand * swap, -one.hand * swap)
        partner = next((other for hand in hands for other in left if other.hand == hand), None)
        if partner is None and _either(b) and not b.on_fold:
            partner = next(iter(left), None)
        if partner is None:
            continue
        left.remove(partner)
        found.append(Couple(_handed(a, one, partner.hand * swap), _handed(b, partner, one.hand * swap)))
    return tuple(sorted(found, key=lambda couple: couple.mirrored))


def _handed(piece: LayPiece, flank: Flank, hand: int) -> Flank:
    """A flank of the hand that is wanted: the other side of a piece that is its own mirror image stands for it."""
    if flank.hand == hand or not _either(piece):
        return flank
    ys = [y for _, y in piece.outline]
    return Flank(flank.cut, hand, min(ys) + max(ys))


def _either(piece: LayPiece) -> bool:
    return not piece.pair and not piece.on_fold and _across_symmetric(piece.outline)


def _across_symmetric(outline: Outline) -> bool:
    """Whether a piece is its own mirror image about its middle along the grain."""
    if not is_mirror_symmetric(outline):
        return False
    ring = np.array(outline)
    middle = ring[:, 1].min() + ring[:, 1].max()
    # every corner has its image
    return all(np.hypot(ring[:, 0] - x, ring[:, 1] - (middle - y)).min() < 1.0 for x, y in outline)


def _with_itself(sewn: Sewn, ours: Sequence[Flank]) -> tuple[Couple, ...]:
    drawn = [one for one in ours if one.hand > 0]
    if sewn.mirrors:
        other = [one for one in ours if one.hand < 0]
        return tuple(Couple(a, b) for a, b in zip(drawn, other, strict=False))
    # round the body: each copy to the next, and the last one to the first
    return tuple(Couple(a, b) for a, b in zip(drawn, [*drawn[1:], *drawn[:1]], strict=True))
