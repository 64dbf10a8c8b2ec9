"""Is a plaid square: read with an L-square at several bars, which of them to shift and which way."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from ..wording import Sentence
from ..working import length

#: A bar this close to square needs no shifting, mm over the width. Common practice, no source.
SQUARE_MM = 2.0


@dataclass(frozen=True)
class BarReading:
    """At ``place`` mm along, a bar that starts at the near selvage lies ``off`` mm from square at the far one, above
    nothing when it runs out towards the tested end."""

    place: float
    off: float


@dataclass(frozen=True)
class BarShift:
    """One bar: by how much its far end is shifted away from the tested end (below nothing: towards it), its slant in
    degrees, and whether it differs from the others (then it is this bar, else the whole cloth)."""

    place: float
    shift: float
    angle: float
    alone: bool


@dataclass(frozen=True)
class Squareness:
    """All of it. ``common``: what all bars have in common, mm, which is the cloth's slant and not the bars'."""

    common: float
    bars: tuple[BarShift, ...]
    square: bool


def squareness(readings: Sequence[BarReading], width: float) -> Squareness | None:
    """From readings over ``width`` mm; None before anything was read."""
    if not readings or width <= 0:
        return None
    common = statistics.median(r.off for r in readings)
    bars = tuple(
        BarShift(r.place, r.off, math.degrees(math.atan2(r.off, width)), abs(r.off - common) > SQUARE_MM)
        for r in sorted(readings, key=lambda r: r.place)
        if abs(r.off) > SQUARE_MM
    )
    return Squareness(common, bars, not bars)


def shift_told(shift: BarShift | None, bars: int) -> Sentence:
    """What to do with one of ``bars`` bars; ``shift`` None: it is square."""
    if shift is None:
        return Sentence("square")
    way = "away from" if shift.shift > 0 else "towards"
    alone = ", this bar alone" if shift.alone and bars > 1 else ""
    told = "shift its far end {by} {way} the tested end{alone}"
    return Sentence(told, by=length(abs(shift.shift)), way=way, alone=alone)


def headline(found: Squareness | None, bars: int) -> Sentence:
    """What all ``bars`` readings say together."""
    if found is None:
        return Sentence("Read several bars with an L-square")
    what = "The bars are square" if found.square else f"{len(found.bars)} of {bars} bars to shift"
    if abs(found.common) <= SQUARE_MM:
        return Sentence("{what}", what=what)
    return Sentence("{what}; all lean by {common}", what=what, common=length(abs(found.common)))
