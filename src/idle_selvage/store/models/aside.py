"""A warning the maker set aside."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String, Text
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Aside(Base):
    """A warning of a garment that the maker set aside, as it was told, and why. When it says something else — another
    figure, another piece — it is another warning."""

    __tablename__ = "aside"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    told: Mapped[str] = mapped_column(Text)
    why: Mapped[str] = mapped_column(String(200))
    at: Mapped[datetime] = mapped_column(default=now)
