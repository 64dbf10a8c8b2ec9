"""The printed chart of a pattern envelope: the size to take, where row and column cross, and another width."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ..units import MM_PER_INCH, MM_PER_YARD
from ..working import Source

Fit = Literal["close", "loose"]

TABLE_SOURCE = Source(
    "handbook", "width conversion table of home-economics extension services", "typed from memory; yards"
)

#: Widths of the table's columns, inches: the range printed at the head of each.
WIDTHS_IN: tuple[tuple[float, float], ...] = ((35, 36), (39, 39), (41, 41), (44, 45), (50, 50), (52, 54), (58, 60))
#: Eighths of a yard, one row per length.
TABLE_EIGHTHS: tuple[tuple[int, ...], ...] = (
    (14, 12, 12, 11, 10, 9, 8),
    (16, 14, 14, 13, 12, 11, 10),
    (18, 16, 16, 14, 13, 12, 11),
    (20, 18, 18, 17, 14, 14, 13),
    (23, 20, 20, 18, 16, 15, 14),
    (25, 22, 22, 20, 18, 16, 15),
    (27, 24, 23, 22, 19, 18, 16),
    (30, 26, 25, 23, 21, 19, 18),
    (34, 28, 27, 25, 22, 21, 19),
    (36, 30, 29, 27, 24, 22, 21),
    (38, 32, 31, 29, 26, 23, 22),
    (40, 34, 33, 31, 27, 25, 23),
)
#: The quarter yard that the table itself asks for on top.
MORE_MM = MM_PER_YARD / 4
#: Columns that lie this far apart are a large difference in width. The table does not say; from memory.
LARGE_COLUMNS = 3
#: A cloth this much narrower than the width its chart names still counts as that width, inches; common practice,
#: as loom widths vary.
NEAR_IN = 1.0


class BadChart(ValueError):
    """A chart or a wish that cannot be read; the message is a sentence."""


@dataclass(frozen=True)
class Chart:
    """One view's printed chart: lengths in mm by width (rows, mm) and size (columns); None where nothing is printed."""

    widths: tuple[float, ...]
    sizes: tuple[str, ...]
    lengths: tuple[tuple[float | None, ...], ...]


@dataclass(frozen=True)
class Crossing:
    """Where row and column cross: their numbers, and the length, mm."""

    row: int
    column: int
    length: float


def crossing(chart: Chart, width: float, size: str) -> Crossing:
    """Read the chart: the row is the widest printed width that the cloth still has, give or take an inch.

    A cloth narrower than that cannot be cut by the row. Raises :class:`BadChart`.
    """
    if size not in chart.sizes:
        raise BadChart(f"The chart has no size {size}; it has {', '.join(chart.sizes) or 'none yet'}.")
    column = chart.sizes.index(size)
    rows = [k for k, w in enumerate(chart.widths) if w <= width + NEAR_IN * MM_PER_INCH]
    if not rows:
        raise BadChart("Every width on the chart is wider than the cloth. Convert it from the narrowest printed width.")
    row = max(rows, key=lambda k: chart.widths[k])
    found = chart.lengths[row][column]
    if found is None:
        raise BadChart("Nothing is printed where this row and this column cross.")
    return Crossing(row, column, found)


def column_of(width: float) -> int:
    """The table's column for a width in mm: the widest that the cloth still has. Raises :class:`BadChart`."""
    inches = width / MM_PER_INCH
    fits = [k for k, (low, _) in enumerate(WIDTHS_IN) if low <= inches + NEAR_IN]
    if not fits or inches > WIDTHS_IN[-1][1] + 2 * NEAR_IN:
        raise BadChart("The table goes from 35 to 60 in (89 to 152 cm); this width lies outside it.")
    return fits[-1]


@dataclass(frozen=True)
class Converted:
    """A length for another width: ``length`` from the table, ``more`` on top of it, both mm, and why.

    ``row`` and ``columns`` say where in the table it was read; ``between``: the length stood between two rows, and
    the longer was taken.
    """

    length: float
    more: float
    why: tuple[str, ...]
    row: int
    columns: tuple[int, int]
    between: bool


def convert_width(
    length: float, printed: float, wanted: float, *, one_way: bool = False, sleeves_in_one: bool = False
) -> Converted:
    """A length (mm) printed for one width, for another, by the handbook table. Raises :class:`BadChart`."""
    a, b = column_of(printed), column_of(wanted)
    eighths = length / MM_PER_YARD * 8
    rows = [k for k, row in enumerate(TABLE_EIGHTHS) if row[a] >= eighths - 1e-6]
    if not rows:
        most = TABLE_EIGHTHS[-1][a]
        raise BadChart(f"The table ends at {most / 8:g} yd for this width. Convert half the length and double it.")
    row = rows[0]
    why = []
    if abs(a - b) >= LARGE_COLUMNS:
        why.append("the widths differ much")
    if one_way:
        why.append("the cloth has a direction")
    if sleeves_in_one:
        why.append("the sleeves are cut in one with the body")
    found = TABLE_EIGHTHS[row][b] / 8 * MM_PER_YARD
    between = abs(TABLE_EIGHTHS[row][a] - eighths) > 1e-6
    return Converted(found, MORE_MM if why else 0.0, tuple(why), row, (a, b), between)


@dataclass(frozen=True)
class SizeChoice:
    """The size to take; ``neighbours`` are the two it lies between (one when it is met), ``why`` a sentence.

    ``ease``: finished measure less the body's, mm, when the finished measure of that size is known.
    """

    size: str
    neighbours: tuple[str, ...]
    why: str
    ease: float | None


def choose_size(
    sizes: Sequence[str], body: Sequence[float], mine: float, fit: Fit, finished: Mapping[str, float] | None = None
) -> SizeChoice:
    """The size for a body measure (mm) from the measures each size is drafted for, smallest first.

    Between two sizes: down for loose-fitting garments, up for close-fitting ones; common practice.
    Raises :class:`BadChart`.
    """
    if not sizes or len(sizes) != len(body):
        raise BadChart("Give the body measure of every size on the envelope.")
    if any(b <= a for a, b in pairwise(body)):
        raise BadChart("The body measures must grow from size to size.")
    last = len(sizes) - 1
    if mine < body[0] - 1e-6:
        step = body[1] - body[0] if last else 40.0
        if mine < body[0] - step:
            raise BadChart(f"That is smaller than the smallest size, {sizes[0]}, by more than a size.")
        around: tuple[str, ...] = (sizes[0],)
        size, why = sizes[0], f"smaller than size {sizes[0]}, the smallest there is"
    elif mine > body[-1] + 1e-6:
        step = body[-1] - body[-2] if last else 40.0
        if fit == "close" or mine > body[-1] + step:
            raise BadChart(f"That is larger than the largest size, {sizes[-1]}; choose a pattern that goes further.")
        size, around = sizes[-1], (sizes[-1],)
        why = f"larger than size {sizes[-1]}, the largest there is, but the garment fits loosely"
    else:
        above = next(k for k, value in enumerate(body) if value >= mine - 1e-6)
        if abs(body[above] - mine) <= 1e-6 or above == 0:
            size, around, why = sizes[above], (sizes[above],), f"the measure of size {sizes[above]} itself"
        else:
            below = above - 1
            around = (sizes[below], sizes[above])
            loose = fit == "loose"
            size = sizes[below] if loose else sizes[above]
            way = "down, because it fits loosely and has room" if loose else "up, because it fits closely"
            why = f"between {sizes[below]} and {sizes[above]}: {way}"
    ease = None
    if finished and size in finished:
        ease = finished[size] - mine
    return SizeChoice(size, around, why, ease)
