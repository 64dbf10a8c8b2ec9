"""One thing to be made."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String, Text
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .cloth import Cloth


class Project(Base):
    """One thing to be made, with the cloth it is made of and what the maker wishes for its lay."""

    __tablename__ = "project"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    note: Mapped[str] = mapped_column(Text, default="")
    wash: Mapped[str] = mapped_column(String(20), default="40")
    dry: Mapped[str] = mapped_column(String(20), default="line")
    school: Mapped[str] = mapped_column(String(10), default="", server_default="")
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    gap: Mapped[float] = mapped_column(default=3.0)
    folds: Mapped[list[Any]] = mapped_column(default=lambda: ["open", "lengthwise"])
    lay_seconds: Mapped[float] = mapped_column(default=8.0)
    ends: Mapped[float] = mapped_column(default=100.0)
    spare: Mapped[float] = mapped_column(default=0.0)
    shop_step: Mapped[float] = mapped_column(default=100.0)
    #: how the first edge will be made, a key of core.edge.METHODS; empty: as advised for the cloth
    edge_way: Mapped[str] = mapped_column(String(10), default="", server_default="")
    bought_extra: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    extra_why: Mapped[str] = mapped_column(String(120), default="", server_default="")
    #: what the end that was measured loses, of ``ends``; null: half of them
    first_end: Mapped[float | None]
    #: cut off at that end because it could not be straightened, of ``first_end``
    cut_off: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    cloth: Mapped[Cloth] = relationship()
