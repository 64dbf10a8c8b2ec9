"""One fold test."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class TrueTest(Base):
    """One fold test of a cloth of a garment, in the state ``wash_id`` brought it to (null: as bought): ``place`` along
    it, signed ``offset`` of the edges, ``bow``, all mm, and what was ``done`` before it. Only ever struck out."""

    __tablename__ = "true_test"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    wash_id: Mapped[int | None] = mapped_column(ForeignKey("wash.id", ondelete="SET NULL"))
    at: Mapped[datetime] = mapped_column(default=now)
    place: Mapped[float] = mapped_column(default=0.0)
    offset: Mapped[float]
    bow: Mapped[float] = mapped_column(default=0.0)
    done: Mapped[str] = mapped_column(String(20), default="")
    by: Mapped[str] = mapped_column(String(8), default="tape")
    deleted_at: Mapped[datetime | None]
