"""Long work."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String, Text
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class Job(Base):
    """Long work for one cloth of a garment. ``spent`` seconds survive a restart, so that the rest can be done.

    ``fingerprint``: the problem that is laid; ``params``: how it is searched, for trials which problems in which order.
    """

    __tablename__ = "job"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    kind: Mapped[str] = mapped_column(String(20), default="lay")
    state: Mapped[str] = mapped_column(String(12), default="waiting", index=True)
    fingerprint: Mapped[str | None] = mapped_column(ForeignKey("lay_problem.fingerprint"))
    params: Mapped[dict[str, Any]]
    progress: Mapped[list[Any]] = mapped_column(default=list)
    refused: Mapped[list[Any]] = mapped_column(default=list)
    error: Mapped[str] = mapped_column(Text, default="")
    cancel: Mapped[bool] = mapped_column(default=False)
    spent: Mapped[float] = mapped_column(default=0.0)
    heartbeat: Mapped[datetime | None]
    created_at: Mapped[datetime] = mapped_column(default=now)
    finished_at: Mapped[datetime | None]
