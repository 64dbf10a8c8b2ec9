"""Rules of thumb beside the computed purchase, each with how far off it is here."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..shrink.shrinkage import divide_not_add
from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, about, length, percent
from .order import Extra, Order, _figure

#: What the usual rules of thumb add. Common practice, no source.
THUMB_SHRINKAGE = 10.0
THUMB_NAP_MM = 228.6
THUMB_ENDS_MM = 2 * 50.8
THUMB = Source("common practice", "rule of thumb", "shown beside what was worked out, never instead")
#: A rule that misses by less than this is right: nobody cuts closer. From memory.
ABOUT_RIGHT_MM = 5.0


@dataclass(frozen=True)
class Thumb:
    """A rule of thumb: what it would buy, mm before washing, and by how much that is off what is needed."""

    name: str
    figure: Figure
    off: float

    @property
    def verdict(self) -> Literal["right", "more", "short"]:
        """Whether it would do here, and whether it buys more than is needed."""
        if abs(self.off) < ABOUT_RIGHT_MM:
            return "right"
        return "more" if self.off > 0 else "short"

    @property
    def told(self) -> Sentence:
        """The verdict in words."""
        if self.verdict == "right":
            return Sentence("about right here")
        by = length(abs(self.off))
        told = "{by} more than is needed" if self.verdict == "more" else "{by} short of what is needed"
        return Sentence(told, by=by)


def _thumbs(
    lay: float, extras: Sequence[Extra], order: Order, before: float, s: float, repeat: float | None, main_pieces: int
) -> tuple[Thumb, ...]:
    """Each rule in place of what was worked out for the same thing, all else as it is."""
    by_rule = {extra.rule: extra for extra in extras}

    def thumb(name: str, needed: float, shrinkage: Literal["divided", "added"], step: Step) -> Thumb:
        put: tuple[tuple[str, Quantity], ...] = (("needed after washing", length(needed)),)
        if shrinkage == "divided":
            value, formula = divide_not_add(needed, s), "needed after washing ÷ (1 − shrinkage along)"
            put = (*put, ("shrinkage along", percent(s)))
        else:
            value, formula = needed * (1 + THUMB_SHRINKAGE / 100.0), "needed after washing + more"
            put = (*put, ("more", length(needed * THUMB_SHRINKAGE / 100.0)))
        off = value - before
        asks = Step("it would ask for", formula, put, length(value), "before rounding")
        both = (("it would ask for", length(value)), ("worked out", length(before)))
        off_by = Step("off by", "it would ask for − worked out", both, length(off))
        return Thumb(name, _figure(value, "length", step, asks, off_by, source=THUMB), off)

    def instead(label: str, was: float, now: float, why: str) -> tuple[float, Step]:
        """What is needed with the rule's length in place of the one worked out."""
        found = needed - was + now
        put = (("needed", length(needed)), ("worked out for it", length(was)), (label, length(now)))
        return found, Step("needed after washing", f"needed − worked out for it + {label}", put, length(found), why)

    needed = lay + order.ends + order.spare
    out = [
        thumb(
            f"{THUMB_SHRINKAGE:g} % more for shrinkage",
            needed,
            "added",
            Step(
                "more",
                "needed × by the rule",
                (("needed", length(needed)), ("by the rule", percent(THUMB_SHRINKAGE))),
                length(needed * THUMB_SHRINKAGE / 100.0),
            ),
        )
    ]
    if repeat is not None and main_pieces and "matching" in by_rule:
        told = f"one repeat for each of {main_pieces} main pieces"
        found, step = instead("repeats", by_rule["matching"].adds, repeat * main_pieces, told)
        out.append(thumb("one repeat for each main piece", found, "divided", step))
    if "nap" in by_rule:
        found, step = instead("for nap", by_rule["nap"].adds, THUMB_NAP_MM, "a quarter yard")
        name = Sentence("{more} more for nap", more=about(THUMB_NAP_MM))
        out.append(thumb(name, found, "divided", step))
    each = about(THUMB_ENDS_MM / 2)
    found, step = instead("for both ends", order.ends, THUMB_ENDS_MM, Sentence("{each} at each end", each=each))
    out.append(thumb(Sentence("{each} at each end to straighten", each=each), found, "divided", step))
    return tuple(out)
