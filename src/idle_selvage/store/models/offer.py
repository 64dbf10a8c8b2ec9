"""What a shop offers."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Offer(Base):
    """What a shop offers for one cloth of a garment. Lengths in mm; shrinkages in per cent, null: as that cloth."""

    __tablename__ = "offer"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    width: Mapped[float]
    margin: Mapped[float] = mapped_column(default=20.0)
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    warp: Mapped[float | None]
    weft: Mapped[float | None]
    step: Mapped[float] = mapped_column(default=100.0)
    least: Mapped[float] = mapped_column(default=0.0)
    stock: Mapped[float | None]
    #: the number in the shop's price list it was taken from
    shop_number: Mapped[str] = mapped_column(String(20), default="")
    deleted_at: Mapped[datetime | None]
