"""Paper that measures by itself: the swatch template, gauges of allowances, a ruler, and labels for cut pieces."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth

from ..core.cut.labels import Label
from ..core.cut.template import Gauge, graduations
from ..core.plan.outline import Outline
from ..core.plan.tiles import CHECK_MM, MARGIN_MM, OVERLAP_MM, Page, pages
from ..core.units import MM_PER_INCH, System
from ..core.written import length_text
from .pdf_page import STRONG, Pages

#: A graduation is so long, mm; a numbered one this much longer.
TICK_MM, NUMBERED_MM = 8.0, 6.0


def write_swatch(side: float, *, paper: str, system: System) -> bytes:
    """The template of a swatch of ``side`` mm: its near corner on the lower left, shrinkage read at its far edges.
    Raises BadTemplate."""
    marks = graduations(side)
    far = max(one.at for one in marks)
    room = far + NUMBERED_MM + TICK_MM + 8
    # x runs up the page and y to its left, so the corner where it is laid is at the lower right of what is tiled
    whole: Outline = ((0.0, 0.0), (room, 0.0), (room, room), (0.0, room))
    found = pages([whole], paper)
    out = Pages(paper, "Swatch template")
    for k, page in enumerate(found):
        if k:
            out.next()
        _swatch_page(out, page, side, room, system, len(found))
    return out.bytes()


def _swatch_page(out: Pages, page: Page, side: float, room: float, system: System, of: int) -> None:
    # the square's corner stands at (−room, 0) of the upright picture, so that both edges are read rightwards and
    # upwards
    dx, dy = MARGIN_MM - page.x - room, MARGIN_MM - page.y
    out.clip(MARGIN_MM, MARGIN_MM, page.width, page.height)
    marks = graduations(side)
    least, most = min(one.at for one in marks), max(one.at for one in marks)
    out.line([(dx, dy + most), (dx, dy), (dx + most, dy)], wide=0.6)
    for one in marks:
        long = TICK_MM + (NUMBERED_MM if one.numbered else 0.0)
        pen = 0.5 if one.percent == 0 else 0.2
        out.line([(dx + one.at, dy), (dx + one.at, dy + long)], wide=pen)
        out.line([(dx, dy + one.at), (dx + long, dy + one.at)], wide=pen)
        if one.numbered:
            said = "0" if one.percent == 0 else f"{one.percent:g}" if one.percent > 0 else f"+{-one.percent:g}"
            out.text(dx + one.at, dy + long + 1, said, size=6, to="middle")
            out.text(dx + long + 1, dy + one.at - 0.8, said, size=6)
    square = [(dx, dy), (dx + side, dy), (dx + side, dy + side), (dx, dy + side)]
    out.line(square, closed=True, wide=0.2, dash=(3, 2))
    if side > CHECK_MM:
        middle = [(dx + side / 2, dy + side / 2 - 10), (dx + side / 2, dy + side / 2 + 10)]
        out.line(middle, wide=0.2)
    told = [
        f"Swatch template, {length_text(side, system)} square before washing",
        "Lay a corner of the washed swatch here, its edges along both thick lines.",
        "Where its far edge ends, read its shrinkage in per cent; + has grown.",
    ]
    for k, text in enumerate(told):
        out.text(
            dx + TICK_MM + NUMBERED_MM + 12, dy + least * 0.5 - 5 * k, text, size=10 if k == 0 else 8, strong=k == 0
        )
    out.unclip()
    foot = f"{page.name} of {of}: print at 100 %; the dashed square measures {length_text(side, system)}"
    out.text(MARGIN_MM, 4, foot, size=8)
    if of > 1:
        half = OVERLAP_MM / 2
        for x in (MARGIN_MM + half, MARGIN_MM + page.width - half):
            for y in (MARGIN_MM + half, MARGIN_MM + page.height - half):
                out.line([(x - 2.5, y), (x + 2.5, y)], wide=0.2)
                out.line([(x, y - 2.5), (x, y + 2.5)], wide=0.2)


def write_gauges(found: Sequence[Gauge], *, paper: str, system: System) -> bytes:
    """Strips as wide as the allowances that are used, to cut out of card and chalk along, each graduated along its
    edge."""
    out = Pages(paper, "Chalk gauges")
    out.text(
        MARGIN_MM,
        out.high - 16,
        "Chalk gauges: cut out, lay on the edge, chalk along the other side",
        size=12,
        strong=True,
    )
    y = out.high - 26
    for gauge in found:
        if y - gauge.wide < MARGIN_MM:
            out.next()
            y = out.high - 20
        _strip(out, MARGIN_MM, y - gauge.wide, out.wide - 2 * MARGIN_MM, gauge.wide, system)
        said = f"{length_text(gauge.wide, system)}: {', '.join(gauge.used_by)}"
        # a narrow strip has no room inside
        if gauge.wide >= 12:
            out.text(MARGIN_MM + 4, y - gauge.wide / 2 - 1, said, size=9)
            y -= gauge.wide + 8
        else:
            out.text(MARGIN_MM + 4, y - gauge.wide - 4, said, size=9)
            y -= gauge.wide + 12
    return out.bytes()


def _strip(out: Pages, x: float, y: float, wide: float, high: float, system: System) -> None:
    out.line([(x, y), (x + wide, y), (x + wide, y + high), (x, y + high)], closed=True, wide=0.3)
    step = 10.0 if system == "metric" else MM_PER_INCH / 4
    k = 0
    while k * step <= wide:
        whole = k % 5 == 0 if system == "metric" else k % 4 == 0
        long = min(high / 2, 3.0 if whole else 1.8)
        out.line([(x + k * step, y + high), (x + k * step, y + high - long)], wide=0.15)
        k += 1


#: A label on the sheet, mm: three columns on either paper.
LABEL_MM = (62.0, 34.0)


def write_labels(found: Sequence[Label], *, paper: str) -> bytes:
    """Labels, to be cut apart and pinned to the wrong side of each copy."""
    out = Pages(paper, "Labels for cut pieces")
    wide, high = LABEL_MM
    columns = int((out.wide - 2 * MARGIN_MM) // wide)
    rows = int((out.high - 2 * MARGIN_MM) // high)
    for k, label in enumerate(found):
        at = k % (columns * rows)
        if k and at == 0:
            out.next()
        x = MARGIN_MM + (at % columns) * wide
        y = out.high - MARGIN_MM - (at // columns + 1) * high
        _label(out, x, y, label)
    return out.bytes()


def _label(out: Pages, x: float, y: float, label: Label) -> None:
    wide, high = LABEL_MM
    out.line([(x, y), (x + wide, y), (x + wide, y + high), (x, y + high)], closed=True, wide=0.15, dash=(2, 1))
    out.text(x + 3, y + high - 8, _short(label.piece, wide - 14, 13), size=13, strong=True)
    copies = f"{label.copy} of {label.of}" + (f", {label.face}" if label.face else "")
    out.text(x + 3, y + high - 14, copies, size=10)
    out.text(x + 3, y + high - 19, label.grain + (f", size {label.size}" if label.size else ""), size=9)
    out.text(x + 3, y + high - 24, _short(label.cloth, wide - 6, 9), size=9)
    out.text(x + 3, y + 3, _short(f"{label.garment} · this is the wrong side", wide - 6, 8), size=8)
    # which way its top points
    tip = x + wide - 6
    out.line([(tip, y + high - 14), (tip, y + high - 4)], wide=0.3)
    out.line([(tip - 2, y + high - 7), (tip, y + high - 4), (tip + 2, y + high - 7)], wide=0.3)
    out.text(tip, y + high - 18, "top", size=6, to="middle")


def _short(said: str, wide: float, size: float) -> str:
    """What of a text has room, mm."""
    if stringWidth(said, STRONG, size) <= wide * mm:
        return said
    while said and stringWidth(said + "…", STRONG, size) > wide * mm:
        said = said[:-1]
    return said.rstrip() + "…"
