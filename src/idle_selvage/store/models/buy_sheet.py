"""What was typed on the sheets of Buy."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class BuySheet(Base):
    """What was typed on the sheets of Buy, a row per project: the envelope, strips, what is laid together, the list."""

    __tablename__ = "buy_sheet"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    envelope: Mapped[dict[str, Any]] = mapped_column(default=dict)
    strips: Mapped[dict[str, Any]] = mapped_column(default=dict)
    together: Mapped[list[Any]] = mapped_column(default=list)
    items: Mapped[list[Any]] = mapped_column(default=list)
    have: Mapped[list[Any]] = mapped_column(default=list)
