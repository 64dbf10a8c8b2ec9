"""Mirroring and turning, by the rule of the lay format: mirror in the grain, then turn counter-clockwise."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Ring = NDArray[np.float64]


@lru_cache(maxsize=64)
def spin(turn: int) -> Ring:
    """The matrix by which rows of points (n, 2) are multiplied from the right to turn them by ``turn`` degrees.

    Exact for the right angles, so that a turned rectangle stays a rectangle.
    """
    angle = math.radians(turn)
    c, s = round(math.cos(angle), 15), round(math.sin(angle), 15)
    return np.array([[c, s], [-s, c]])


def turned(points: Ring, turn: int, mirrored: bool = False) -> Ring:
    """Points (n, 2) in millimetres, mirrored in y or not, then turned about the origin."""
    return (points * np.array([1.0, -1.0]) if mirrored else points) @ spin(turn)
