"""The tables."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, DateTime, ForeignKey, MetaData, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship
from sqlalchemy.types import TypeDecorator


class UtcTime(TypeDecorator[datetime]):
    """SQLite keeps no zone: store UTC, give back UTC."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Any) -> datetime | None:
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Any) -> datetime | None:
        return None if value is None else value.replace(tzinfo=UTC)


def now() -> datetime:
    """The present, in UTC."""
    return datetime.now(UTC)


class Base(DeclarativeBase):
    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {datetime: UtcTime, dict[str, Any]: JSON, list[Any]: JSON}  # noqa: RUF012


class Settings(Base):
    """One row: how this person measures."""

    __tablename__ = "settings"
    id: Mapped[int] = mapped_column(primary_key=True)
    system: Mapped[str] = mapped_column(String(10), default="metric")
    graduation: Mapped[float] = mapped_column(default=1.0)


class Cloth(Base):
    """A length of cloth. Lengths in mm, mass in g/m², price per ``price_unit``."""

    __tablename__ = "cloth"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120), default="")
    kind: Mapped[str] = mapped_column(String(30), default="")
    width_readings: Mapped[list[Any]] = mapped_column(default=list)
    margin_low: Mapped[float] = mapped_column(default=0.0)
    margin_high: Mapped[float] = mapped_column(default=0.0)
    in_hand: Mapped[float | None]
    mass: Mapped[float | None]
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    one_way: Mapped[bool] = mapped_column(default=False)
    depth: Mapped[str] = mapped_column(String(10), default="medium")
    ground: Mapped[str] = mapped_column(String(7), default="#C9D3D6")
    bars: Mapped[dict[str, Any]] = mapped_column(default=dict)
    created_at: Mapped[datetime] = mapped_column(default=now)


class Swatch(Base):
    """A marked swatch: [before, after or null] per reading, mm."""

    __tablename__ = "swatch"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    warp: Mapped[list[Any]] = mapped_column(default=list)
    weft: Mapped[list[Any]] = mapped_column(default=list)
    graduation: Mapped[float] = mapped_column(default=1.0)
    updated_at: Mapped[datetime] = mapped_column(default=now)


class Project(Base):
    """One thing to be made, with the cloth it is made of and what the maker wishes for its lay."""

    __tablename__ = "project"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    note: Mapped[str] = mapped_column(Text, default="")
    wash: Mapped[str] = mapped_column(String(20), default="40")
    dry: Mapped[str] = mapped_column(String(20), default="line")
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    gap: Mapped[float] = mapped_column(default=3.0)
    folds: Mapped[list[Any]] = mapped_column(default=lambda: ["open", "lengthwise"])
    lay_seconds: Mapped[float] = mapped_column(default=8.0)
    ends: Mapped[float] = mapped_column(default=100.0)
    spare: Mapped[float] = mapped_column(default=0.0)
    shop_step: Mapped[float] = mapped_column(default=100.0)
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    cloth: Mapped[Cloth] = relationship()


class Piece(Base):
    """A pattern piece; ``outline`` is as drawn or typed, ``seam`` still to be added."""

    __tablename__ = "piece"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    outline: Mapped[list[Any]] = mapped_column(default=list)
    stations: Mapped[list[Any]] = mapped_column(default=list)
    smooth: Mapped[bool] = mapped_column(default=True)
    copies: Mapped[int] = mapped_column(default=1)
    pair: Mapped[bool] = mapped_column(default=False)
    on_fold: Mapped[bool] = mapped_column(default=False)
    grain: Mapped[str] = mapped_column(String(12), default="lengthwise")
    one_way: Mapped[bool] = mapped_column(default=False)
    seam: Mapped[float] = mapped_column(default=0.0)
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]


class LayRecord(Base):
    """A lay that was found, with the problem it answers. At most one of a project is chosen; ``picked`` by the
    maker, and so not to be replaced by a better one of the same search."""

    __tablename__ = "lay"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"))
    fold: Mapped[str] = mapped_column(String(20))
    fingerprint: Mapped[str] = mapped_column(String(16))
    problem: Mapped[dict[str, Any]]
    lay: Mapped[dict[str, Any]]
    chosen: Mapped[bool] = mapped_column(default=False)
    picked: Mapped[bool] = mapped_column(default=False)
    created_at: Mapped[datetime] = mapped_column(default=now)


class Job(Base):
    """Long work. ``spent`` seconds survive a restart, so that the rest can be done."""

    __tablename__ = "job"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    kind: Mapped[str] = mapped_column(String(20), default="lay")
    state: Mapped[str] = mapped_column(String(12), default="waiting", index=True)
    params: Mapped[dict[str, Any]]
    progress: Mapped[list[Any]] = mapped_column(default=list)
    refused: Mapped[list[Any]] = mapped_column(default=list)
    error: Mapped[str] = mapped_column(Text, default="")
    cancel: Mapped[bool] = mapped_column(default=False)
    spent: Mapped[float] = mapped_column(default=0.0)
    heartbeat: Mapped[datetime | None]
    created_at: Mapped[datetime] = mapped_column(default=now)
    finished_at: Mapped[datetime | None]


class LogEntry(Base):
    """One thing that was done. Only ever added to."""

    __tablename__ = "log_entry"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int | None] = mapped_column(ForeignKey("project.id"), index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    stage: Mapped[str] = mapped_column(String(10))
    what: Mapped[str] = mapped_column(Text)
    detail: Mapped[dict[str, Any]] = mapped_column(default=dict)
