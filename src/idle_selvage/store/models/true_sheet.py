"""How one cloth is trued."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class TrueSheet(Base):
    """How one cloth of a garment is trued, a row per use; what was read at the table are its readings.

    ``now``: the fold test not written down yet; ``ripple``: which way the fold ripples; ``bands``: the ends of the
    first three, mm, empty: as usual; ``accepted``: a happy medium was taken.
    """

    __tablename__ = "true_sheet"
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), primary_key=True)
    now: Mapped[dict[str, Any]] = mapped_column(default=dict)
    ripple: Mapped[str] = mapped_column(String(5), default="")
    bands: Mapped[list[Any]] = mapped_column(default=list)
    school: Mapped[str] = mapped_column(String(5), default="")
    accepted: Mapped[bool] = mapped_column(default=False)
