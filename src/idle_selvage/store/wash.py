"""Washes of a length of cloth."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.washday.needs import WashDone
from .errors import NotFound
from .models import Wash


def washes(session: Session, cloth_ids: Iterable[int]) -> dict[int, list[Wash]]:
    """Every wash of each cloth's length by the cloth's number, the first one first."""
    query = select(Wash).where(Wash.cloth_id.in_(list(cloth_ids)), Wash.deleted_at.is_(None)).order_by(Wash.id)
    found: dict[int, list[Wash]] = {}
    for row in session.scalars(query):
        found.setdefault(row.cloth_id, []).append(row)
    return found


def wash(session: Session, cloth_id: int, number: int) -> Wash:
    """One wash of a cloth, struck out or not. Raises :class:`NotFound`."""
    row = session.get(Wash, number)
    if row is None or row.cloth_id != cloth_id:
        raise NotFound("There is no such wash of this cloth.")
    return row


def as_done(rows: Sequence[Wash]) -> tuple[WashDone, ...]:
    """The core's washes."""
    return tuple(WashDone(row.grade, row.simulated) for row in rows)
