"""A piece in several sizes: the same points at other places, graded by steps, and blended between two sizes."""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from .draft import Draft, DraftPoint, Edge, Mark, Notch, edges, levels
from .outline import BadPiece, Point

#: So many sizes are kept of one piece.
MOST_SIZES = 30


@dataclass(frozen=True)
class SizeOutline:
    """Where the points of a piece lie in one size, in the order of its run."""

    size: str
    places: tuple[Point, ...]


@dataclass(frozen=True)
class SizeAt:
    """The size at a named height: bust 38, hip 42. Above the highest and below the lowest it holds on."""

    place: str
    size: str


@dataclass(frozen=True)
class SizeChoice:
    """The size of a garment: one, or different ones at different heights. Pieces on which a height is not marked are
    cut in ``size``."""

    size: str = ""
    blend: tuple[SizeAt, ...] = ()


def graded(draft: Draft, sizes: Sequence[str], base: str, steps: Mapping[int, Point]) -> tuple[SizeOutline, ...]:
    """The sizes of a piece from grade steps: from each size to the next a point goes ``steps[key]`` (along, across) mm.

    ``draft`` is in size ``base``. Raises :class:`BadPiece`.
    """
    if base not in sizes:
        raise BadPiece(f"The size the piece is drawn in, {base or 'none'}, must be among its sizes.")
    if len(set(sizes)) != len(sizes):
        raise BadPiece("Two sizes have one name.")
    if len(sizes) > MOST_SIZES:
        raise BadPiece(f"At most {MOST_SIZES} sizes can be kept of one piece.")
    at = list(sizes).index(base)
    out = []
    for number, size in enumerate(sizes):
        n = number - at
        places = tuple(
            (p.along + n * steps.get(p.key, (0.0, 0.0))[0], p.across + n * steps.get(p.key, (0.0, 0.0))[1])
            for p in draft.points
        )
        out.append(SizeOutline(size, places))
    return tuple(out)


def followed(
    sizes: Sequence[SizeOutline], was: Sequence[DraftPoint], now: Sequence[DraftPoint]
) -> tuple[SizeOutline, ...]:
    """The sizes after the points of the draft were changed: a point that was moved moves in every size alike, a new one
    is graded as its neighbours are, halfway between them; nothing is left of one that was taken out."""
    at = {point.key: i for i, point in enumerate(was)}
    out = []
    for one in sizes:
        off = {
            point.key: (one.places[i][0] - point.along, one.places[i][1] - point.across) for i, point in enumerate(was)
        }
        places = []
        for i, point in enumerate(now):
            if point.key in at:
                dx, dy = off[point.key]
            else:
                beside = [off[p.key] for p in _neighbours(now, i, at)]
                dx = sum(x for x, _ in beside) / max(1, len(beside))
                dy = sum(y for _, y in beside) / max(1, len(beside))
            places.append((round(point.along + dx, 4), round(point.across + dy, 4)))
        out.append(SizeOutline(one.size, tuple(places)))
    return tuple(out)


def _neighbours(points: Sequence[DraftPoint], index: int, known: Mapping[int, int]) -> list[DraftPoint]:
    """The nearest points before and after that were there already."""
    n = len(points)
    before = next((p for k in range(1, n) if (p := points[(index - k) % n]).key in known), None)
    after = next((p for k in range(1, n) if (p := points[(index + k) % n]).key in known), None)
    return [p for p in (before, after) if p is not None]


def in_size(draft: Draft, sizes: Sequence[SizeOutline], choice: SizeChoice) -> Draft:
    """The piece in the chosen size, or blended linearly between sizes by height. As drafted where it has no sizes.

    Notches keep their share of their edge. Raises :class:`BadPiece` for a size the piece has not.
    """
    if not sizes or not (choice.size or choice.blend):
        return draft
    known = {one.size: one.places for one in sizes}
    if any(len(places) != len(draft.points) for places in known.values()):
        raise BadPiece("Its sizes were told for other points; grade it again.")
    at = levels(draft)
    heights = sorted((at[one.place], one.size) for one in choice.blend if one.place in at)
    if not heights:
        if not choice.size:
            return draft
        heights = [(0.0, choice.size)]
    for _, size in heights:
        if size not in known:
            raise BadPiece(f"It is not drawn in size {size}; it has {', '.join(known)}.")
    places = [_blended(p.along, i, heights, known) for i, p in enumerate(draft.points)]
    points = tuple(
        replace(p, along=round(x, 4), across=round(y, 4)) for p, (x, y) in zip(draft.points, places, strict=True)
    )
    made = replace(draft, points=points)
    return replace(made, notches=_notches(draft, made), marks=_marks(draft, made))


def shares(along: float, heights: Sequence[tuple[float, str]]) -> tuple[tuple[str, float], ...]:
    """Of which sizes a place at this height is made, and by how much of each: linear between two heights."""
    if along <= heights[0][0]:
        return ((heights[0][1], 1.0),)
    for (low, below), (high, above) in itertools.pairwise(heights):
        if along <= high:
            part = (along - low) / (high - low) if high > low else 1.0
            return ((below, 1.0 - part), (above, part))
    return ((heights[-1][1], 1.0),)


def _blended(
    along: float, index: int, heights: Sequence[tuple[float, str]], known: Mapping[str, tuple[Point, ...]]
) -> Point:
    x = y = 0.0
    for size, share in shares(along, heights):
        px, py = known[size][index]
        x, y = x + share * px, y + share * py
    return x, y


def _notches(draft: Draft, made: Draft) -> tuple[Notch, ...]:
    was, now = edges(draft), edges(made)
    out = []
    for notch in draft.notches:
        pair = next(((a, b) for a, b in zip(was, now, strict=True) if a.first.key == notch.after), None)
        out.append(notch if pair is None else replace(notch, at=notch.at * _ratio(*pair)))
    return tuple(out)


def _ratio(was: Edge, now: Edge) -> float:
    return now.length / was.length if was.length > 0 else 1.0


def _marks(draft: Draft, made: Draft) -> tuple[Mark, ...]:
    """Marks go with the point they are nearest to."""

    def moved(place: Point) -> Point:
        i = min(range(len(draft.points)), key=lambda k: math.dist(draft.points[k].at, place))
        dx = made.points[i].along - draft.points[i].along
        dy = made.points[i].across - draft.points[i].across
        return (place[0] + dx, place[1] + dy)

    return tuple(replace(m, places=tuple(moved(p) for p in m.places)) for m in draft.marks)
