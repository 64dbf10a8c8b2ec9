"""Sew first, shrink to fit: pieces for raw cloth, enlarged so that the finished garment shrinks to its size."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..plan.outline import Outline, Point
from ..plan.piece import Grain
from .shrinkage import divide_not_add

#: The turn at which each grain lies on the cloth; the factors belong to the cloth and turn with the piece.
TURN: dict[Grain, int] = {"lengthwise": 0, "crosswise": 90, "bias": 45, "any": 0}


def factors(warp: float, weft: float) -> tuple[float, float]:
    """Enlargement along and across the cloth for shrinkages in per cent: ``1 ÷ (1 − s)``."""
    return divide_not_add(1.0, warp), divide_not_add(1.0, weft)


def enlarge(outline: Sequence[Point], grain: Grain, warp: float, weft: float) -> Outline:
    """A seam line enlarged for cloth that shrinks by ``warp`` and ``weft`` per cent, in the piece's own axes.

    The piece is turned as its grain lies on the cloth, stretched along x and y of the cloth, and turned back;
    a seam allowance is to be added afterwards, so that it keeps its width.
    """
    return _points(np.array(outline) @ _matrix(grain, warp, weft).T)


def _matrix(grain: Grain, warp: float, weft: float) -> np.ndarray:
    kx, ky = factors(warp, weft)
    angle = math.radians(TURN[grain])
    c, s = round(math.cos(angle), 15), round(math.sin(angle), 15)
    spin = np.array([[c, -s], [s, c]])
    matrix: np.ndarray = spin.T @ np.diag([kx, ky]) @ spin
    return matrix


def _points(ring: np.ndarray) -> Outline:
    return tuple((round(float(x), 4), round(float(y), 4)) for x, y in ring)


def on_cloth(outline: Sequence[Point], grain: Grain) -> Outline:
    """The outline turned as it will lie, for a grain whose enlargement holds at one turn only (the bias)."""
    angle = math.radians(TURN[grain])
    c, s = round(math.cos(angle), 15), round(math.sin(angle), 15)
    ring = np.array(outline) @ np.array([[c, -s], [s, c]]).T
    return _points(ring - ring.min(axis=0))
