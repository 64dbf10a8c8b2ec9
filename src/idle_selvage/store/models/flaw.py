"""A place of a cloth to keep off."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Flaw(Base):
    """A place to keep off: from the cut end, from the near selvage, its size, mm, as it lay in the state ``wash_id``
    brought the cloth to (null: as bought)."""

    __tablename__ = "flaw"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    wash_id: Mapped[int | None] = mapped_column(ForeignKey("wash.id", ondelete="CASCADE"))
    position: Mapped[int] = mapped_column(default=0)
    x: Mapped[float]
    y: Mapped[float]
    w: Mapped[float]
    h: Mapped[float]
    what: Mapped[str] = mapped_column(String(120), default="flaw")
    by: Mapped[str] = mapped_column(String(8), default="tape")
    at: Mapped[datetime] = mapped_column(default=now)
