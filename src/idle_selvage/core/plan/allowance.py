"""From the seam line to the cut line: the allowance round a piece."""

from __future__ import annotations

from functools import lru_cache

from shapely.geometry import Polygon, box

from .outline import BadPiece, Outline, whole_polygon
from .piece import Piece, check_piece

#: Corners sharper than this many seam allowances long are cut off square.
MITRE_LIMIT = 4.0


@lru_cache(maxsize=1024)
def cut_line(piece: Piece) -> Outline:
    """The outline to cut: offset outwards by the seam allowance, none along a fold. Raises BadPiece."""
    check_piece(piece)
    if piece.seam <= 0:
        return piece.outline
    shape = whole_polygon(piece.outline) if piece.on_fold else Polygon(piece.outline)
    grown = shape.buffer(piece.seam, join_style="mitre", mitre_limit=MITRE_LIMIT)
    if piece.on_fold:
        x0, _, x1, y1 = grown.bounds
        grown = grown.intersection(box(x0 - 1, 0.0, x1 + 1, y1 + 1))
    if grown.geom_type != "Polygon":
        raise BadPiece(f"{piece.name}: a seam allowance this wide breaks the piece into parts.")
    # a notch narrower than two allowances closes up: its hole is sewn shut, so only the outside is cut
    return tuple((float(x), float(y)) for x, y in grown.exterior.coords[:-1])
