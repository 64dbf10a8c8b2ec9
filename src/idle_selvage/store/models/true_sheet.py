"""What was read at the table."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class TrueSheet(Base):
    """What was read at the table, a row per project.

    ``now``: the reading not written down yet; ``edge``: the present cut edge; ``fold``: [along, distance];
    ``ripple``: which way the fold ripples; ``checks``: a piece's key to its two distances; ``bars``: [place, off];
    ``bands``: the ends of the first three, empty: as usual; ``accepted``: a happy medium was taken. All mm.
    """

    __tablename__ = "true_sheet"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    now: Mapped[dict[str, Any]] = mapped_column(default=dict)
    edge: Mapped[list[Any]] = mapped_column(default=list)
    fold: Mapped[list[Any]] = mapped_column(default=list)
    ripple: Mapped[str] = mapped_column(String(5), default="")
    checks: Mapped[dict[str, Any]] = mapped_column(default=dict)
    bars: Mapped[list[Any]] = mapped_column(default=list)
    bands: Mapped[list[Any]] = mapped_column(default=list)
    school: Mapped[str] = mapped_column(String(5), default="")
    accepted: Mapped[bool] = mapped_column(default=False)
