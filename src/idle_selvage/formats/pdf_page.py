"""PDF pages: the embedded font, paper, lines at their true size. Everything is drawn by reportlab."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache
from io import BytesIO
from pathlib import Path
from typing import Any

from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from ..core.plan.outline import Point
from ..core.plan.tiles import PAPERS

FONT, STRONG = "SourceSans3", "SourceSans3-Semibold"
_FONTS = Path(__file__).parent / "fonts"


@cache
def register_fonts() -> None:
    """Make the fonts known, once: open ones with fractions, which ship with the package (fonts/LICENSE.md)."""
    for name, file in ((FONT, "SourceSans3-Regular.ttf"), (STRONG, "SourceSans3-Semibold.ttf")):
        pdfmetrics.registerFont(TTFont(name, str(_FONTS / file)))
    pdfmetrics.registerFontFamily(FONT, normal=FONT, bold=STRONG, italic=FONT, boldItalic=STRONG)


class Pages:
    """A document of pages of one paper; places are mm from the lower left corner. The same content gives the same
    bytes."""

    def __init__(self, paper: str, title: str) -> None:
        register_fonts()
        self.wide, self.high = PAPERS[paper]
        self._file = BytesIO()
        self.canvas: Any = Canvas(self._file, pagesize=(self.wide * mm, self.high * mm), invariant=1)
        self.canvas.setTitle(title)
        self.canvas.setCreator("Idle Selvage")

    def line(
        self, points: Sequence[Point], *, closed: bool = False, wide: float = 0.3, dash: Sequence[float] = ()
    ) -> None:
        """A run of points, mm; ``wide``: its pen, mm."""
        path = self.canvas.beginPath()
        path.moveTo(points[0][0] * mm, points[0][1] * mm)
        for x, y in points[1:]:
            path.lineTo(x * mm, y * mm)
        if closed:
            path.close()
        self.canvas.setLineWidth(wide * mm)
        self.canvas.setDash([d * mm for d in dash] if dash else [])
        self.canvas.drawPath(path, stroke=1, fill=0)

    def text(self, x: float, y: float, said: str, *, size: float = 9, strong: bool = False, to: str = "left") -> None:
        """A line of text with its foot at a place, mm; ``size`` in points."""
        self.canvas.setFont(STRONG if strong else FONT, size)
        draw = {"left": self.canvas.drawString, "middle": self.canvas.drawCentredString,
                "right": self.canvas.drawRightString}[to]  # fmt: skip
        draw(x * mm, y * mm, said)

    def clip(self, x: float, y: float, wide: float, high: float) -> None:
        """Draw only inside a rectangle until :meth:`unclip`."""
        self.canvas.saveState()
        path = self.canvas.beginPath()
        path.rect(x * mm, y * mm, wide * mm, high * mm)
        self.canvas.clipPath(path, stroke=0, fill=0)

    def unclip(self) -> None:
        self.canvas.restoreState()

    def next(self) -> None:
        """Turn the page."""
        self.canvas.showPage()

    def bytes(self) -> bytes:
        """The document."""
        self.canvas.save()
        return self._file.getvalue()
