"""From a strip to the tables the compiled code works on: shapes, rows, convex parts, depth maps.

The frame: a shape is a variant's outline, grown by half the gap, moved to least x and y of 0. Its position
in the frame is (X, Y) with X ≥ 0 at the beginning of the strip and Y ≥ 0 at its low edge, both grown too,
because the gap is between pieces and not to the selvages.
"""

from __future__ import annotations

import math
import statistics
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon, box

from ..problem import BadProblem
from . import rows
from .compact import Motion
from .convex import Hulls, hulls_of
from .depths import HALF, Chords, Maps, chords_of, make_maps, plan_maps, share_maps
from .orientations import Ring
from .separate import COLUMNS, HEIGHT, START, WIDTH, X_SIGN, X_ZERO, Y_SIGN, Y_ZERO, Field
from .strips import CannotFold, Placed, Strip, Variant

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Wanted height of a row and size of a fine cell, millimetres; fine cells to a coarse one, at least and at most.
ROW_MM = 6.0
CELL_MM = 4.0
COARSE_LEAST, COARSE_MOST = 4, 16
#: Maps larger than this get larger cells; larger than it with the largest cells, and there are none.
MAX_CELLS = 16_000_000
LARGEST_CELL_MM = 20.0
#: Outlines are worked with to this.
SIMPLIFY_MM = 0.03


@dataclass(frozen=True)
class Spot:
    """Where a variant may lie, in the frame. ``x_step``/``y_step`` 0: anywhere."""

    variant: Variant
    shape: int
    corner: tuple[float, float]
    x_base: float
    y_low: float
    y_high: float
    count: int


class Frame:
    """A strip's parts as shapes with allowed spots. Parts first, then obstacles, share one numbering.

    Raises :class:`CannotFold` for a part that has none.
    """

    def __init__(self, strip: Strip) -> None:
        self.strip = strip
        self.half_gap = strip.gap / 2
        self.start_x = 0.0 if strip.lengths == 2 else self.half_gap
        self.low = strip.low - self.half_gap
        self.height = strip.width + 2 * self.half_gap
        self.shapes: list[Ring] = []
        self._known: dict[bytes, int] = {}
        self.spots: list[Spot] = []
        self.start: list[int] = []
        self.stop: list[int] = []
        known: dict[tuple[int, str], tuple[int, int]] = {}
        grown: dict[tuple[int, str], tuple[int, tuple[float, float]]] = {}
        for part in strip.parts:
            key = (id(part.variants), part.half)
            if key not in known:
                first = len(self.spots)
                for variant in part.variants:
                    ring_key = (id(variant.ring), part.half)
                    if ring_key not in grown:
                        ring = grow(variant.ring, self.half_gap, part.half)
                        corner = ring.min(axis=0)
                        if part.half == "y":
                            corner[1] = min(0.0, float(corner[1]))
                        grown[ring_key] = (self._shape(ring - corner), (float(corner[0]), float(corner[1])))
                    shape, at = grown[ring_key]
                    spot = self._spot(variant, shape, at)
                    if spot is not None:
                        self.spots.append(spot)
                known[key] = (first, len(self.spots))
            a, b = known[key]
            if a == b:
                name = part.called or part.piece
                why = f"There is no place across the cloth at which “{name}” meets the bars as asked."
                raise CannotFold(part.piece, 0.0, 0.0, why)
            self.start.append(a)
            self.stop.append(b)
        self.obstacles: list[tuple[int, float, float, bool]] = []
        for obstacle in strip.obstacles:
            ring = grow(obstacle.ring, self.half_gap, "")
            corner = ring.min(axis=0)
            shape = self._shape(ring - corner)
            self.obstacles.append(
                (shape, float(corner[0]) + self.start_x, float(corner[1]) - self.low, obstacle.reserved)
            )
        self.count = len(strip.parts)
        self.total = self.count + len(self.obstacles)
        self.skip = self._skip()

    def _shape(self, ring: Ring) -> int:
        shape = Polygon(ring)
        simple = shape.simplify(SIMPLIFY_MM)
        if simple.is_valid and simple.geom_type == "Polygon" and len(simple.exterior.coords) > 3:
            shape = simple
        flat = np.array(shapely.geometry.polygon.orient(shape).exterior.coords[:-1])
        flat = np.ascontiguousarray(flat - np.minimum(flat.min(axis=0), 0.0))
        key = np.round(flat, 5).tobytes()
        if key not in self._known:
            self._known[key] = len(self.shapes)
            self.shapes.append(flat)
        return self._known[key]

    def _spot(self, variant: Variant, shape: int, corner: tuple[float, float]) -> Spot | None:
        low = variant.low + corner[1] - self.low
        high = variant.high + corner[1] - self.low
        count = 0
        if variant.y_step > 0:
            base = variant.y_base + corner[1] - self.low
            first = base + math.ceil((low - base) / variant.y_step - 0.02 / variant.y_step) * variant.y_step
            count = math.floor((high - first) / variant.y_step + 0.02 / variant.y_step) + 1
            if count < 1:
                return None
            low = first
            high = first + (count - 1) * variant.y_step
        elif high < low - 0.06:
            return None
        x_base = variant.x_base + corner[0] + self.start_x
        if variant.x_step > 0:
            # a hair of rounding must not cost a whole repeat
            x_base -= math.floor(x_base / variant.x_step + 1e-6) * variant.x_step
            x_base = max(0.0, x_base)
        return Spot(variant, shape, corner, x_base, low, max(low, high), count)

    def _skip(self) -> NDArray[np.bool_]:
        """Pairs whose overlap does not count: obstacles among themselves, border parts on reserved ground."""
        skip = np.zeros((self.total, self.total), dtype=np.bool_)
        skip[self.count :, self.count :] = True
        for k, (_, _, _, reserved) in enumerate(self.obstacles, start=self.count):
            for i, part in enumerate(self.strip.parts):
                if reserved and part.border:
                    skip[i, k] = skip[k, i] = True
        np.fill_diagonal(skip, True)
        return skip

    def placed(self, i: int, spot: int, x: float, y: float) -> Placed:
        """Part i with its shape at (x, y) of the frame, as a placement on the strip."""
        found = self.spots[spot]
        at_y = y - found.corner[1] + self.low
        if found.variant.high - found.variant.low < 1e-9:
            at_y = found.variant.low
        return Placed(i, found.variant, round(x - found.corner[0] - self.start_x, 4), round(at_y, 4))

    def end_of(self, placed: Placed) -> float:
        """How far along the strip a placement reaches."""
        return placed.x + float(placed.variant.ring[:, 0].max())

    def in_frame(self, placed: Placed) -> tuple[int, float, float]:
        """A placement as (spot, X, Y). Raises KeyError when its variant is not one of this strip's."""
        for k in range(self.start[placed.part], self.stop[placed.part]):
            found = self.spots[k]
            if (
                found.variant.turn == placed.variant.turn
                and found.variant.mirrored == placed.variant.mirrored
                and abs(found.variant.low - placed.variant.low) < 1e-6
                and abs(found.variant.high - placed.variant.high) < 1e-6
            ):
                return k, placed.x + found.corner[0] + self.start_x, placed.y + found.corner[1] - self.low
        raise KeyError(placed.part)


def grow(ring: Ring, by: float, half: str) -> Ring:
    """A ring grown by half the gap; half a piece keeps the edge that lies on its fold (the axis of ``half``)."""
    if by <= 0:
        return ring
    # a ring of chords lies inside the circle: as many as keep that under a fiftieth of a millimetre
    quarters = max(4, math.ceil(math.pi / 4 / math.sqrt(0.04 / by)))
    shape = Polygon(ring)
    if half:
        flip = np.array([1.0, -1.0]) if half == "y" else np.array([-1.0, 1.0])
        shape = shapely.union_all([shape.buffer(1e-6), Polygon(ring * flip).buffer(1e-6)])
    grown = Polygon(shape.buffer(by, quad_segs=quarters).exterior)
    if half:
        x0, y0, x1, y1 = grown.bounds
        axis = 1 if half == "y" else 0
        upper = float(ring[:, axis].max()) > -float(ring[:, axis].min())
        if half == "y":
            side = box(x0 - 1, 0, x1 + 1, y1 + 1) if upper else box(x0 - 1, y0 - 1, x1 + 1, 0)
        else:
            side = box(0, y0 - 1, x1 + 1, y1 + 1) if upper else box(x0 - 1, y0 - 1, 0, y1 + 1)
        cut = grown.intersection(side)
        grown = max(getattr(cut, "geoms", [cut]), key=lambda g: g.area)
    return np.array(grown.exterior.coords[:-1])


def row_height(frame: Frame) -> float:
    """The height of a row: a part of the repeat across, or of the width; near :data:`ROW_MM`."""
    repeat = frame.strip.y_repeat
    if repeat > 0:
        return repeat / math.ceil(repeat / ROW_MM)
    # a multiple of twelve: halves, thirds and quarters of the width are whole rows
    return frame.height / (12 * max(2, math.ceil(frame.height / ROW_MM / 12)))


class _Rasters:
    """The intervals of shapes row by row, each shape at each shift worked out once."""

    def __init__(self, frame: Frame, h: float) -> None:
        self.frame, self.h = frame, h
        self.ptr: list[int] = [0]
        self._lo: list[Floats] = []
        self._hi: list[Floats] = []
        self._known: dict[tuple[int, float], tuple[int, int]] = {}

    def of(self, shape: int, shift: float, top: int) -> tuple[int, int]:
        """Where the rows of a shape begin and how many, at most ``top``, it has when it lies ``shift`` into a row."""
        key = (shape, round(shift, 6))
        if key not in self._known:
            ring = self.frame.shapes[shape] + np.array([0.0, shift])
            count = max(1, math.ceil((float(ring[:, 1].max()) - rows.ROW_SLACK_MM) / self.h))
            count = min(count, max(1, top))
            lo, hi = np.empty(count * rows.MAX_PER_ROW), np.empty(count * rows.MAX_PER_ROW)
            at = np.empty(count + 1, dtype=np.int64)
            total = int(rows.row_intervals(np.ascontiguousarray(ring), self.h, count, lo, hi, at))
            if total < 0:
                raise BadProblem(["An outline is too jagged to be laid; simplify it."])
            self._known[key] = (len(self.ptr) - 1, count)
            base = self.ptr[-1]
            self.ptr.extend((at[1:] + base).tolist())
            self._lo.append(lo[:total].copy())
            self._hi.append(hi[:total].copy())
        return self._known[key]

    def intervals(self) -> tuple[list[float], list[float]]:
        """All beginnings and all ends, in the order of ``ptr``."""
        if not self._lo:
            return [], []
        return np.concatenate(self._lo).tolist(), np.concatenate(self._hi).tolist()


def _places(spot: Spot, h: float, room: int) -> tuple[int, int]:
    """Every how many rows a spot has a place, and how many of them lie in ``room`` rows beyond its first."""
    step = round(spot.variant.y_step / h) if spot.variant.y_step else 1
    if spot.variant.y_step and abs(step * h - spot.variant.y_step) > 1e-6:
        # a single place whose step is not the cloth's repeat
        step = 1
    places = spot.count if spot.count else math.floor((spot.y_high - spot.y_low) / h + 1e-4) + 1
    return step, max(1, min(places, room // max(1, step) + 1))


def _spot_rows(frame: Frame, rasters: _Rasters, number: int) -> tuple[dict[str, list[float]], int]:
    """Every spot in rows, as columns, and how many rows there must be: ``number``, or more where one reaches over."""
    h = rasters.h
    per: dict[str, list[float]] = {k: [] for k in ("first", "rows", "length", "row", "step", "count", "base", "xs")}
    for spot in frame.spots:
        row = math.floor(spot.y_low / h + 1e-4)
        shift = max(0.0, spot.y_low - row * h)
        row = max(0, row)
        first, count = rasters.of(spot.shape, shift if shift > 1e-6 else 0.0, number - row)
        step, places = _places(spot, h, number - row - count)
        length = frame.shapes[spot.shape][:, 0].max()
        values = (first, count, length, row, step, places, spot.x_base, spot.variant.x_step)
        for key, value in zip(per, values, strict=True):
            per[key].append(float(value))
        number = max(number, row + count)
    return per, number


Intervals = list[list[tuple[float, float]]]


def _ground(frame: Frame, rasters: _Rasters, number: int) -> tuple[Intervals, Intervals]:
    """What obstacles take of each row: for every part, and for all but border parts."""
    h = rasters.h
    ground: Intervals = [[] for _ in range(number)]
    late: Intervals = [[] for _ in range(number)]
    placed: list[tuple[int, int, int, float, bool]] = []
    for shape, x, y, reserved in frame.obstacles:
        row = math.floor(y / h + 1e-6)
        placed.append((row, *rasters.of(shape, max(0.0, y - row * h), 10**9), x, reserved))
    lo, hi = rasters.intervals()
    for row, first, count, x, reserved in placed:
        for k in range(count):
            if not 0 <= row + k < number:
                continue
            for p in range(rasters.ptr[first + k], rasters.ptr[first + k + 1]):
                (late if reserved else ground)[row + k].append((x + lo[p], x + hi[p]))
    return ground, late


def _table(lists: Intervals) -> tuple[Ints, Floats, Floats]:
    """Intervals of each row as counts and rectangular arrays, in order along the row."""
    count = np.array([len(one) for one in lists], dtype=np.int64)
    wide = max(1, max(len(one) for one in lists))
    lo, hi = np.zeros((len(lists), wide)), np.zeros((len(lists), wide))
    for r, one in enumerate(lists):
        for o, (a, b) in enumerate(sorted(one)):
            lo[r, o], hi[r, o] = a, b
    return count, lo, hi


def rows_of(frame: Frame) -> tuple[rows.Rows, rows.Taken, float]:
    """The table of intervals per row, scratch memory for it, and the height of a row."""
    h = row_height(frame)
    rasters = _Rasters(frame, h)
    per, number = _spot_rows(frame, rasters, math.ceil(frame.height / h - 1e-6))
    ground, late = _ground(frame, rasters, number)
    lo, hi = rasters.intervals()
    ptr = np.array(rasters.ptr)
    widest = int(np.max(np.diff(ptr))) if len(ptr) > 1 else 1
    room = frame.count * widest + 1 + max(len(a) + len(b) for a, b in zip(ground, late, strict=True))
    ground_cnt, ground_lo, ground_hi = _table(ground)
    late_cnt, late_lo, late_hi = _table(late)
    parts = frame.strip.parts
    whole = {k: np.array(v, dtype=np.int64) for k, v in per.items() if k not in ("length", "base", "xs")}
    table = rows.Rows(
        start=np.array(frame.start),
        stop=np.array(frame.stop),
        weight=np.array([part.area / frame.strip.width for part in parts]),
        early=np.array([part.border for part in parts], dtype=np.bool_),
        first=whole["first"],
        rows=whole["rows"],
        length=np.array(per["length"]),
        row=whole["row"],
        row_step=whole["step"],
        row_count=whole["count"],
        x_base=np.array(per["base"]),
        x_step=np.array(per["xs"]),
        ptr=ptr,
        lo=np.array(lo),
        hi=np.array(hi),
        ground_cnt=ground_cnt,
        ground_lo=ground_lo,
        ground_hi=ground_hi,
        late_cnt=late_cnt,
        late_lo=late_lo,
        late_hi=late_hi,
    )
    taken = rows.Taken(np.zeros(number, dtype=np.int64), np.empty((number, room)), np.empty((number, room)))
    return table, taken, h


def _cell(wanted: float, repeat: float) -> float:
    return repeat / max(1, round(repeat / wanted)) if repeat > 0 else wanted


def coarse_for(frame: Frame) -> int:
    """How many fine cells make a coarse one, a power of two: a quarter of how wide the middle one of the pieces is.

    Were they larger, places that small pieces would fill were missed; smaller, looking at all of them costs more than
    it finds.
    """
    smaller = [float(frame.shapes[frame.spots[first].shape].max(axis=0).min()) for first in frame.start]
    wanted = statistics.median(smaller) / 4 / CELL_MM
    return 1 << round(math.log2(min(max(wanted, COARSE_LEAST), COARSE_MOST)))


def maps_of(frame: Frame) -> tuple[Chords, Maps] | None:
    """Depth maps of all pairs of shapes, still to be filled, or None when they would be too large."""
    wanted, coarse = CELL_MM, coarse_for(frame)
    coarse_mm = coarse * wanted
    bound = frame.strip.x_repeat > 0 or frame.strip.y_repeat > 0
    shared = [share_maps(frame.shapes, flips=flips) for flips in ((False,) if bound else (False, True))]
    while True:
        cell_x, cell_y = _cell(wanted, frame.strip.x_repeat), _cell(wanted, frame.strip.y_repeat)
        # sharing maps between mirror images costs up to half a cell; larger cells cost more, but bars allow neither
        for sharing in shared:
            maps = plan_maps(frame.shapes, sharing, cell_x, cell_y, coarse)
            if maps.data.shape[0] <= MAX_CELLS:
                return chords_of(frame.shapes, cell_y), make_maps(maps)
        wanted *= 1.25
        # a coarse cell stays about as large; it is a power of two of fine ones
        coarse = 1 << max(0, round(math.log2(coarse_mm / wanted)))
        if wanted > LARGEST_CELL_MM:
            return None


def field_of(frame: Frame, maps: Maps) -> Field:
    """Allowed positions in whole cells."""
    per: list[tuple[float, ...]] = []
    for spot in frame.spots:
        variant = spot.variant
        x_step = max(1, round(variant.x_step / maps.cell_x)) if variant.x_step else 1
        x_base = math.floor(spot.x_base / maps.cell_x + 1e-6) if variant.x_step else 0
        x_rest = spot.x_base - x_base * maps.cell_x if variant.x_step else 0.0
        y_base = math.floor(spot.y_low / maps.cell_y + 1e-6)
        y_rest = spot.y_low - y_base * maps.cell_y
        if spot.count:
            y_step, count = max(1, round(variant.y_step / maps.cell_y)), spot.count
        else:
            y_step, count = 1, math.floor((spot.y_high - spot.y_low) / maps.cell_y + 0.5) + 1
        length = float(frame.shapes[spot.shape][:, 0].max())
        per.append((spot.shape, length, x_base, x_step, y_base, y_step, count, x_rest, y_rest))
    for shape, x, y, _ in frame.obstacles:
        x_base, y_base = math.floor(x / maps.cell_x), math.floor(y / maps.cell_y)
        length = float(frame.shapes[shape][:, 0].max())
        per.append((shape, length, x_base, 1, y_base, 1, 1, x - x_base * maps.cell_x, y - y_base * maps.cell_y))
    columns = list(zip(*per, strict=True))
    spots = len(frame.spots)
    obstacle = np.arange(spots, len(per))

    def whole(k: int) -> Ints:
        return np.array(columns[k], dtype=np.int64)

    return Field(
        start=np.concatenate([np.array(frame.start, dtype=np.int64), obstacle]),
        stop=np.concatenate([np.array(frame.stop, dtype=np.int64), obstacle + 1]),
        held=np.arange(frame.total) >= frame.count,
        skip=frame.skip,
        shape=whole(0),
        length=np.array(columns[1], dtype=np.float64),
        x_base=whole(2),
        x_step=whole(3),
        y_base=whole(4),
        y_step=whole(5),
        y_count=whole(6),
        x_rest=np.array(columns[7], dtype=np.float64),
        y_rest=np.array(columns[8], dtype=np.float64),
        **pair_table(maps, whole(0), np.array(columns[7]), np.array(columns[8])),
    )


def pair_table(maps: Maps, shape: Ints, x_rest: Floats, y_rest: Floats) -> dict[str, Ints | NDArray[np.int32]]:
    """The kinds of variants, and a row of numbers for each ordered pair of kinds, as :class:`Field` keeps them.

    What two variants have beyond their cells is rounded into the row, once for both ways round: so both read the very
    same cell.
    """
    of = np.stack([shape.astype(np.float64), np.round(x_rest, 9), np.round(y_rest, 9)], axis=1)
    kinds, kind = np.unique(of, axis=0, return_inverse=True)
    s = kinds[:, 0].astype(np.int64)
    order = np.arange(len(s))
    # rounding halves up is not the same from both sides: of two kinds the first decides
    sign = np.where(order[:, None] <= order[None, :], 1, -1)

    def beyond(rest: Floats, cell: float) -> Ints:
        rounded = np.floor(sign * (rest[:, None] - rest[None, :]) / cell + HALF)
        return (sign * rounded).astype(np.int64)

    at = np.ix_(s, s)
    pair = np.zeros((len(s), len(s), COLUMNS), dtype=np.int32)
    pair[:, :, START], pair[:, :, WIDTH], pair[:, :, HEIGHT] = maps.start[at], maps.width[at], maps.height[at]
    pair[:, :, X_SIGN], pair[:, :, Y_SIGN] = maps.x_sign[at], maps.y_sign[at]
    pair[:, :, X_ZERO] = maps.x_zero[at] + maps.x_sign[at] * beyond(kinds[:, 1], maps.cell_x)
    pair[:, :, Y_ZERO] = maps.y_zero[at] + maps.y_sign[at] * beyond(kinds[:, 2], maps.cell_y)
    return {"kind": kind.reshape(-1).astype(np.int64), "pair": pair}


def hulls_for(frame: Frame) -> Hulls:
    """Convex parts of the frame's shapes."""
    return hulls_of(frame.shapes)


def motion_of(frame: Frame, spots: Ints) -> Motion:
    """How the parts, each in the given spot, may move; obstacles do not."""
    n = frame.total
    x_group, y_group = np.full(n, -2, dtype=np.int64), np.full(n, -2, dtype=np.int64)
    sign, low, high, length = np.ones(n), np.zeros(n), np.zeros(n), np.zeros(n)
    for i in range(frame.count):
        spot = frame.spots[int(spots[i])]
        variant = spot.variant
        length[i] = float(frame.shapes[spot.shape][:, 0].max())
        low[i], high[i] = spot.y_low, spot.y_high
        x_group[i] = variant.x_group if variant.x_step else -1
        if not variant.x_step:
            x_group[i] = -1
        elif variant.x_group < 0:
            x_group[i] = -2
        if not variant.y_step:
            y_group[i] = -1 if high[i] > low[i] else -2
        else:
            y_group[i] = variant.y_group if variant.y_group >= 0 else -2
            low[i] = variant.low + spot.corner[1] - frame.low
            high[i] = variant.high + spot.corner[1] - frame.low
        sign[i] = variant.y_sign
    return Motion(x_group, y_group, sign, low, high, length, np.arange(n) < frame.count)
