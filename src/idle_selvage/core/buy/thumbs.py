"""Rules of thumb beside the computed purchase, each with how far off it is here."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..shrink.shrinkage import divide_not_add
from ..wording import Sentence
from ..working import Figure, Step, about, count, length
from .order import Extra, Order, _figure

#: What the usual rules of thumb add. Common practice, no source.
THUMB_SHRINKAGE = 10.0
THUMB_NAP_MM = 228.6
THUMB_ENDS_MM = 2 * 50.8
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
        value = divide_not_add(needed, s) if shrinkage == "divided" else needed * (1 + THUMB_SHRINKAGE / 100.0)
        off = value - before
        figure = _figure(
            value,
            "length",
            step,
            Step("it would ask for", "before rounding", (("needed after washing", length(needed)),), length(value)),
            Step("off by", "it − worked out", (("worked out", length(before)),), length(off)),
        )
        return Thumb(name, figure, off)

    needed = lay + order.ends + order.spare
    out = [
        thumb(
            f"{THUMB_SHRINKAGE:g} % more for shrinkage",
            needed,
            "added",
            Step(
                "more",
                f"needed × {THUMB_SHRINKAGE:g} %",
                (("needed", length(needed)),),
                length(needed * THUMB_SHRINKAGE / 100.0),
            ),
        )
    ]
    if repeat is not None and main_pieces and "matching" in by_rule:
        adds = repeat * main_pieces
        inputs = (("repeat", length(repeat)), ("main pieces", count(main_pieces)))
        step = Step("for matching", "one repeat for each main piece", inputs, length(adds))
        out.append(thumb("one repeat for each main piece", needed - by_rule["matching"].adds + adds, "divided", step))
    if "nap" in by_rule:
        step = Step("for nap", "a quarter yard", (), length(THUMB_NAP_MM))
        name = Sentence("{more} more for nap", more=about(THUMB_NAP_MM))
        out.append(thumb(name, needed - by_rule["nap"].adds + THUMB_NAP_MM, "divided", step))
    each = about(THUMB_ENDS_MM / 2)
    step = Step("for straightening", Sentence("{each} at each end", each=each), (), length(THUMB_ENDS_MM))
    out.append(
        thumb(
            Sentence("{each} at each end to straighten", each=each),
            needed - order.ends + THUMB_ENDS_MM,
            "divided",
            step,
        )
    )
    return tuple(out)
