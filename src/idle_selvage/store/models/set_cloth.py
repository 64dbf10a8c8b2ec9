"""Another cloth of a project beside its main one."""

from __future__ import annotations

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base
from .cloth import Cloth


class SetCloth(Base):
    """Another cloth of a project beside its main one, and what it is for."""

    __tablename__ = "set_cloth"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), primary_key=True)
    role: Mapped[str] = mapped_column(String(20))
    cloth: Mapped[Cloth] = relationship()
