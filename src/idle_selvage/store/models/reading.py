"""One thing that was read with a tape."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any, Literal

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base, now

#: By what a value was read.
By = Literal["tape", "device", "made up", "photo"]


class Reading(Base):
    """One thing that was read: ``value`` mm of a ``kind``, ``by`` what, and when. It belongs to one of three:

    - a cloth, in the state ``wash_id`` brought it to (null: as bought): ``width`` at ``place`` (which of several),
      ``length``, ``shopfold``: a faded shop fold, from the near selvage;
    - a swatch, after wash number ``nth`` (0: before any): ``warp`` and ``weft`` at ``place`` (which mark), ``ac`` and
      ``bd``, its diagonals;
    - the table of a cloth use, in the state ``wash_id`` brought its cloth to: ``fold`` and ``bar`` number ``nth`` at
      ``place`` mm along, ``edge`` at ``place`` (which of several, of any state), ``tail`` and ``head`` of the
      arrow of copy ``nth`` of a piece.
    """

    __tablename__ = "reading"
    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(8))
    cloth_id: Mapped[int | None] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    wash_id: Mapped[int | None] = mapped_column(ForeignKey("wash.id", ondelete="CASCADE"), index=True)
    swatch_id: Mapped[int | None] = mapped_column(ForeignKey("swatch.id", ondelete="CASCADE"), index=True)
    use_id: Mapped[int | None] = mapped_column(ForeignKey("cloth_use.id", ondelete="CASCADE"), index=True)
    piece_id: Mapped[int | None] = mapped_column(ForeignKey("piece.id", ondelete="CASCADE"))
    place: Mapped[float] = mapped_column(default=0.0)
    nth: Mapped[int] = mapped_column(default=0)
    value: Mapped[float]
    by: Mapped[str] = mapped_column(String(8), default="tape")
    at: Mapped[datetime] = mapped_column(default=now)


#: Where a reading stands among those of its owner: kind, place, nth, wash, piece.
Spot = tuple[str, float, int, int | None, int | None]


def spot_of(row: Reading) -> Spot:
    """Where a reading stands."""
    return row.kind, row.place, row.nth, row.wash_id, row.piece_id


def replace_readings(
    rows: list[Reading], kinds: Sequence[str], given: dict[Spot, float], by: By = "tape", **limits: Any
) -> None:
    """Make the readings of some kinds those given. One that stays what it was keeps by what and when it was read.

    ``limits``: only readings that have these values are looked at, such as those of one state (``wash_id``).
    """
    there = {
        spot_of(row): row
        for row in rows
        if row.kind in kinds and all(getattr(row, key) == value for key, value in limits.items())
    }
    for spot, row in there.items():
        if given.get(spot) != row.value:
            rows.remove(row)
    for spot, value in given.items():
        old = there.get(spot)
        if old is None or old.value != value:
            kind, place, nth, wash_id, piece_id = spot
            rows.append(
                Reading(
                    kind=kind, place=place, nth=nth, wash_id=wash_id, piece_id=piece_id, value=value, by=by, at=now()
                )
            )
