"""Pieces written in any of the open formats."""

from __future__ import annotations

import math
from collections.abc import Sequence

from shapely.geometry import LineString, Polygon

from ..core.plan.outline import Outline, Point, fold_edge
from ..core.plan.tiles import PAPERS
from ..core.units import System
from .csv_points import write_csv
from .drawn_pieces import PieceRead
from .dxf_pieces import write_dxf
from .pdf_tiles import TileShape, write_tiles
from .problem_pieces import write_problem
from .svg_written import write_svg
from .upright import APART_MM, grain_of

#: Where a problem is written without a cloth: the usual width of dress cloth, without its selvages, mm.
USUAL_WIDTH_MM = 1400.0
#: The media types of the formats (IANA; DXF's is registered by nobody, so the usual one).
MEDIA: dict[str, str] = {
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "pdf": "application/pdf",
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
}


def write(
    pieces: Sequence[PieceRead],
    kind: str,
    *,
    title: str = "Pattern pieces",
    paper: str = "a4",
    system: System = "metric",
    width: float = USUAL_WIDTH_MM,
) -> bytes:
    """The pieces in a format, a key of :data:`MEDIA`. ``paper``, ``system``: for PDF; ``width``: of the cloth a problem
    asks about, mm. Raises BadPiece, TooManyPages and KeyError."""
    if kind == "svg":
        return write_svg(pieces, title=title).encode()
    if kind == "dxf":
        return write_dxf(pieces)
    if kind == "csv":
        return write_csv(pieces).encode()
    if kind == "json":
        return write_problem(pieces, width).encode()
    if kind == "pdf" and paper in PAPERS:
        return write_tiles(_tiles(pieces), title=title, paper=paper, system=system)
    raise KeyError(kind)


def _long_arrow(ring: Outline, arrow: tuple[Point, Point]) -> tuple[Point, Point]:
    """Across most of a narrow piece, so that its arrow is not taken for a mark."""
    low, high = min(x for x, _ in ring), max(x for x, _ in ring)
    y, inset = arrow[0][1], 0.1 * (high - low)
    longer = ((low + inset, y), (high - inset, y))
    narrow = arrow[0][1] == arrow[1][1] and math.dist(*arrow) < 0.5 * (high - low)
    return longer if narrow and Polygon(ring).covers(LineString(longer)) else arrow


#: What is written beside the edge of a half that lies on the fold.
ON_FOLD = "on the fold"


def _tiles(pieces: Sequence[PieceRead]) -> list[TileShape]:
    out: list[TileShape] = []
    up = 0.0
    for read in pieces:
        piece = read.piece
        low, included = min(y for _, y in piece.outline), read.draft.included
        by = up - low

        def moved(points: Sequence[tuple[float, float]], by: float = by) -> tuple[tuple[float, float], ...]:
            return tuple((x, y + by) for x, y in points)

        ring = moved(piece.outline)
        # without its arrow nobody could tell on paper how it lies
        tail, head = moved(_long_arrow(piece.outline, piece.arrow or grain_of(read.draft)[0]))
        how = read.how
        said = [f"{how.copies} copies", "pair" if how.pair else "", "one way" if how.one_way else ""]
        said.append({"crosswise": "cross grain", "bias": "bias", "any": "any grain"}.get(how.grain, ""))
        said += [f"add {how.seam:g} mm" if how.seam > 0 else "", f"includes {included:g} mm" if included > 0 else ""]
        said.append(f"shorter {how.shorter:g} mm" if how.shorter > 0 else "")
        notes = (", ".join(one for one in said if one),)
        fold = fold_edge(piece.outline) if read.how.on_fold else None
        # inside, beside the edge: there it is looked for when the page is read again
        labels = () if fold is None else ((ON_FOLD, moved([((fold[0] + fold[1]) / 2, 6.0)])[0]),)
        out.append(
            TileShape(
                read.name, ring, tuple(moved(mark.line) for mark in piece.marks), (tail, head), notes, labels=labels
            )
        )
        up += max(y for _, y in piece.outline) - low + APART_MM
    return out
