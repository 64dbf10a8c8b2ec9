"""A piece at its true size on many sheets of paper: which part of it is on which."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shapely.geometry import Polygon, box

from .outline import Outline

#: Printers leave so much free at every side, and pages overlap by so much to be taped together, mm.
MARGIN_MM = 10.0
OVERLAP_MM = 10.0
#: A square of so much is printed on the first page, to be measured: right when it measures so.
CHECK_MM = 100.0
#: Sheets of paper, mm, upright. ISO 216 for A4 and A3; US letter 8½ × 11 in by ANSI Y14.1, from memory.
PAPERS: dict[str, tuple[float, float]] = {"a4": (210.0, 297.0), "a3": (297.0, 420.0), "letter": (215.9, 279.4)}
#: No piece needs more pages than a long coat's back.
MOST_PAGES = 120
#: And no lay more than a long one of wide cloth on small paper.
MOST_LAY_PAGES = 400


@dataclass(frozen=True)
class Page:
    """One sheet: its row from the top and its column from the left, counted from 1; the corner (low, left to right) of
    what it shows and its size, mm, with the piece standing upright."""

    row: int
    column: int
    x: float
    y: float
    width: float
    height: float

    @property
    def name(self) -> str:
        """Letters for rows, numbers for columns: “B3”."""
        return f"{chr(ord('A') + self.row - 1) if self.row <= 26 else self.row}{self.column}"


class TooManyPages(ValueError):
    """A piece that would take more pages than anyone tapes together."""


def pages(outlines: Sequence[Outline], paper: str, most: int = MOST_PAGES) -> tuple[Page, ...]:
    """The sheets that outlines take, upright (along → up, across → left), row after row; empty ones are left out.

    Raises :class:`TooManyPages`.
    """
    wide, high = (side - 2 * MARGIN_MM for side in PAPERS[paper])
    upright = [[(-y, x) for x, y in outline] for outline in outlines]
    xs = [x for ring in upright for x, _ in ring]
    ys = [y for ring in upright for _, y in ring]
    columns, across = _strips(min(xs), max(xs), wide)
    rows, down = _strips(min(ys), max(ys), high)
    if columns * rows > most:
        raise TooManyPages(f"At its true size this takes {columns * rows} sheets; at most {most} are made.")
    shapes = [Polygon(ring) for ring in upright]
    out = []
    for row in range(rows):
        # from the top down
        y = down[rows - 1 - row]
        for column in range(columns):
            x = across[column]
            part = box(x, y, x + wide, y + high)
            if any(shape.intersects(part) for shape in shapes):
                out.append(Page(row + 1, column + 1, x, y, wide, high))
    return tuple(out)


def _strips(low: float, high: float, size: float) -> tuple[int, list[float]]:
    """Where strips of one size begin that cover a span, overlapping, the span in their middle."""
    step = size - OVERLAP_MM
    count = max(1, math.ceil((high - low - OVERLAP_MM) / step))
    covered = count * step + OVERLAP_MM
    first = low - (covered - (high - low)) / 2
    return count, [first + i * step for i in range(count)]
