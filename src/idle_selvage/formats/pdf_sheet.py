"""The sheet for the table as PDF: lay map, pieces in the order they are cut, how to fold, match, mark and hold."""

from __future__ import annotations

from collections.abc import Sequence
from io import BytesIO
from typing import Any

from reportlab.lib import colors
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from ..core.cut.sheet import CutSheet, SheetLay, SheetRow, arrow_told, marks_told, place_told, stops_told
from ..core.lay.drawing import Drawing
from ..core.plan.tiles import PAPERS
from ..core.units import MM_PER_INCH, System
from ..core.wording import say
from ..core.working import Figure
from ..core.written import length_text, quantity_text
from .pdf_page import FONT, STRONG, register_fonts

#: What is left free round the page, mm.
EDGE_MM = 12.0
#: The map is at most so high, mm.
MAP_MM = 105.0
INK = colors.HexColor("#1d2027")
RULE = colors.HexColor("#8a8478")

_TEXT = ParagraphStyle("text", fontName=FONT, fontSize=9, leading=11, textColor=INK)
_SMALL = ParagraphStyle("small", parent=_TEXT, fontSize=7.5, leading=9)
_HEAD = ParagraphStyle("head", parent=_TEXT, fontName=STRONG, fontSize=16, leading=19)
_PART = ParagraphStyle("part", parent=_TEXT, fontName=STRONG, fontSize=10.5, leading=13, spaceBefore=5, spaceAfter=1)


def write_sheet(sheet: CutSheet, *, paper: str, system: System) -> bytes:
    """The sheet as PDF."""
    register_fonts()
    wide, high = PAPERS[paper]
    file = BytesIO()
    title = f"{sheet.garment}: {sheet.cloth}"
    document = SimpleDocTemplate(
        file, pagesize=(wide * mm, high * mm), leftMargin=EDGE_MM * mm, rightMargin=EDGE_MM * mm,
        topMargin=EDGE_MM * mm, bottomMargin=EDGE_MM * mm, title=title, author="Idle Selvage", invariant=1,
    )  # fmt: skip
    room = wide - 2 * EDGE_MM
    story: list[Any] = [
        Paragraph(_plain(title), _HEAD),
        Paragraph(_plain(_under(sheet, system)), _TEXT),
        Spacer(1, 3 * mm),
    ]
    for number, lay in enumerate(sheet.lays, start=1):
        if len(sheet.lays) > 1:
            story.append(Paragraph(_plain(f"Lay {number}, on {lay.cloth}"), _PART))
        story += [
            _Map(lay.drawing, {row.piece.key: row.number for row in lay.rows}, room, system),
            *_parts(lay, system),
            Paragraph("Pieces in the order they are cut", _PART),
            _table(lay.rows, room, system),
        ]
    if sheet.matching:
        story += _list("Matching", sheet.matching, system)
    story += _list("How to hold and cut this cloth", sheet.handling, system)
    story += _list("How to mark", sheet.marking, system)
    story += _list("Take care", sheet.cautions, system)
    if sheet.materials:
        story += _list("Have at hand", sheet.materials, system)
    story += _notes(sheet.figures, system)

    def foot(canvas: Any, doc: Any) -> None:
        canvas.setFont(FONT, 8)
        canvas.drawString(EDGE_MM * mm, 6 * mm, title)
        canvas.drawRightString((wide - EDGE_MM) * mm, 6 * mm, f"page {doc.page}")

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return file.getvalue()


def _plain(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def _under(sheet: CutSheet, system: System) -> str:
    size = f"size {sheet.size}, " if sheet.size else ""
    return f"{size}{sheet.copies} pieces to cut. Tick each as it is cut: □"


def _parts(lay: SheetLay, system: System) -> list[Any]:
    out: list[Any] = []
    for name, steps in lay.folding:
        told = " ".join(f"{k}. {say(step, system)}" for k, step in enumerate(steps, start=1))
        out.append(Paragraph(f"<b>{_plain(name)}</b>: {_plain(told)}", _TEXT))
    return [Paragraph("How to fold", _PART), *out] if out else []


def _table(rows: Sequence[SheetRow], room: float, system: System) -> Table:
    head = ["", "Piece", "Along the cloth", "Arrow, tail and head", "Paper, way, layers", "Notches, along / in", "Cut"]
    body = [[Paragraph(f"<b>{name}</b>", _SMALL) for name in head]]
    for row in rows:
        shape = row.piece.shape
        stop = stops_told(row)
        name = f"<b>{_plain(shape.name)}</b>" + (f"<br/>{_plain(stop)}" if stop else "")
        fold = f"<br/>{_plain(row.fold)}" if row.fold else ""
        way = f"{row.piece.paper}; {row.piece.turned}; {row.piece.layers.removeprefix('through ')}"
        body.append(
            [
                Paragraph(f"<b>{row.number}</b>", _TEXT),
                Paragraph(name + fold, _SMALL),
                Paragraph(_plain(say(place_told(row.piece), system)), _SMALL),
                Paragraph(_plain(say(arrow_told(row.piece), system)), _SMALL),
                Paragraph(_plain(way), _SMALL),
                Paragraph(_plain(say(marks_told(row.piece), system)), _SMALL),
                Paragraph(" ".join("□" for _ in range(row.copies)), _TEXT),
            ]
        )
    shares = (0.045, 0.165, 0.15, 0.165, 0.215, 0.185, 0.075)
    table = Table(body, colWidths=[room * share * mm for share in shares], repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, RULE),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LEFTPADDING", (0, 0), (-1, -1), 2),
                ("RIGHTPADDING", (0, 0), (-1, -1), 2),
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ]
        )
    )
    return table


def _list(name: str, texts: Sequence[str], system: System) -> list[Any]:
    lines = [Paragraph(f"– {_plain(say(text, system))}", _TEXT) for text in texts]
    return [KeepTogether([Paragraph(name, _PART), *lines[:1]]), *lines[1:]]


def _notes(figures: Sequence[tuple[str, Figure]], system: System) -> list[Any]:
    """The working of the main figures, as footnotes."""
    out: list[Any] = []
    for number, (name, figure) in enumerate(figures, start=1):
        told = []
        for step in figure.steps:
            put = ", ".join(f"{what} {quantity_text(value, system, fine=True)}" for what, value in step.inputs)
            result = quantity_text(step.result, system, fine=True)
            told.append(f"{step.label}: {step.formula} = {result}" + (f" ({put})" if put else ""))
        value = quantity_text(figure.quantity, system)
        out.append(Paragraph(_plain(f"{number} {name}: {value}. {'; '.join(told)}."), _SMALL))
    return [Paragraph("Working", _PART), *out] if out else []


class _Map(Flowable):  # type: ignore[misc]
    """The lay small, with a ruler along its near edge and every piece's number."""

    def __init__(self, drawing: Drawing, numbers: dict[str, int], room: float, system: System) -> None:
        super().__init__()
        self._drawing, self._numbers, self._system = drawing, numbers, system
        low, high = drawing.low, drawing.high
        self._scale = min(room / drawing.length, (MAP_MM - 8) / (high - low))
        self.width, self.height = room * mm, ((high - low) * self._scale + 8) * mm

    def wrap(self, _wide: float, _high: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        canvas, drawing, scale = self.canv, self._drawing, self._scale
        low = drawing.low

        def at(x: float, y: float) -> tuple[float, float]:
            return x * scale * mm, ((y - low) * scale + 7) * mm

        canvas.setStrokeColor(RULE)
        canvas.setLineWidth(0.6)
        for one in drawing.stretches:
            for line in one.lines:
                canvas.setDash([4, 2] if line.kind in ("fold", "crease") else [])
                canvas.setLineWidth(1.2 if line.kind == "fold" else 0.6)
                canvas.line(*at(*line.start), *at(*line.end))
            canvas.setDash([])
            canvas.setLineWidth(0.6)
            canvas.line(*at(one.start, one.low), *at(one.start, one.high))
            canvas.line(*at(one.end, one.low), *at(one.end, one.high))
        canvas.setStrokeColor(INK)
        for shape in drawing.shapes:
            path = canvas.beginPath()
            path.moveTo(*at(*shape.outline[0]))
            for place in shape.outline[1:]:
                path.lineTo(*at(*place))
            path.close()
            # two layers are dashed nowhere: a second, inner number says so in black and white
            canvas.setLineWidth(0.9 if shape.layers == 2 else 0.5)
            canvas.drawPath(path, stroke=1, fill=0)
            (tx, ty), (hx, hy) = shape.tail, shape.head
            canvas.setLineWidth(0.3)
            canvas.line(*at(tx, ty), *at(hx, hy))
            mx, my = at((tx + hx) / 2, (ty + hy) / 2)
            number = self._numbers.get(shape.pinned)
            if number is not None:
                canvas.setFont(STRONG, 10)
                canvas.drawCentredString(mx, my + 1, str(number))
        self._ruler(canvas, drawing, at)

    def _ruler(self, canvas: Any, drawing: Drawing, at: Any) -> None:
        step = 100.0 if self._system == "metric" else 4 * MM_PER_INCH
        every = 1
        while step * every * self._scale < 9:
            every += 1
        k = 0
        canvas.setFont(FONT, 6.5)
        while k * step <= drawing.length + 0.01:
            x, y = at(k * step, drawing.low)
            canvas.setLineWidth(0.4)
            canvas.line(x, y, x, y - 5)
            if k % every == 0:
                canvas.drawCentredString(x, y - 12, length_text(k * step, self._system))
            k += 1
