"""One thing that was measured of a finished garment."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class OutcomeRow(Base):
    """One thing that was measured of a finished garment, some days, washes and wearings later: a
    :class:`core.project.outcome.Outcome`, of a ``kind``, of what (``piece_id``, ``seam_id``, or the garment or cloth as
    a whole), called ``name`` then. ``measured``: mm, per cent or a grade; ``before`` and ``after``, mm, where a
    shrinkage was measured. What was predicted then stays as it was predicted.
    """

    __tablename__ = "outcome"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    kind: Mapped[str] = mapped_column(String(8))
    piece_id: Mapped[int | None] = mapped_column(ForeignKey("piece.id"))
    seam_id: Mapped[int | None] = mapped_column(ForeignKey("seam.id"))
    name: Mapped[str] = mapped_column(String(120), default="")
    measured: Mapped[float]
    before: Mapped[float | None]
    after: Mapped[float | None]
    predicted: Mapped[float | None]
    low: Mapped[float | None]
    high: Mapped[float | None]
    washes: Mapped[int] = mapped_column(default=0)
    note: Mapped[str] = mapped_column(String(300), default="")
    at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
