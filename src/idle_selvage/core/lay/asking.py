"""From the bars on the cloth and what the maker wants to meet, to what the lay engine is asked."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..cloth.bars import BarPattern
from ..plan.outline import Outline
from .problem import Bars, LayPiece, Match, Problem, too_wide


@dataclass(frozen=True)
class Meeting:
    """What is to meet on one piece.

    ``group``: pieces of one group have the same bar across the cloth at their match points, ``at`` mm up the
    seam line from its low end. ``centred``: the piece's own middle line lies on a mirror axis of the bars that
    run along the cloth; a pair is mirrored about one instead.
    """

    group: str = ""
    at: float = 0.0
    centred: bool = False


def washed_bars(along: BarPattern, across: BarPattern, warp: float, weft: float, margin: float) -> Bars:
    """The bars on the usable cloth after washing; only those whose matching can be seen.

    ``along`` follow one another along the cloth and ``across`` across it, in the measures of the unwashed cloth
    from the cut end and the near selvage; ``warp`` and ``weft`` are shrinkages still to come, per cent; ``margin``
    is left off at the near selvage, mm after washing. Along the cloth only the distances between axes count: where
    the lay begins on the bars is open until the first edge is made, so the first axis stands for the beginning.
    """
    start = along.axes[0] * (1.0 - warp / 100.0) if along.axes else 0.0
    x_repeat, x_axes = _washed(along, warp, start)
    y_repeat, y_axes = _washed(across, weft, margin)
    return Bars(x_repeat, y_repeat, x_axes, y_axes)


def _washed(bars: BarPattern, shrinkage: float, off: float) -> tuple[float | None, tuple[float, ...]]:
    if bars.repeat is None or not bars.seen:
        return None, ()
    left = 1.0 - shrinkage / 100.0
    repeat = round(bars.repeat * left, 3)
    return repeat, tuple(sorted(round((axis * left - off) % repeat, 3) for axis in bars.axes))


def matches(meeting: Meeting, name: str, seam_line: Outline, pair: bool, bars: Bars) -> tuple[Match, ...]:
    """The match points of one piece: on the seam line, not at the cut edge."""
    low = min(x for x, _ in seam_line)
    point = (round(low + meeting.at, 3), 0.0)
    found = []
    if meeting.group and bars.x_repeat is not None:
        found.append(Match(meeting.group, point, along=True))
    if meeting.centred and pair and bars.y_repeat is not None and bars.y_axes:
        found.append(Match(f"pair of {name}", point, across=True))
    return tuple(found)


def centred_on(meeting: Meeting, pair: bool, bars: Bars) -> bool:
    """Whether the engine is asked to put the piece's middle line on a mirror axis."""
    return meeting.centred and not pair and bars.y_repeat is not None and bool(bars.y_axes)


Area = tuple[float, float, float, float]


def blocked(
    flaws: Sequence[Area], warp: float, weft: float, margin: float, trim: float, width: float
) -> tuple[Area, ...]:
    """Flaws (x, y, w, h), from the unwashed cloth to rectangles (x0, y0, x1, y1) on the usable washed one."""
    kx, ky = 1.0 - warp / 100.0, 1.0 - weft / 100.0
    out = []
    for x, y, w, h in flaws:
        x0, x1 = max(0.0, x * kx - trim), (x + w) * kx - trim
        y0, y1 = max(0.0, y * ky - margin), min(width, (y + h) * ky - margin)
        if x1 > x0 and y1 > y0:
            out.append((round(x0, 2), round(y0, 2), round(x1, 2), round(y1, 2)))
    return tuple(out)


def faded_fold(
    shop_fold: float, weft: float, margin: float, width: float, pieces: Sequence[LayPiece], one_way: bool
) -> Area | None:
    """A faded shop fold as a strip all along the usable washed cloth, or None where it cannot be kept off.

    It cannot when a piece is wider than what lies on either side of it: then it has to be laid where it shows least.
    """
    middle = shop_fold * (1.0 - weft / 100.0) - margin
    low, high = max(0.0, middle - FOLD_MARK_MM), min(width, middle + FOLD_MARK_MM)
    if high <= low:
        return None
    widest = max(low, width - high)
    if widest <= 0 or too_wide(Problem(widest, tuple(pieces), one_way=one_way)):
        return None
    return (0.0, round(low, 2), FOLD_REACH_MM, round(high, 2))


#: A faded or dusty shop fold is kept off by so much on either side. Common practice, from memory.
FOLD_MARK_MM = 3.0
#: How far along the cloth it is kept off: more than any lay of a home dressmaker.
FOLD_REACH_MM = 30_000.0
