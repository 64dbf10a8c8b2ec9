"""A piece cut shorter than it is on the paper: a lining whose hem ends above the cloth's."""

from __future__ import annotations

from dataclasses import replace

import shapely
from shapely.geometry import LineString, Polygon, box
from shapely.geometry import Point as Place

from .outline import BadPiece, Outline
from .piece import Allowance, Piece


def part_between(outline: Outline, low: float, high: float) -> Outline | None:
    """The part of an outline between two places along its grain, or None when that is not one part."""
    _, y0, _, y1 = Polygon(outline).bounds
    part = Polygon(outline).intersection(box(low, y0 - 1.0, high, y1 + 1.0))
    if part.geom_type != "Polygon" or part.is_empty or part.interiors:
        return None
    return tuple((round(float(x), 4), round(float(y), 4)) for x, y in part.exterior.coords[:-1])


def shortened(piece: Piece, less: float) -> Piece:
    """The piece with ``less`` mm off its low end; as it is for 0. Raises :class:`BadPiece` where nothing, or more than
    one part, is left."""
    if not less:
        return piece
    xs = [x for x, _ in piece.outline]
    low, high = min(xs) + less, max(xs)
    part = part_between(piece.outline, low, high) if low < high else None
    if part is None:
        raise BadPiece(f"{piece.name or 'The piece'}: cut so much shorter, it is no longer one piece.")
    marks = tuple(mark for mark in piece.marks if min(x for x, _ in mark.line) >= low)
    return replace(piece, outline=part, edges=_edges(piece, part, low), marks=marks, arrow=_arrow(piece, low))


def _arrow(piece: Piece, low: float) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """Its own arrow as far as it is left; None where too little of it is."""
    if piece.arrow is None:
        return None
    (ax, ay), (bx, by) = piece.arrow
    return ((max(ax, low), ay), (bx, by)) if bx - max(ax, low) > 1.0 else None


def _edges(piece: Piece, part: Outline, low: float) -> tuple[Allowance, ...]:
    """What is said of the stretches that are left; the new low end has what was said of the old one."""
    if not piece.edges:
        return ()
    ring = piece.outline
    lines = [LineString(pair) for pair in zip(ring, [*ring[1:], ring[0]], strict=True)]
    lowest = min(range(len(ring)), key=lambda i: ring[i][0] + ring[(i + 1) % len(ring)][0])
    out = []
    for (ax, ay), (bx, by) in zip(part, [*part[1:], part[0]], strict=True):
        if max(ax, bx) <= low + 1e-3:
            out.append(piece.edges[lowest])
            continue
        away = shapely.distance(lines, Place((ax + bx) / 2, (ay + by) / 2))
        out.append(piece.edges[int(away.argmin())])
    return tuple(out)
