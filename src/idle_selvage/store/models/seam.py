"""A seam of a garment."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class SeamRow(Base):
    """A seam as :class:`core.plan.seams.Seam` has it, between the edges of two pieces, or one piece laid on another.

    Each side begins and ends so many mm along the outline from a point, by its key; of a piece that another is laid on
    only the place is kept, ``b_along`` and ``b_across`` mm. ``priority`` 1 comes first.
    """

    __tablename__ = "seam"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    name: Mapped[str] = mapped_column(String(60), default="")
    kind: Mapped[str] = mapped_column(String(8), default="sewn")
    a_piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id", ondelete="CASCADE"), index=True)
    a_begin: Mapped[int]
    a_begin_at: Mapped[float] = mapped_column(default=0.0)
    a_end: Mapped[int]
    a_end_at: Mapped[float] = mapped_column(default=0.0)
    b_piece_id: Mapped[int] = mapped_column(ForeignKey("piece.id", ondelete="CASCADE"), index=True)
    b_begin: Mapped[int | None]
    b_begin_at: Mapped[float] = mapped_column(default=0.0)
    b_end: Mapped[int | None]
    b_end_at: Mapped[float] = mapped_column(default=0.0)
    b_along: Mapped[float | None]
    b_across: Mapped[float | None]
    same_way: Mapped[bool] = mapped_column(default=False)
    longer: Mapped[str] = mapped_column(String(1), default="")
    ease: Mapped[float] = mapped_column(default=0.0)
    spread_from: Mapped[float] = mapped_column(default=0.0)
    spread_to: Mapped[float] = mapped_column(default=1.0)
    key_a: Mapped[float | None]
    key_b: Mapped[float | None]
    levels: Mapped[bool] = mapped_column(default=True)
    lengthwise: Mapped[bool] = mapped_column(default=False)
    priority: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
