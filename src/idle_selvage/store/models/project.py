"""One thing to be made."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import String, Text
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .aside import Aside
from .base import Base, now
from .cloth import Cloth
from .cloth_use import ClothUse


class Project(Base):
    """One thing to be made: its name, how it will be washed, and the cloths it is cut from."""

    __tablename__ = "project"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    note: Mapped[str] = mapped_column(Text, default="")
    wash: Mapped[str] = mapped_column(String(20), default="40")
    dry: Mapped[str] = mapped_column(String(20), default="line")
    #: the size that is cut, and other sizes at named heights, as {place, size}
    size: Mapped[str] = mapped_column(String(20), default="")
    size_at: Mapped[list[Any]] = mapped_column(default=list)
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    asides: Mapped[list[Aside]] = relationship(order_by=Aside.id, cascade="all, delete-orphan")
    all_uses: Mapped[list[ClothUse]] = relationship(lazy="joined", order_by=ClothUse.id, back_populates="project")

    @property
    def uses(self) -> list[ClothUse]:
        """Its cloths, the main one first."""
        there = [use for use in self.all_uses if use.deleted_at is None]
        return sorted(there, key=lambda use: (use.role != "main", use.id))

    @property
    def main(self) -> ClothUse:
        """Its main cloth; every garment has one."""
        return self.uses[0]

    @property
    def cloth(self) -> Cloth:
        """The main cloth itself."""
        return self.main.cloth
