"""Pattern pieces from an SVG drawing, by the convention of docs/svg-pieces.md.

A group is one piece when it has the class ``piece`` or holds exactly one closed shape; any other closed
shape is a piece by itself. Inside a piece, a straight open line is the grainline, or the fold edge when
its class or id says ``fold-edge``. Words in classes and labels say copies, pair, grain and allowance.
What was not read is listed with the reason; nothing is dropped in silence.
"""

from __future__ import annotations

import io
import json
import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any
from xml.etree.ElementTree import Element, ParseError

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from svgelements import (
    Arc,
    Circle,
    Close,
    CubicBezier,
    Ellipse,
    Length,
    Line,
    Matrix,
    Move,
    Path,
    Polygon,
    Polyline,
    QuadraticBezier,
    Rect,
    SimpleLine,
    Viewbox,
)

from ..core.plan.curve import chords
from ..core.plan.draft import ENDS, DraftPoint, Ends
from ..core.plan.outline import MAX_POINTS, Point
from .audit import Found, Unreadable
from .drawn_drafts import Drawn, Shape, all_sizes, is_mark, is_seam, layer_size, size_of
from .drawn_pieces import PieceRead, Remarks, read_piece, says_something, split_words
from .gather import ring_area

MAX_BYTES = 4_000_000
MOST_DEEP = 50
MAX_ELEMENTS = 20_000
MAX_ALL_POINTS = 100_000
#: The lines of a drawing are told in at most so many letters, its arcs and the moves of one part are so many: each
#: takes its time, and is counted before it is read.
MAX_LETTERS, MAX_ARCS, MAX_MOVES = 700_000, 10_000, 40
#: Clones show at most so many parts.
MAX_CLONED = 2_000
#: Curves become chords that stray from them by at most this.
FLATNESS_MM = 0.05
MM_PER_PX = 25.4 / 96.0

_SHAPES = {"path", "polygon", "polyline", "rect", "circle", "ellipse", "line"}
_QUIET = {"title", "desc", "metadata", "defs", "style", "namedview", "script", "symbol", "clipPath", "marker"}


class BadDrawing(Unreadable):
    """A file that is no drawing that can be read; the message is a sentence."""


Drawing = Found[tuple[PieceRead, ...]]


@dataclass
class _Node:
    label: str
    words: list[str]
    texts: list[str] = field(default_factory=list)
    shapes: list[Shape] = field(default_factory=list)


@dataclass(frozen=True)
class SvgRead:
    """Pieces; the unit a length of one is taken for and whether the file says so; every line for a picture, mm, y
    downwards."""

    pieces: tuple[PieceRead, ...]
    unit: str
    unit_said: bool
    lines: tuple[tuple[Point, ...], ...]


#: What a length of one may be where a drawing has no size of its own, mm.
UNITS: dict[str, float] = {"px": MM_PER_PX, "mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72.0}


def read_svg(data: bytes, unit: str | None = None) -> Drawing:
    """Pieces from an SVG file, in millimetres. Raises :class:`BadDrawing` when nothing can be made of it."""
    found = read_svg_sheet(data, unit)
    return Found(found.what.pieces, found.not_read, found.mended)


def read_svg_sheet(data: bytes, unit: str | None = None) -> Found[SvgRead]:
    """The same with its lines and unit. ``unit``: a key of :data:`UNITS`, for a drawing that has no size of its own.
    Raises :class:`BadDrawing`."""
    if len(data) > MAX_BYTES:
        raise BadDrawing(f"The drawing is larger than {MAX_BYTES // 1_000_000} MB. Save the pieces without pictures.")
    if data.count(b"<") > 8 * MAX_ELEMENTS:
        # before it is parsed: that would take its time
        raise BadDrawing(f"The drawing has more than {MAX_ELEMENTS} parts. Save only the pieces.")
    try:
        root = ElementTree.parse(io.BytesIO(data), forbid_dtd=False).getroot()
    except DefusedXmlException:
        raise BadDrawing(
            "The drawing defines entities or fetches other files, which is not allowed here. Save it as plain SVG."
        ) from None
    except (ParseError, ValueError, LookupError) as error:
        raise BadDrawing(f"This is not an SVG drawing: {error}.") from None
    _not_longer(root)
    if _tag(root) != "svg":
        raise BadDrawing(f"This is not an SVG drawing; its outermost element is “{_tag(root)[:30]}”.")
    said = any((root.get(side) or "").strip()[-2:] in ("mm", "cm", "in", "pt") for side in ("width", "height"))
    matrix = _page_matrix(root)
    if unit is not None and not said:
        matrix = matrix * Matrix.scale(UNITS[unit] / MM_PER_PX)
    reader = _Reader({str(one.get("id")): one for one in root.iter() if one.get("id")})
    reader.group(root, matrix, top=True)
    reader.finish()
    if not reader.pieces and not reader.remarks.not_read:
        raise BadDrawing("The drawing is empty: there is no closed path or polygon in it.")
    read = SvgRead(tuple(reader.pieces), unit if unit and not said else "px", said, tuple(reader.lines))
    return Found(read, tuple(reader.remarks.not_read), tuple(reader.remarks.mended))


def _not_longer(root: Element) -> None:
    """Raise :class:`BadDrawing` for more than can be read in a moment."""
    letters = arcs = 0
    for one in root.iter():
        for line in (one.get("d") or "", one.get("points") or ""):
            letters += len(line)
            arcs += line.count("a") + line.count("A")
        if (one.get("transform") or "").count("(") > MAX_MOVES:
            raise BadDrawing(f"A part of the drawing is moved more than {MAX_MOVES} times over. Ungroup it.")
    if letters > MAX_LETTERS or arcs > MAX_ARCS:
        raise BadDrawing(f"The drawing has more than {MAX_ALL_POINTS} points or {MAX_ARCS} arcs. Simplify its curves.")


def _not_deeper(depth: int) -> None:
    if depth > MOST_DEEP:
        raise BadDrawing("The drawing's groups are nested more than fifty deep. Ungroup it and save again.")


def _tag(element: Element) -> str:
    return str(element.tag).rsplit("}", 1)[-1] if isinstance(element.tag, str) else ""


def _page_matrix(root: Element) -> Any:
    """From the drawing's user units to millimetres, honouring width, height and viewBox."""
    box = root.get("viewBox")
    try:
        width, height = _page_mm(root.get("width")), _page_mm(root.get("height"))
        if box is None:
            return Matrix.scale(MM_PER_PX)
        view = Viewbox(box, root.get("preserveAspectRatio"))
        wide = (
            width
            if width is not None
            else (view.width * MM_PER_PX if height is None else view.width * height / view.height)
        )
        high = height if height is not None else view.height * wide / view.width
        matrix = Matrix(
            Viewbox.viewbox_transform(
                0, 0, wide, high, view.x, view.y, view.width, view.height, view.preserve_aspect_ratio
            )
        )
    except (ValueError, TypeError, ZeroDivisionError, AttributeError):
        raise BadDrawing("The drawing's width, height or viewBox could not be read.") from None
    if not all(math.isfinite(v) for v in (matrix.a, matrix.b, matrix.c, matrix.d, matrix.e, matrix.f)):
        raise BadDrawing("The drawing's width, height or viewBox could not be read.")
    return matrix


def _page_mm(text: str | None) -> float | None:
    if text is None or text.strip().endswith("%"):
        return None
    value = Length(text).value(ppi=96.0)
    if not isinstance(value, int | float) or value <= 0:
        raise ValueError(text)
    return float(value) * MM_PER_PX


class _Reader:
    def __init__(self, by_id: Mapping[str, Element]) -> None:
        self.by_id = by_id
        self.pieces: list[PieceRead] = []
        self.remarks = Remarks()
        self.lines: list[tuple[Point, ...]] = []
        #: the size of the layer that is being read, and what such layers show, by the pieces' names
        self.size: str | None = None
        self.sized: dict[str, list[tuple[str, Drawn]]] = {}
        self.elements = self.cloned = 0
        self.points = 0

    def group(self, element: Element, matrix: Any, *, top: bool = False, depth: int = 0) -> None:
        _not_deeper(depth)
        node = _Node("" if top else _label(element), [] if top else _words(element))
        outer = self.size
        size = None if top else layer_size(node.label, node.words)
        self.size = size or outer
        for child in element:
            self.count()
            self.child(child, matrix, node, depth)
        # a layer of one size holds pieces, and is none itself
        self.close(node, single=not top and (size is None or "piece" in node.words))
        self.size = outer

    def count(self) -> None:
        """Each part counts as often as it is shown, so that clones of clones end."""
        self.elements += 1
        if self.elements > MAX_ELEMENTS:
            raise BadDrawing(f"The drawing has more than {MAX_ELEMENTS} parts. Save only the pieces.")

    def child(self, child: Element, matrix: Any, node: _Node, depth: int) -> None:
        tag = _tag(child)
        if not tag or tag in _QUIET:
            return
        name = f"{tag} “{_label(child)}”" if _label(child) else tag
        try:
            own = Matrix(child.get("transform") or "") * matrix
        except (ValueError, TypeError, IndexError):
            self.remarks.skip("transform", name, "its transform could not be read")
            return
        if tag in ("g", "a", "svg"):
            if tag == "svg":
                self.remarks.skip("nested", name, "a drawing inside the drawing; ungroup it first")
                return
            self.group(child, own, depth=depth + 1)
        elif tag == "text":
            node.texts.append(" ".join("".join(child.itertext()).split()))
        elif tag in _SHAPES:
            self.shapes(child, tag, name, own, node)
        elif tag == "use":
            self.clone(child, name, own, node, depth)
        else:
            why = {
                "image": "a picture, not an outline; trace it first",
            }.get(tag, "not a kind of shape that is read")
            self.remarks.skip("not_a_shape", name, why)

    def clone(self, element: Element, name: str, matrix: Any, node: _Node, depth: int) -> None:
        """What a clone shows, where it shows it."""
        _not_deeper(depth)
        href = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
        target = self.by_id.get(href.removeprefix("#")) if href.startswith("#") else None
        if target is None:
            self.remarks.skip("clone", name, "a clone of something that is not in this drawing")
            return
        try:
            x, y = (float(Length(element.get(key) or 0).value(ppi=96.0)) for key in ("x", "y"))
        except (ValueError, TypeError, AttributeError):
            self.remarks.skip("numbers", name, "its numbers could not be read")
            return
        moved = Matrix.translate(x, y) * matrix
        self.count()
        self.cloned += 1
        if self.cloned > MAX_CLONED:
            raise BadDrawing(f"The drawing's clones show more than {MAX_CLONED} parts. Unlink the clones.")
        if _tag(target) == "symbol":
            self.group(target, moved, depth=depth + 1)
        else:
            self.child(target, moved, node, depth + 1)

    def shapes(self, element: Element, tag: str, name: str, matrix: Any, node: _Node) -> None:
        try:
            path = _as_path(element, tag)
            path = path * matrix
            path.reify()
            runs = _flatten(path)
        except BadDrawing:
            raise
        except (ValueError, TypeError, IndexError, ZeroDivisionError, AttributeError, OverflowError):
            self.remarks.skip("numbers", name, "its numbers could not be read")
            return
        told = _points_told(element, matrix) if len(runs) == 1 else ()
        for points, closed in runs:
            if not all(math.isfinite(c) for p in points for c in p):
                self.remarks.skip("numbers", name, "its numbers could not be read")
                continue
            self.points += len(points)
            if self.points > MAX_ALL_POINTS:
                raise BadDrawing(f"The drawing has more than {MAX_ALL_POINTS} points. Simplify its curves.")
            if len(points) >= 2:
                self.lines.append(tuple([*points, points[0]] if closed else points))
                node.shapes.append(Shape(_label(element), _words(element), points, closed, told))

    def close(self, node: _Node, *, single: bool) -> None:
        """Make pieces of what a group held."""
        marks = [s for s in node.shapes if is_mark(s)]
        seams = [s for s in node.shapes if is_seam(s)]
        others = [s for s in node.shapes if not is_mark(s) and not is_seam(s)]
        closed, lines = [s for s in others if s.closed], [s for s in others if not s.closed]
        graded = [s for s in closed if size_of(s)]
        alone = "piece" in node.words or len(closed) == 1 or len(graded) == len(closed)
        if single and closed and alone:
            outlines = graded if len(graded) > 1 else [max(closed, key=lambda s: abs(ring_area(s.points)))]
            for other in closed:
                if other not in outlines:
                    self.remarks.skip(
                        "inner_outline",
                        other.label or "a shape inside a piece",
                        "inside another outline; only the largest closed shape of a piece is its cut line",
                    )
            words = [
                *node.words,
                *(w for o in outlines for w in o.words),
                *(w for t in node.texts for w in split_words(t)),
            ]
            name = node.label or next((t for t in node.texts if not says_something(t)), "") or outlines[0].label
            self.found(name, Drawn(words, node.texts, outlines, lines, marks, seams))
            return
        for shape in closed:
            self.found(shape.label, Drawn(shape.words, [], [shape], [], []))
        for line in [*lines, *marks]:
            self.remarks.skip(
                "stray_line", line.label or "an open line", "not closed, and not inside the group of one piece"
            )
        for text in node.texts:
            if closed and text:
                self.remarks.skip("stray_label", f"the label “{text[:40]}”", "not inside the group of one piece")

    def found(self, name: str, drawn: Drawn) -> None:
        """A piece, or what one layer shows of a piece in one size."""
        name = (name or f"piece {len(self.pieces) + 1}")[:80]
        if self.size is None:
            self._piece(name, drawn)
        else:
            self.sized.setdefault(name, []).append((self.size, drawn))

    def _piece(self, name: str, drawn: Drawn) -> None:
        read = read_piece(name, drawn, self.remarks)
        if read is not None:
            self.pieces.append(read)

    def finish(self) -> None:
        """The pieces whose sizes lie on layers of their own, once all are read."""
        for name, layers in self.sized.items():
            self._piece(name, all_sizes(layers) if len(layers) > 1 else layers[0][1])


def _label(element: Element) -> str:
    for child in element:
        if _tag(child) == "title" and child.text and child.text.strip():
            return " ".join(child.text.split())
    for key, value in element.attrib.items():
        if key.endswith("}label") and value.strip():
            return " ".join(value.split())
    return element.get("id", "").strip()


def _words(element: Element) -> list[str]:
    words = [*element.get("class", "").lower().split(), *([element.get("id", "").lower()] if element.get("id") else [])]
    # as a class a name loses its capitals, and is cut at its blanks
    own = [f"{kind}-{name}" for kind in ("size", "level") if (name := element.get(f"data-{kind}"))]
    return [*own, *words]


def _points_told(element: Element, matrix: Any) -> tuple[DraftPoint, ...]:
    """The points an outline is told by, where they are written beside it (``data-points``); none where they cannot be
    read: the outline says all that is needed."""
    try:
        rows = json.loads(element.get("data-points") or "[]")
        out = []
        for x, y, smooth, straight, allowance, ends, key in rows[:MAX_POINTS]:
            at = matrix.point_in_matrix_space((float(x), float(y)))
            wide = None if allowance is None else float(allowance)
            known: Ends = next((one for one in ENDS if one == ends), "mitre")
            out.append(DraftPoint(float(at.x), float(at.y), bool(smooth), bool(straight), wide, known, int(key)))
    except (ValueError, TypeError, OverflowError, RecursionError):
        return ()
    return tuple(out)


#: Shapes as the reader of SVG itself knows them.
_KINDS: dict[str, Any] = {
    "path": Path, "polygon": Polygon, "polyline": Polyline, "line": SimpleLine, "rect": Rect, "circle": Circle,
    "ellipse": Ellipse,
}  # fmt: skip


def _as_path(element: Element, tag: str) -> Any:
    """A shape as a path in user units; its transform is applied elsewhere."""
    values = {key: value for key, value in element.attrib.items() if key in _GEOMETRY}
    if tag == "path":
        return Path(values.get("d") or "")
    shape = _KINDS[tag](values)
    shape.render(ppi=96.0)
    path = Path(shape)
    if len(path) == 0:
        raise ValueError("nothing to be seen")
    return path


#: What says how a shape runs; what else stands at an element is no number.
_GEOMETRY = {"d", "points", "x", "y", "width", "height", "rx", "ry", "cx", "cy", "r", "x1", "y1", "x2", "y2"}


def _flatten(path: Any) -> list[tuple[list[Point], bool]]:
    """Every subpath as points, with whether it is closed; in millimetres, y still downwards."""
    runs: list[tuple[list[Point], bool]] = []
    points: list[Point] = []
    closed = False

    def finish() -> None:
        if not points:
            return
        ring = [p for i, p in enumerate(points) if i == 0 or math.dist(p, points[i - 1]) > 1e-4]
        shut = closed or (len(ring) > 3 and math.dist(ring[0], ring[-1]) < 0.01)
        while shut and len(ring) > 1 and math.dist(ring[0], ring[-1]) < 0.01:
            ring.pop()
        runs.append((ring, shut and len(ring) >= 3))

    for segment in path:
        if isinstance(segment, Move):
            finish()
            points, closed = [_point(segment.end)], False
        elif isinstance(segment, Close):
            closed = True
        elif isinstance(segment, Line):
            points.append(_point(segment.end))
        elif isinstance(segment, Arc):
            for cubic in segment.as_cubic_curves():
                points += _curve([_point(p) for p in (cubic.start, cubic.control1, cubic.control2, cubic.end)])
        elif isinstance(segment, CubicBezier):
            points += _curve([_point(p) for p in (segment.start, segment.control1, segment.control2, segment.end)])
        elif isinstance(segment, QuadraticBezier):
            points += _curve([_point(p) for p in (segment.start, segment.control, segment.end)])
        if len(points) > MAX_ALL_POINTS:
            raise BadDrawing(f"The drawing has more than {MAX_ALL_POINTS} points. Simplify its curves.")
    finish()
    return runs


def _point(p: Any) -> Point:
    return (float(p.x), float(p.y))


def _curve(control: list[Point]) -> list[Point]:
    """A Bézier curve as chords that stray from it by at most FLATNESS_MM; the start is left out."""
    found = chords(control, FLATNESS_MM)
    if len(found) >= MAX_POINTS:
        raise BadDrawing("A curve in the drawing is too large to be a pattern piece; check its unit.")
    return [*found[1:], control[-1]]
