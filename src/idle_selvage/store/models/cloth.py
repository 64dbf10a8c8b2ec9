"""A length of cloth."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .bar import BarRow
from .base import Base, now
from .flaw import Flaw
from .reading import Reading
from .wash import Wash

#: Under which place the readings of a repeat are kept.
REPEAT_WAYS = ("along", "across")


class Cloth(Base):
    """A length of cloth. Lengths in mm, mass in g/m², price per ``price_unit``.

    ``like`` is the key under which past tests of like cloth are found. Its states are "as bought" and one after each
    treatment (:attr:`treatments`); widths and lengths are readings, each in its state.
    """

    __tablename__ = "cloth"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120), default="")
    blend: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    weave: Mapped[str] = mapped_column(String(20), default="plain", server_default="plain")
    finish: Mapped[str] = mapped_column(String(20), default="", server_default="")
    colouring: Mapped[str] = mapped_column(String(20), default="", server_default="")
    like: Mapped[str] = mapped_column(String(30), default="", server_default="", index=True)
    margin_low: Mapped[float] = mapped_column(default=0.0)
    margin_high: Mapped[float] = mapped_column(default=0.0)
    mass: Mapped[float | None]
    price: Mapped[float | None]
    price_unit: Mapped[str] = mapped_column(String(2), default="m")
    direction: Mapped[str] = mapped_column(String(10), default="none", server_default="none")
    pile: Mapped[str] = mapped_column(String(5), default="", server_default="")
    pile_why: Mapped[str] = mapped_column(String(120), default="", server_default="")
    wales: Mapped[float | None]
    face: Mapped[str] = mapped_column(String(120), default="", server_default="")
    face_mark: Mapped[str] = mapped_column(String(120), default="", server_default="")
    #: the selvage (``low``, ``high``) a border lies along, or nothing; what it is, a key of core.cloth.border.KINDS;
    #: how deep it is, mm
    border: Mapped[str] = mapped_column(String(4), default="", server_default="")
    border_kind: Mapped[str] = mapped_column(String(12), default="print", server_default="print")
    border_deep: Mapped[float] = mapped_column(default=0.0, server_default="0.0")
    reversible: Mapped[bool] = mapped_column(default=False, server_default="0")
    depth: Mapped[str] = mapped_column(String(10), default="medium")
    rub_grade: Mapped[int | None]
    ground: Mapped[str] = mapped_column(String(7), default="#C9D3D6")
    answers: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    style_number: Mapped[str] = mapped_column(String(120), default="", server_default="")
    place: Mapped[str] = mapped_column(String(120), default="", server_default="")
    #: a remnant's own outline and then its holes, each as places along and across, mm, as it was in its state number
    #: ``outline_state``; empty: it is as wide all along. And the cloth it was cut from
    outline: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    outline_state: Mapped[int] = mapped_column(default=0, server_default="0")
    cut_at: Mapped[list[Any]] = mapped_column(default=list, server_default="[]")
    remnant_of: Mapped[int | None]
    created_at: Mapped[datetime] = mapped_column(default=now)
    deleted_at: Mapped[datetime | None]
    readings: Mapped[list[Reading]] = relationship(
        cascade="all, delete-orphan", order_by=Reading.id, foreign_keys=Reading.cloth_id
    )
    flaws: Mapped[list[Flaw]] = relationship(cascade="all, delete-orphan", order_by=(Flaw.position, Flaw.id))
    bars: Mapped[list[BarRow]] = relationship(cascade="all, delete-orphan", order_by=(BarRow.way, BarRow.position))
    washes: Mapped[list[Wash]] = relationship(order_by=Wash.id, viewonly=True)

    @property
    def treatments(self) -> list[Wash]:
        """The treatments it has had, the first one first; what a stand-in made up treats nothing."""
        return [wash for wash in self.washes if wash.deleted_at is None and not wash.simulated]

    @property
    def state_id(self) -> int | None:
        """The wash that brought it to its present state; None: it is as bought."""
        done = self.treatments
        return done[-1].id if done else None

    def widths_in(self, state: int | None) -> tuple[float, ...]:
        """The width readings of a state, mm."""
        found = [row for row in self.readings if row.kind == "width" and row.wash_id == state]
        return tuple(row.value for row in sorted(found, key=lambda row: row.place))

    def length_in(self, state: int | None) -> float | None:
        """Its measured length in a state, mm."""
        found = [row.value for row in self.readings if row.kind == "length" and row.wash_id == state]
        return found[-1] if found else None

    def repeats(self, way: str) -> tuple[float, ...]:
        """The repeat of its bars along or across it, as it was measured at several places, mm."""
        place = float(REPEAT_WAYS.index(way))
        found = [row for row in self.readings if row.kind == "repeat" and row.place == place]
        return tuple(row.value for row in sorted(found, key=lambda row: row.nth))

    def shop_fold_row(self) -> Reading | None:
        """Where its faded shop fold was read, from the near selvage; None when there is none."""
        return next((row for row in self.readings if row.kind == "shopfold"), None)

    @property
    def shop_fold(self) -> float | None:
        """Where its faded shop fold lay when it was read, mm from the near selvage."""
        row = self.shop_fold_row()
        return None if row is None else row.value

    @property
    def states(self) -> tuple[int | None, ...]:
        """Its states by the washes that brought it there, the first one None: as bought."""
        return (None, *(wash.id for wash in self.treatments))
