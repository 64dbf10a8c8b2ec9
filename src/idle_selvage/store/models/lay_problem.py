"""What was asked of the lay engine."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now


class LayProblem(Base):
    """A lay problem in its format, kept once under its fingerprint; lays, jobs and trials point to it."""

    __tablename__ = "lay_problem"
    fingerprint: Mapped[str] = mapped_column(String(16), primary_key=True)
    problem: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)
