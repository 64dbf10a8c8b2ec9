"""One thing that was done."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String, Text
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class LogEntry(Base):
    """One thing that was done. Only ever added to."""

    __tablename__ = "log_entry"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int | None] = mapped_column(ForeignKey("project.id"), index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    stage: Mapped[str] = mapped_column(String(10))
    what: Mapped[str] = mapped_column(Text)
    detail: Mapped[dict[str, Any]] = mapped_column(default=dict)
