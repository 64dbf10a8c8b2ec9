"""Pieces: finding them, and the core's piece of a row."""

from __future__ import annotations

from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.lay.asking import Meeting, PieceToLay
from ..core.plan.piece import Grain
from ..core.plan.piece import Piece as PaperPiece
from .errors import NotFound
from .models import Piece


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


def as_piece(row: Piece) -> PaperPiece:
    """The core's piece."""
    return PaperPiece(
        row.name,
        tuple((x, y) for x, y in row.outline),
        row.copies,
        row.pair,
        row.on_fold,
        cast(Grain, row.grain),
        row.one_way,
        row.seam,
    )


def as_asked(row: Piece) -> PieceToLay:
    """The piece with what is to meet on it."""
    return PieceToLay(as_piece(row), Meeting(row.meets, row.meets_at, row.centred))
