"""One change of the data, and the rows it touched."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Index, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now


class Change(Base):
    """What one request or one job changed, so that it can be taken back at any later time.

    Its number is the revision of every row in it. ``window``: the page that asked for it, empty for a job. ``undoes``:
    the change that this one takes back; ``undone_by``: the one that took this one back.
    """

    __tablename__ = "change"
    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(default=now)
    window: Mapped[str] = mapped_column(String(40), default="")
    undoes: Mapped[int | None] = mapped_column(ForeignKey("change.id"))
    undone_by: Mapped[int | None] = mapped_column(ForeignKey("change.id"))
    rows: Mapped[list[ChangedRow]] = relationship(order_by="ChangedRow.id", cascade="all, delete-orphan")


class ChangedRow(Base):
    """One row of a change: ``how`` is “new”, “gone” or “set”.

    ``key`` is its primary key as JSON. ``before`` and ``after`` are its columns (store/journal.py says how values are
    written): of a new row neither is kept, of one that is gone all of it before, of one that was set what was set.
    """

    __tablename__ = "changed_row"
    __table_args__ = (Index("ix_changed_row_place", "table", "key"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    change_id: Mapped[int] = mapped_column(ForeignKey("change.id", ondelete="CASCADE"), index=True)
    table: Mapped[str] = mapped_column(String(30))
    key: Mapped[str] = mapped_column(String(60))
    how: Mapped[str] = mapped_column(String(4))
    before: Mapped[dict[str, Any]] = mapped_column(default=dict)
    after: Mapped[dict[str, Any]] = mapped_column(default=dict)
