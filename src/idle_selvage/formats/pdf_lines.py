"""The lines and words of a PDF page by page, in millimetres: vector paths only; a scanned page has none."""

from __future__ import annotations

import io
import re
import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from pdfminer.converter import PDFPageAggregator
from pdfminer.layout import LAParams, LTTextLine
from pdfminer.pdfinterp import PDFPageInterpreter, PDFResourceManager
from pdfminer.pdfpage import PDFPage
from pdfminer.pdftypes import PDFStream, resolve1
from pdfminer.utils import apply_matrix_pt

from ..core.plan.curve import chords
from ..core.plan.outline import Point
from .audit import Unreadable

MM_PER_POINT = 25.4 / 72
MAX_BYTES = 30_000_000
MAX_PAGES = 300
MAX_POINTS = 300_000
#: A page's drawing, unpacked, is at most so large.
MAX_CONTENT = 20_000_000
#: Curves become chords that stray from them by at most this.
FLATNESS_MM = 0.02


#: White on white cannot be seen.
WHITE = "#ffffff"


class BadPdf(Unreadable):
    """A PDF from which nothing can be read; the message is a sentence."""


@dataclass(frozen=True)
class Stroke:
    """One line as it is drawn: its points (mm from the lower left corner of the page), whether it closes, its style:
    the colour, and “dashed” where it is."""

    points: tuple[Point, ...]
    closed: bool
    style: str


@dataclass(frozen=True)
class Words:
    """A line of text: where its middle lies, how large it is, mm."""

    text: str
    at: Point
    size: float


@dataclass(frozen=True)
class PdfPage:
    """One page: its number from 1, its size in mm, what is drawn on it, how many pictures it holds."""

    number: int
    wide: float
    high: float
    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]
    pictures: int


def read_pages(data: bytes) -> tuple[PdfPage, ...]:
    """Every page of a PDF. Raises :class:`BadPdf`."""
    if len(data) > MAX_BYTES:
        raise BadPdf(f"The file is larger than {MAX_BYTES // 1_000_000} MB. Save only the pages with the pieces.")
    if not data.lstrip()[:5].startswith(b"%PDF-"):
        raise BadPdf("This is not a PDF file.")
    manager = PDFResourceManager()
    device = _Device(manager)
    interpreter = _Interpreter(manager, device)
    out = []
    lines = 0
    try:
        for number, page in enumerate(PDFPage.get_pages(io.BytesIO(data), check_extractable=False), start=1):
            if number > MAX_PAGES:
                raise BadPdf(f"The file has more than {MAX_PAGES} pages. Save only those with the pieces.")
            lines += _lines_in(page)
            if lines > MAX_POINTS:
                # before they are read: that would take its time
                raise BadPdf(f"The file has more than {MAX_POINTS} points. Save only the pages with the pieces.")
            device.begin()
            interpreter.process_page(page)
            out.append(device.page(number, page))
    except BadPdf:
        raise
    except Exception as fault:
        # whatever a broken file makes of the reader
        if type(fault).__name__ == "PDFPasswordIncorrect":
            raise BadPdf("This PDF asks for a password. Save it without one, and read that.") from None
        if not out:
            raise BadPdf("This PDF is broken: no page of it can be read.") from None
    if not out:
        raise BadPdf("There is no page in this PDF.")
    return tuple(out)


#: What draws a line or a curve in a page's content.
_DRAWS = re.compile(rb"[\d.]\s+[lcvy]\s")


def _lines_in(page: Any) -> int:
    """How many lines and curves a page draws, about. Raises :class:`BadPdf` for one that unpacks to far more."""
    found = 0
    for one in page.contents or []:
        stream = resolve1(one)
        raw = stream.get_rawdata() if isinstance(stream, PDFStream) else None
        if raw is None:
            continue
        unpacked = zlib.decompressobj()
        try:
            data = unpacked.decompress(raw, MAX_CONTENT)
        except zlib.error:
            # not packed, or packed otherwise
            found += sum(1 for _ in _DRAWS.finditer(raw))
            continue
        if unpacked.unconsumed_tail:
            raise BadPdf(f"One page holds more than {MAX_CONTENT // 1_000_000} MB of drawing. Save only the pieces.")
        found += sum(1 for _ in _DRAWS.finditer(data))
    return found


class _Device(PDFPageAggregator):
    """Keeps paths as they are drawn, and words as they stand."""

    def __init__(self, manager: PDFResourceManager) -> None:
        super().__init__(manager, laparams=LAParams())
        self.points = 0
        self.begin()

    def begin(self) -> None:
        """For the next page."""
        self.strokes: list[Stroke] = []
        self.pictures = 0

    def paint_path(self, gstate: Any, stroke: bool, fill: bool, evenodd: bool, path: Sequence[Any]) -> None:
        style = _style(gstate, stroke)
        if not stroke and (not fill or style == WHITE):
            # a page is laid out in white by some writers
            return
        for points, closed in _runs(path, self.ctm):
            self.points += len(points)
            if self.points > MAX_POINTS:
                raise BadPdf(f"The file has more than {MAX_POINTS} points. Save only the pages with the pieces.")
            if len(points) > 1:
                self.strokes.append(Stroke(tuple(points), closed, style))

    def render_image(self, name: str, stream: Any) -> None:
        self.pictures += 1

    def page(self, number: int, page: Any) -> PdfPage:
        """What was drawn on it."""
        words: list[Words] = []
        _find(self.get_result(), words)
        x0, y0, x1, y1 = (float(side) for side in page.mediabox)
        wide, high = (x1 - x0) * MM_PER_POINT, (y1 - y0) * MM_PER_POINT
        if page.rotate in (90, 270):
            wide, high = high, wide
        return PdfPage(number, wide, high, tuple(self.strokes), tuple(words), self.pictures)


class _Interpreter(PDFPageInterpreter):
    """Ends a path that is too long before it is whole."""

    def _counted(self) -> None:
        if len(self.curpath) > MAX_POINTS:
            raise BadPdf(f"The file has more than {MAX_POINTS} points. Save only the pages with the pieces.")

    def do_l(self, x: Any, y: Any) -> None:
        super().do_l(x, y)
        self._counted()

    def do_m(self, x: Any, y: Any) -> None:
        super().do_m(x, y)
        self._counted()

    def do_c(self, x1: Any, y1: Any, x2: Any, y2: Any, x3: Any, y3: Any) -> None:
        super().do_c(x1, y1, x2, y2, x3, y3)
        self._counted()


def _find(item: Any, words: list[Words]) -> None:
    if isinstance(item, LTTextLine):
        text = " ".join(item.get_text().split())
        if text:
            at = ((item.x0 + item.x1) / 2 * MM_PER_POINT, (item.y0 + item.y1) / 2 * MM_PER_POINT)
            words.append(Words(text[:200], at, item.height * MM_PER_POINT))
        return
    try:
        parts = list(item)
    except TypeError:
        return
    for part in parts:
        _find(part, words)


def _runs(path: Sequence[Any], matrix: Any) -> list[tuple[list[Point], bool]]:
    out: list[tuple[list[Point], bool]] = []
    points: list[Point] = []

    def at(x: float, y: float) -> Point:
        px, py = apply_matrix_pt(matrix, (float(x), float(y)))
        return (px * MM_PER_POINT, py * MM_PER_POINT)

    for part in path:
        kind, places = part[0], part[1:]
        if kind == "m":
            if len(points) > 1:
                out.append((points, False))
            points = [at(*places)]
        elif kind == "l" and points:
            points.append(at(*places))
        elif kind in "cvy" and points:
            given = [at(*places[k : k + 2]) for k in range(0, len(places), 2)]
            # “v” begins, “y” ends with its own end as control
            control = given if kind == "c" else [points[-1], *given] if kind == "v" else [*given, given[-1]]
            points += [*chords([points[-1], *control], FLATNESS_MM)[1:], control[-1]]
        elif kind == "h":
            if len(points) > 2:
                out.append((points, True))
            points = points[:1]
    if len(points) > 1:
        out.append((points, False))
    return out


def _style(gstate: Any, stroke: bool) -> str:
    colour = gstate.scolor if stroke else gstate.ncolor
    dash = gstate.dash[0] if stroke and gstate.dash else None
    return _hex(colour) + (" dashed" if dash else "")


def _hex(colour: Any) -> str:
    """A colour as “#rrggbb”: of grey, red-green-blue, or the four inks of printing; black where it is none of these."""
    try:
        parts = [float(one) for one in (colour if isinstance(colour, tuple | list) else (colour,))]
    except (TypeError, ValueError):
        return "#000000"
    if len(parts) == 4:
        c, m, y, k = parts
        parts = [(1 - c) * (1 - k), (1 - m) * (1 - k), (1 - y) * (1 - k)]
    if len(parts) == 1:
        parts = parts * 3
    if len(parts) != 3:
        return "#000000"
    return "#" + "".join(f"{round(255 * min(1.0, max(0.0, one))):02x}" for one in parts)
