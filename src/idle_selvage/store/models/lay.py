"""A lay that was found."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .lay_problem import LayProblem


class LayChange(Base):
    """One change by hand, ``number`` within its lay from 1: a :class:`core.lay.hand.Change` as JSON."""

    __tablename__ = "lay_change"
    id: Mapped[int] = mapped_column(primary_key=True)
    lay_id: Mapped[int] = mapped_column(ForeignKey("lay.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    change: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)


class LayRecord(Base):
    """A lay that was found, with the problem it answers. At most one of a cloth use is chosen; ``picked`` by the
    maker, and so not to be replaced by a better one of the same search.

    A lay with a ``name`` is the maker's own: ``lay`` is what she began with, and :class:`LayChange` rows what she has
    done since, ``changes`` of them.
    """

    __tablename__ = "lay"
    id: Mapped[int] = mapped_column(primary_key=True)
    use_id: Mapped[int] = mapped_column(ForeignKey("cloth_use.id"), index=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"))
    fold: Mapped[str] = mapped_column(String(20))
    fingerprint: Mapped[str] = mapped_column(ForeignKey("lay_problem.fingerprint"), index=True)
    lay: Mapped[dict[str, Any]]
    #: the shrinkages planned with when it was made, per cent: {"warp": …, "weft": …}
    basis: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    chosen: Mapped[bool] = mapped_column(default=False)
    picked: Mapped[bool] = mapped_column(default=False)
    name: Mapped[str] = mapped_column(String(60), default="", server_default="")
    changes: Mapped[int] = mapped_column(default=0, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    by_hand: Mapped[list[LayChange]] = relationship(order_by=LayChange.number, viewonly=True)
    asked: Mapped[LayProblem] = relationship(lazy="joined")

    @property
    def problem(self) -> dict[str, Any]:
        """The problem it answers, in its format."""
        return self.asked.problem
