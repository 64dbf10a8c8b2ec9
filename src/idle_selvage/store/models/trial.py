"""A lay tried on the side."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Text
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Trial(Base):
    """A lay tried on the side, kept under its problem's fingerprint: asked again, it is there at once.

    ``lays``: [[fold, lay] …], the shortest first; empty with ``why`` when it cannot be laid, or ``wide`` ([piece,
    across, width] …) when pieces reach over the cloth; ``fault``: the search itself failed.
    ``seconds``: how long it was searched for.
    """

    __tablename__ = "trial"
    fingerprint: Mapped[str] = mapped_column(ForeignKey("lay_problem.fingerprint"), primary_key=True)
    lays: Mapped[list[Any]] = mapped_column(default=list)
    why: Mapped[str] = mapped_column(Text, default="")
    wide: Mapped[list[Any]] = mapped_column(default=list)
    fault: Mapped[bool] = mapped_column(default=False)
    seconds: Mapped[float]
    created_at: Mapped[datetime] = mapped_column(default=now)
