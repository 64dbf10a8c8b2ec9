"""Photos of cloth."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from .errors import NotFound
from .models import Photo, now


def photo(session: Session, cloth_id: int) -> Photo:
    """The cloth's photo. Raises :class:`NotFound` when there is none, or it was taken away."""
    row = session.get(Photo, cloth_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no photo of this cloth yet.")
    return row


def taken(session: Session, cloth_ids: Iterable[int]) -> dict[int, datetime]:
    """When each photo was taken, by its cloth's number."""
    query = select(Photo.cloth_id, Photo.at).where(Photo.cloth_id.in_(list(cloth_ids)), Photo.deleted_at.is_(None))
    return {number: at for number, at in session.execute(query)}


def keep(session: Session, cloth_id: int, jpeg: bytes) -> None:
    """Put a photo in place of the one there was, if any."""
    row = session.get(Photo, cloth_id)
    if row is None:
        session.add(Photo(cloth_id=cloth_id, jpeg=jpeg))
    else:
        row.jpeg, row.at, row.deleted_at = jpeg, now(), None
    session.flush()


def hide(session: Session, cloth_id: int, at: datetime | None) -> None:
    """Take a photo away, or bring it back (None). Raises :class:`NotFound`."""
    row = session.get(Photo, cloth_id)
    if row is None:
        raise NotFound("There is no photo of this cloth.")
    row.deleted_at = at
    session.flush()
