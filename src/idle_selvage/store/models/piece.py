"""A pattern piece."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .cut import Cut


class Piece(Base):
    """A pattern piece as it is on the paper, and how it is cut from each cloth of its garment (:attr:`cuts`).

    The JSON columns are the parts of a :class:`core.plan.draft.Draft`, in mm, in the piece's own axes: ``points`` as
    [along, across, smooth, straight, allowance, ends, key]; ``arrow`` as two places or null; ``notches`` as [after, at,
    double]; ``marks`` as {kind, places, name}. ``sizes``: {size, places}, as many places as points. ``included``: the
    allowance inside the drawn line, mm. ``half``: half of a symmetrical piece, its straight edge the fold.

    ``corners``: points that were said to be corners of the seams, or to be none, as [key, is one]; ``centred`` on the
    bars along the cloth; ``hem``: hemmed at its low end.
    """

    __tablename__ = "piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    points: Mapped[list[Any]] = mapped_column(default=list)
    arrow: Mapped[list[Any] | None]
    included: Mapped[float] = mapped_column(default=0.0)
    notches: Mapped[list[Any]] = mapped_column(default=list)
    marks: Mapped[list[Any]] = mapped_column(default=list)
    sizes: Mapped[list[Any]] = mapped_column(default=list)
    half: Mapped[bool] = mapped_column(default=False)
    corners: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    centred: Mapped[bool] = mapped_column(default=False, server_default="0")
    hem: Mapped[bool] = mapped_column(default=False, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    cuts: Mapped[list[Cut]] = relationship(cascade="all, delete-orphan", order_by=Cut.id)

    def cut_from(self, use_id: int) -> Cut | None:
        """How it is cut from one cloth, or None when it is not."""
        return next((cut for cut in self.cuts if cut.use_id == use_id), None)
