"""A photo of a cloth."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Photo(Base):
    """A photo of a cloth, made smaller and freed of everything but the picture."""

    __tablename__ = "photo"
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), primary_key=True)
    #: its old value is read before a new one is set, so that the change can be taken back
    jpeg: Mapped[bytes] = mapped_column(deferred=True, active_history=True)
    at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
