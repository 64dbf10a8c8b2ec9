"""A lay at its true size, thrown on the table by a projector or shown by a screen: calibration and correction.

A device is told by where four corners of a rectangle of known size come to lie in its picture. The map from the cloth
to the picture is then a homography: it takes straight lines to straight lines, whichever way the projector hangs.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..plan.outline import Point
from ..wording import Sentence
from ..working import length

Reals = NDArray[np.float64]
#: Corners that are nearer than this cannot be told apart, picture points.
LEAST_PX = 20.0
#: A calibration is good while a measured length is off by no more, mm on the length of the check. Common practice: a
#: chalk line is a millimetre wide; no source.
GOOD_MM = 1.0


class BadCalibration(ValueError):
    """Corners from which no picture can be corrected, with a sentence."""


@dataclass(frozen=True)
class Calibration:
    """From millimetres on the table to points of a device's picture: ``matrix`` row by row, its last entry 1."""

    matrix: tuple[tuple[float, float, float], ...]

    def to_picture(self, place: Point) -> Point:
        """Where a place on the table is in the picture."""
        return _apply(np.array(self.matrix), place)

    def to_table(self, place: Point) -> Point:
        """Which place on the table a point of the picture is."""
        return _apply(np.linalg.inv(np.array(self.matrix)), place)

    @property
    def css(self) -> tuple[float, ...]:
        """The sixteen numbers of the ``matrix3d`` of CSS Transforms Level 2, column by column."""
        (a, b, c), (d, e, f), (g, h, i) = self.matrix
        return (a, d, 0.0, g, b, e, 0.0, h, 0.0, 0.0, 1.0, 0.0, c, f, 0.0, i)


def _apply(matrix: Reals, place: Point) -> Point:
    x, y, w = matrix @ np.array([place[0], place[1], 1.0])
    return float(x / w), float(y / w)


def by_corners(wide: float, high: float, corners: Sequence[Point]) -> Calibration:
    """The map that takes a rectangle of ``wide`` by ``high`` mm to four corners of a picture, given from its upper left
    one clockwise, y downwards. Raises :class:`BadCalibration`.

    The eight unknowns of the homography are solved from its eight linear equations (Hartley and Zisserman, Multiple
    View Geometry, 2nd edition, section 4.1, with the last entry 1; from memory).
    """
    if len(corners) != 4:
        raise BadCalibration("Four corners are needed.")
    if wide <= 0 or high <= 0:
        raise BadCalibration("Give the size of the rectangle as it is measured on the table.")
    if any(math.dist(a, b) < LEAST_PX for a, b in itertools.combinations(corners, 2)):
        raise BadCalibration("Two corners lie on one another: drag each to its own corner of the rectangle.")
    turns = [
        (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
        for a, b, c in ((corners[k], corners[(k + 1) % 4], corners[(k + 2) % 4]) for k in range(4))
    ]
    if not (all(t > 0 for t in turns) or all(t < 0 for t in turns)):
        raise BadCalibration(
            "These corners make no rectangle seen aslant: go round it from the upper left, and cross no side."
        )
    table = [(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)]
    rows, right = [], []
    for (x, y), (u, v) in zip(table, corners, strict=True):
        rows += [[x, y, 1.0, 0.0, 0.0, 0.0, -u * x, -u * y], [0.0, 0.0, 0.0, x, y, 1.0, -v * x, -v * y]]
        right += [u, v]
    found = np.linalg.solve(np.array(rows), np.array(right))
    a, b, c, d, e, f, g, h = found.tolist()
    return Calibration(((a, b, c), (d, e, f), (g, h, 1.0)))


def by_square(drawn: float, wide: float, high: float) -> Calibration:
    """The map of a screen that shows no slant, from a square of ``drawn`` picture points that measures ``wide`` by
    ``high`` mm. Raises :class:`BadCalibration`."""
    if drawn < LEAST_PX or wide <= 0 or high <= 0:
        raise BadCalibration("Measure both sides of the square that is drawn.")
    return Calibration(((drawn / wide, 0.0, 0.0), (0.0, drawn / high, 0.0), (0.0, 0.0, 1.0)))


def checked(meant: float, measured: float) -> tuple[bool, Sentence]:
    """What a check line of ``meant`` mm that measures ``measured`` says."""
    off = measured - meant
    if abs(off) <= GOOD_MM:
        told = "It measures {measured} and should be {meant}: good enough to cut by."
        return True, Sentence(told, measured=length(measured), meant=length(meant))
    told = "It measures {measured} and should be {meant}: calibrate again before anything is cut."
    return False, Sentence(told, measured=length(measured), meant=length(meant))
