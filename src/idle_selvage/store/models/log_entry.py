"""One thing that was done."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class LogEntry(Base):
    """One thing that was done, as an event. Only ever added to.

    ``kind`` says what was done (operations/events.py); ``values`` are what goes with it, ``before`` and ``after`` the
    entries it changed. The sentence is made of them when the log is read.
    """

    __tablename__ = "log_entry"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int | None] = mapped_column(ForeignKey("project.id"), index=True)
    use_id: Mapped[int | None] = mapped_column(ForeignKey("cloth_use.id"))
    cloth_id: Mapped[int | None] = mapped_column(ForeignKey("cloth.id"), index=True)
    #: the change it tells of; lines of before changes were kept have none
    change_id: Mapped[int | None] = mapped_column(index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    stage: Mapped[str] = mapped_column(String(10))
    kind: Mapped[str] = mapped_column(String(30))
    values: Mapped[dict[str, Any]] = mapped_column(default=dict)
    before: Mapped[dict[str, Any]] = mapped_column(default=dict)
    after: Mapped[dict[str, Any]] = mapped_column(default=dict)
