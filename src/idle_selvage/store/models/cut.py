"""How a piece is cut from one cloth."""

from __future__ import annotations

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Cut(Base):
    """How a piece is cut from one of a garment's cloths.

    ``seam``: the allowance still to be added, mm; ``bare``: cut at the seam line,
    without any; ``shorter``: how much its low end is shorter than the paper, mm;
    ``hidden``: it does not show when worn; ``border``: the selvage (``low``, ``high``) its hem lies ``border_at`` mm
    from, or nothing.
    """

    __tablename__ = "cut"
    __table_args__ = (UniqueConstraint("piece_id", "use_id", name="uq_cut_piece_id"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id", ondelete="CASCADE"), index=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), index=True)
    copies: Mapped[int] = mapped_column(default=1)
    pair: Mapped[bool] = mapped_column(default=False)
    on_fold: Mapped[bool] = mapped_column(default=False)
    grain: Mapped[str] = mapped_column(String(12), default="lengthwise")
    one_way: Mapped[bool] = mapped_column(default=False)
    seam: Mapped[float] = mapped_column(default=0.0)
    bare: Mapped[bool] = mapped_column(default=False)
    shorter: Mapped[float] = mapped_column(default=0.0)
    hidden: Mapped[bool] = mapped_column(default=False)
    border: Mapped[str] = mapped_column(String(4), default="")
    border_at: Mapped[float] = mapped_column(default=0.0)
