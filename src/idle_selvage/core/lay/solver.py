"""The search: lay the strip of each allowed fold again and again, keep the best that passes the check.

First answer: largest first, each as far left and as low as it goes. Then late-acceptance search over the
order and the poses, then an exact push towards the cut end. Bound and check are separate modules.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon

from . import geometry
from .answer import Lay, to_json
from .bounds import strip_bound
from .check import check_lay
from .folds import CannotFold, Placed, Strip, strip_for, unfold
from .problem import BadProblem, Problem, piece_area
from .problem import to_json as problem_json

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]

HISTORY = 40
#: Layings between two looks at the clock and the cancel flag, per item; a few milliseconds.
BATCH_LAYINGS = 240


class EngineFault(RuntimeError):
    """The engine made a lay its own checker refuses. That is a bug, and this says which rule."""


@dataclass(frozen=True)
class Progress:
    """How far a search has come: seconds so far, best length, bound, fold of the best, layings done."""

    seconds: float
    length: float
    bound: float
    fold: str
    steps: int


@dataclass(frozen=True)
class Answer:
    """The best lay, and the best of each fold that could be laid, shortest first.

    ``refused`` says for every other allowed fold why not. ``cancelled`` when it was stopped early.
    """

    lay: Lay
    alternatives: tuple[tuple[str, Lay], ...]
    refused: tuple[tuple[str, CannotFold], ...]
    progress: tuple[Progress, ...]
    cancelled: bool = False


@dataclass
class _Search:
    """The search on one strip. ``limit`` is the length that must not be passed, infinite when open."""

    problem: Problem
    strip: Strip
    seed: int
    limit: float = math.inf
    lay: Lay | None = None
    steps: int = 0
    bound: float = field(init=False)

    def __post_init__(self) -> None:
        self.bound = strip_bound(self.strip)
        self._prepare()

    def _prepare(self) -> None:
        strip = self.strip
        half_gap = strip.gap / 2
        folded = strip.fold == "lengthwise"
        # the gap is between pieces, not to the selvages: the strip grows by what the pieces grow
        self.low_extra = 0.0 if folded else half_gap
        width = strip.width + self.low_extra + half_gap
        # even rows of about 3 mm: finer gains less than the search loses by being slower
        self.rows = max(20, min(600, math.ceil(width / 3.0)))
        self.h = width / self.rows
        pose_from, pose_to, rows, first, lens, last = [], [], [], [], [], []
        self.poses: list[tuple[int, Floats, float, float]] = []
        lo_parts: list[Floats] = []
        hi_parts: list[Floats] = []
        ptr: list[int] = [0]
        known: dict[int, tuple[int, int]] = {}
        for number, item in enumerate(strip.items):
            if id(item.poses) in known:
                a, b = known[id(item.poses)]
                pose_from.append(a)
                pose_to.append(b)
                continue
            start = len(self.poses)
            for pose in item.poses:
                ring = _grown(pose.ring, half_gap, item.on_fold)
                corner = ring.min(axis=0)
                if item.on_fold:
                    corner[1] = 0.0
                flat = np.ascontiguousarray(ring - corner)
                height = float(flat[:, 1].max())
                nrows = max(1, math.ceil((height - geometry.ROW_SLACK_MM) / self.h))
                while nrows > self.rows:
                    nrows -= 1
                room = nrows * geometry.MAX_PER_ROW
                lo, hi, at = np.empty(room), np.empty(room), np.empty(nrows + 1, dtype=np.int64)
                total = geometry.row_intervals(flat, self.h, nrows, lo, hi, at)
                if total < 0:
                    raise BadProblem([f"Piece “{item.piece}” is too jagged to be laid; simplify its outline."])
                rows.append(nrows)
                first.append(len(ptr) - 1)
                lens.append(float(flat[:, 0].max()))
                last.append(0 if item.on_fold else self.rows - nrows)
                base = ptr[-1]
                ptr.extend((at[1:] + base).tolist())
                lo_parts.append(lo[:total].copy())
                hi_parts.append(hi[:total].copy())
                self.poses.append((number, flat, float(corner[0]), float(corner[1])))
            known[id(item.poses)] = (start, len(self.poses))
            pose_from.append(start)
            pose_to.append(len(self.poses))
        self.pose_from, self.pose_to = np.array(pose_from), np.array(pose_to)
        self.pose_rows, self.pose_first = np.array(rows), np.array(first)
        self.pose_len, self.pose_last = np.array(lens), np.array(last)
        # first-row pointers count rows over all poses; each pose's rows follow one another
        self.ptr = np.array(ptr)
        self.lo, self.hi = np.concatenate(lo_parts), np.concatenate(hi_parts)
        widest = int(np.max(np.diff(self.ptr)))
        n = len(strip.items)
        self.cnt = np.zeros(self.rows, dtype=np.int64)
        self.occ_lo = np.empty((self.rows, n * widest + 1))
        self.occ_hi = np.empty((self.rows, n * widest + 1))
        self.on_fold = np.array([item.on_fold for item in strip.items])
        self.area = np.array([item.area / strip.width for item in strip.items])
        self.out_x, self.out_row = np.zeros(n), np.zeros(n, dtype=np.int64)
        self.order = np.array(sorted(range(n), key=lambda i: (not self.on_fold[i], -strip.items[i].area, i)))
        self.pose = self.pose_from.copy()
        self.rng = np.array([(0x9E3779B97F4A7C15 * (self.seed + 1)) % 2**64 | 1], dtype=np.uint64)
        self.counters = np.zeros(2, dtype=np.int64)
        self.inner_limit = self.limit + strip.gap

    def _decode(self, order: Ints, pose: Ints, *, greedy: bool) -> float:
        return float(
            geometry.decode(
                order,
                pose,
                self.pose_from,
                self.pose_to,
                self.on_fold,
                self.area,
                self.pose_rows,
                self.pose_first,
                self.pose_len,
                self.pose_last,
                self.ptr,
                self.lo,
                self.hi,
                self.cnt,
                self.occ_lo,
                self.occ_hi,
                self.inner_limit,
                math.inf,
                greedy,
                self.out_x,
                self.out_row,
            )
        )

    def first(self) -> bool:
        """The first answer. True when there is one."""
        cost = self._decode(self.order, self.pose, greedy=True)
        self.costs = np.array([cost * 1.06, cost])
        self.history = np.full(HISTORY, cost * 1.06)
        self.best_order, self.best_pose = self.order.copy(), self.pose.copy()
        self.steps = 1
        return self._take()

    def batch(self, layings: int) -> bool:
        """Some more search. True when a shorter lay came of it."""
        improved = geometry.search(
            layings,
            self.rng,
            self.order,
            self.pose,
            self.best_order,
            self.best_pose,
            self.costs,
            self.history,
            self.counters,
            self.pose_from,
            self.pose_to,
            self.on_fold,
            self.area,
            self.pose_rows,
            self.pose_first,
            self.pose_len,
            self.pose_last,
            self.ptr,
            self.lo,
            self.hi,
            self.cnt,
            self.occ_lo,
            self.occ_hi,
            self.inner_limit,
            self.out_x,
            self.out_row,
        )
        self.steps += layings
        return self._take() if improved else False

    def _take(self) -> bool:
        """Rebuild the best, push it together, and keep it when it beats what was kept."""
        self._decode(self.best_order.copy(), self.best_pose.copy(), greedy=False)
        inside = [i for i in range(len(self.strip.items)) if self.out_row[i] >= 0]
        x = self.out_x.copy()
        y: Floats = self.out_row.astype(np.float64) * self.h
        for i in inside:
            # rounding to rows may stick out by less than a row at the far selvage: pull it back
            height = float(self.poses[self.best_pose[i]][1][:, 1].max())
            y[i] = min(y[i], max(0.0, self.rows * self.h - height))
        rings = [self.poses[self.best_pose[i]][1] + np.array([x[i], y[i]]) for i in inside]
        if rings:
            points = np.ascontiguousarray(np.concatenate(rings))
            starts = np.cumsum([0, *(len(r) for r in rings)])
            moved = np.zeros(len(rings))
            geometry.push_together(points, starts, np.argsort([x[i] for i in inside], kind="stable"), moved)
            for place, i in enumerate(inside):
                x[i] -= moved[place]
        lay = self._lay(inside, x, y)
        if self.lay is not None and _rank(lay) >= _rank(self.lay):
            return False
        self.lay = lay
        return True

    def _lay(self, inside: list[int], x: Floats, y: Floats) -> Lay:
        half_gap = self.strip.gap / 2
        placed: list[Placed] = []
        end = 0.0
        for i in inside:
            _, _, corner_x, corner_y = self.poses[self.best_pose[i]]
            pose = self.strip.items[i].poses[self.best_pose[i] - self.pose_from[i]]
            origin_x = float(x[i]) - corner_x - half_gap
            origin_y = 0.0 if self.strip.items[i].on_fold else float(y[i]) - corner_y - self.low_extra
            placed.append(Placed(i, pose, round(origin_x, 4), round(origin_y, 4)))
            end = max(end, origin_x + float(pose.ring[:, 0].max()))
        length = round(end, 4)
        sections, laid, cut = unfold(self.problem, self.strip, placed, length)
        wanted = {p.id: p.copies for p in self.problem.pieces}
        for entry in cut:
            wanted[entry.piece] -= 1
        left = tuple((piece, n) for piece, n in wanted.items() if n > 0)
        area = {p.id: piece_area(p) for p in self.problem.pieces}
        used = sum(area[entry.piece] for entry in cut)
        share = used / (length * self.problem.width) if length > 0 else 0.0
        return Lay(
            length,
            round(self.bound, 4),
            round(share, 4),
            not left,
            0.0,
            self.seed,
            self.steps,
            sections,
            laid,
            cut,
            left,
        )


def _rank(lay: Lay) -> tuple[float, float]:
    """Fewer copies left over first, then shorter."""
    return (sum(n for _, n in lay.left_over), lay.length)


def _grown(ring: Floats, by: float, on_fold: bool) -> Floats:
    """A ring grown by half the gap; an on-fold half keeps its fold edge."""
    if by <= 0:
        return ring
    shape = Polygon(ring)
    if on_fold:
        shape = shape.union(Polygon(ring * np.array([1.0, -1.0])).buffer(1e-6))
    grown = Polygon(shape.buffer(by, quad_segs=8).exterior)
    if on_fold:
        x0, _, x1, y1 = grown.bounds
        grown = grown.intersection(Polygon([(x0 - 1, 0), (x1 + 1, 0), (x1 + 1, y1 + 1), (x0 - 1, y1 + 1)]))
    return np.array(grown.exterior.coords[:-1])


def solve(
    problem: Problem,
    *,
    seed: int = 1,
    seconds: float | None = None,
    steps: int | None = None,
    clock: Callable[[], float],
    on_progress: Callable[[Progress, Answer], None] | None = None,
    cancelled: Callable[[], bool] = lambda: False,
) -> Answer:
    """Lay a problem. Ends after ``seconds`` by ``clock``, or after ``steps`` layings (then the same seed
    gives the same lay), or when ``cancelled()``; the first answer is always given.

    Raises :class:`BadProblem` when no allowed fold can take the pieces, :class:`EngineFault` when the
    checker refuses what was made.
    """
    begun = clock()
    searches, refused = _searches(problem, seed)
    overall = min(s.bound for s in searches)
    told: list[Progress] = []
    answer: Answer | None = None

    def tell() -> None:
        nonlocal answer
        answer = _answer(problem, searches, refused, overall, clock() - begun, tuple(told))
        best = answer.lay
        told.append(
            Progress(clock() - begun, best.length, best.bound, best.sections[0].fold, sum(s.steps for s in searches))
        )
        answer = Answer(best, answer.alternatives, answer.refused, tuple(told))
        if on_progress is not None:
            on_progress(told[-1], answer)

    for search in searches:
        search.first()
    tell()
    stopped = False
    layings = max(2, BATCH_LAYINGS // max(len(s.strip.items) for s in searches))
    while True:
        if cancelled():
            stopped = True
            break
        if steps is not None and sum(s.steps for s in searches) >= steps:
            break
        if seconds is not None and clock() - begun >= seconds:
            break
        if all(s.lay is not None and s.lay.complete and s.lay.length <= s.bound + 0.05 for s in searches):
            break
        if any([s.batch(layings) for s in searches]):
            tell()
    assert answer is not None
    told.append(
        Progress(
            clock() - begun,
            answer.lay.length,
            answer.lay.bound,
            answer.lay.sections[0].fold,
            sum(s.steps for s in searches),
        )
    )
    final = _answer(problem, searches, refused, overall, clock() - begun, tuple(told))
    return Answer(final.lay, final.alternatives, final.refused, tuple(told), stopped)


def _searches(problem: Problem, seed: int) -> tuple[list[_Search], tuple[tuple[str, CannotFold], ...]]:
    searches: list[_Search] = []
    refused: list[tuple[str, CannotFold]] = []
    limit = problem.length if problem.length is not None else math.inf
    for fold in problem.folds:
        try:
            strip = strip_for(problem, fold)
        except CannotFold as reason:
            refused.append((fold, reason))
            continue
        searches.append(_Search(problem, strip, seed, limit))
        if problem.length is not None:
            # without the limit, to say how long the cloth would have to be
            searches.append(_Search(problem, strip, seed))
    if not searches:
        raise BadProblem([str(reason) for _, reason in refused])
    return searches, tuple(refused)


def _answer(
    problem: Problem,
    searches: list[_Search],
    refused: tuple[tuple[str, CannotFold], ...],
    overall: float,
    seconds: float,
    told: tuple[Progress, ...],
) -> Answer:
    within = [
        s for s in searches if s.lay is not None and (problem.length is None or s.lay.length <= problem.length + 1e-6)
    ]
    complete = [s.lay.length for s in searches if s.lay is not None and s.lay.complete]
    ranked = sorted(within, key=lambda s: _rank(s.lay) if s.lay else (math.inf, math.inf))
    out: list[tuple[str, Lay]] = []
    for search in ranked:
        lay = search.lay
        if lay is None or any(fold == search.strip.fold for fold, _ in out):
            continue
        needed = None if lay.complete else min(complete, default=None)
        lay = Lay(
            lay.length,
            # as it is: a bound above the lay is a false theorem, and the checker must see it
            round(overall, 4),
            lay.utilisation,
            lay.complete,
            round(seconds, 3),
            lay.seed,
            sum(s.steps for s in searches),
            lay.sections,
            lay.laid,
            lay.cut,
            lay.left_over,
            needed,
        )
        faults = check_lay(problem_json(problem), to_json(lay))
        if faults:
            raise EngineFault("The engine made a lay that its checker refuses: " + " ".join(faults[:3]))
        out.append((search.strip.fold, lay))
    return Answer(out[0][1], tuple(out), refused, told)
