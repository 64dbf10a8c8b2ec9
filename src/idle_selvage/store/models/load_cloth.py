"""One cloth of a load."""

from __future__ import annotations

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class LoadCloth(Base):
    """A cloth in a load, by its name and its garment's as they were when it was planned."""

    __tablename__ = "load_cloth"
    load_id: Mapped[int] = mapped_column(ForeignKey("wash_load.id", ondelete="CASCADE"), primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), primary_key=True)
    position: Mapped[int] = mapped_column(default=0)
    name: Mapped[str] = mapped_column(String(160))
    garment: Mapped[str] = mapped_column(String(120))
    #: what its weight was reckoned from: mm, and g/m² (none: not given)
    length: Mapped[float | None]
    width: Mapped[float | None]
    mass: Mapped[float | None]
