"""In which order pieces are cut, so that the cloth is folded anew as seldom as can be.

What must hold comes first: a piece that others are laid by is cut before them, and a piece whose shears may run over a
corner into a neighbour waits for that neighbour. Under these the number of times the cloth is folded anew is the least
there can be: of one fold, everything that may be cut is cut before another one is made (cutting more never shuts
anything out), so only the order of folds is to be searched, and it is searched whole, the shortest first. What is left
open goes from the cut end on, the large and the matched first and the small ones last.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np
import shapely
from shapely import LineString, Polygon

from ..lay.answer import Section
from ..plan.outline import Outline, Point

#: Shears that are not stopped at a corner run on by so much, mm. Common practice, no source.
OVERRUN_MM = 10.0
#: A corner turns by at least so much, degrees; a curve's points do not.
CORNER_DEGREES = 20.0
#: A piece of at least this share of the largest is large, of at most that small. Common practice, no source.
LARGE, SMALL = 1 / 3, 1 / 10

FoldSign = tuple[str, tuple[float, ...]]
#: A piece, and one that is laid by it; and orders, as (earlier, later) by the numbers of placements.
Follows = tuple[str, str]
Pairs = set[tuple[int, int]]


@dataclass(frozen=True)
class ToCut:
    """A placement as it lies on the folded table: its outline there, which stretch it lies on, its piece."""

    key: str
    piece: str
    section: int
    outline: Outline

    @property
    def area(self) -> float:
        return float(Polygon(self.outline).area)


@dataclass(frozen=True)
class CutOrder:
    """Placements in the order they are cut; ``unfoldings``: how often the cloth is folded anew meanwhile; ``stop_at``:
    by placement, those whose cloth its corners must not run into."""

    keys: tuple[str, ...]
    unfoldings: int
    stop_at: Mapping[str, tuple[str, ...]]
    #: the pieces that are laid by each piece
    leads: Mapping[str, tuple[str, ...]]


def sign_of(section: Section) -> FoldSign:
    """What tells one fold of the cloth from another; a crosswise fold lies elsewhere on every stretch."""
    return section.fold, tuple(round(at, 2) for at in section.fold_at)


def endangers(one: Outline, other: Outline, overrun: float = OVERRUN_MM) -> bool:
    """Whether shears that run on at a corner of one piece cut into the other."""
    shape = Polygon(other)
    # only what is near can be reached
    x0, y0, x1, y1 = shape.bounds
    ring = np.array(one)
    near = (ring[:, 0] > x0 - overrun) & (ring[:, 0] < x1 + overrun)
    near &= (ring[:, 1] > y0 - overrun) & (ring[:, 1] < y1 + overrun)
    if not near.any():
        return False
    inner = shape.buffer(-0.05)
    before, after = ring - np.roll(ring, 1, axis=0), np.roll(ring, -1, axis=0) - ring
    area2 = float(np.sum(ring[:, 0] * np.roll(ring, -1, axis=0)[:, 1] - np.roll(ring, -1, axis=0)[:, 0] * ring[:, 1]))
    for k in np.flatnonzero(near):
        a, b = before[k], after[k]
        turn = math.degrees(math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]))
        if turn * math.copysign(1.0, area2) < CORNER_DEGREES:
            continue
        for way in (a, -b):
            long = float(np.hypot(*way))
            if long == 0.0:
                continue
            run = LineString([ring[k], ring[k] + way / long * overrun])
            if shapely.intersects(run, inner):
                return True
    return False


def precedences(items: Sequence[ToCut], followers: Sequence[Follows]) -> tuple[Pairs, Pairs]:
    """Which items come before which: because others are laid by them, and because a corner would run into them.

    ``followers``: (piece, the piece laid by it). Of corners that ask for two orders at once none is kept: there the
    shears stop, which is said. The second set are those that could not be kept, as (item, whom it endangers).
    """
    return _precedences(tuple(items), tuple(followers))


# a lay that is cut stays what it is, and is asked for at every step
@lru_cache(maxsize=64)
def _precedences(items: tuple[ToCut, ...], followers: tuple[Follows, ...]) -> tuple[Pairs, Pairs]:
    n = len(items)
    boxes = np.array([_bounds(one.outline) for one in items]).reshape(-1, 4)
    of: dict[str, list[int]] = {}
    for i, one in enumerate(items):
        of.setdefault(one.piece, []).append(i)
    leads = _acyclic(n, {(i, j) for a, b in followers for i in of.get(a, ()) for j in of.get(b, ())})
    corners = {
        (j, i)
        for i in range(n)
        for j in range(n)
        if i != j
        and items[i].section == items[j].section
        and bool(
            (boxes[i, :2] - OVERRUN_MM <= boxes[j, 2:]).all() and (boxes[j, :2] <= boxes[i, 2:] + OVERRUN_MM).all()
        )
        and endangers(items[i].outline, items[j].outline)
    }
    both = leads | corners
    label = _knots(n, both)
    kept = {(a, b) for a, b in corners if label[a] != label[b]}
    return leads | kept, {(b, a) for a, b in corners - kept}


def _bounds(outline: Outline) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return min(xs), min(ys), max(xs), max(ys)


def _knots(n: int, edges: Pairs) -> list[int]:
    """For each item the number of the knot of orders it is caught in."""
    if not edges:
        return list(range(n))
    # a tenth of a second to import
    from scipy.sparse import coo_array
    from scipy.sparse.csgraph import connected_components

    rows, columns = zip(*sorted(edges), strict=True)
    graph = coo_array((np.ones(len(rows)), (rows, columns)), shape=(n, n))
    found: list[int] = connected_components(graph, directed=True, connection="strong")[1].tolist()
    return found


def _acyclic(n: int, edges: Pairs) -> Pairs:
    label = _knots(n, edges)
    return {(a, b) for a, b in edges if label[a] != label[b]}


def cutting_order(items: Sequence[ToCut], sections: Sequence[Section], followers: Sequence[Follows] = ()) -> CutOrder:
    """The order of cutting; ``followers``: (piece, the piece laid by it), the first of a seam before the second."""
    return _cutting_order(tuple(items), tuple(sections), tuple(followers))


@lru_cache(maxsize=64)
def _cutting_order(items: tuple[ToCut, ...], sections: tuple[Section, ...], followers: tuple[Follows, ...]) -> CutOrder:
    first, stops = precedences(items, followers)
    signs = [sign_of(sections[one.section]) for one in items]
    led = {a for a, _ in followers} | {b for _, b in followers}
    largest = max((one.area for one in items), default=0.0)
    ranks = [_rank(one, largest, led) for one in items]
    middles = [_middle(one) for one in items]
    before: list[set[int]] = [{a for a, b in first if b == i} for i in range(len(items))]
    order, unfoldings = _fewest(signs, _Walk(ranks, middles), before, sections)
    stop_at: dict[str, list[str]] = {}
    place = {i: k for k, i in enumerate(order)}
    for i, j in sorted(stops, key=lambda pair: place[pair[1]]):
        if place[i] < place[j]:
            stop_at.setdefault(items[i].key, []).append(items[j].key)
    leads: dict[str, list[str]] = {}
    for a, b in followers:
        leads.setdefault(a, []).append(b)
    return CutOrder(
        tuple(items[i].key for i in order),
        unfoldings,
        {key: tuple(found) for key, found in stop_at.items()},
        {key: tuple(dict.fromkeys(found)) for key, found in leads.items()},
    )


Rank = tuple[int, int]


def _rank(one: ToCut, largest: float, led: set[str]) -> Rank:
    """By which a placement comes before others of its fold: its stretch, and how large it is."""
    size = one.area / largest if largest else 0.0
    small = 2 if size <= SMALL and one.piece not in led else 0 if size >= LARGE or one.piece in led else 1
    return one.section, small


def _middle(one: ToCut) -> Point:
    xs, ys = [x for x, _ in one.outline], [y for _, y in one.outline]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


@dataclass(frozen=True)
class _Walk:
    """How one goes on from a placement: by rank, and to the nearest; at first from the corner at the cut end."""

    ranks: Sequence[Rank]
    middles: Sequence[Point]

    def key(self, i: int, last: int | None) -> tuple[Rank, float, int]:
        x, y = (0.0, 0.0) if last is None else self.middles[last]
        return self.ranks[i], round(math.hypot(self.middles[i][0] - x, self.middles[i][1] - y), 3), i


def _fewest(
    signs: Sequence[FoldSign], walk: _Walk, before: Sequence[set[int]], sections: Sequence[Section]
) -> tuple[list[int], int]:
    """Everything in an order of fewest foldings: breadth first over which fold comes next."""
    if not signs:
        return [], 0
    at = {sign: k for k, sign in reversed(list(enumerate(sign_of(s) for s in sections)))}
    folds = sorted(set(signs), key=lambda sign: at[sign])
    layer = [_cut_all(fold, [], signs, walk, before) for fold in folds]
    layer = [found for found in layer if found] or [[]]
    switches = 0
    seen: set[frozenset[int]] = set()
    while True:
        done = next((found for found in layer if len(found) == len(signs)), None)
        if done is not None:
            return done, switches
        coming = []
        for found in layer:
            for fold in folds:
                if found and signs[found[-1]] == fold:
                    continue
                more = _cut_all(fold, found, signs, walk, before)
                if len(more) > len(found) and frozenset(more) not in seen:
                    seen.add(frozenset(more))
                    coming.append(more)
        layer, switches = coming, switches + 1


def _cut_all(
    fold: FoldSign, done: list[int], signs: Sequence[FoldSign], walk: _Walk, before: Sequence[set[int]]
) -> list[int]:
    """What is done with everything added that may be cut in one fold."""
    out, there = list(done), set(done)
    while True:
        may = [i for i, sign in enumerate(signs) if sign == fold and i not in there and before[i] <= there]
        if not may:
            return out
        last = out[-1] if out else None
        one = min(may, key=lambda i: walk.key(i, last))
        out.append(one)
        there.add(one)


def foldings_of(keys: Sequence[str], items: Sequence[ToCut], sections: Sequence[Section]) -> int:
    """How often the cloth is folded anew when cut in this order."""
    of = {one.key: sign_of(sections[one.section]) for one in items}
    found = [of[key] for key in keys]
    return sum(a != b for a, b in pairwise(found))


def goes_against(
    keys: Sequence[str], items: Sequence[ToCut], followers: Sequence[Follows]
) -> tuple[tuple[str, str], ...]:
    """Of an order of the maker's own: pairs (key, key) that should be cut the other way round."""
    first, _ = precedences(items, followers)
    place = {key: k for k, key in enumerate(keys)}
    return tuple((items[a].key, items[b].key) for a, b in sorted(first) if place[items[a].key] > place[items[b].key])
