"""A photo in the log."""

from __future__ import annotations

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class LogPhoto(Base):
    """A photo beside a line of the log, made smaller and freed of everything but the picture. Only ever added."""

    __tablename__ = "log_photo"
    log_id: Mapped[int] = mapped_column(ForeignKey("log_entry.id", ondelete="CASCADE"), primary_key=True)
    jpeg: Mapped[bytes] = mapped_column(deferred=True)
