"""One cloth in a garment."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from ...core.lay.problem import FOLDS
from .base import Base, now
from .cloth import Cloth
from .reading import Reading

if TYPE_CHECKING:
    from .project import Project


class ClothUse(Base):
    """One cloth in a garment: its role there, and what the maker wishes for treating, laying and buying it.

    A cloth may serve several garments, and one garment twice. Lengths in mm.
    """

    __tablename__ = "cloth_use"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    role: Mapped[str] = mapped_column(String(20), default="main")
    school: Mapped[str] = mapped_column(String(10), default="")
    gap: Mapped[float] = mapped_column(default=3.0)
    #: which side of folded cloth looks out, a key of core.lay.folding.SIDES
    sides: Mapped[str] = mapped_column(String(10), default="together", server_default="together")
    folds: Mapped[list[Any]] = mapped_column(default=lambda: list(FOLDS))
    #: whether pieces may be turned end for end on bars that are not balanced
    turn_on_bars: Mapped[bool] = mapped_column(default=False)
    lay_seconds: Mapped[float] = mapped_column(default=8.0)
    ends: Mapped[float] = mapped_column(default=100.0)
    spare: Mapped[float] = mapped_column(default=0.0)
    shop_step: Mapped[float] = mapped_column(default=100.0)
    #: how the first edge will be made, a key of core.edge.METHODS; empty: as advised for the cloth
    edge_way: Mapped[str] = mapped_column(String(10), default="")
    bought_extra: Mapped[float] = mapped_column(default=0.0)
    extra_why: Mapped[str] = mapped_column(String(120), default="")
    #: what the end that was measured loses, of ``ends``; null: half of them
    first_end: Mapped[float | None]
    #: cut off at that end because it could not be straightened, of ``first_end``
    cut_off: Mapped[float] = mapped_column(default=0.0)
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    project: Mapped[Project] = relationship(back_populates="all_uses")
    cloth: Mapped[Cloth] = relationship(lazy="joined")
    readings: Mapped[list[Reading]] = relationship(
        cascade="all, delete-orphan", order_by=Reading.id, foreign_keys=Reading.use_id
    )
