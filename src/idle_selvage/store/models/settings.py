"""How this person measures and lives."""

from __future__ import annotations

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Settings(Base):
    """One row: how this person measures and buys, what the washer takes (kg), when the person is up (minutes of the
    day). ``shop_step``: what the shop cuts in, mm; null: as usual in these units. ``currency``: behind money."""

    __tablename__ = "settings"
    id: Mapped[int] = mapped_column(primary_key=True)
    system: Mapped[str] = mapped_column(String(10), default="metric")
    graduation: Mapped[float] = mapped_column(default=1.0)
    shop_step: Mapped[float | None]
    currency: Mapped[str] = mapped_column(String(8), default="", server_default="")
    #: whether these were asked for on the first day
    asked: Mapped[bool] = mapped_column(default=False, server_default="0")
    #: a remnant has a rectangle of at least this side, mm; what is smaller is a scrap
    scrap: Mapped[float] = mapped_column(default=100.0, server_default="100.0")
    washer_kg: Mapped[float] = mapped_column(default=7.0, server_default="7.0")
    rise: Mapped[int] = mapped_column(default=420, server_default="420")
    sleep: Mapped[int] = mapped_column(default=1320, server_default="1320")
