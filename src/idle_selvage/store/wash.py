"""Washes of a length of cloth."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from ..core.washday.needs import WashDone
from .errors import NotFound
from .models import Wash


def wash(session: Session, cloth_id: int, number: int) -> Wash:
    """One wash of a cloth, struck out or not. Raises :class:`NotFound`."""
    row = session.get(Wash, number)
    if row is None or row.cloth_id != cloth_id:
        raise NotFound("There is no such wash of this cloth.")
    return row


def as_done(rows: Sequence[Wash]) -> tuple[WashDone, ...]:
    """The core's washes."""
    return tuple(WashDone(row.grade, row.simulated) for row in rows)
