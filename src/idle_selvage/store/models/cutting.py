"""Cutting: rounds, what was done in them, and the list before them."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .cloth import Cloth
from .lay_problem import LayProblem


class Cutting(Base):
    """A round of cutting: one lay, as it was when the round was begun, on one cloth: that of the use, or a remnant or
    another cloth of the set in which a place was found for what went wrong. ``own_order``: the placements in an order
    of the maker's own, empty: as computed; ``at``: the placement at hand."""

    __tablename__ = "cutting"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    fingerprint: Mapped[str] = mapped_column(ForeignKey("lay_problem.fingerprint"), index=True)
    lay: Mapped[dict[str, Any]]
    own_order: Mapped[list[Any]] = mapped_column(default=list)
    at: Mapped[str] = mapped_column(String(80), default="")
    begun_at: Mapped[datetime] = mapped_column(default=now)
    cloth: Mapped[Cloth] = relationship(lazy="joined")
    asked: Mapped[LayProblem] = relationship(lazy="joined")

    @property
    def problem(self) -> dict[str, Any]:
        """The problem its lay answers, in its format."""
        return self.asked.problem


class CutDeed(Base):
    """One deed at the table, a :class:`core.cut.tally.Deed`; never changed and never taken out. ``why``: in the maker's
    own words."""

    __tablename__ = "cut_deed"
    id: Mapped[int] = mapped_column(primary_key=True)
    cutting_id: Mapped[int] = mapped_column(ForeignKey("cutting.id", ondelete="CASCADE"), index=True)
    kind: Mapped[str] = mapped_column(String(10))
    key: Mapped[str] = mapped_column(String(80), default="")
    copy: Mapped[int] = mapped_column(default=0)
    why: Mapped[str] = mapped_column(String(120), default="")
    at: Mapped[datetime] = mapped_column(default=now)


class BeforeLine(Base):
    """A line of the list before cutting that was ticked by hand, or (with ``why``) accepted though it is not so."""

    __tablename__ = "before_line"
    __table_args__ = (UniqueConstraint("use_id", "key"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), index=True)
    key: Mapped[str] = mapped_column(String(20))
    why: Mapped[str] = mapped_column(String(120), default="")
    at: Mapped[datetime] = mapped_column(default=now)
