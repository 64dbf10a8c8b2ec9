"""Shapes at their true size on many sheets of paper, to be taped together: PDF, 1:1."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from shapely.geometry import Point as Place
from shapely.geometry import Polygon

from ..core.plan.outline import Outline, Point
from ..core.plan.tiles import CHECK_MM, MARGIN_MM, MOST_LAY_PAGES, OVERLAP_MM, Page, pages
from ..core.units import System
from ..core.wording import say
from ..core.written import length_text
from .pdf_page import Pages

#: A mark where four pages meet has arms so long, mm.
CROSS_MM = 5.0


@dataclass(frozen=True)
class TileShape:
    """A shape to be drawn at its true size: its outline and lines, grain along +x; what is written in its middle."""

    name: str
    outline: Outline
    lines: tuple[Outline, ...] = ()
    arrow: tuple[Point, Point] | None = None
    notes: tuple[str, ...] = ()
    dashed: tuple[Outline, ...] = ()
    #: what is written at a place of its own
    labels: tuple[tuple[str, Point], ...] = ()


def write_tiles(
    shapes: Sequence[TileShape], *, title: str, paper: str, system: System, most: int = MOST_LAY_PAGES
) -> bytes:
    """The document: first a map of the pages with a test square, then the pages from the top left, row after row, their
    overlaps marked. x of the shapes runs up the page, y to its left. Raises TooManyPages."""
    found = pages([shape.outline for shape in shapes], paper, most)
    out = Pages(paper, title)
    _map(out, shapes, found, title, system)
    for page in found:
        out.next()
        _page(out, shapes, page, found, title, system)
    return out.bytes()


def upright(points: Sequence[Point]) -> list[Point]:
    """As it stands on the page: along goes up, across to the left."""
    return [(-y, x) for x, y in points]


def _page(
    out: Pages, shapes: Sequence[TileShape], page: Page, all_: Sequence[Page], title: str, system: System
) -> None:
    dx, dy = MARGIN_MM - page.x, MARGIN_MM - page.y
    out.clip(MARGIN_MM, MARGIN_MM, page.width, page.height)
    for shape in shapes:
        _shape(out, shape, dx, dy)
    out.unclip()
    # the frame of the page, and the middle of the overlap where it is taped to its neighbours
    frame = [(MARGIN_MM, MARGIN_MM), (MARGIN_MM + page.width, MARGIN_MM),
             (MARGIN_MM + page.width, MARGIN_MM + page.height), (MARGIN_MM, MARGIN_MM + page.height)]  # fmt: skip
    out.line(frame, closed=True, wide=0.1, dash=(1, 2))
    half = OVERLAP_MM / 2
    for x in (MARGIN_MM + half, MARGIN_MM + page.width - half):
        for y in (MARGIN_MM + half, MARGIN_MM + page.height - half):
            out.line([(x - CROSS_MM / 2, y), (x + CROSS_MM / 2, y)], wide=0.2)
            out.line([(x, y - CROSS_MM / 2), (x, y + CROSS_MM / 2)], wide=0.2)
    there = {(one.row, one.column): one.name for one in all_}
    beside = {
        "left": there.get((page.row, page.column - 1)),
        "right": there.get((page.row, page.column + 1)),
        "above": there.get((page.row - 1, page.column)),
        "below": there.get((page.row + 1, page.column)),
    }
    told = ", ".join(f"{where} {name}" for where, name in beside.items() if name)
    out.text(MARGIN_MM, 4, f"{page.name}   {title}", size=9, strong=True)
    joins = f"lay crosses on crosses: {told}" if told else ""
    out.text(out.wide - MARGIN_MM, 4, joins, size=8, to="right")


def _shape(out: Pages, shape: TileShape, dx: float, dy: float) -> None:
    def moved(points: Sequence[Point]) -> list[Point]:
        return [(x + dx, y + dy) for x, y in upright(points)]

    out.line(moved(shape.outline), closed=True, wide=0.5)
    for run in shape.lines:
        out.line(moved(run), wide=0.3)
    for run in shape.dashed:
        out.line(moved(run), wide=0.3, dash=(4, 2))
    ring = moved(shape.outline)
    x, y = _middle(ring)
    if shape.arrow is not None:
        tail, head = moved(shape.arrow)
        out.line([tail, head], wide=0.3)
        long = ((head[0] - tail[0]) ** 2 + (head[1] - tail[1]) ** 2) ** 0.5 or 1.0
        ux, uy = (head[0] - tail[0]) / long, (head[1] - tail[1]) / long
        for side in (-1, 1):
            out.line([head, (head[0] - 6 * ux + side * 2.5 * uy, head[1] - 6 * uy - side * 2.5 * ux)], wide=0.3)
    for told, place in shape.labels:
        lx, ly = moved([place])[0]
        out.text(lx, ly, told, size=9, to="middle")
    out.text(x, y, shape.name, size=14, strong=True, to="middle")
    for k, note in enumerate(shape.notes, start=1):
        out.text(x, y - 5 * k, note, size=9, to="middle")


def _middle(ring: Sequence[Point]) -> Point:
    """Where its name is written: its middle, or where a hollow piece has none, a place inside."""
    x, y = sum(p[0] for p in ring) / len(ring), sum(p[1] for p in ring) / len(ring)
    shape = Polygon(ring)
    if shape.is_valid and not shape.contains(Place(x, y)):
        inside = shape.representative_point()
        return (inside.x, inside.y)
    return (x, y)


def _map(out: Pages, shapes: Sequence[TileShape], found: Sequence[Page], title: str, system: System) -> None:
    """The first page: how the pages lie, and a square by which one sees whether they are printed right."""
    out.text(MARGIN_MM, out.high - 18, title, size=14, strong=True)
    side = length_text(CHECK_MM, system)
    told = f"Print at 100 %, without fitting to the page. This square measures {side} at every side; if not, stop here."
    out.text(MARGIN_MM, out.high - 25, told, size=9)
    top = out.high - 30
    x0, y0 = MARGIN_MM, top - CHECK_MM
    square = [(x0, y0), (x0 + CHECK_MM, y0), (x0 + CHECK_MM, top), (x0, top)]
    out.line(square, closed=True, wide=0.3)
    out.text(x0 + CHECK_MM / 2, y0 + CHECK_MM / 2, side, size=12, to="middle")
    left, right = min(p.x for p in found), max(p.x + p.width for p in found)
    low, high = min(p.y for p in found), max(p.y + p.height for p in found)
    room_w, room_h = out.wide - 2 * MARGIN_MM, y0 - 2 * MARGIN_MM
    scale = min(room_w / (right - left), room_h / (high - low))
    dx, dy = MARGIN_MM - left * scale, MARGIN_MM - low * scale
    for shape in shapes:
        ring = [(x * scale + dx, y * scale + dy) for x, y in upright(shape.outline)]
        out.line(ring, closed=True, wide=0.15)
    for page in found:
        a, b = page.x * scale + dx, page.y * scale + dy
        c, d = a + page.width * scale, b + page.height * scale
        out.line([(a, b), (c, b), (c, d), (a, d)], closed=True, wide=0.1, dash=(1, 1))
        out.text((a + c) / 2, (b + d) / 2 - 1, page.name, size=max(5.0, min(11.0, page.width * scale / 2)), to="middle")
    out.text(
        MARGIN_MM, y0 - 6, say(f"{len(found)} pages, rows by letter from the top, columns by number.", system), size=9
    )
