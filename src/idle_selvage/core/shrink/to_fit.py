"""Sew first, shrink to fit: pieces for raw cloth, enlarged so that the finished garment shrinks to its size."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from ..plan.allowance import told_by_seam
from ..plan.drawn import carried
from ..plan.outline import Outline, Point
from ..plan.piece import Grain, Piece
from ..plan.turning import Ring, spin, turned
from .known import Shrinkage
from .shrinkage import divide_not_add

#: The turn at which each grain lies on the cloth; the factors belong to the cloth and turn with the piece.
TURN: dict[Grain, int] = {"lengthwise": 0, "crosswise": 90, "bias": 45, "any": 0}
#: Shrinkages nearer than this are one, per cent.
SAME_PERCENT = 0.05


def factors(warp: float, weft: float) -> tuple[float, float]:
    """Enlargement along and across the cloth for shrinkages in per cent: ``1 ÷ (1 − s)``."""
    return divide_not_add(1.0, warp), divide_not_add(1.0, weft)


def enlarge(outline: Sequence[Point], grain: Grain, warp: float, weft: float) -> Outline:
    """A seam line enlarged for cloth that shrinks by ``warp`` and ``weft`` per cent, in the piece's own axes.

    The piece is turned as its grain lies on the cloth, stretched along x and y of the cloth, and turned back;
    a seam allowance is to be added afterwards, so that it keeps its width.
    """
    return _points(np.array(outline) @ _matrix(grain, warp, weft))


def _matrix(grain: Grain, warp: float, weft: float) -> Ring:
    turn = spin(TURN[grain])
    matrix: Ring = turn @ np.diag(factors(warp, weft)) @ turn.T
    return matrix


def _points(ring: Ring) -> Outline:
    return tuple((round(float(x), 4), round(float(y), 4)) for x, y in ring)


def on_cloth(outline: Sequence[Point], grain: Grain) -> Outline:
    """The outline turned as it will lie, for a grain whose enlargement holds at one turn only (the bias)."""
    return onto_cloth(outline, grain)(outline)


def onto_cloth(outline: Sequence[Point], grain: Grain) -> Callable[[Sequence[Point]], Outline]:
    """How an outline is turned as it will lie, and moved to its own corner: what is drawn on it moves alike."""
    corner = turned(np.array(outline), TURN[grain]).min(axis=0)
    return lambda points: _points(turned(np.array(points), TURN[grain]) - corner)


def enlarged(piece: Piece, fit: tuple[float, float]) -> Piece:
    """A piece for raw cloth, ``fit`` the shrinkages along and across in per cent; an allowance still to be added
    keeps its width, and so does one that lies inside the drawn line."""
    return carried(told_by_seam(piece), lambda points: enlarge(points, piece.grain, *fit))


def holds_at_one_turn(grain: Grain, fit: tuple[float, float]) -> bool:
    """Whether a piece enlarged so may only be turned end for end: it lies aslant, and the two shrinkages differ."""
    return grain in ("bias", "any") and abs(fit[0] - fit[1]) > SAME_PERCENT


def fit_by(warp: Shrinkage, weft: Shrinkage) -> tuple[float, float] | None:
    """The shrinkages by which pieces are enlarged, per cent, or None while they are not known.

    The mean, and not the pessimistic end: a garment too large is as wrong as one too small.
    """
    if warp.figure is None or weft.figure is None:
        return None
    return max(0.0, warp.figure.value), max(0.0, weft.figure.value)
