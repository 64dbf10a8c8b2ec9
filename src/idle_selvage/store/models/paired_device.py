"""A tablet or telephone that may use the application over the home's network."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class PairedDevice(Base):
    """A device that was paired: its name, and the SHA-256 of its token. The token itself is only on the device."""

    __tablename__ = "paired_device"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    token: Mapped[str] = mapped_column(String(64), unique=True)
    paired_at: Mapped[datetime] = mapped_column(default=now)
    seen_at: Mapped[datetime] = mapped_column(default=now)
    revoked_at: Mapped[datetime | None]
