"""What a piece measures: its edges along the seam, its area, by how much they grow, and the ease of two edges."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Place

from ..working import Figure, Inputs, Source, Step, length, percent
from .allowance import seam_line
from .draft import Draft, Edge, edges
from .drawn import HowCut, piece_of, spun
from .outline import Outline, whole_polygon
from .piece import Piece

FROM_THE_SEAM = Source("your own log", "the piece’s own seam line", "edges measured along it, curves in chords")


@dataclass(frozen=True)
class EdgeMeasure:
    """One edge: its length along the drawn line and along the seam, mm; ``allowance``: between seam and cut line."""

    edge: Edge
    drawn: float
    seam: float
    allowance: float


def edge_measures(draft: Draft, how: HowCut) -> tuple[EdgeMeasure, ...]:
    """The edges of a piece as it is cut. Raises BadPiece."""
    piece = piece_of("", draft, how)
    found = edges(draft)
    sewn = _along_seam(draft, found, piece)
    usual = draft.included if draft.included > 0 else how.seam
    out = []
    for edge, seam in zip(found, sewn, strict=True):
        said = edge.first.allowance
        wide = 0.0 if edge.on_fold or how.bare else usual if said is None else said
        out.append(EdgeMeasure(edge, edge.length, seam, wide))
    return tuple(out)


def _along_seam(draft: Draft, found: Sequence[Edge], piece: Piece) -> list[float]:
    """The length of each edge along the seam line: where the drawn line is the cut line, of that part of the seam line
    which runs beside it."""
    if draft.included <= 0:
        return [edge.length for edge in found]
    ring = spun(seam_line(piece), piece.slant)
    lines = [LineString(edge.line) for edge in found]
    wide = [
        0.0 if e.on_fold else draft.included if e.first.allowance is None else e.first.allowance for e in found
    ]  # fmt: skip
    out = [0.0] * len(found)
    for a, b in zip(ring, [*ring[1:], ring[0]], strict=True):
        middle = Place((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        off = [abs(line.distance(middle) - w) for line, w in zip(lines, wide, strict=True)]
        out[off.index(min(off))] += math.dist(a, b)
    return out


def area_of(outline: Outline, on_fold: bool) -> float:
    """The area of a whole piece at its cut line, mm²."""
    return float((whole_polygon(outline) if on_fold else Polygon(outline)).area)


def ease(longer: Sequence[tuple[str, float]], shorter: Sequence[tuple[str, float]]) -> tuple[Figure, Figure | None]:
    """By how much one run of edges is longer along the seam than another it is sewn to, mm and per cent of the other:
    a sleeve head against its armhole."""
    puts: list[Inputs] = []
    for side in (longer, shorter):
        puts.append(tuple((name, length(long)) for name, long in side))
    sums = [sum(long for _, long in side) for side in (longer, shorter)]
    formula = f"({' + '.join(n for n, _ in longer)}) − ({' + '.join(n for n, _ in shorter)})"
    step = Step("ease", formula, (*puts[0], *puts[1]), length(sums[0] - sums[1]), "both along the seam")
    value = Figure(sums[0] - sums[1], "length", steps=(step,), sources=(FROM_THE_SEAM,))
    if sums[1] <= 0:
        return value, None
    share = 100.0 * (sums[0] - sums[1]) / sums[1]
    put: Inputs = (("ease", length(sums[0] - sums[1])), ("the other edge", length(sums[1])))
    part = Step("of the other edge", "ease ÷ the other edge", put, percent(share), "")
    return value, Figure(share, "percent", steps=(step, part), sources=(FROM_THE_SEAM,))
