"""Seams of garments and wishes for bars: finding them, and the core's records of rows."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from functools import lru_cache
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.lay.asking import WishedBar
from ..core.lay.joined import Way
from ..core.plan.draft import Draft
from ..core.plan.outline import BadPiece, Outline
from ..core.plan.piece import Piece
from ..core.plan.seams import Kind, Longer, Seam, SeamSide, Sewn, sewn_with
from ..core.plan.sides import Side, Spot, cut_run, seam_run
from .errors import NotFound
from .models import BarWishRow, SeamRow


def seam(session: Session, number: int) -> SeamRow:
    """A seam by its number. Raises :class:`NotFound`."""
    row = session.get(SeamRow, number)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such seam; it may have been taken out.")
    return row


def seams(session: Session, project_id: int) -> list[SeamRow]:
    """The seams of a garment, by priority."""
    query = select(SeamRow).where(SeamRow.project_id == project_id, SeamRow.deleted_at.is_(None))
    return sorted(session.scalars(query), key=in_order)


def in_order(row: SeamRow) -> tuple[int, int]:
    """By which seams are ordered: of one priority the older first."""
    return row.priority, row.id


def as_seam(row: SeamRow) -> Seam:
    """The core's seam."""
    a = Side(Spot(row.a_begin, row.a_begin_at), Spot(row.a_end, row.a_end_at))
    b = None
    if row.b_begin is not None and row.b_end is not None:
        b = Side(Spot(row.b_begin, row.b_begin_at), Spot(row.b_end, row.b_end_at))
    place = None if row.b_along is None or row.b_across is None else (row.b_along, row.b_across)
    return Seam(
        str(row.id),
        SeamSide(str(row.a_piece_id), a),
        SeamSide(str(row.b_piece_id), b, place),
        row.name,
        cast(Kind, row.kind),
        row.same_way,
        cast(Longer, row.longer),
        row.ease,
        (row.spread_from, row.spread_to),
        row.key_a,
        row.key_b,
        row.levels,
        row.lengthwise,
        row.priority,
    )


Drafted = Mapping[str, tuple[Draft, Piece]]


def sewn_of(seam_: Seam, pieces: Drafted) -> Sewn | None:
    """A seam with its sides as they are sewn; None where one of its pieces or edges is no longer there."""
    a, b = pieces.get(seam_.a.piece), pieces.get(seam_.b.piece)
    if a is None or b is None:
        return None
    try:
        return _sewn(seam_, a, b)
    except BadPiece:
        return None


@lru_cache(maxsize=1024)
def _sewn(seam_: Seam, a: tuple[Draft, Piece], b: tuple[Draft, Piece]) -> Sewn:
    def find(side: SeamSide) -> tuple[Outline, Outline]:
        draft, piece = a if side is seam_.a else b
        if side.side is None:
            raise BadPiece("This side of the seam is no edge.")
        return seam_run(piece, draft, side.side), cut_run(piece, draft, side.side)

    return sewn_with(seam_, find, (a[1].outline, b[1].outline))


def wishes_of(rows: Iterable[BarWishRow]) -> tuple[WishedBar, ...]:
    """The core's wishes, in the order they were made."""
    ordered: Sequence[BarWishRow] = sorted(rows, key=lambda row: row.id)
    return tuple(WishedBar(str(row.piece_id), cast(Way, row.way), row.at, row.bar) for row in ordered)
