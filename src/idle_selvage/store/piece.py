"""Pieces: finding them, and the core's piece of a row as it is cut from one cloth."""

from __future__ import annotations

from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.lay.asking import Meeting, PieceToLay
from ..core.lay.problem import Selvage
from ..core.plan.piece import Grain
from ..core.plan.piece import Piece as PaperPiece
from .errors import NotFound
from .models import Cut, Piece

#: A piece that is cut from no cloth yet is drawn as if one were cut as it is.
UNCUT = Cut(copies=1, pair=False, on_fold=False, grain="lengthwise", one_way=False, seam=0.0, shorter=0.0, hidden=False,
            border="", border_at=0.0)  # fmt: skip


def piece(session: Session, number: int, *, deleted: bool = False) -> Piece:
    """A piece by its number. Raises :class:`NotFound`."""
    row = session.get(Piece, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such piece; it may have been deleted.")
    return row


def pieces(session: Session, project_id: int) -> list[Piece]:
    """The pieces of a project in the order they came."""
    query = select(Piece).where(Piece.project_id == project_id, Piece.deleted_at.is_(None)).order_by(Piece.id)
    return list(session.scalars(query))


def as_piece(row: Piece, cut: Cut) -> PaperPiece:
    """The core's piece as it is cut from one cloth."""
    return PaperPiece(
        row.name,
        tuple((x, y) for x, y in row.outline),
        cut.copies,
        cut.pair,
        cut.on_fold,
        cast(Grain, cut.grain),
        cut.one_way,
        cut.seam,
    )


def as_asked(row: Piece, cut: Cut) -> PieceToLay:
    """The piece as it is laid on one cloth, with what is to meet on it."""
    return PieceToLay(
        as_piece(row, cut),
        Meeting(row.meets, row.meets_at, row.centred),
        str(row.id),
        cut.shorter,
        cast(Selvage, cut.border) if cut.border else None,
        cut.border_at,
    )
