"""Pattern pieces from an SVG drawing, by the convention of docs/svg-pieces.md.

A group is one piece when it has the class ``piece`` or holds exactly one closed shape; any other closed
shape is a piece by itself. Inside a piece, a straight open line is the grainline, or the fold edge when
its class or id says ``fold-edge``. Words in classes and labels say copies, pair, grain and allowance.
What was not read is listed with the reason; nothing is dropped in silence.
"""

from __future__ import annotations

import io
import math
import re
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

from ..core.plan.allowance import cut_line
from ..core.plan.curve import chords
from ..core.plan.draft import Draft
from ..core.plan.drawn import HowCut, piece_of
from ..core.plan.outline import MAX_POINTS, BadPiece, Point, polygon_fault
from ..core.plan.piece import Grain, Piece
from ..core.plan.sizes import SizeOutline
from ..core.units import BadEntry, read_length
from .audit import Found, Mended, NotRead, Unreadable
from .svg_drafts import Drawn, Shape, all_sizes, axes_of, draft_of, is_mark, layer_size, size_of

MAX_BYTES = 4_000_000
MOST_DEEP = 50
MAX_ELEMENTS = 20_000
MAX_ALL_POINTS = 100_000
#: Curves become chords that stray from them by at most this.
FLATNESS_MM = 0.05
MM_PER_PX = 25.4 / 96.0

_SHAPES = {"path", "polygon", "polyline", "rect", "circle", "ellipse", "line"}
_QUIET = {"title", "desc", "metadata", "defs", "style", "namedview", "script", "symbol", "clipPath", "marker"}


class BadDrawing(Unreadable):
    """A file that is no drawing that can be read; the message is a sentence."""


#: Of what is wrong with a drawing, so much is listed.
MOST_REMARKS = 200


@dataclass(frozen=True)
class PieceRead:
    """A piece that was read: its draft, how it says it is cut, its sizes, and the core's piece of all that."""

    name: str
    draft: Draft
    how: HowCut
    sizes: tuple[SizeOutline, ...] = ()

    @property
    def piece(self) -> Piece:
        """As it is cut."""
        return piece_of(self.name, self.draft, self.how)


Drawing = Found[tuple[PieceRead, ...]]


@dataclass
class _Node:
    label: str
    words: list[str]
    texts: list[str] = field(default_factory=list)
    shapes: list[Shape] = field(default_factory=list)


def read_svg(data: bytes) -> Drawing:
    """Pieces from an SVG file, in millimetres. Raises :class:`BadDrawing` when nothing can be made of it."""
    if len(data) > MAX_BYTES:
        raise BadDrawing(f"The drawing is larger than {MAX_BYTES // 1_000_000} MB. Save the pieces without pictures.")
    try:
        root = ElementTree.parse(io.BytesIO(data), forbid_dtd=False).getroot()
    except DefusedXmlException:
        raise BadDrawing(
            "The drawing defines entities or fetches other files, which is not allowed here. Save it as plain SVG."
        ) from None
    except (ParseError, ValueError, LookupError) as error:
        raise BadDrawing(f"This is not an SVG drawing: {error}.") from None
    if _tag(root) != "svg":
        raise BadDrawing(f"This is not an SVG drawing; its outermost element is “{_tag(root)[:30]}”.")
    reader = _Reader({str(one.get("id")): one for one in root.iter() if one.get("id")})
    reader.group(root, _page_matrix(root), top=True)
    reader.finish()
    if not reader.pieces and not reader.not_read:
        raise BadDrawing("The drawing is empty: there is no closed path or polygon in it.")
    return Found(tuple(reader.pieces), tuple(reader.not_read), tuple(reader.mended))


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
        self.not_read: list[NotRead] = []
        self.mended: list[Mended] = []
        #: the size of the layer that is being read, and what such layers show, by the pieces' names
        self.size: str | None = None
        self.sized: dict[str, list[tuple[str, Drawn]]] = {}
        self.elements = 0
        self.points = 0

    def skip(self, code: str, place: str, why: str) -> None:
        if len(self.not_read) < MOST_REMARKS:
            self.not_read.append(NotRead(code, place, why))

    def mend(self, code: str, place: str, how: str) -> None:
        if len(self.mended) < MOST_REMARKS:
            self.mended.append(Mended(code, place, how))

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
            self.skip("transform", name, "its transform could not be read")
            return
        if tag in ("g", "a", "svg"):
            if tag == "svg":
                self.skip("nested", name, "a drawing inside the drawing; ungroup it first")
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
            self.skip("not_a_shape", name, why)

    def clone(self, element: Element, name: str, matrix: Any, node: _Node, depth: int) -> None:
        """What a clone shows, where it shows it."""
        _not_deeper(depth)
        href = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
        target = self.by_id.get(href.removeprefix("#")) if href.startswith("#") else None
        if target is None:
            self.skip("clone", name, "a clone of something that is not in this drawing")
            return
        try:
            x, y = (float(Length(element.get(key) or 0).value(ppi=96.0)) for key in ("x", "y"))
        except (ValueError, TypeError, AttributeError):
            self.skip("numbers", name, "its numbers could not be read")
            return
        moved = Matrix.translate(x, y) * matrix
        self.count()
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
            self.skip("numbers", name, "its numbers could not be read")
            return
        for points, closed in runs:
            if not all(math.isfinite(c) for p in points for c in p):
                self.skip("numbers", name, "its numbers could not be read")
                continue
            self.points += len(points)
            if self.points > MAX_ALL_POINTS:
                raise BadDrawing(f"The drawing has more than {MAX_ALL_POINTS} points. Simplify its curves.")
            if len(points) >= 2:
                node.shapes.append(Shape(_label(element), _words(element), points, closed))

    def close(self, node: _Node, *, single: bool) -> None:
        """Make pieces of what a group held."""
        marks = [s for s in node.shapes if is_mark(s)]
        closed = [s for s in node.shapes if s.closed and not is_mark(s)]
        lines = [s for s in node.shapes if not s.closed and not is_mark(s)]
        graded = [s for s in closed if size_of(s)]
        alone = "piece" in node.words or len(closed) == 1 or len(graded) == len(closed)
        if single and closed and alone:
            outlines = graded if len(graded) > 1 else [max(closed, key=lambda s: abs(_area(s.points)))]
            for other in closed:
                if other not in outlines:
                    self.skip(
                        "inner_outline",
                        other.label or "a shape inside a piece",
                        "inside another outline; only the largest closed shape of a piece is its cut line",
                    )
            words = [*node.words, *(w for o in outlines for w in o.words), *(w for t in node.texts for w in _split(t))]
            name = node.label or next((t for t in node.texts if not _says_something(t)), "") or outlines[0].label
            self.found(name, Drawn(words, node.texts, outlines, lines, marks))
            return
        for shape in closed:
            self.found(shape.label, Drawn(shape.words, [], [shape], [], []))
        for line in [*lines, *marks]:
            self.skip("stray_line", line.label or "an open line", "not closed, and not inside the group of one piece")
        for text in node.texts:
            if closed and text:
                self.skip("stray_label", f"the label “{text[:40]}”", "not inside the group of one piece")

    def found(self, name: str, drawn: Drawn) -> None:
        """A piece, or what one layer shows of a piece in one size."""
        name = (name or f"piece {len(self.pieces) + 1}")[:80]
        if self.size is None:
            self.piece(name, drawn)
        else:
            self.sized.setdefault(name, []).append((self.size, drawn))

    def finish(self) -> None:
        """The pieces whose sizes lie on layers of their own, once all are read."""
        for name, layers in self.sized.items():
            self.piece(name, all_sizes(layers) if len(layers) > 1 else layers[0][1])

    def piece(self, name: str, drawn: Drawn) -> None:
        words, texts, outlines, lines, marks = drawn.words, drawn.texts, drawn.outlines, drawn.lines, drawn.marks
        fold: Shape | None = None
        grain_line: Shape | None = None
        for line in lines:
            if len(line.points) != 2 or math.dist(line.points[0], line.points[1]) < 1.0:
                self.skip(
                    "open_curve",
                    line.label or f"a line in {name}",
                    "an open curve; only straight lines have a meaning here",
                )
            elif "fold-edge" in line.words or line.label.lower().startswith("fold-edge"):
                fold = line
            elif grain_line is None or "grainline" in line.words:
                grain_line = line
            else:
                self.skip(
                    "second_grainline", line.label or f"a second line in {name}", "the piece has a grainline already"
                )
        said = _Said.of(words, texts)
        for word in said.unknown:
            self.skip("allowance", f"“{word}” in {name}", "could not be read as a length")
        try:
            fault = next((told for one in outlines if (told := polygon_fault(one.points))), None)
            if fault is not None:
                raise BadPiece(f"the outline {fault}.")
            axes = axes_of(outlines[0].points, grain_line, fold)
            draft, sizes, faults = draft_of(outlines, axes, marks)
            how = HowCut(said.copies, said.pair, fold is not None, said.grain, said.one_way, said.seam)
            read = PieceRead(name, draft, how, sizes)
            cut_line(read.piece)
        except BadPiece as error:
            self.skip("cannot_be_cut", name, str(error).split(": ", 1)[-1])
            return
        for told in faults:
            self.skip("mark", name, told)
        if grain_line is None and fold is None:
            self.mend(
                "no_grainline", f"{name}: grainline", "none is drawn; the drawing's left-to-right is taken as the grain"
            )
        self.pieces.append(read)


def _label(element: Element) -> str:
    for child in element:
        if _tag(child) == "title" and child.text and child.text.strip():
            return " ".join(child.text.split())
    for key, value in element.attrib.items():
        if key.endswith("}label") and value.strip():
            return " ".join(value.split())
    return element.get("id", "").strip()


def _words(element: Element) -> list[str]:
    return [*element.get("class", "").lower().split(), *([element.get("id", "").lower()] if element.get("id") else [])]


def _split(text: str) -> list[str]:
    return re.findall(r"[^\s,;]+", text.lower())


_SAYS = re.compile(
    r"\b(?:copies\s*[-:=]?\s*(\d{1,3})|(\d{1,3})\s*copies)\b|\bpair\b|\bcross[- ]grain\b|\bbias\b|\bany[- ]grain\b"
    r"|\bone[- ]way\b|\badd[- ](?:seam[- ])?([\d./,⁄½¼¾⅛⅜⅝⅞]+\s*(?:mm|cm|in|\"))",
    re.IGNORECASE,
)


def _says_something(text: str) -> bool:
    return _SAYS.search(text) is not None


@dataclass
class _Said:
    copies: int = 1
    pair: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0
    unknown: list[str] = field(default_factory=list)

    @classmethod
    def of(cls, words: list[str], texts: list[str]) -> _Said:
        said = cls()
        for found in _SAYS.finditer(" ; ".join([*words, *texts])):
            said._take(found)
        if said.pair and said.copies == 1:
            # "pair" alone means one of each
            said.copies = 2
        return said

    def _take(self, found: re.Match[str]) -> None:
        """One thing that is said."""
        text = found.group(0).lower().replace(" ", "-")
        if "copies" in text:
            self.copies = int(found.group(1) or found.group(2))
        elif text == "pair":
            self.pair = True
        elif text == "one-way":
            self.one_way = True
        elif text in _GRAIN_WORDS:
            self.grain = _GRAIN_WORDS[text]
        else:
            try:
                self.seam = read_length(found.group(3))
            except BadEntry:
                self.unknown.append(found.group(0))


_GRAIN_WORDS: dict[str, Grain] = {"cross-grain": "crosswise", "bias": "bias", "any-grain": "any"}


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


def _area(points: list[Point]) -> float:
    return 0.5 * sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True))
