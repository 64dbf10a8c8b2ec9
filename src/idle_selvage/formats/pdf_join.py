"""Pages of a PDF laid together again: by the lines they share, by the crosses on them, or as they are placed."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..core.plan.outline import Point
from .pdf_lines import PdfPage, Stroke, Words

#: A line shorter than this tells nothing of where a page belongs, mm.
TELLS_MM = 15.0
#: The arms of a cross by which pages are laid together are no longer, mm.
CROSS_MM = 15.0
#: What stands at the same place on so many of the pages belongs to the paper, not to the drawing.
FURNITURE = 0.6
SAME_MM = 0.1


@dataclass(frozen=True)
class Joined:
    """The drawing of all pages together: where each page lies (by its number), how they were joined, what is left out,
    and the pages that fit nowhere."""

    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]
    places: Mapping[int, Point]
    how: str
    loose: tuple[int, ...]


def joined(pages: Sequence[PdfPage], places: Mapping[int, Point] | None = None, columns: int | None = None) -> Joined:
    """The pages as one drawing, in mm. ``places``: where the lower left corner of each page lies, as they were dragged;
    ``columns``: so many pages stand in a row, where nothing on them says so."""
    if places is None and len(pages) == 1:
        return _together(pages, {pages[0].number: (0.0, 0.0)}, "one page", furniture=set())
    paper = _furniture(pages)
    if places is not None:
        return _together(pages, places, "as they were placed", paper)
    by_lines = _by_lines(pages, paper) if columns is None else {}
    if len(by_lines) > 1:
        return _together(pages, by_lines, "by the lines they share", paper)
    drawn = [page for page in pages if any(_key(s) not in paper for s in page.strokes)]
    step, how = _step(drawn or pages)
    wide = columns or max(1, round(math.sqrt(len(drawn))))
    grid = {page.number: (k % wide * step[0], -(k // wide) * step[1]) for k, page in enumerate(drawn)}
    return _together(pages, grid, f"{how}, {wide} in a row", paper)


def _key(stroke: Stroke) -> tuple[object, ...]:
    return (stroke.style, stroke.closed, tuple((round(x, 1), round(y, 1)) for x, y in _sampled(stroke.points)))


def _sampled(points: Sequence[Point]) -> Sequence[Point]:
    return points if len(points) <= 12 else [points[k * (len(points) - 1) // 11] for k in range(12)]


def _furniture(pages: Sequence[PdfPage]) -> set[tuple[object, ...]]:
    """What stands at one place on most of the pages: frames, crosses."""
    times = Counter(key for page in pages for key in {_key(stroke) for stroke in page.strokes})
    least = max(2, math.ceil(FURNITURE * len(pages)))
    return {key for key, count in times.items() if count >= least}


def _by_lines(pages: Sequence[PdfPage], paper: set[tuple[object, ...]]) -> dict[int, Point]:
    """Places from lines that several pages hold, each where it lies on that page."""
    where: dict[tuple[object, ...], list[tuple[int, Point]]] = defaultdict(list)
    weight: dict[tuple[object, ...], float] = {}
    for page in pages:
        for stroke in page.strokes:
            if _key(stroke) in paper:
                continue
            long = sum(math.dist(a, b) for a, b in zip(stroke.points, stroke.points[1:], strict=False))
            if long < TELLS_MM:
                continue
            x0, y0 = stroke.points[0]
            shape = tuple((round(x - x0, 1), round(y - y0, 1)) for x, y in _sampled(stroke.points))
            key: tuple[object, ...] = (stroke.style, stroke.closed, len(stroke.points), shape)
            where[key].append((page.number, (x0, y0)))
            weight[key] = long
    votes: dict[tuple[int, int], Counter[Point]] = defaultdict(Counter)
    exact: dict[tuple[int, int, Point], Point] = {}
    for key, found in where.items():
        if len(found) > 4 * len(pages):
            continue
        for i, (here, a) in enumerate(found):
            for other, b in found[i + 1 :]:
                if here == other:
                    continue
                # a line at one place on the other page as well: that page lies so far from this one
                by = (a[0] - b[0], a[1] - b[1])
                rounded = (round(by[0], 0), round(by[1], 0))
                votes[(here, other)][rounded] += round(weight[key])
                exact.setdefault((here, other, rounded), by)
    steps: dict[int, list[tuple[int, Point]]] = defaultdict(list)
    for (one, other), count in votes.items():
        best, _ = count.most_common(1)[0]
        by = exact[(one, other, best)]
        steps[one].append((other, by))
        steps[other].append((one, (-by[0], -by[1])))
    if not steps:
        return {}
    first = max(steps, key=lambda page: len(steps[page]))
    places, waiting = {first: (0.0, 0.0)}, [first]
    while waiting:
        at = waiting.pop()
        for other, by in steps[at]:
            if other not in places:
                places[other] = (places[at][0] + by[0], places[at][1] + by[1])
                waiting.append(other)
    return places


def _step(pages: Sequence[PdfPage]) -> tuple[Point, str]:
    """How far pages lie apart: from cross to cross, or else from edge to edge of the paper."""
    crosses = [_crosses(page) for page in pages]
    common = [place for place in crosses[0] if all(any(math.dist(place, o) < 1.0 for o in c) for c in crosses)]
    xs, ys = [x for x, _ in common], [y for _, y in common]
    if common and max(xs) - min(xs) > 50 and max(ys) - min(ys) > 50:
        return (max(xs) - min(xs), max(ys) - min(ys)), "by the crosses on them"
    return (pages[0].wide, pages[0].high), "edge to edge"


def _crosses(page: PdfPage) -> list[Point]:
    """The middles of two short lines that cross at right angles."""
    short = [s for s in page.strokes if len(s.points) == 2 and 1.0 < math.dist(*s.points) <= CROSS_MM]
    level = [s for s in short if abs(s.points[0][1] - s.points[1][1]) < SAME_MM]
    upright = [s for s in short if abs(s.points[0][0] - s.points[1][0]) < SAME_MM]
    middles = {_middle(s) for s in upright}
    return [m for s in level if any(math.dist(m := _middle(s), other) < 0.5 for other in middles)]


def _middle(stroke: Stroke) -> Point:
    (ax, ay), (bx, by) = stroke.points
    return ((ax + bx) / 2, (ay + by) / 2)


#: A heading or a foot stands no further from the edge of its page, mm.
MARGIN_MM = 15.0


def _margin(words: Words, page: PdfPage) -> tuple[int, float] | None:
    """At which height of the page's upper or lower margin words stand, and how large they are."""
    near = min(words.at[1], page.high - words.at[1])
    return (round(words.at[1]), round(words.size, 1)) if near <= MARGIN_MM else None


def _headings(pages: Sequence[PdfPage]) -> set[tuple[int, float] | None]:
    """Where most pages have something written in their margin: the number of the page, its neighbours."""
    times = Counter(key for page in pages for key in {_margin(one, page) for one in page.words} if key is not None)
    return {key for key, count in times.items() if count >= max(2, math.ceil(FURNITURE * len(pages)))}


def _together(
    pages: Sequence[PdfPage], places: Mapping[int, Point], how: str, furniture: set[tuple[object, ...]]
) -> Joined:
    margins = _headings(pages)
    strokes: list[Stroke] = []
    words: list[Words] = []
    seen: set[tuple[object, ...]] = set()
    for page in pages:
        if page.number not in places:
            continue
        dx, dy = places[page.number]
        for stroke in page.strokes:
            if _key(stroke) in furniture:
                continue
            moved = replace(stroke, points=tuple((x + dx, y + dy) for x, y in stroke.points))
            key = (_key(moved), len(moved.points))
            if key not in seen:
                seen.add(key)
                strokes.append(moved)
        for one in page.words:
            if _margin(one, page) in margins:
                continue
            at = (one.at[0] + dx, one.at[1] + dy)
            told = (one.text, round(at[0]), round(at[1]))
            if told not in seen:
                seen.add(told)
                words.append(replace(one, at=at))
    loose = tuple(page.number for page in pages if page.number not in places)
    return Joined(tuple(strokes), tuple(words), dict(places), how, loose)
