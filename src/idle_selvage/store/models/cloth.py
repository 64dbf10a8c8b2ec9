"""A length of cloth."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Cloth(Base):
    """A length of cloth. Lengths in mm, mass in g/m², price per ``price_unit``.

    ``like`` is the key under which past tests of like cloth are found; ``treated`` says that width and length in
    hand were measured after pre-treatment.
    """

    __tablename__ = "cloth"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120), default="")
    blend: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    weave: Mapped[str] = mapped_column(String(20), default="plain", server_default="plain")
    finish: Mapped[str] = mapped_column(String(20), default="", server_default="")
    colouring: Mapped[str] = mapped_column(String(20), default="", server_default="")
    like: Mapped[str] = mapped_column(String(30), default="", server_default="", index=True)
    width_readings: Mapped[list[Any]] = mapped_column(default=list)
    margin_low: Mapped[float] = mapped_column(default=0.0)
    margin_high: Mapped[float] = mapped_column(default=0.0)
    in_hand: Mapped[float | None]
    mass: Mapped[float | None]
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    direction: Mapped[str] = mapped_column(String(10), default="none", server_default="none")
    pile: Mapped[str] = mapped_column(String(5), default="", server_default="")
    pile_why: Mapped[str] = mapped_column(String(120), default="", server_default="")
    wales: Mapped[float | None]
    face: Mapped[str] = mapped_column(String(120), default="", server_default="")
    face_mark: Mapped[str] = mapped_column(String(120), default="", server_default="")
    reversible: Mapped[bool] = mapped_column(default=False, server_default="0")
    depth: Mapped[str] = mapped_column(String(10), default="medium")
    rub_grade: Mapped[int | None]
    ground: Mapped[str] = mapped_column(String(7), default="#C9D3D6")
    bars: Mapped[dict[str, Any]] = mapped_column(default=dict)
    flaws: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    shop_fold: Mapped[float | None]
    answers: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    style_number: Mapped[str] = mapped_column(String(120), default="", server_default="")
    place: Mapped[str] = mapped_column(String(120), default="", server_default="")
    treated: Mapped[bool] = mapped_column(default=False, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
