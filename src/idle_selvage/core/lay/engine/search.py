"""The search on one strip: a first lay from rows, then shorter ones by separating and making exact.

Guided local search works at a length a little under the best; what it finds is made exact, which is the
new best. When it is stuck it is shaken. Every decision hangs on counts and the seed, never on the clock.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from . import rows
from .compact import TOUCH_MM, compact
from .convex import Hulls, worst_depth
from .depths import Chords, Maps, fill_maps
from .draws import below, generator, unit
from .exact import exact_lattice
from .prepare import Frame, field_of, hulls_for, maps_of, motion_of, rows_of
from .separate import Here, kick, put_at, separate, squeeze
from .slides import push_together
from .strips import Placed, Strip

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Memory of the late-acceptance search, layings.
HISTORY = 40
#: Layings of the order search before the guided one takes over; fewer with many parts, as each takes longer.
ORDERING = 40
#: How much shorter than the best the strip is made; widened by success and narrowed by failure.
SHRINK_FIRST, SHRINK_LEAST, SHRINK_MOST = 0.01, 0.0015, 0.02
WIDEN, NARROW = 1.25, 0.85
#: Times the search may be stuck at one length before another is tried.
STRIKES = 3
#: Moves between two looks at the clock and the cancel flag; a few milliseconds.
MOVES = 40
#: Maps made between two such looks.
MAPS = 12
#: A state with no more overlap than this, in thirds of a cell, may be one that only the raster forbids.
NEARLY = 9
#: With more parts than this the linear programme costs more than it gives.
EXACT_PARTS = 400


@dataclass(frozen=True)
class Found:
    """Placements on a strip and how far along they reach. ``left``: numbers of the parts left out."""

    placed: tuple[Placed, ...]
    length: float
    left: tuple[int, ...] = ()

    @property
    def rank(self) -> tuple[int, float]:
        """Fewer parts left out first, then shorter."""
        return len(self.left), self.length


class StripSearch:
    """The search on one strip. ``limit``: a length that must not be passed; parts may then be left out."""

    def __init__(self, strip: Strip, seed: int, limit: float = math.inf, share: StripSearch | None = None) -> None:
        self.strip, self.seed, self.limit = strip, seed, limit
        self.frame = Frame(strip)
        self.rng = generator(seed)
        self.extra = self.frame.start_x + self.frame.half_gap
        self.best: Found | None = None
        self.steps = 0
        self._maps: Maps | None = share._maps if share is not None and share._same_shapes(self.frame) else None
        self._guided = False
        #: while maps are being made: what they are made from, and how many there are
        self._making: tuple[Chords, Maps] | None = None
        self._filled = 0
        self._first_rows()

    def _same_shapes(self, frame: Frame) -> bool:
        if any(spot.variant.x_step and spot.variant.y_step for spot in frame.spots):
            # their maps were corrected for the places the bars left before
            return False
        mine = self.frame.shapes
        return len(mine) == len(frame.shapes) and all(
            np.array_equal(a, b) for a, b in zip(mine, frame.shapes, strict=True)
        )

    @cached_property
    def _hulls(self) -> Hulls:
        # not needed for a first lay
        return hulls_for(self.frame)

    # -- rows ---------------------------------------------------------------------------------------------

    def _first_rows(self) -> None:
        self.table, self.taken, self.h = rows_of(self.frame)
        parts = self.strip.parts
        self.area = np.array([part.area for part in parts] + [0.0] * len(self.frame.obstacles))
        constrained = [bool(part.half) for part in parts]
        self.order = np.array(sorted(range(len(parts)), key=lambda i: (not constrained[i], -parts[i].area, i)))
        self.pose = self.table.start.copy()
        self.out_x, self.out_at = np.zeros(len(parts)), np.zeros(len(parts), dtype=np.int64)
        self.counters = np.zeros(2, dtype=np.int64)
        self.row_limit = self.limit + self.extra
        self.ordered = 0

    def first(self) -> bool:
        """The first lay. True when there is one."""
        cost = rows.decode(
            self.table, self.taken, self.order, self.pose, self.row_limit, math.inf, True, self.out_x, self.out_at
        )
        self.costs = np.array([cost * 1.06, cost])
        self.history = np.full(HISTORY, cost * 1.06)
        self.best_order, self.best_pose = self.order.copy(), self.pose.copy()
        self.steps += 1
        return self._take_rows()

    def _order_search(self, layings: int) -> bool:
        improved = rows.search(
            self.table,
            self.taken,
            layings,
            self.rng,
            self.order,
            self.pose,
            self.best_order,
            self.best_pose,
            self.costs,
            self.history,
            self.counters,
            self.row_limit,
            self.out_x,
            self.out_at,
        )
        self.steps += layings
        self.ordered += layings
        return self._take_rows() if improved else False

    def _take_rows(self) -> bool:
        order, pose = self.best_order.copy(), self.best_pose.copy()
        rows.decode(self.table, self.taken, order, pose, self.row_limit, math.inf, False, self.out_x, self.out_at)
        inside = [i for i in range(self.frame.count) if self.out_at[i] >= 0]
        left = tuple(i for i in range(self.frame.count) if self.out_at[i] < 0)
        x = self.out_x.copy()
        y = np.zeros(self.frame.count)
        for i in inside:
            spot = self.frame.spots[pose[i]]
            step = spot.variant.y_step if spot.count else self.h
            y[i] = min(spot.y_low + self.out_at[i] * step, spot.y_high)
        rings = [self.frame.shapes[self.frame.spots[pose[i]].shape] + np.array([x[i], y[i]]) for i in inside]
        rings += [self.frame.shapes[s] + np.array([ox, oy]) for s, ox, oy, _ in self.frame.obstacles]
        free = [k for k, i in enumerate(inside) if self.table.x_step[pose[i]] == 0 and not self.strip.parts[i].border]
        if free:
            points = np.ascontiguousarray(np.concatenate(rings))
            starts = np.cumsum([0, *(len(r) for r in rings)])
            moved = np.zeros(len(rings))
            by_x = np.array(sorted(free, key=lambda k: (x[inside[k]], k)))
            push_together(points, starts, by_x, moved)
            for k in free:
                x[inside[k]] -= moved[k]
        return self._keep(
            Found(tuple(self.frame.placed(i, int(pose[i]), float(x[i]), float(y[i])) for i in inside), 0.0, left)
        )

    def _keep(self, found: Found) -> bool:
        found = Found(
            found.placed, round(max((self.frame.end_of(p) for p in found.placed), default=0.0), 4), found.left
        )
        if self.best is not None and found.rank >= self.best.rank:
            return False
        self.best = found
        return True

    # -- guided -------------------------------------------------------------------------------------------

    def _prepare_guided(self) -> bool:
        """Maps, a few at a time so that nobody waits long, and then the state. True when all is ready."""
        if self._maps is None:
            if self._making is None:
                self._making = maps_of(self.frame)
                if self._making is None:
                    # too large: rows must do
                    self._guided = True
                    return False
            chords, maps = self._making
            if self._filled < len(maps.own):
                last = min(len(maps.own), self._filled + MAPS)
                fill_maps(chords, maps, self._filled, last)
                self._filled = last
                return False
            self._maps, self._making = maps, None
        maps = self._maps
        self._guided = True
        self.field = field_of(self.frame, maps)
        exact_lattice(self.frame, self.field, maps, self._hulls)
        n = self.frame.total
        longest = 3.0 * (self.best.length if self.best else 1000.0) + 2000.0
        ny = int(np.ceil(self.frame.height / maps.cell_y)) + 2
        self.sums = np.zeros(
            max(4096, int(longest / maps.cell_x) // maps.coarse * (ny // maps.coarse + 2) * 2 + ny * 64), np.float32
        )
        self.here = self._state()
        self.least = self._state()
        self.weights = np.ones((n, n))
        self.each = np.zeros(n)
        self.rounds = np.zeros(n, dtype=np.int64)
        self.depths = np.zeros((n, n), dtype=np.int64)
        self.tally = np.zeros(4, dtype=np.int64)
        self.shrink = SHRINK_FIRST
        self.strikes = 0
        self.pool: list[tuple[int, Here]] = []
        #: states that were made exact: none a second time
        self.settled: set[bytes] = set()
        self._polish()
        self._aim()
        return True

    def _state(self) -> Here:
        n = self.frame.total
        here = Here(np.zeros(n, dtype=np.int64), np.zeros(n, dtype=np.int64), np.zeros(n, dtype=np.int64))
        for k in range(self.frame.count, n):
            v = int(self.field.start[k])
            here.v[k], here.x[k], here.y[k] = v, self.field.x_base[v], self.field.y_base[v]
        return here

    def _load(self, found: Found, here: Here, length: float) -> None:
        """A found lay as cells."""
        assert self._maps is not None
        for placed in found.placed:
            spot, x, y = self.frame.in_frame(placed)
            put_at(
                self._maps,
                self.field,
                here,
                placed.part,
                spot,
                (x - self.field.x_rest[spot]) / self._maps.cell_x,
                (y - self.field.y_rest[spot]) / self._maps.cell_y,
                length,
            )

    def _aim(self) -> None:
        """Start from the best at a shorter length."""
        assert self.best is not None and self._maps is not None
        whole = self.best.length + self.extra
        self.target = (self.best.length * (1 - self.shrink)) + self.extra
        self._load(self.best, self.here, whole + self._maps.cell_x)
        squeeze(self._maps, self.field, self.here, self.target, whole - self.target, self.rng)
        self.pool.clear()
        self.strikes = 0
        self._fresh()

    def _fresh(self) -> None:
        self.weights[:] = 1.0
        self.tally[:] = (0, 0, 2**60, 0)

    def adopt(self, found: Found) -> bool:
        """Take over a lay found elsewhere when it is shorter."""
        if self.best is None or found.rank >= self.best.rank:
            return False
        self.best = found
        if self._guided and self._maps is not None:
            self._aim()
        return True

    def batch(self) -> bool:
        """Some more search, a few milliseconds of it. True when a shorter lay came of it."""
        before = self.best
        self._batch()
        return self.best is not before

    def _batch(self) -> None:
        if self.best is None or self.ordered < max(4, min(ORDERING, 800 // self.frame.count)) or self.limit < math.inf:
            self._order_search(max(1, 120 // max(1, self.frame.count)))
            return
        if not self._guided and not self._prepare_guided():
            return
        if self._maps is None:
            self._order_search(max(1, 120 // max(1, self.frame.count)))
            return
        before = int(self.tally[0])
        state = separate(
            self._maps,
            self.field,
            self.here,
            self.least,
            self.weights,
            self.depths,
            self.target,
            self.rng,
            self.sums,
            self.each,
            self.rounds,
            self.tally,
            MOVES,
        )
        # at least one, so that a budget of steps ends
        self.steps += max(1, int(self.tally[0]) - before)
        if state == 0:
            return
        if state == 2 and self.tally[2] <= NEARLY:
            # what the raster calls overlap may be none
            for mine, other in zip(self.here, self.least, strict=True):
                mine[:] = other
            state = 1
        if state == 1:
            if self._settle():
                self.shrink = min(SHRINK_MOST, self.shrink * WIDEN)
                self._aim()
                return
            for mine, other in zip(self.least, self.here, strict=True):
                mine[:] = other
        self._stuck()

    def _stuck(self) -> None:
        """Shake the state of least overlap, or after a few times aim less far."""
        self.strikes += 1
        if self.strikes >= STRIKES:
            self.shrink = max(SHRINK_LEAST, self.shrink * NARROW)
            self._aim()
            if below(self.rng, 2) == 0:
                kick(self._maps, self.field, self.area, self.here, self.target, self.rng)
                self._fresh()
            return
        self.pool.append((int(self.tally[2]), Here(*(a.copy() for a in self.least))))
        self.pool.sort(key=lambda entry: entry[0])
        del self.pool[8:]
        # the good ones more often
        number = int(abs(unit(self.rng) + unit(self.rng) - 1.0) * len(self.pool))
        self._shake(self.pool[min(number, len(self.pool) - 1)][1])

    def _shake(self, state: Here) -> None:
        for mine, other in zip(self.here, state, strict=True):
            mine[:] = other
        kick(self._maps, self.field, self.area, self.here, self.target, self.rng)
        self._fresh()

    def _settle(self) -> bool:
        """Make the separated state exact. True when that is a shorter lay than the best."""
        assert self._maps is not None
        state = b"".join(part.tobytes() for part in self.here)
        if state in self.settled:
            return False
        self.settled.add(state)
        n, count = self.frame.total, self.frame.count
        x, y, shape = np.zeros(n), np.zeros(n), np.zeros(n, dtype=np.int64)
        for i in range(count):
            v = int(self.here.v[i])
            shape[i] = self.field.shape[v]
            x[i] = self.here.x[i] * self._maps.cell_x + self.field.x_rest[v]
            y[i] = self.here.y[i] * self._maps.cell_y + self.field.y_rest[v]
        return self._exact(self.here.v[:count].copy(), shape, x, y)

    def _exact(self, spots: Ints, shape: Ints, x: Floats, y: Floats) -> bool:
        for k, (s, ox, oy, _) in enumerate(self.frame.obstacles, start=self.frame.count):
            shape[k], x[k], y[k] = s, ox, oy
        motion = motion_of(self.frame, spots)
        if self.frame.count <= EXACT_PARTS:
            made = compact(self._hulls, self.frame.skip, shape, x, y, motion)
            if made is None:
                return False
            x, y, _ = made
        elif worst_depth(self._hulls, self.frame.skip, shape, x, y, TOUCH_MM) > TOUCH_MM:
            return False
        placed = tuple(self.frame.placed(i, int(spots[i]), float(x[i]), float(y[i])) for i in range(self.frame.count))
        return self._keep(Found(placed, 0.0))

    def offer(self, placed: tuple[Placed, ...]) -> bool:
        """Placements of all parts from elsewhere, right to a hair: made exact, and kept when shorter."""
        better = self._from_placed(placed)
        if better and self._guided and self._maps is not None:
            self._aim()
        return better

    def _polish(self) -> bool:
        """The best lay pushed together."""
        assert self.best is not None
        if self.best.left or self.frame.count > EXACT_PARTS:
            return False
        return self._from_placed(self.best.placed)

    def _from_placed(self, all_placed: tuple[Placed, ...]) -> bool:
        n = self.frame.total
        x, y, shape = np.zeros(n), np.zeros(n), np.zeros(n, dtype=np.int64)
        spots = np.zeros(self.frame.count, dtype=np.int64)
        for placed in all_placed:
            spots[placed.part], x[placed.part], y[placed.part] = self.frame.in_frame(placed)
            shape[placed.part] = self.frame.spots[spots[placed.part]].shape
        return self._exact(spots, shape, x, y)
