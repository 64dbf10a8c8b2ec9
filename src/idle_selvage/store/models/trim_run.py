"""One edge a trim goes on."""

from __future__ import annotations

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class TrimRun(Base):
    """One edge a trim is sewn to: ``length`` mm, so many ``times``."""

    __tablename__ = "trim_run"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), index=True)
    position: Mapped[int] = mapped_column(default=0)
    what: Mapped[str] = mapped_column(String(120))
    length: Mapped[float]
    times: Mapped[int] = mapped_column(default=1)
