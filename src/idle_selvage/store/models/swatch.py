"""A marked swatch."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from .base import Base, now
from .reading import By, Reading, Spot, replace_readings

Marks = list[list[float | None]]


class Swatch(Base):
    """A marked swatch. The newest swatch of a cloth that is ``used`` is gone by. ``simulated``: its readings come from
    the stand-in washer."""

    __tablename__ = "swatch"
    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    graduation: Mapped[float] = mapped_column(default=1.0)
    used: Mapped[bool] = mapped_column(default=True, server_default="1")
    simulated: Mapped[bool] = mapped_column(default=False, server_default="0")
    #: how it was washed and dried, nothing: not written down; ``temperature`` where the wash does not say it
    wash: Mapped[str] = mapped_column(String(12), default="", server_default="")
    dry: Mapped[str] = mapped_column(String(12), default="", server_default="")
    temperature: Mapped[int | None]
    updated_at: Mapped[datetime] = mapped_column(default=now)
    readings: Mapped[list[Reading]] = relationship(
        cascade="all, delete-orphan", order_by=Reading.id, foreign_keys=Reading.swatch_id
    )

    def marks(self, direction: str) -> Marks:
        """A row per marked distance, [before, after wash 1, after wash 2 …], mm, None where not measured."""
        rows: Marks = []
        for one in sorted((r for r in self.readings if r.kind == direction), key=lambda r: (r.place, r.nth)):
            place = int(one.place)
            rows.extend([] for _ in range(place + 1 - len(rows)))
            rows[place].extend([None] * (one.nth + 1 - len(rows[place])))
            rows[place][one.nth] = one.value
        return rows

    @property
    def warp(self) -> Marks:
        return self.marks("warp")

    @property
    def weft(self) -> Marks:
        return self.marks("weft")

    @property
    def diagonals(self) -> list[list[float | None] | None]:
        """[AC, BD] before and after each wash, either or all None."""
        found: list[list[float | None] | None] = []
        for one in self.readings:
            if one.kind not in ("ac", "bd"):
                continue
            found.extend([None] * (one.nth + 1 - len(found)))
            pair = found[one.nth] or [None, None]
            pair[one.kind == "bd"] = one.value
            found[one.nth] = pair
        return found

    def keep_marks(self, direction: str, rows: Sequence[Sequence[float | None]], by: By = "tape") -> None:
        """Make its marks of a direction these."""
        given: dict[Spot, float] = {
            (direction, float(place), nth, None, None): value
            for place, row in enumerate(rows)
            for nth, value in enumerate(row)
            if value is not None
        }
        replace_readings(self.readings, (direction,), given, by)

    def keep_diagonals(self, pairs: Sequence[Sequence[float | None] | None], by: By = "tape") -> None:
        """Make its diagonals these."""
        given: dict[Spot, float] = {
            (kind, 0.0, nth, None, None): value
            for nth, pair in enumerate(pairs)
            for kind, value in zip(("ac", "bd"), pair or (), strict=False)
            if value is not None
        }
        replace_readings(self.readings, ("ac", "bd"), given, by)
