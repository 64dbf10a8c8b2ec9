"""Photos of cloth."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy.orm import Session

from .errors import NotFound
from .models import Photo, now


def photo(session: Session, cloth_id: int) -> Photo:
    """The cloth's photo. Raises :class:`NotFound` when there is none, or it was taken away."""
    row = session.get(Photo, cloth_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no photo of this cloth yet.")
    return row


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
