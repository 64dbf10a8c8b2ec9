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
    """One row: how this person measures, what the washer takes (kg), and when the person is up (minutes of the day)."""

    __tablename__ = "settings"
    id: Mapped[int] = mapped_column(primary_key=True)
    system: Mapped[str] = mapped_column(String(10), default="metric")
    graduation: Mapped[float] = mapped_column(default=1.0)
    washer_kg: Mapped[float] = mapped_column(default=7.0, server_default="7.0")
    rise: Mapped[int] = mapped_column(default=420, server_default="420")
    sleep: Mapped[int] = mapped_column(default=1320, server_default="1320")


class Cloth(Base):
    """A length of cloth. Lengths in mm, mass in g/m², price per ``price_unit``.

    ``like`` is the key under which past tests of like cloth are found; ``treated`` says that width and length in
    hand were measured after pre-treatment.
    """

    __tablename__ = "cloth"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120), default="")
    blend: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    weave: Mapped[str] = mapped_column(String(20), default="plain", server_default="plain")
    finish: Mapped[str] = mapped_column(String(20), default="", server_default="")
    colouring: Mapped[str] = mapped_column(String(20), default="", server_default="")
    like: Mapped[str] = mapped_column(String(30), default="", server_default="", index=True)
    width_readings: Mapped[list[Any]] = mapped_column(default=list)
    margin_low: Mapped[float] = mapped_column(default=0.0)
    margin_high: Mapped[float] = mapped_column(default=0.0)
    in_hand: Mapped[float | None]
    mass: Mapped[float | None]
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    direction: Mapped[str] = mapped_column(String(10), default="none", server_default="none")
    pile: Mapped[str] = mapped_column(String(5), default="", server_default="")
    pile_why: Mapped[str] = mapped_column(String(120), default="", server_default="")
    wales: Mapped[float | None]
    face: Mapped[str] = mapped_column(String(120), default="", server_default="")
    face_mark: Mapped[str] = mapped_column(String(120), default="", server_default="")
    reversible: Mapped[bool] = mapped_column(default=False, server_default="0")
    depth: Mapped[str] = mapped_column(String(10), default="medium")
    rub_grade: Mapped[int | None]
    ground: Mapped[str] = mapped_column(String(7), default="#C9D3D6")
    bars: Mapped[dict[str, Any]] = mapped_column(default=dict)
    flaws: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    shop_fold: Mapped[float | None]
    answers: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    style_number: Mapped[str] = mapped_column(String(120), default="", server_default="")
    place: Mapped[str] = mapped_column(String(120), default="", server_default="")
    treated: Mapped[bool] = mapped_column(default=False, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]


class Photo(Base):
    """A photo of a cloth, made smaller and freed of everything but the picture."""

    __tablename__ = "photo"
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), primary_key=True)
    jpeg: Mapped[bytes] = mapped_column(deferred=True)
    at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]


class Swatch(Base):
    """A marked swatch: a row per marked distance, [before, after wash 1, after wash 2 …], mm, null where not measured.

    ``diagonals`` holds [AC, BD] before and after each wash, either or all null. The newest swatch of a cloth that
    is ``used`` is gone by. ``simulated`` readings come from the stand-in washer.
    """

    __tablename__ = "swatch"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    warp: Mapped[list[Any]] = mapped_column(default=list)
    weft: Mapped[list[Any]] = mapped_column(default=list)
    graduation: Mapped[float] = mapped_column(default=1.0)
    diagonals: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    used: Mapped[bool] = mapped_column(default=True, server_default="1")
    simulated: Mapped[bool] = mapped_column(default=False, server_default="0")
    updated_at: Mapped[datetime] = mapped_column(default=now)


class Wash(Base):
    """One wash of a length of cloth: how, the rag's grade (1 to 5), and what it measured afterwards."""

    __tablename__ = "wash"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    how: Mapped[str] = mapped_column(String(120), default="")
    grade: Mapped[int | None]
    length_after: Mapped[float | None]
    width_after: Mapped[float | None]
    simulated: Mapped[bool] = mapped_column(default=False)
    #: the step of a load that it was, if it was planned
    task_id: Mapped[int | None] = mapped_column(ForeignKey("load_task.id", ondelete="SET NULL"))
    deleted_at: Mapped[datetime | None]


class SetCloth(Base):
    """Another cloth of a project beside its main one, and what it is for."""

    __tablename__ = "set_cloth"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), primary_key=True)
    role: Mapped[str] = mapped_column(String(20))
    cloth: Mapped[Cloth] = relationship()


class WashLoad(Base):
    """Cloths that share water, planned together. ``cloths``: [{id, name, project}]."""

    __tablename__ = "wash_load"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    why: Mapped[str] = mapped_column(Text)
    kilograms: Mapped[float]
    metres: Mapped[float]
    too_heavy: Mapped[bool]
    cloths: Mapped[list[Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)
    steps: Mapped[list[LoadTask]] = relationship(
        order_by="LoadTask.position", cascade="all, delete-orphan", back_populates="load"
    )


class LoadTask(Base):
    """One step of a load: when it is planned, when it was begun and ended. ``learn`` names the time it teaches."""

    __tablename__ = "load_task"
    id: Mapped[int] = mapped_column(primary_key=True)
    load_id: Mapped[int] = mapped_column(ForeignKey("wash_load.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    what: Mapped[str] = mapped_column(String(60))
    machine: Mapped[str] = mapped_column(String(10))
    minutes: Mapped[int]
    bound: Mapped[str] = mapped_column(String(6))
    learn: Mapped[str] = mapped_column(String(20), index=True)
    start_at: Mapped[datetime]
    end_at: Mapped[datetime]
    started_at: Mapped[datetime | None]
    finished_at: Mapped[datetime | None]
    load: Mapped[WashLoad] = relationship(back_populates="steps")


class Project(Base):
    """One thing to be made, with the cloth it is made of and what the maker wishes for its lay."""

    __tablename__ = "project"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    note: Mapped[str] = mapped_column(Text, default="")
    wash: Mapped[str] = mapped_column(String(20), default="40")
    dry: Mapped[str] = mapped_column(String(20), default="line")
    school: Mapped[str] = mapped_column(String(10), default="", server_default="")
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    gap: Mapped[float] = mapped_column(default=3.0)
    folds: Mapped[list[Any]] = mapped_column(default=lambda: ["open", "lengthwise"])
    lay_seconds: Mapped[float] = mapped_column(default=8.0)
    ends: Mapped[float] = mapped_column(default=100.0)
    spare: Mapped[float] = mapped_column(default=0.0)
    shop_step: Mapped[float] = mapped_column(default=100.0)
    #: how the first edge will be made, a key of core.edge.METHODS; empty: as advised for the cloth
    edge_way: Mapped[str] = mapped_column(String(10), default="", server_default="")
    bought_extra: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    extra_why: Mapped[str] = mapped_column(String(120), default="", server_default="")
    #: what the end that was measured loses, of ``ends``; null: half of them
    first_end: Mapped[float | None]
    #: cut off at that end because it could not be straightened, of ``first_end``
    cut_off: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    cloth: Mapped[Cloth] = relationship()


class Piece(Base):
    """A pattern piece; ``outline`` is as drawn or typed, ``seam`` still to be added.

    Pieces that share ``meets`` meet on the bars across the cloth, ``meets_at`` mm up the seam line; ``centred`` on the
    bars along it; ``hidden`` does not show when worn; ``hem``: hemmed at its low end.
    """

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
    meets: Mapped[str] = mapped_column(String(40), default="", server_default="")
    meets_at: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    centred: Mapped[bool] = mapped_column(default=False, server_default="0")
    hidden: Mapped[bool] = mapped_column(default=False, server_default="0")
    hem: Mapped[bool] = mapped_column(default=False, server_default="0")
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]


class Trial(Base):
    """A lay tried on the side, kept under its problem's fingerprint: asked again, it is there at once.

    ``lays``: [[fold, lay] …], the shortest first; empty with ``why`` when it cannot be laid, or ``wide`` ([piece,
    across, width] …) when pieces reach over the cloth. ``seconds``: how long it was searched for.
    """

    __tablename__ = "trial"
    fingerprint: Mapped[str] = mapped_column(String(16), primary_key=True)
    problem: Mapped[dict[str, Any]]
    lays: Mapped[list[Any]] = mapped_column(default=list)
    why: Mapped[str] = mapped_column(Text, default="")
    wide: Mapped[list[Any]] = mapped_column(default=list)
    seconds: Mapped[float]
    created_at: Mapped[datetime] = mapped_column(default=now)


class Offer(Base):
    """What a shop offers for a project. Lengths in mm; shrinkages in per cent, null: as the project's cloth."""

    __tablename__ = "offer"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    width: Mapped[float]
    margin: Mapped[float] = mapped_column(default=20.0)
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    warp: Mapped[float | None]
    weft: Mapped[float | None]
    step: Mapped[float] = mapped_column(default=100.0)
    least: Mapped[float] = mapped_column(default=0.0)
    stock: Mapped[float | None]
    #: the number in the shop's price list it was taken from
    shop_number: Mapped[str] = mapped_column(String(20), default="")
    deleted_at: Mapped[datetime | None]


class TrueTest(Base):
    """One fold test of a project's cloth: ``place`` along it, signed ``offset`` of the edges, ``bow``, all mm, and
    what was ``done`` before it. Only ever struck out."""

    __tablename__ = "true_test"
    id: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id"), index=True)
    at: Mapped[datetime] = mapped_column(default=now)
    place: Mapped[float] = mapped_column(default=0.0)
    offset: Mapped[float]
    bow: Mapped[float] = mapped_column(default=0.0)
    done: Mapped[str] = mapped_column(String(20), default="")
    deleted_at: Mapped[datetime | None]


class TrueSheet(Base):
    """What was read at the table, a row per project.

    ``now``: the reading not written down yet; ``edge``: the present cut edge; ``fold``: [along, distance];
    ``ripple``: which way the fold ripples; ``checks``: a piece's key to its two distances; ``bars``: [place, off];
    ``bands``: the ends of the first three, empty: as usual; ``accepted``: a happy medium was taken. All mm.
    """

    __tablename__ = "true_sheet"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    now: Mapped[dict[str, Any]] = mapped_column(default=dict)
    edge: Mapped[list[Any]] = mapped_column(default=list)
    fold: Mapped[list[Any]] = mapped_column(default=list)
    ripple: Mapped[str] = mapped_column(String(5), default="")
    checks: Mapped[dict[str, Any]] = mapped_column(default=dict)
    bars: Mapped[list[Any]] = mapped_column(default=list)
    bands: Mapped[list[Any]] = mapped_column(default=list)
    school: Mapped[str] = mapped_column(String(5), default="")
    accepted: Mapped[bool] = mapped_column(default=False)


class BuySheet(Base):
    """What was typed on the sheets of Buy, a row per project: the envelope, strips, what is laid together, the list."""

    __tablename__ = "buy_sheet"
    project_id: Mapped[int] = mapped_column(ForeignKey("project.id"), primary_key=True)
    envelope: Mapped[dict[str, Any]] = mapped_column(default=dict)
    strips: Mapped[dict[str, Any]] = mapped_column(default=dict)
    together: Mapped[list[Any]] = mapped_column(default=list)
    items: Mapped[list[Any]] = mapped_column(default=list)
    have: Mapped[list[Any]] = mapped_column(default=list)


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
    #: the shrinkages planned with when it was made, per cent: {"warp": …, "weft": …}
    basis: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
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
