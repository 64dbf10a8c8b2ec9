"""How the cloth is folded for a lay: numbered steps with what to measure, stretch by stretch."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import Source, length
from .answer import Lay, Section
from .named import FOLDS_NAMED
from .problem import TOLERANCE_MM

Sides = Literal["together", "out"]

#: Which side of folded cloth looks out: both schools, and why. Common practice, no source.
SIDES: dict[Sides, tuple[str, str]] = {
    "together": (
        "right sides together",
        "the face is kept clean, chalk goes on the back, and seams that follow are already face to face",
    ),
    "out": ("right side out", "the print shows while the pieces are placed, and pile does not cling to pile"),
}
FOLDING = Source("common practice", "how cloth is folded for cutting", "no source")


@dataclass(frozen=True)
class Folding:
    """How one stretch is folded. ``start`` and ``end``: from the cut end, mm."""

    section: int
    fold: str
    start: float
    end: float
    steps: tuple[Sentence, ...]

    @property
    def name(self) -> str:
        return FOLDS_NAMED[self.fold][0]


def foldings(
    lay: Lay, width: float, margins: tuple[float, float], sides: Sides = "together", *, on_bars: bool = False
) -> tuple[Folding, ...]:
    """How each stretch of a lay is folded on cloth of usable ``width``, ``margins`` the near and far selvage's; mm.
    ``on_bars``: bars that run along it shall meet, so that it is folded on a mirror line of them."""
    many = len(lay.sections) > 1
    found = []
    for k, section in enumerate(lay.sections):
        steps = _steps(section, width, margins, SIDES[sides][0])
        if on_bars and section.fold in ("lengthwise", "partial", "double") and section.fold_at:
            steps[-1:-1] = [Sentence(text) for text in BAR_TO_BAR]
        if many:
            told = "Mark off this stretch: from {start} to {end} from the cut end, square across on a thread."
            steps.insert(0, Sentence(told, start=length(section.start), end=length(section.end)))
        if many and k + 1 < len(lay.sections):
            told = "Cut this stretch off along the mark at {end}, then fold the rest anew."
            steps.append(Sentence(told, end=length(section.end)))
        found.append(Folding(k, section.fold, section.start, section.end, tuple(steps)))
    return tuple(found)


#: A fold on bars: where it runs, and how both layers are kept alike. Common practice, no source.
BAR_TO_BAR = (
    "The fold runs along a mirror line of the bars: the bar it lies in shows half on either side.",
    "Pin bar on bar through both layers, a pin to every hand’s breadth along the fold, the selvages and the ends.",
)
_THREE = "measure at three places."


def _steps(section: Section, width: float, margins: tuple[float, float], how: str) -> list[Sentence]:
    near, far = margins
    if section.fold in ("lengthwise", "partial") and section.fold_at:
        at = section.fold_at[0]
        apart, other = at + near, width - at + far
        steps = [
            Sentence("Turn the near selvage over towards the far one, {how}.", how=how),
            Sentence("Fold so that selvage and fold are {apart} apart all along; " + _THREE, apart=length(apart)),
        ]
        if section.fold == "partial":
            told = "The rest stays in one layer: {single} up to the far selvage."
            single = width - 2 * at + far - near
            if single > TOLERANCE_MM:
                steps.append(Sentence(told, single=length(single)))
        elif abs(apart - other) <= TOLERANCE_MM:
            steps.append(Sentence("Selvage lies on selvage."))
        else:
            told = "The near selvage lies {off} {side} the far one."
            side = "short of" if apart < other else "beyond"
            steps.append(Sentence(told, off=length(abs(apart - other)), side=side))
        return [*steps, _flat()]
    if section.fold == "double" and len(section.fold_at) == 2:
        one, two = section.fold_at
        steps = [
            Sentence(
                "Turn the near selvage over so that it is {apart} from its fold all along, {how}; " + _THREE,
                apart=length(one + near),
                how=how,
            ),
            Sentence(
                "Turn the far selvage over so that it is {apart} from its fold; " + _THREE,
                apart=length(width - two + far),
            ),
        ]
        between = 2 * two - width - far - (2 * one + near)
        if between > TOLERANCE_MM:
            steps.append(Sentence("Between the two selvages {between} stays in one layer.", between=length(between)))
        elif between < -TOLERANCE_MM:
            told = "The selvages lie over each other by {over} where they meet; no piece may lie over that line."
            steps.append(Sentence(told, over=length(-between)))
        else:
            steps.append(Sentence("The selvages meet there; no piece may lie over that line."))
        return [*steps, _flat()]
    if section.fold == "crosswise" and section.fold_at:
        half = section.end - section.fold_at[0]
        return [
            Sentence("Cut off {whole} square across on a thread.", whole=length(section.end - section.start)),
            Sentence("Turn one cut end over onto the other, {how}: the fold is {half} from both.", how=how,
                     half=length(half)),
            Sentence("Both selvages lie on themselves all along; the two layers run opposite ways."),
            _flat(),
        ]  # fmt: skip
    return [Sentence("Lay the cloth in one layer with its right side up."), _flat()]


def _flat() -> Sentence:
    return Sentence("Smooth it along the grain without pulling, and let none hang over the table’s edge.")
