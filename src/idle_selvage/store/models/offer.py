"""What a shop offers."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Offer(Base):
    """What a shop offers for one cloth of a garment. Lengths in mm; shrinkages in per cent, null: not given.

    ``same``: it is that cloth in another width; else ``blend`` and ``weave`` say what it is, an empty blend that it is
    of the same fibres."""

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
    same: Mapped[bool] = mapped_column(default=False, server_default="0")
    blend: Mapped[list[tuple[str, float]]] = mapped_column(JSON, default=list, server_default="[]")
    weave: Mapped[str] = mapped_column(String(20), default="plain", server_default="plain")
    deleted_at: Mapped[datetime | None]
