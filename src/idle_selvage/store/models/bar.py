"""One bar of a cloth's stripes or plaid."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class BarRow(Base):
    """One bar: the ``position``-th of those that follow one another ``along`` or ``across`` the cloth, its width in mm
    as it was in the state ``wash_id`` brought the cloth to (null: as bought), and its colour."""

    __tablename__ = "bar"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    wash_id: Mapped[int | None] = mapped_column(ForeignKey("wash.id", ondelete="CASCADE"))
    way: Mapped[str] = mapped_column(String(6))
    position: Mapped[int]
    width: Mapped[float]
    colour: Mapped[str] = mapped_column(String(7))
    by: Mapped[str] = mapped_column(String(8), default="tape")
    at: Mapped[datetime] = mapped_column(default=now)
