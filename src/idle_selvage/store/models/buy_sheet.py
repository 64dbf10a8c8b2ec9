"""What was typed on the sheets of Buy."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class BuySheet(Base):
    """What was typed on the sheets of Buy for one cloth of a garment: the envelope, and strips."""

    __tablename__ = "buy_sheet"
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), primary_key=True)
    envelope: Mapped[dict[str, Any]] = mapped_column(default=dict)
    strips: Mapped[dict[str, Any]] = mapped_column(default=dict)
