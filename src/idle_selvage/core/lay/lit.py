"""The ground that lights up while a piece is held: everything it would cover in some legal place, in small squares.

For the eye only; what counts is :mod:`.sliding`.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import Polygon

from ..plan.turning import Ring
from .seats import BEYOND_MM
from .sliding import Legal

#: The side of a square, mm.
CELL_MM = 10.0
Mask = NDArray[np.bool_]


@dataclass(frozen=True)
class Band:
    """A row of squares across y ``low`` to ``high``, lit from and to these x."""

    low: float
    high: float
    runs: tuple[tuple[float, float], ...]


def lit(grounds: Sequence[Legal], until: float) -> tuple[Band, ...]:
    """What is lit, up to x ``until``, mm; of all seats together, bands from low to high."""
    seats = [ground.seat for ground in grounds]
    if not seats:
        return ()
    low = min(s.box.y0 + float(ring[:, 1].min()) for s in seats for ring in s.rings)
    high = max(s.box.y1 + float(ring[:, 1].max()) for s in seats for ring in s.rings)
    start = min(s.box.x0 + float(ring[:, 0].min()) for s in seats for ring in s.rings)
    size = (int((high - low) / CELL_MM) + 1, int(max(0.0, min(until, start + BEYOND_MM * 4) - start) / CELL_MM) + 1)
    found: Mask = np.zeros(size, dtype=np.bool_)
    for ground in grounds:
        origins = _origins(ground, low, start, size)
        for ring in ground.seat.rings:
            found |= _swept(origins, ring, size)
    return tuple(_bands(found, low, start))


def _origins(ground: Legal, low: float, start: float, size: tuple[int, int]) -> Mask:
    """The squares nearest to legal places of the origin; the grid reaches past the cloth, for an origin may too."""
    pad = _pad(ground)
    rows, columns = size[0] + 2 * pad, size[1] + 2 * pad
    legal = ground.whole
    mask: Mask = np.zeros((rows, columns), dtype=np.bool_)
    if legal.is_empty:
        return mask
    if legal.geom_type.endswith("Polygon"):
        xs = start + (np.arange(columns) - pad + 0.5) * CELL_MM
        ys = low + (np.arange(rows) - pad + 0.5) * CELL_MM
        shapely.prepare(legal)
        mask |= shapely.contains_xy(legal, *np.meshgrid(xs, ys))
    # a slot as narrow as what fits it, or a line along a fold
    places = shapely.get_coordinates(shapely.segmentize(legal, CELL_MM) if _is_thin(legal) else legal)
    column = np.floor((places[:, 0] - start) / CELL_MM).astype(int) + pad
    row = np.floor((places[:, 1] - low) / CELL_MM).astype(int) + pad
    inside = (column >= 0) & (column < columns) & (row >= 0) & (row < rows)
    mask[row[inside], column[inside]] = True
    return mask


def _is_thin(legal: shapely.Geometry) -> bool:
    return not legal.geom_type.endswith("Polygon")


def _pad(ground: Legal) -> int:
    return int(max(float(np.abs(ring).max()) for ring in ground.seat.rings) / CELL_MM) + 2


def _swept(origins: Mask, ring: Ring, size: tuple[int, int]) -> Mask:
    """All squares that the outline covers from any of these origins."""
    pad = (origins.shape[0] - size[0]) // 2
    reach = int(np.abs(ring).max() / CELL_MM) + 1
    at = np.arange(-reach, reach + 1) * CELL_MM
    stamp = shapely.contains_xy(Polygon(ring).buffer(CELL_MM / 4), *np.meshgrid(at, at))
    shape = (origins.shape[0] + stamp.shape[0], origins.shape[1] + stamp.shape[1])
    product = np.fft.rfft2(origins.astype(np.float64), shape) * np.fft.rfft2(stamp.astype(np.float64), shape)
    swept = np.fft.irfft2(product, shape) > 0.5
    return np.asarray(swept[pad + reach : pad + reach + size[0], pad + reach : pad + reach + size[1]], dtype=np.bool_)


def _bands(found: Mask, low: float, start: float) -> list[Band]:
    bands: list[Band] = []
    for row in range(found.shape[0]):
        edges = np.flatnonzero(np.diff(np.concatenate([[False], found[row], [False]]).astype(np.int8)))
        runs = tuple(
            (round(start + a * CELL_MM, 1), round(start + b * CELL_MM, 1))
            for a, b in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True)
        )
        y = low + row * CELL_MM
        if bands and bands[-1].runs == runs:
            bands[-1] = Band(bands[-1].low, round(y + CELL_MM, 1), runs)
        elif runs:
            bands.append(Band(round(y, 1), round(y + CELL_MM, 1), runs))
    return bands
