"""Cloth uses that are bought as one length."""

from __future__ import annotations

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class SharedPurchase(Base):
    """A cloth of another garment that is cut from the same length as ``use_id``."""

    __tablename__ = "shared_purchase"
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), primary_key=True)
    other_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), primary_key=True)
