"""A seam as one will see it: two cut pieces laid together at their seam line, each with its own bars."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..lay.placing import place
from ..lay.problem import LayPiece
from ..plan.outline import Outline, whole_polygon
from ..plan.seams import Reals, Sewn
from .couples import Couple, Flank
from .judged import together

#: a, b, c, d, e, f: (x, y) comes to (a·x + c·y + e, b·x + d·y + f).
Matrix = tuple[float, float, float, float, float, float]


@dataclass(frozen=True)
class Half:
    """One of the two pieces: what is seen of it, on the cloth, with its allowances turned in or (compared at the cut
    edge) as it is cut; the side that is sewn; and how it is moved from the cloth to the picture, mm."""

    shown: Outline
    seam: Outline
    matrix: Matrix


@dataclass(frozen=True)
class Preview:
    """Both pieces, in the axes of the picture: x to the right, y up; ``along``: the seam line in it; ``gap``: how far
    apart the two lines lie at most where they are curved against each other, mm."""

    a: Half
    b: Half
    along: Outline
    gap: float


def preview(
    one: Sewn, couple: Couple, pieces: tuple[LayPiece, LayPiece], nets: tuple[Outline, Outline], *, at_cut: bool = False
) -> Preview:
    """Lay two copies together at their seam: side a as it hangs, side b moved so that the seam lines lie one on the
    other as well as two flat pieces can. ``nets``: the pieces without their allowances, in the axes they are laid in.
    """
    _, on_a, on_b = together(one, couple.a.placed, couple.b.placed, at_cut)
    # the top of the piece, which lies along the cloth unless it is turned, is up in the picture
    first = _turned(90.0 - couple.a.cut.turn)
    shown = on_a @ first.T
    second, shift = rigid(on_b, shown)
    moved = on_b @ second.T + shift
    gap = float(np.hypot(*(moved - shown).T).max())
    return Preview(
        _half(_seen(pieces[0], nets[0], at_cut), couple.a, one.cut_a if at_cut else one.a, first, np.zeros(2)),
        _half(_seen(pieces[1], nets[1], at_cut), couple.b, one.cut_b if at_cut else one.b, second, shift),
        _outline(shown),
        gap,
    )


def _seen(piece: LayPiece, net: Outline, at_cut: bool) -> Outline:
    outline = piece.outline if at_cut else net
    if not piece.on_fold:
        return outline
    return tuple((float(x), float(y)) for x, y in whole_polygon(outline).exterior.coords[:-1])


def _half(seen: Outline, flank: Flank, run: Outline, turn: Reals, shift: Reals) -> Half:
    cut = flank.cut
    ring = place(seen, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)
    return Half(ring, flank.placed(run), _matrix(turn, shift))


def rigid(points: Reals, onto: Reals) -> tuple[Reals, Reals]:
    """The turn and the shift that bring points as near as can be to others, without turning them over (Kabsch 1976, a
    least-squares rotation)."""
    middle, target = points.mean(axis=0), onto.mean(axis=0)
    u, _, vt = np.linalg.svd((points - middle).T @ (onto - target))
    straight = np.diag([1.0, math.copysign(1.0, float(np.linalg.det(vt.T @ u.T)))])
    turn: Reals = vt.T @ straight @ u.T
    return turn, target - turn @ middle


def _turned(degrees: float) -> Reals:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    found: Reals = np.array([[c, -s], [s, c]])
    return found


def _matrix(turn: Reals, shift: Reals) -> Matrix:
    return (
        float(turn[0, 0]), float(turn[1, 0]), float(turn[0, 1]), float(turn[1, 1]), float(shift[0]), float(shift[1]),
    )  # fmt: skip


def _outline(points: Reals) -> Outline:
    return tuple((float(x), float(y)) for x, y in points)
