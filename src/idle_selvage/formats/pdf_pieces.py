"""Pattern pieces from a PDF with vector pages: pages laid together, lines gathered into outlines, sizes told by colour.

What cannot be known from lines alone is assumed, and said: the longest straight line inside a piece is its grainline.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Place

from ..core.plan.outline import Outline, Point
from .audit import Found
from .drawn_drafts import Drawn, Shape
from .drawn_pieces import PieceRead, Remarks, read_piece, says_something
from .gather import JOIN_MM, gathered, ring_area
from .pdf_join import Joined, joined
from .pdf_lines import BadPdf, PdfPage, Stroke, Words, read_pages

#: What encloses less is no piece, mm²: a button stand of 2 by 12 cm is one, a test square of 5 cm too.
LEAST_MM2 = 2000.0
#: A grainline is at least so long, mm, or as long as this share of the piece where that is narrow; from memory.
GRAIN_MM, GRAIN_SHARE = 40.0, 0.3
#: Two outlines that overlap by so much of both are one piece in two sizes.
NESTED = 0.5
#: Its curves were chords already when they were printed: points are found so near to them, mm.
WITHIN_MM = 0.02
#: What is written no further off belongs to the piece beside it, mm.
BESIDE_MM = 25.0
#: Of lines at the same place, drawn twice, one is kept, mm.
TWICE_MM = 0.1


@dataclass(frozen=True)
class Style:
    """A kind of line: its name, how many outlines are drawn in it."""

    name: str
    outlines: int


@dataclass(frozen=True)
class PdfRead:
    """Pieces; where each page lies and how large it is; the kinds of line there are, those that were read, and whether
    they lie in one another as sizes do; every line for a picture."""

    pieces: tuple[PieceRead, ...]
    pages: tuple[tuple[int, Point, Point], ...]
    joined: str
    styles: tuple[Style, ...]
    read: tuple[str, ...]
    nested: bool
    lines: tuple[tuple[Point, ...], ...]


def read_pdf(
    data: bytes,
    *,
    styles: Sequence[str] = (),
    places: Mapping[int, Point] | None = None,
    columns: int | None = None,
) -> Found[PdfRead]:
    """Pieces from a PDF at its true size. ``styles``: only lines of these kinds are cut lines; ``places``,
    ``columns``: see :func:`~.pdf_join.joined`. Raises :class:`~.pdf_lines.BadPdf`."""
    pages = read_pages(data)
    if not any(page.strokes for page in pages):
        scanned = any(page.pictures for page in pages)
        why = "its pages are pictures, as a scanner makes them" if scanned else "its pages hold no lines"
        raise BadPdf(f"There is no line in this PDF that could be a cut line: {why}. Trace it, or type the pieces in.")
    whole = joined(pages, places, columns)
    remarks = Remarks()
    if len(pages) > 1:
        remarks.mend("joined", f"{len(whole.places)} pages", f"laid together {whole.how}")
    for number in whole.loose:
        remarks.skip("page", f"page {number}", "shares no line with the others, so it is left out")
    rings = _rings(whole, remarks)
    found = [Style(name, len(of)) for name, of in sorted(rings.items(), key=lambda one: -len(one[1]))]
    nested = _nested(rings)
    chosen = [s for s in styles if s in rings] or ([found[0].name] if nested else [style.name for style in found])
    if nested and not styles:
        remarks.mend("sizes", "lines in one another", f"only those drawn in {chosen[0]} were read; choose another size")
    pieces = _pieces(whole, [ring for style in chosen for ring in rings[style]], remarks)
    if not pieces and not remarks.not_read:
        raise BadPdf("No line in this PDF runs round a piece.")
    shown = tuple(_shown(stroke) for stroke in whole.strokes)
    laid = tuple((p.number, whole.places[p.number], (p.wide, p.high)) for p in pages if p.number in whole.places)
    read = PdfRead(tuple(pieces), laid, whole.how, tuple(found), tuple(chosen), nested, shown)
    return Found(read, tuple(remarks.not_read), tuple(remarks.mended))


def _shown(stroke: Stroke) -> tuple[Point, ...]:
    points = [*stroke.points, stroke.points[0]] if stroke.closed else stroke.points
    return tuple((x, -y) for x, y in points)


def _rings(whole: Joined, remarks: Remarks) -> dict[str, list[Outline]]:
    """The outlines of each kind of line, each once."""
    by_style: dict[str, list[Sequence[Point]]] = {}
    for stroke in whole.strokes:
        run = [*stroke.points, stroke.points[0]] if stroke.closed else list(stroke.points)
        by_style.setdefault(stroke.style, []).append(run)
    out: dict[str, list[Outline]] = {}
    for style, runs in by_style.items():
        found = gathered(runs)
        if found.gap > 0.05:
            remarks.mend("joined_lines", f"lines in {style}", f"gaps of up to {found.gap:.1f} mm were closed")
        kept: list[Outline] = []
        for ring in found.rings:
            if abs(ring_area(ring)) >= LEAST_MM2 and not any(_same(ring, other) for other in kept):
                kept.append(ring)
        if kept:
            out[style] = _outer(kept)
    return out


def _same(a: Outline, b: Outline) -> bool:
    (ax, ay, bx, by), (cx, cy, dx, dy) = LineString(a).bounds, LineString(b).bounds
    if max(abs(ax - cx), abs(ay - cy), abs(bx - dx), abs(by - dy)) > TWICE_MM:
        return False
    return bool(shapely.hausdorff_distance(LineString(a), LineString(b)) <= TWICE_MM * 5)


def _outer(rings: Sequence[Outline]) -> list[Outline]:
    """Those that lie in no other of the same kind."""
    out: list[Outline] = []
    shapes: list[Polygon] = []
    for ring in sorted(rings, key=lambda one: -abs(ring_area(one))):
        shape = _shape(ring)
        if not any(other.covers(Place(shape.representative_point())) for other in shapes):
            out.append(ring)
            shapes.append(shape)
    return out


def _nested(rings: Mapping[str, Sequence[Outline]]) -> bool:
    """Whether outlines of different kinds of line lie in one another as sizes do."""
    of = [(style, _shape(ring)) for style, found in rings.items() for ring in found[:20]]
    for i, (style, a) in enumerate(of):
        for other, b in of[i + 1 :]:
            if style != other and a.intersects(b):
                both = a.intersection(b).area
                if both >= NESTED * max(a.area, b.area):
                    return True
    return False


def _shape(ring: Outline) -> Polygon:
    shape = Polygon(ring)
    return shape if shape.is_valid else shape.buffer(0)


def _pieces(whole: Joined, rings: Sequence[Outline], remarks: Remarks) -> list[PieceRead]:
    out = []
    # pieces in the order they are read: from the top, from the left
    ordered = sorted(rings, key=lambda ring: (-round(max(y for _, y in ring) / 100), min(x for x, _ in ring)))
    shapes = [_shape(ring) for ring in ordered]
    belongs = [_belongs(one, shapes) for one in whole.words]
    for number, (ring, shape) in enumerate(zip(ordered, shapes, strict=True), start=1):
        words = [one for one, of in zip(whole.words, belongs, strict=True) if of == number - 1]
        name = _name(words) or f"piece {number}"
        inner = [stroke for stroke in whole.strokes if _lies_in(stroke, shape)]
        x0, y0, x1, y1 = shape.bounds
        grain, rest = _grainline(inner, min(GRAIN_MM, GRAIN_SHARE * min(x1 - x0, y1 - y0)))
        fold = _fold(ring, words, grain)
        if fold is not None:
            remarks.mend("fold", f"{name}: fold", "the straight edge beside the word is taken for the one on the fold")
        drawn = Drawn(
            [], [one.text for one in words if says_something(one.text)],
            [Shape("", [], [(x, -y) for x, y in ring], True)],
            [Shape(kind, [kind], [(x, -y) for x, y in line], False)
             for kind, line in (("grainline", grain), ("fold-edge", fold)) if line is not None],
            [], [], WITHIN_MM,
        )  # fmt: skip
        if grain is not None:
            remarks.mend("grainline", f"{name}: grainline", "the longest straight line inside it is taken for it")
        if rest:
            remarks.skip("inner_lines", f"{rest} other lines inside {name}", "lines alone do not say what they are")
        read = read_piece(name, drawn, remarks)
        if read is not None:
            out.append(read)
    return out


def _belongs(words: Words, shapes: Sequence[Polygon]) -> int | None:
    """The piece on which, or beside which, something is written."""
    away = [float(shape.distance(Place(words.at))) for shape in shapes]
    best = min(range(len(shapes)), key=lambda k: (away[k], shapes[k].area), default=None)
    return best if best is not None and away[best] <= BESIDE_MM else None


def _lies_in(stroke: Stroke, shape: Polygon) -> bool:
    """Whether a line that runs round nothing lies inside a piece, and is no part of its outline."""
    if stroke.closed or math.dist(stroke.points[0], stroke.points[-1]) <= JOIN_MM:
        return False
    return bool(shape.covers(LineString(stroke.points))) and not _on(stroke, shape)


def _on(stroke: Stroke, shape: Polygon) -> bool:
    """Whether a line is part of the outline itself."""
    return bool(shapely.hausdorff_distance(LineString(stroke.points), shape.exterior) < TWICE_MM)


def _name(words: Sequence[Words]) -> str:
    """The largest words that say nothing else."""
    said = [one for one in words if not says_something(one.text) and any(c.isalpha() for c in one.text)]
    return max(said, key=lambda one: one.size).text[:80] if said else ""


#: What says that an edge lies on the fold, in the languages patterns of which are common; from memory.
_FOLD = re.compile(r"\bfold\b|\bbruch\b|\bpliure\b|\bdoblez\b", re.IGNORECASE)


def _fold(ring: Outline, words: Sequence[Words], grain: tuple[Point, Point] | None) -> tuple[Point, Point] | None:
    """The straight edge beside the word “fold”, along the grain, its end first that the grainline begins at."""
    said = next((one for one in words if _FOLD.search(one.text)), None)
    if said is None or grain is None:
        return None
    way = math.atan2(grain[1][1] - grain[0][1], grain[1][0] - grain[0][0])
    best: tuple[float, tuple[Point, Point]] | None = None
    for a, b in zip(ring, [*ring[1:], ring[0]], strict=True):
        off = math.atan2(b[1] - a[1], b[0] - a[0]) - way
        if math.dist(a, b) < GRAIN_MM / 2 or abs(math.sin(off)) > 0.02:
            continue
        away = LineString([a, b]).distance(Place(said.at))
        if best is None or away < best[0]:
            best = (away, (a, b) if math.cos(off) > 0 else (b, a))
    return None if best is None or best[0] > BESIDE_MM else best[1]


def _grainline(inner: Sequence[Stroke], least: float) -> tuple[tuple[Point, Point] | None, int]:
    """The longest straight line, pointing where its arrowhead is, else upwards; and how many other lines there are."""
    straight = [s for s in inner if len(s.points) == 2 and math.dist(*s.points) >= least]
    if not straight:
        return None, len(inner)
    best = max(straight, key=lambda s: math.dist(*s.points))
    tail, head = sorted(best.points, key=lambda p: (round(p[1], 1), p[0]))
    near = {end: sum(any(math.dist(end, p) < 1.0 for p in s.points) for s in inner if s is not best)
            for end in (tail, head)}  # fmt: skip
    if near[tail] > near[head]:
        tail, head = head, tail
    return (tail, head), len(inner) - 1 - sum(near.values())


__all__ = ["PdfPage", "PdfRead", "Style", "read_pdf"]
