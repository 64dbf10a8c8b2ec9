"""A piece cut shorter than it is on the paper: a lining whose hem ends above the cloth's."""

from __future__ import annotations

from dataclasses import replace

from shapely.geometry import Polygon, box

from .outline import BadPiece, Outline
from .piece import Piece


def part_between(outline: Outline, low: float, high: float) -> Outline | None:
    """The part of an outline between two places along its grain, or None when that is not one part."""
    _, y0, _, y1 = Polygon(outline).bounds
    part = Polygon(outline).intersection(box(low, y0 - 1.0, high, y1 + 1.0))
    if part.geom_type != "Polygon" or part.is_empty or part.interiors:
        return None
    return tuple((round(float(x), 4), round(float(y), 4)) for x, y in part.exterior.coords[:-1])


def shortened(piece: Piece, less: float) -> Piece:
    """The piece with ``less`` mm off its low end. Raises :class:`BadPiece` where nothing, or more than one part, is
    left."""
    xs = [x for x, _ in piece.outline]
    low, high = min(xs) + less, max(xs)
    part = part_between(piece.outline, low, high) if low < high else None
    if part is None:
        raise BadPiece(f"{piece.name or 'The piece'}: cut so much shorter, it is no longer one piece.")
    return replace(piece, outline=part)
