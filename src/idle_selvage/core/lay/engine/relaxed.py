"""Bounds that are proved by deciding: is there even a *relaxed* lay of length T? When there is none, there is no lay.

A relaxed lay forgets most of the shapes. What is left of them is written down in whole cells of g mm, and a constraint
solver decides it. Each rule below is a theorem: every true lay keeps it. The outlines are first drawn in by half the
tolerance of a tenth and the strip is made that much larger, so that what may overlap by a tenth is truly disjoint.

**Bars across.** Let a part begin at x (its least x), s = ⌊x/g⌋, and let p(k) be the least section across over its own
cell [kg, (k+1)g) from its beginning; a last cell that is not whole is dropped. Then for every column t the sum of
p(t − s) over the parts with a cell there is at most the width. *Proof:* s ≤ x/g < s + 1, so the part's own cell
k = t − s reaches from x + kg < (t+1)g to x + (k+1)g ≥ (t+1)g: it holds the points just left of (t+1)g. So each of
these parts crosses the one line just left of (t+1)g, with at least p(k) of it, and on one line what is disjoint adds up
to at most the width.

**Bars along.** The same with y for x, and the length T for the width.

**Inner cells.** A cell of the part's own grid, from its least x and y, that lies wholly within it, is put down at
(s + k, r + m). No two parts may put one down at the same place. *Proof:* as above, along and across at once, it holds
the points just left of and below ((t+1)g, (u+1)g); two parts would share them.

**Lattice.** Along matched bars of repeat R, with a whole number M of cells to a repeat, a part whose group has the
phase φ begins at r + φ + kR for some whole k, with r known. With φ = (f + δ)g, 0 ≤ δ < 1, and r = (a + c)g, 0 ≤ c < 1,
its s is f + a + [δ ≥ 1 − c] + Mk; where it lies mirrored, at r − φ + kR, it is a − f − [δ > c] + Mk. All parts of a
group share f and δ, so the brackets come true in the order of what δ is compared with. A match is judged to a tenth: a
lay is first moved onto its lattice, and outlines are drawn in by that much more.

What may not be laid on is as it is: the line just left of (t+1)g has so much less room, the line below (u+1)g too.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from .bounds import GIVE_MM, sections
from .orientations import Ring
from .prepare import grow
from .strips import Part, Strip, Variant

#: How far a piece may lie beside its place on the bars, along and across together, mm. Groups that a piece ties are
#: taken to be tied exactly.
OFF_BARS_MM = 0.2
#: A section is written down in so many parts of a millimetre, rounded down.
FINE = 20
#: More inner boxes than this, of all parts together, and the largest must do: the time of a decision grows with their
#: square. A rule left out only lets more in.
MOST_BOXES = 1_000
#: With more rules than this the solver's deterministic time says too little, and it is given less of it.
MANY_RULES = 2_000
#: Just beside a corner.
BESIDE = 1e-6

Ints = NDArray[np.int64]
#: The size of a cell along and across.
Grid = tuple[float, float]


def _rings(shape: BaseGeometry) -> list[Ring]:
    """The outlines of what is left of a shape, holes too."""
    found: list[Ring] = []
    for part in getattr(shape, "geoms", [shape]):
        if isinstance(part, Polygon) and not part.is_empty:
            found += [np.array(r.coords[:-1]) for r in (part.exterior, *part.interiors)]
    return found


def profile(rings: list[Ring], g: float) -> Ints:
    """Of every whole cell [kg, (k+1)g) from the least x on: the least section across over it, in parts of a
    millimetre, rounded down. A section is linear between corners, so both sides of each corner are looked at."""
    if not rings:
        return np.zeros(0, dtype=np.int64)
    xs = np.concatenate([r[:, 0] for r in rings])
    start = float(xs.min())
    cells = math.floor((float(xs.max()) - start) / g)
    if cells < 1:
        return np.zeros(0, dtype=np.int64)
    edges = start + np.arange(cells + 1) * g
    at = np.unique(np.concatenate([xs - BESIDE, xs + BESIDE, edges - BESIDE, edges + BESIDE]))
    at = at[(at > start) & (at < edges[-1])]
    which = np.clip(np.floor((at - start) / g).astype(np.int64), 0, cells - 1)
    least = np.full(cells, np.inf)
    np.minimum.at(least, which, sections(rings, at))
    least[~np.isfinite(least)] = 0.0
    return np.maximum(0, np.floor(least * FINE - 1e-3)).astype(np.int64)


@dataclass(frozen=True)
class Pose:
    """One way a part may lie, drawn in: its outlines about its own least x and y, how far it reaches, and between which
    heights over the strip's low edge its least y may lie."""

    rings: list[Ring] = field(repr=False)
    shape: BaseGeometry = field(repr=False)
    reach: float
    tall: float
    low: float
    high: float
    #: where its least x and y lie on the bars
    along: OnBars | None = None
    across: OnBars | None = None


@dataclass(frozen=True)
class OnBars:
    """A place on bars: ``at`` modulo the repeat, and further by the phase of a group (less far with ``sign`` −1); a
    group of −1 has none."""

    at: float
    group: int
    sign: int


class Relaxed:
    """A strip, relaxed. ``width`` and the lengths asked about are the strip's, larger by the tolerance and the gap.

    The strip's places on the bars are those for phases of 0 where a group is free."""

    def __init__(self, strip: Strip) -> None:
        self.strip = strip
        steps = [v for part in strip.parts for v in part.variants if v.x_step or v.y_step]
        self.drawn_in = GIVE_MM / 2 + (OFF_BARS_MM if steps else 0.0)
        self.half_gap = strip.gap / 2
        self.width = strip.width + strip.gap + GIVE_MM
        known: dict[tuple[int, str], list[Pose]] = {}
        self.parts: list[list[Pose]] = []
        for part in strip.parts:
            key = (id(part.variants), part.half)
            if key not in known:
                known[key] = self._poses(part)
            self.parts.append(known[key])
        self._known_kinds: dict[Any, list[_Kind]] = {}
        low = strip.low - self.half_gap
        taken = [
            Polygon(grow(o.ring, self.half_gap, "")).buffer(-self.drawn_in)
            for o in strip.obstacles
            # border parts may lie on what is kept for them
            if not (o.reserved and any(part.border for part in strip.parts))
        ]
        shift = (self.start + GIVE_MM / 2, GIVE_MM / 2 - low)
        self.taken = shapely.affinity.translate(shapely.union_all(taken), *shift) if taken else None

    @property
    def start(self) -> float:
        """Half the gap lies before the beginning of the cloth, but not before a crosswise fold."""
        return 0.0 if self.strip.lengths == 2 else self.half_gap

    def _poses(self, part: Part) -> list[Pose]:
        grown: dict[int, BaseGeometry] = {}
        return [self._pose(variant, part.half, grown) for variant in part.variants]

    def _pose(self, variant: Variant, half: str, grown: dict[int, BaseGeometry]) -> Pose:
        if id(variant.ring) not in grown:
            ring = grow(variant.ring, self.half_gap, half)
            grown[id(variant.ring)] = Polygon(ring).buffer(-self.drawn_in, join_style="mitre")
        shape = grown[id(variant.ring)]
        if shape.is_empty:
            return Pose([], shape, 0.0, 0.0, 0.0, self.width)
        x0, y0, x1, y1 = shape.bounds
        at = y0 - self.strip.low + self.half_gap + GIVE_MM / 2
        moved = shapely.affinity.translate(shape, -x0, -y0)
        # lays are judged to the tolerance here too
        more = GIVE_MM / 2 + self.drawn_in
        low, high = variant.low + at - more, variant.high + at + more
        begin = variant.x_base + x0 + self.start + GIVE_MM / 2
        along = OnBars(begin, variant.x_group, 1) if 0 < variant.x_step == self.strip.x_repeat else None
        across = (
            OnBars(variant.y_base + at, variant.y_group, variant.y_sign)
            if 0 < variant.y_step == self.strip.y_repeat
            else None
        )
        return Pose(_rings(moved), moved, x1 - x0, y1 - y0, max(0.0, low), high, along, across)

    def length(self, asked: float) -> float:
        """The length to lay in, of a lay of this length."""
        return asked + self.start + self.half_gap + GIVE_MM

    @cached_property
    def area(self) -> float:
        return float(sum(min(p.shape.area for p in poses) for poses in self.parts))

    def area_bound(self) -> float:
        """Theorem: what is drawn in is disjoint, so that its area and what is taken of a strip of length T are at most
        T times its width. The least T that has so much room."""

        def room(long: float) -> float:
            gone = shapely.clip_by_rect(self.taken, 0, 0, long, self.width).area if self.taken is not None else 0.0
            return float(long * self.width - gone)

        low, high = 0.0, self.area / self.width + (self.taken.bounds[2] if self.taken is not None else 0.0) + 1.0
        while high - low > 0.01:
            middle = (low + high) / 2
            low, high = (middle, high) if room(middle) < self.area else (low, middle)
        return low - self.length(0.0)

    def refuted(self, asked: float, g: float, along: bool, across: bool, effort: float) -> bool | None:
        """Whether there is not even a relaxed lay of length ``asked``: True is a proof that every lay is longer, False
        says that there is a relaxed one, None that the effort did not do. ``effort``: deterministic time of the solver,
        so that the same question has the same answer everywhere."""
        from ortools.sat.python import cp_model

        made = self._model(cp_model, self.length(asked), self._grid(g), along, across)
        if made is None:
            return True
        solver = cp_model.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        solver.parameters.max_deterministic_time = effort / max(1.0, len(made.proto.constraints) / MANY_RULES)
        state = solver.solve(made)
        if state == cp_model.INFEASIBLE:
            return True
        return False if state in (cp_model.FEASIBLE, cp_model.OPTIMAL) else None

    def _grid(self, g: float) -> Grid:
        """Cells near ``g``, a whole number of them to a repeat of matched bars."""
        sizes = [
            repeat / max(1, round(repeat / g)) if repeat else g for repeat in (self.strip.x_repeat, self.strip.y_repeat)
        ]
        return sizes[0], sizes[1]

    def _model(self, cp_model: Any, long: float, grid: Grid, along: bool, across: bool) -> Any:
        """The relaxed lay as a model; None when a part is longer than the strip. ``along``, ``across``: which bars;
        with both, inner cells as well."""
        gx, gy = grid
        model = cp_model.CpModel()
        columns: list[Any] = []
        heights: list[int] = []
        rows: list[Any] = []
        widths: list[int] = []
        boxes: list[tuple[Any, Any]] = []
        before: dict[int, Any] = {}
        every = [[p for p in poses if p.reach <= long + 1e-9] for poses in self.parts]
        if not all(every):
            return None
        each = [self._kinds(tuple(id(p) for p in poses), poses, grid, along, across) for poses in every]
        most = max(1, MOST_BOXES // sum(len(kinds) for kinds in each)) if each else 1
        bars_x = _Lattice(
            model, "x", self.strip.x_repeat, gx, [k.on_x for kinds in each for k in kinds if k.on_x and across]
        )
        bars_y = _Lattice(
            model, "y", self.strip.y_repeat, gy, [k.on_y for kinds in each for k in kinds if k.on_y and along]
        )
        for number, (poses, kinds) in enumerate(zip(self.parts, each, strict=True)):
            x = model.new_int_var(0, max(k.last_x(long, gx) for k in kinds), f"x{number}")
            y = model.new_int_var(min(k.low for k in kinds), max(k.high for k in kinds), f"y{number}")
            picked = [None] if len(kinds) == 1 else [model.new_bool_var(f"b{number}.{n}") for n in range(len(kinds))]
            if len(kinds) > 1:
                model.add_exactly_one(picked)
            for n, (kind, here) in enumerate(zip(kinds, picked, strict=True)):
                name = f"{number}.{n}"
                if kind.on_x and across:
                    bars_x.bind(x, kind.on_x, here, name)
                if kind.on_y and along:
                    bars_y.bind(y, kind.on_y, here, name)
                if here is not None:
                    model.add(x <= kind.last_x(long, gx)).only_enforce_if(here)
                    model.add(y >= kind.low).only_enforce_if(here)
                    model.add(y <= kind.high).only_enforce_if(here)
                if across:
                    for at, size, tall in kind.across:
                        columns.append(_bar(model, x + at, size, here, name))
                        heights.append(tall)
                if along:
                    for at, size, wide in kind.along:
                        rows.append(_bar(model, y + at, size, here, name))
                        widths.append(wide)
                if along and across:
                    for at_x, at_y, size_x, size_y in kind.inner[:most]:
                        boxes.append(
                            (_bar(model, x + at_x, size_x, here, name), _bar(model, y + at_y, size_y, here, name))
                        )
            # of equal parts the first lies first: any lay can be numbered so
            place = x if across else y
            if id(poses) in before:
                model.add(before[id(poses)] <= place)
            before[id(poses)] = place
        for at, tall in self._gone_across(long, gx) if across else ():
            columns.append(model.new_fixed_size_interval_var(at, 1, "taken"))
            heights.append(tall)
        for at, wide in self._gone_along(long, gy) if along else ():
            rows.append(model.new_fixed_size_interval_var(at, 1, "taken"))
            widths.append(wide)
        if across:
            model.add_cumulative(columns, heights, math.ceil(self.width * FINE))
        if along:
            model.add_cumulative(rows, widths, math.ceil(long * FINE))
        if boxes:
            model.add_no_overlap_2d([a for a, _ in boxes], [b for _, b in boxes])
        return model

    def _kinds(self, key: tuple[int, ...], poses: list[Pose], grid: Grid, along: bool, across: bool) -> list[_Kind]:
        full = (key, grid, along, across)
        if full not in self._known_kinds:
            found: dict[tuple[Any, ...], _Kind] = {}
            for pose in poses:
                kind = self._kind(pose, grid, along, across)
                same = (
                    kind.across,
                    kind.along,
                    kind.inner,
                    kind.cells,
                    *((kind.low, kind.high, kind.on_y) if along else ()),
                    *((kind.on_x,) if across else ()),
                )
                if same not in found or found[same].reach > kind.reach:
                    found[same] = kind
            self._known_kinds[full] = list(found.values())
        return self._known_kinds[full]

    def _kind(self, pose: Pose, grid: Grid, along: bool, across: bool) -> _Kind:
        gx, gy = grid
        turned = [ring[:, ::-1] for ring in pose.rings]
        columns = profile(pose.rings, gx) if across else np.zeros(0, dtype=np.int64)
        rows = profile(turned, gy) if along else np.zeros(0, dtype=np.int64)
        inner = inner_boxes(pose, gx, gy) if along and across else ()
        return _Kind(
            _runs(columns),
            _runs(rows),
            inner,
            math.floor(pose.low / gy),
            math.floor(pose.high / gy),
            pose.reach,
            math.floor(pose.reach / gx),
            _cells_on(pose.along, self.strip.x_repeat, gx),
            _cells_on(pose.across, self.strip.y_repeat, gy),
        )

    def _gone_across(self, long: float, g: float) -> list[tuple[int, int]]:
        """How much of each line just left of (t+1)g is taken."""
        if self.taken is None:
            return []
        at = np.arange(1, math.floor(long / g) + 1) * g - BESIDE
        inside = shapely.clip_by_rect(self.taken, -1e6, 0, 1e6, self.width)
        gone = np.floor(sections(_rings(inside), at) * FINE - 1e-3).astype(int)
        return [(t, int(tall)) for t, tall in enumerate(gone) if tall > 0]

    def _gone_along(self, long: float, g: float) -> list[tuple[int, int]]:
        """How much of each line just below (u+1)g is taken, within the length."""
        if self.taken is None:
            return []
        at = np.arange(1, math.floor(self.width / g) + 1) * g - BESIDE
        inside = shapely.clip_by_rect(self.taken, 0, -1e6, long, 1e6)
        gone = np.floor(sections([r[:, ::-1] for r in _rings(inside)], at) * FINE - 1e-3).astype(int)
        return [(u, int(wide)) for u, wide in enumerate(gone) if wide > 0]


@dataclass(frozen=True)
class _Kind:
    """What is left of one pose: bars as (at, cells, height), inner boxes, where it may begin across, in cells."""

    across: tuple[tuple[int, int, int], ...]
    along: tuple[tuple[int, int, int], ...]
    inner: tuple[tuple[int, int, int, int], ...]
    low: int
    high: int
    reach: float
    cells: int
    on_x: _OnCells | None
    on_y: _OnCells | None

    def last_x(self, long: float, g: float) -> int:
        """The last cell it may begin in on a strip of this length."""
        return max(0, math.floor((long - self.reach) / g + 1e-9))


@dataclass(frozen=True)
class _OnCells:
    """A place on bars in cells: whole ones, and what δ is compared with, with 1 where it must be more than that."""

    group: int
    sign: int
    whole: int
    compared: tuple[float, int]


def _cells_on(place: OnBars | None, repeat: float, g: float) -> _OnCells | None:
    if place is None:
        return None
    cells = place.at % repeat / g
    whole, rest = math.floor(cells), cells - math.floor(cells)
    return _OnCells(place.group, place.sign, whole, (1 - rest, 0) if place.sign > 0 else (rest, 1))


class _Lattice:
    """The phases of groups along one axis, in cells, and the places that hang on them."""

    def __init__(self, model: Any, axis: str, repeat: float, g: float, places: list[_OnCells]) -> None:
        self.model, self.axis = model, axis
        self.cells = round(repeat / g) if repeat else 1
        self.first: dict[int, Any] = {}
        self.beyond: dict[tuple[int, tuple[float, int]], Any] = {}
        for group in sorted({p.group for p in places if p.group >= 0}):
            self.first[group] = model.new_int_var(0, self.cells - 1, f"{axis} phase {group}")
            before: Any = None
            # the smaller what δ is compared with, the sooner it is as much
            for compared in sorted({p.compared for p in places if p.group == group}, reverse=True):
                now = model.new_bool_var(f"{axis} beyond {group} {compared}")
                if before is not None:
                    model.add_implication(before, now)
                self.beyond[group, compared] = before = now

    def bind(self, var: Any, place: _OnCells, here: Any, name: str) -> None:
        """A part's cell lies on the bars."""
        times = self.model.new_int_var(-2, 100_000, f"{self.axis} repeats {name}")
        at = place.whole + self.cells * times
        if place.group >= 0:
            at += place.sign * (self.first[place.group] + self.beyond[place.group, place.compared])
        bound = self.model.add(var == at)
        if here is not None:
            bound.only_enforce_if(here)


def _bar(model: Any, start: Any, size: int, here: Any, name: str) -> Any:
    if here is None:
        return model.new_fixed_size_interval_var(start, size, name)
    return model.new_optional_fixed_size_interval_var(start, size, here, name)


def _runs(cells: Ints) -> tuple[tuple[int, int, int], ...]:
    """Cells as steps: each beginning, length and height of neighbours that are equal."""
    found: list[tuple[int, int, int]] = []
    for k, value in enumerate(cells.tolist()):
        if found and found[-1][2] == value:
            found[-1] = (found[-1][0], found[-1][1] + 1, value)
        else:
            found.append((k, 1, value))
    return tuple(step for step in found if step[2] > 0)


def inner_boxes(pose: Pose, gx: float, gy: float) -> tuple[tuple[int, int, int, int], ...]:
    """The cells of the part's own grid that lie wholly within it, as boxes (k, m, cells along, cells across), the
    largest first."""
    nx, ny = math.floor(pose.reach / gx), math.floor(pose.tall / gy)
    if nx < 1 or ny < 1:
        return ()
    kx, ky = np.meshgrid(np.arange(nx), np.arange(ny), indexing="ij")
    shapely.prepare(pose.shape)
    cells = shapely.box(kx * gx, ky * gy, (kx + 1) * gx, (ky + 1) * gy)
    free = shapely.covers(pose.shape, cells)
    found: list[tuple[int, int, int, int]] = []
    # the tallest run of each column, made as long as it goes; then what is left
    left = free.copy()
    for k in range(nx):
        m = 0
        while m < ny:
            if not left[k, m]:
                m += 1
                continue
            top = m
            while top < ny and left[k, top]:
                top += 1
            last = k
            while last < nx and left[last, m:top].all():
                last += 1
            left[k:last, m:top] = False
            found.append((k, m, last - k, top - m))
            m = top
    return tuple(sorted(found, key=lambda box: -box[2] * box[3]))
