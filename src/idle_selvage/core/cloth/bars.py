"""Stripes and checks: from the sequence of bars to the repeat, the mirror axes and what can be matched."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from ..wording import Sentence
from ..working import Figure, Source, Step, about, gap, length, numbered, of

#: Widths read with a tape are the same when they differ by no more than this.
SAME_BAR_MM = 0.6
#: One colour makes no bars.
LEAST_BARS = 2
#: Narrower bars cannot be seen to match. Common practice, no source.
LEAST_SEEN_MM = 3.0
#: Repeats that differ by more are uneven, mm. From memory: a tape is read to half of it.
UNEVEN_MM = 1.0
#: Bars that should meet: matched to this, seen from this, mm. Common practice, no source.
MATCHED_MM = 1.5
MISMATCH_MM = 3.0


@dataclass(frozen=True)
class Bar:
    """One bar: its width in millimetres, and its colour as ``#rrggbb``."""

    width: float
    colour: str


@dataclass(frozen=True)
class BarPattern:
    """What one direction's bars come to.

    ``repeat`` in millimetres (None without bars); ``axes`` are positions of the mirror axes within one repeat,
    counted from where the first typed bar begins; ``dominant`` the bar the eye sees first.
    """

    repeat: float | None
    axes: tuple[float, ...]
    dominant: Bar | None
    seen: bool

    @property
    def balanced(self) -> bool:
        """Whether the sequence reads the same in both directions."""
        return bool(self.axes)


NONE = BarPattern(None, (), None, False)


def read_bars(sequence: Sequence[Bar]) -> BarPattern:
    """The repeat and axes of bars typed in order, until they start again."""
    bars = [bar for bar in sequence if bar.width > 0]
    merged, start = _merged(bars)
    if len(merged) < LEAST_BARS:
        return NONE
    merged = _shortest(merged)
    repeat = math.fsum(bar.width for bar in merged)
    axes = _axes(merged, start, repeat)
    dominant = _dominant(merged)
    return BarPattern(repeat, axes, dominant, dominant is not None and dominant.width >= LEAST_SEEN_MM)


def unevenness(readings: Sequence[float]) -> float:
    """By how much repeats measured at several places differ from their mean: one standard deviation, mm; 0 of one."""
    return statistics.stdev(readings) if len(readings) > 1 else 0.0


def uneven_told(pattern: BarPattern, readings: Sequence[float]) -> Sentence | None:
    """What repeats measured at several places come to beside the bars that were typed; None before any was."""
    if pattern.repeat is None or not readings:
        return None
    mean = statistics.fmean(readings)
    if len(readings) > 1 and unevenness(readings) > UNEVEN_MM:
        told = "The repeats differ by {by} from one another: over many of them bars drift; match near the seam itself."
        return Sentence(told, by=gap(unevenness(readings)))
    if abs(mean - pattern.repeat) > UNEVEN_MM:
        told = "Measured they come to {mean}, the bars as typed to {typed}: measure them over several repeats again."
        return Sentence(told, mean=length(mean), typed=length(pattern.repeat))
    return Sentence("The repeats are even: they come to {mean}.", mean=length(mean))


WOVEN = Source("your own log", "the bars as they were typed", "until they start again")


def repeat_of(sequence: Sequence[Bar]) -> Figure | None:
    """The repeat of bars typed in order, with its working; None without bars."""
    merged, _ = _merged([bar for bar in sequence if bar.width > 0])
    if len(merged) < LEAST_BARS:
        return None
    put = numbered("bar", (length(bar.width) for bar in _shortest(merged)))
    total = math.fsum(value.value for _, value in put)
    step = Step("repeat", of("sum", put), put, length(total), "neighbours of one colour are one bar")
    return Figure(total, "length", steps=(step,), sources=(WOVEN,))


def _merged(bars: Sequence[Bar]) -> tuple[list[Bar], float]:
    """Neighbours of one colour become one bar, round the end too; where the first merged bar begins."""
    out: list[Bar] = []
    for bar in bars:
        if out and out[-1].colour.lower() == bar.colour.lower():
            out[-1] = Bar(out[-1].width + bar.width, bar.colour)
        else:
            out.append(bar)
    start = 0.0
    if len(out) > 1 and out[0].colour.lower() == out[-1].colour.lower():
        last = out.pop()
        start = -last.width
        out[0] = Bar(out[0].width + last.width, out[0].colour)
    return out, start


def _same(a: Bar, b: Bar) -> bool:
    return a.colour.lower() == b.colour.lower() and abs(a.width - b.width) <= SAME_BAR_MM


def _shortest(bars: list[Bar]) -> list[Bar]:
    """A sequence that was typed twice over is one repeat."""
    n = len(bars)
    for size in range(2, n):
        if n % size == 0 and all(_same(bars[i], bars[i % size]) for i in range(n)):
            return bars[:size]
    return bars


def _axes(bars: list[Bar], start: float, repeat: float) -> tuple[float, ...]:
    n = len(bars)
    places = []
    at = start
    for i, bar in enumerate(bars):
        # after merging, two neighbours always differ, so an axis can only run down the middle of a bar
        if all(_same(bars[(i + k) % n], bars[(i - k) % n]) for k in range(1, n)):
            places.append((at + bar.width / 2) % repeat)
        at += bar.width
    return tuple(sorted(places))


def _dominant(bars: list[Bar]) -> Bar | None:
    total: dict[str, float] = {}
    for bar in bars:
        total[bar.colour.lower()] = total.get(bar.colour.lower(), 0.0) + bar.width
    ground = max(total, key=lambda colour: total[colour])
    others = [bar for bar in bars if bar.colour.lower() != ground]
    return max(others, key=lambda bar: bar.width) if others else None


def told(along: BarPattern, across: BarPattern, colouring: str = "") -> tuple[str, ...]:
    """What the bars mean for laying, in sentences; ``colouring`` as in :mod:`.make`."""
    out: list[str] = []
    if along.repeat is None and across.repeat is None:
        return ()
    for bars, name, turned in (
        (along, "along the cloth", "all tops lie one way"),
        (across, "across the cloth", "a mirrored pair cannot mirror its bars"),
    ):
        if bars.repeat is None:
            continue
        if not bars.seen:
            told_ = "The bars {name} are under {least}: matching them cannot be seen."
            out.append(Sentence(told_, name=name, least=about(LEAST_SEEN_MM)))
        elif bars.balanced:
            out.append(f"Balanced {name}: the bars read the same both ways.")
        else:
            out.append(f"Unbalanced {name}: {turned}.")
    if colouring == "printed":
        out.append("Printed bars may not follow the threads: check them against the grain under True.")
    return tuple(out)
