"""How this person measures and lives."""

from __future__ import annotations

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Settings(Base):
    """One row: how this person measures, what the washer takes (kg), and when the person is up (minutes of the day)."""

    __tablename__ = "settings"
    id: Mapped[int] = mapped_column(primary_key=True)
    system: Mapped[str] = mapped_column(String(10), default="metric")
    graduation: Mapped[float] = mapped_column(default=1.0)
    washer_kg: Mapped[float] = mapped_column(default=7.0, server_default="7.0")
    rise: Mapped[int] = mapped_column(default=420, server_default="420")
    sleep: Mapped[int] = mapped_column(default=1320, server_default="1320")
