"""Which bar shall fall where on a piece."""

from __future__ import annotations

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class BarWishRow(Base):
    """A wish for one cloth of a garment: ``bar`` mm from where the first typed bar begins shall fall ``at`` mm along a
    piece (``way`` *levels*) or across it (*lengthwise*), in the piece's own axes."""

    __tablename__ = "bar_wish"
    __table_args__ = (UniqueConstraint("use_id", "piece_id", "way", name="uq_bar_wish_use_id"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), index=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id", ondelete="CASCADE"), index=True)
    way: Mapped[str] = mapped_column(String(10))
    at: Mapped[float]
    bar: Mapped[float]
