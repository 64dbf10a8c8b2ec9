"""One step of a load."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base

if TYPE_CHECKING:
    from .wash_load import WashLoad


class LoadTask(Base):
    """One step of a load: when it is planned, when it was begun and ended. ``learn`` names the time it teaches."""

    __tablename__ = "load_task"
    id: Mapped[int] = mapped_column(primary_key=True)
    load_id: Mapped[int] = mapped_column(ForeignKey("wash_load.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    what: Mapped[str] = mapped_column(String(60))
    machine: Mapped[str] = mapped_column(String(10))
    minutes: Mapped[int]
    bound: Mapped[str] = mapped_column(String(6))
    learn: Mapped[str] = mapped_column(String(20), index=True)
    #: the time of one, how many times that (metres of cloth), and whether it was one's own
    each: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    times: Mapped[float] = mapped_column(default=1.0, server_default="1.0")
    own: Mapped[bool] = mapped_column(default=False, server_default="0")
    start_at: Mapped[datetime]
    end_at: Mapped[datetime]
    started_at: Mapped[datetime | None]
    finished_at: Mapped[datetime | None]
    load: Mapped[WashLoad] = relationship(back_populates="steps")
