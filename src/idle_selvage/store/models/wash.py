"""One wash of a length."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Wash(Base):
    """One wash of a length of cloth: how, and the rag's grade (1 to 5). Unless a stand-in made it up it brings the
    cloth to a new state; what was measured then are readings."""

    __tablename__ = "wash"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    how: Mapped[str] = mapped_column(String(120), default="")
    #: what kind of wash that was, a key of core.shrink.treatment.SWATCH_WASHES; empty: not said
    wash: Mapped[str] = mapped_column(String(12), default="", server_default="")
    grade: Mapped[int | None]
    simulated: Mapped[bool] = mapped_column(default=False)
    #: the step of a load that it was, if it was planned
    task_id: Mapped[int | None] = mapped_column(ForeignKey("load_task.id", ondelete="SET NULL"))
    deleted_at: Mapped[datetime | None]
