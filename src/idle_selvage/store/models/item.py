"""One thing on a garment's list for the shop."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class ListItem(Base):
    """One thing the maker put on the list by hand."""

    __tablename__ = "list_item"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    kind: Mapped[str] = mapped_column(String(20))
    name: Mapped[str] = mapped_column(String(120))
    amount: Mapped[str] = mapped_column(String(120), default="")
    deleted_at: Mapped[datetime | None]


class ListTick(Base):
    """A line of the list that is in the house: ``line`` is its key, such as ``use-3``, ``thread`` or ``own-12``."""

    __tablename__ = "list_tick"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    line: Mapped[str] = mapped_column(String(30), primary_key=True)
