"""A marked swatch."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Swatch(Base):
    """A marked swatch: a row per marked distance, [before, after wash 1, after wash 2 …], mm, null where not measured.

    ``diagonals`` holds [AC, BD] before and after each wash, either or all null. The newest swatch of a cloth that
    is ``used`` is gone by. ``simulated`` readings come from the stand-in washer.
    """

    __tablename__ = "swatch"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    warp: Mapped[list[Any]] = mapped_column(default=list)
    weft: Mapped[list[Any]] = mapped_column(default=list)
    graduation: Mapped[float] = mapped_column(default=1.0)
    diagonals: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    used: Mapped[bool] = mapped_column(default=True, server_default="1")
    simulated: Mapped[bool] = mapped_column(default=False, server_default="0")
    updated_at: Mapped[datetime] = mapped_column(default=now)
