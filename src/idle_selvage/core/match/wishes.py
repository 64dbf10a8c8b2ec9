"""The bar that matters: places of the bars that can be wished for by name, and places of a piece to wish them on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..cloth.bars import Bar, BarPattern
from ..lay.joined import Way
from ..plan.draft import Draft, levels
from ..plan.piece import Piece
from ..plan.seams import Sewn


@dataclass(frozen=True)
class NamedPlace:
    """A place of the bars, mm from where the first typed bar begins, what it is called, and its colour; ``away``: the
    bar seen first is avoided there."""

    bar: float
    name: str
    colour: str
    away: bool = False


def named_places(sequence: Sequence[Bar], pattern: BarPattern) -> tuple[NamedPlace, ...]:
    """What can be wished for of one direction's bars; nothing where they cannot be seen."""
    if pattern.repeat is None or not pattern.seen or pattern.dominant is None:
        return ()
    found: list[NamedPlace] = []
    at, main = 0.0, None
    for number, bar in enumerate((bar for bar in sequence if bar.width > 0), start=1):
        middle = at + bar.width / 2
        if main is None and bar.colour.lower() == pattern.dominant.colour.lower() and _as_wide(bar, pattern.dominant):
            main = middle
            found.insert(0, NamedPlace(middle, f"bar {number}, the one seen first", bar.colour))
        else:
            found.append(NamedPlace(middle, f"bar {number}", bar.colour))
        at += bar.width
    if main is not None:
        away = (main + pattern.repeat / 2) % pattern.repeat
        colour = next((one.colour for one in reversed(found) if one.colour != pattern.dominant.colour), "")
        found.append(NamedPlace(away, "as far as can be from the bar seen first", colour, True))
    return tuple(found)


def _as_wide(bar: Bar, other: Bar) -> bool:
    return abs(bar.width - other.width) < 0.01


@dataclass(frozen=True)
class WishSpot:
    """A place of a piece: ``at`` mm along its grain (*levels*) or across it (*lengthwise*), in its own axes."""

    way: Way
    at: float
    name: str


def wish_spots(key: str, draft: Draft, piece: Piece, sewn: Sequence[Sewn]) -> tuple[WishSpot, ...]:
    """Where on a piece a bar can be wished for: its low end, its named heights, the key points of its seams, its top;
    across, its middle."""
    xs = [x for x, _ in piece.outline]
    ys = [y for _, y in piece.outline]
    found = [WishSpot("levels", min(xs), "its low end")]
    found += [WishSpot("levels", at, name) for name, at in levels(draft).items()]
    for one in sewn:
        for side, place in zip((one.seam.a, one.seam.b), one.key, strict=True):
            if side.piece == key:
                found.append(WishSpot("levels", place[0], f"the key point of {one.seam.name or 'a seam'}"))
    found.append(WishSpot("levels", max(xs), "its top"))
    middle = 0.0 if draft.half else (min(ys) + max(ys)) / 2
    centre = next((m.places[0][1] for m in draft.marks if m.kind == "centre"), middle)
    found.append(WishSpot("lengthwise", centre, "its middle"))
    return tuple(dict.fromkeys(found))
