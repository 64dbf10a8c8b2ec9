"""The fold test: how far the weft slants and bows, and into which band that falls.

Signs: the cloth lies with the tested end at x = 0 and the near selvage at y = 0. ``offset`` is how far the far
selvage's corner sticks out beyond the near one's (towards −x), so the weft runs from the near selvage out to
the far one; negative when the near one sticks out. Lengths in millimetres.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, length, percent

SKEW_BOW = Source("standard", "ASTM D3882", "skew = 100 × d ÷ W, bow = 100 × depth ÷ W")

Band = Literal["true", "steam", "straighten", "cut"]
#: Upper ends of the first three bands over the whole width, mm; a setting. Common practice, no source.
BANDS_MM: tuple[float, float, float] = (3.0, 12.0, 40.0)
BANDS_SOURCE = Source(
    "common practice",
    Sentence(
        "true to {true}, steamed to {steam}, straightened to {straight} over the width",
        true=about(BANDS_MM[0]),
        steam=about(BANDS_MM[1]),
        straight=about(BANDS_MM[2]),
    ),
)
#: A corner that sticks out by less than this sticks out nowhere, mm.
LEVEL_MM = 0.05
#: What is accepted in woven cloth, and in stripes and checks, per cent. Common practice, from memory.
ACCEPTED_PERCENT = 3.0
ACCEPTED_BARS_PERCENT = 2.0


class BadTest(ValueError):
    """Readings that no cloth can give; the message is a sentence."""


@dataclass(frozen=True)
class FoldTest:
    """What was read: signed ``offset`` of the edges at the selvages, and ``bow`` of the edge between them."""

    offset: float
    bow: float = 0.0


@dataclass(frozen=True)
class Slant:
    """What the readings come to. ``long_side`` is the selvage whose corner sticks out."""

    skew: Figure
    angle: Figure
    bow: Figure
    band: Band
    long_side: Literal["", "near", "far"]


def read_test(test: FoldTest, width: float, bands: tuple[float, float, float] = BANDS_MM) -> Slant:
    """Skew, angle and bow over a width of ``width`` mm. Raises :class:`BadTest`."""
    if width <= 0:
        raise BadTest("The width is not known yet: measure it in three places, under Cloth.")
    if abs(test.offset) >= width:
        raise BadTest("The edges cannot be further apart than the cloth is wide. Check the unit.")
    if not 0 <= test.bow < width:
        raise BadTest("The bow must be from nothing to less than the width.")
    check_bands(bands)
    d = abs(test.offset)
    skew, angle, bow = skew_percent(d, width), skew_angle(d, width), 100.0 * test.bow / width
    put = (("d", length(d)), ("W", length(width)))
    side = side_of(test.offset)
    return Slant(
        _figure(skew, "percent", Step("skew", "d ÷ W", put, percent(skew), "d apart over the width W")),
        _figure(
            angle, "angle", Step("angle", "atan(d ÷ W)", put, Quantity(angle, "angle"), "d apart over the width W")
        ),
        _figure(
            bow,
            "percent",
            Step(
                "bow",
                "depth ÷ W",
                (("depth", length(test.bow)), ("W", length(width))),
                percent(bow),
                "over the width W",
            ),
        ),
        band_of(max(d, test.bow), bands),
        side,
    )


def _figure(value: float, kind: Literal["percent", "angle"], step: Step) -> Figure:
    return Figure(value, kind, steps=(step,), sources=(SKEW_BOW, BANDS_SOURCE))


def check_bands(bands: tuple[float, float, float]) -> None:
    """Raise :class:`BadTest` unless the bands grow."""
    if not 0 < bands[0] < bands[1] < bands[2]:
        a, b, c = (about(band) for band in BANDS_MM)
        raise BadTest(Sentence("The bands must grow, such as {a}, {b} and {c}.", a=a, b=b, c=c))


def band_of(apart: float, bands: tuple[float, float, float] = BANDS_MM) -> Band:
    """The band of an offset over the whole width."""
    names: tuple[Band, ...] = ("true", "steam", "straighten", "cut")
    return names[sum(apart > limit + 1e-9 for limit in bands)]


def accepted(skew: float, bars: bool) -> bool:
    """Whether a shop would be in its right to sell it so, by the usual limits."""
    return skew <= accepted_limit(bars)


def true_angle(offset: float, width: float) -> float:
    """Signed slant in degrees, positive when the far selvage sticks out."""
    return math.degrees(math.atan2(offset, width))


def skew_percent(offset: float, width: float) -> float:
    """Skew of the weft in per cent, ``100 × d ÷ W`` (ASTM D3882): off by ``offset`` over ``width``, millimetres."""
    return 100.0 * offset / width


def skew_angle(offset: float, width: float) -> float:
    """Slant of the weft in degrees, ``atan(d ÷ W)``."""
    return math.degrees(math.atan2(offset, width))


def side_of(offset: float) -> Literal["", "near", "far"]:
    """Which selvage's corner sticks out; neither when the edges are level."""
    return "" if abs(offset) < LEVEL_MM else "far" if offset > 0 else "near"


def signed_offset(apart: float, side: str) -> float:
    """A reading with its sign: below nothing when the near selvage's corner sticks out; else it is the far one's."""
    return -apart if side == "near" else apart


def accepted_limit(bars: bool) -> float:
    """The usual limit of skew for accepting woven cloth, or stripes and checks, per cent."""
    return ACCEPTED_BARS_PERCENT if bars else ACCEPTED_PERCENT


def check_band_count(bands: Sequence[float]) -> tuple[float, float, float]:
    """Three bands that grow. Raises :class:`BadTest`."""
    a, b, c = (about(band) for band in BANDS_MM)
    if len(bands) != len(BANDS_MM):
        raise BadTest(Sentence("Three bands are needed, such as {a}, {b} and {c}.", a=a, b=b, c=c))
    found = (bands[0], bands[1], bands[2])
    check_bands(found)
    return found
