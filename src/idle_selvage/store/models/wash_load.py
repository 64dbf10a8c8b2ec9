"""Cloths that share water."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import Text
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .load_cloth import LoadCloth

if TYPE_CHECKING:
    from .load_task import LoadTask


class WashLoad(Base):
    """Cloths that share water, planned together."""

    __tablename__ = "wash_load"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    why: Mapped[str] = mapped_column(Text)
    kilograms: Mapped[float]
    metres: Mapped[float]
    too_heavy: Mapped[bool]
    created_at: Mapped[datetime] = mapped_column(default=now)
    cloths: Mapped[list[LoadCloth]] = relationship(
        lazy="selectin", cascade="all, delete-orphan", order_by=LoadCloth.position
    )
    steps: Mapped[list[LoadTask]] = relationship(
        order_by="LoadTask.position", cascade="all, delete-orphan", back_populates="load"
    )
