"""Offers of shops."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from .errors import NotFound
from .models import Offer


def offers(session: Session, use_id: int) -> list[Offer]:
    """The offers for a cloth of a garment in the order they came."""
    query = select(Offer).where(Offer.use_id == use_id, Offer.deleted_at.is_(None))
    return list(session.scalars(query.order_by(Offer.id)))


def offer(session: Session, use_id: int, number: int, *, deleted: bool = False) -> Offer:
    """One offer for a cloth of a garment. Raises :class:`NotFound`."""
    row = session.get(Offer, number)
    if row is None or row.use_id != use_id or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such offer in this project.")
    return row
