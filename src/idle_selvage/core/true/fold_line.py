"""Is the fold on grain: distances from fold to selvage along it, where to move and by how much; and torque."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import Figure, Source, Step, about, length, numbered, of

#: A spread up to this is good. Common practice, no source.
GOOD_SPREAD_MM = 2.0
LEAST_STATIONS = 3
#: A fold is not moved by less than this, mm.
LEAST_MOVE_MM = 0.5
#: How far apart the next reading is asked for, mm.
NEXT_MM = 400.0

Ripple = Literal["", "out", "in"]


@dataclass(frozen=True)
class FoldReading:
    """At ``along`` mm from the tested end, the fold lies ``distance`` mm from the selvages."""

    along: float
    distance: float


@dataclass(frozen=True)
class FoldMove:
    """Where the fold is moved, and by how much: above nothing away from the selvages, below it towards them, mm."""

    along: float
    by: float
    #: the same with its working
    figure: Figure


@dataclass(frozen=True)
class FoldLine:
    """What the stations say. ``enough``: at least three were read."""

    spread: float
    mean: float
    moves: tuple[FoldMove, ...]
    good: bool
    enough: bool
    #: spread and mean with their working
    spread_figure: Figure
    mean_figure: Figure


FOLDED = Source("common practice", "the fold is on grain when it is equally far from the selvage all along")


def fold_line(stations: Sequence[FoldReading]) -> FoldLine | None:
    """Spread and moves towards the mean, which moves least cloth in all; None before anything was read."""
    if not stations:
        return None
    distances = [s.distance for s in stations]
    put = numbered("distance", map(length, distances))
    mean = math.fsum(distances) / len(distances)
    spread = max(distances) - min(distances)
    good = spread <= GOOD_SPREAD_MM + 1e-9
    averaged = Step("mean", of("mean", put), put, length(mean))
    apart = Step("spread", f"{of('largest', put)} − {of('smallest', put)}", put, length(spread))

    def move(station: FoldReading) -> FoldMove:
        by = mean - station.distance
        both = (("mean", length(mean)), ("distance here", length(station.distance)))
        step = Step("move", "mean − distance here", both, length(by))
        return FoldMove(station.along, by, Figure(by, "length", steps=(averaged, step), sources=(FOLDED,)))

    moves = () if good else tuple(move(s) for s in sorted(stations, key=lambda s: s.along))
    return FoldLine(
        spread,
        mean,
        tuple(m for m in moves if abs(m.by) >= LEAST_MOVE_MM),
        good,
        len(stations) >= LEAST_STATIONS,
        Figure(spread, "length", steps=(apart,), sources=(FOLDED,)),
        Figure(mean, "length", steps=(averaged,), sources=(FOLDED,)),
    )


def torque(ripple: Ripple) -> str:
    """Which layer to slide which way, when the selvages are level but the fold ripples; nothing when it hangs flat.

    ``out``: ripples run from the selvage slanting towards the tested end on their way down to the fold; ``in``: away
    from it. The fold of the top layer is dragged along by the layer's shift, so it is slid against the slant.
    """
    if ripple == "":
        return ""
    way = "away from" if ripple == "out" else "towards"
    return (
        f"The layers are shifted along each other: slide the top layer {way} the tested end until the fold hangs flat."
    )


def move_told(by: float | None) -> Sentence:
    """Where to move the fold at one station, or nothing."""
    if by is None:
        return Sentence("")
    way = "away from" if by > 0 else "towards"
    return Sentence("move {by} {way} the selvages", by=length(abs(by)), way=way)


def headline(line: FoldLine | None) -> Sentence:
    """What the readings say together."""
    if line is None or not line.enough:
        return Sentence("Measure from fold to selvage at three places or more")
    told = "On grain: within {spread}" if line.good else "The fold wanders by {spread}: move it as drawn"
    return Sentence(told, spread=length(line.spread))


def limit_text() -> Sentence:
    """What spread is good, in words."""
    return Sentence("A spread of up to {most} is good (common practice).", most=about(GOOD_SPREAD_MM))


def next_place(stations: Sequence[FoldReading], unit: float) -> float:
    """Where to read next, mm along: a stretch further than the last, on a whole ``unit`` of the tape (mm)."""
    last = stations[-1].along if stations else -NEXT_MM
    return round((last + NEXT_MM) / unit) * unit
