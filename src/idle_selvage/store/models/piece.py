"""A pattern piece."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Piece(Base):
    """A pattern piece; ``outline`` is as drawn or typed, ``seam`` still to be added.

    Pieces that share ``meets`` meet on the bars across the cloth, ``meets_at`` mm up the seam line; ``centred`` on the
    bars along it; ``hidden`` does not show when worn; ``hem``: hemmed at its low end.
    """

    __tablename__ = "piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    outline: Mapped[list[Any]] = mapped_column(default=list)
    stations: Mapped[list[Any]] = mapped_column(default=list)
    smooth: Mapped[bool] = mapped_column(default=True)
    copies: Mapped[int] = mapped_column(default=1)
    pair: Mapped[bool] = mapped_column(default=False)
    on_fold: Mapped[bool] = mapped_column(default=False)
    grain: Mapped[str] = mapped_column(String(12), default="lengthwise")
    one_way: Mapped[bool] = mapped_column(default=False)
    seam: Mapped[float] = mapped_column(default=0.0)
    meets: Mapped[str] = mapped_column(String(40), default="", server_default="")
    meets_at: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    centred: Mapped[bool] = mapped_column(default=False, server_default="0")
    hidden: Mapped[bool] = mapped_column(default=False, server_default="0")
    hem: Mapped[bool] = mapped_column(default=False, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
