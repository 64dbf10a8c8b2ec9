"""How cloths are trued, and what was read at the table."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from sqlalchemy.orm import Session

from ..core.true.slant import BANDS_MM
from .models import By, ClothUse, TrueSheet
from .models.reading import Spot, replace_readings

Pairs = list[tuple[float, float]]


def sheets(rows: Iterable[TrueSheet], use_ids: Iterable[int]) -> dict[int, TrueSheet]:
    """The sheet of each cloth of a garment, by its use; an empty one, not yet kept, before anything was read."""
    found = {row.use_id: row for row in rows}
    return {number: found.get(number) or _empty(number) for number in use_ids}


def kept_sheet(session: Session, use_id: int) -> TrueSheet:
    """The sheet to write on."""
    row = session.get(TrueSheet, use_id) or _empty(use_id)
    session.add(row)
    return row


def _empty(use_id: int) -> TrueSheet:
    return TrueSheet(use_id=use_id, now={}, ripple="", bands=[], school="", accepted=False)


def as_bands(row: TrueSheet) -> tuple[float, float, float]:
    """The maker's bands, or the usual ones."""
    return (row.bands[0], row.bands[1], row.bands[2]) if len(row.bands) == len(BANDS_MM) else BANDS_MM


# -- readings at the table: those of the state the cloth is in; what was read before a wash is no longer so


def reading_now(use: ClothUse, sheet: TrueSheet) -> dict[str, Any]:
    """The fold test not written down yet; of one read before a wash only the place."""
    read = sheet.now
    if read.get("wash_id") == use.cloth.state_id:
        return {key: value for key, value in read.items() if key != "wash_id"}
    return {"place": read["place"]} if "place" in read else {}


def keep_now(use: ClothUse, sheet: TrueSheet, read: dict[str, Any]) -> None:
    """Keep a fold test that is not written down yet; an empty one forgets it."""
    sheet.now = {**read, "wash_id": use.cloth.state_id} if read else {}


def edge(use: ClothUse) -> list[float]:
    """The cut edge, read in several places, mm. It stays when the cloth is washed: what it loses is never less."""
    return [row.value for row in sorted((r for r in use.readings if r.kind == "edge"), key=lambda r: r.place)]


def keep_edge(use: ClothUse, values: Sequence[float], by: By = "tape") -> None:
    given: dict[Spot, float] = {("edge", float(k), 0, None, None): value for k, value in enumerate(values)}
    replace_readings(use.readings, ("edge",), given, by)


def pairs(use: ClothUse, kind: str) -> Pairs:
    """Readings along the cloth as (place, value), mm: ``fold`` distances, or how far a ``bar`` is off."""
    state = use.cloth.state_id
    rows = sorted((r for r in use.readings if r.kind == kind and r.wash_id == state), key=lambda r: r.nth)
    return [(row.place, row.value) for row in rows]


def keep_pairs(use: ClothUse, kind: str, given: Sequence[tuple[float, float]], by: By = "tape") -> None:
    state = use.cloth.state_id
    spots: dict[Spot, float] = {(kind, place, k, state, None): value for k, (place, value) in enumerate(given)}
    replace_readings(use.readings, (kind,), spots, by, wash_id=state)


def pinned(use: ClothUse, piece_id: int, copy: int) -> tuple[float | None, float | None]:
    """The two distances read at the arrow of a pinned copy, tail and head, mm."""
    here = (piece_id, copy, use.cloth.state_id)
    found = {r.kind: r.value for r in use.readings if (r.piece_id, r.nth, r.wash_id) == here}
    return found.get("tail"), found.get("head")


def keep_pinned(use: ClothUse, piece_id: int, copy: int, end: str, value: float | None, by: By = "tape") -> None:
    """Keep the distance at one end (``tail`` or ``head``) of the arrow of a pinned copy, or forget it."""
    state = use.cloth.state_id
    given: dict[Spot, float] = {} if value is None else {(end, 0.0, copy, state, piece_id): value}
    replace_readings(use.readings, (end,), given, by, piece_id=piece_id, nth=copy, wash_id=state)
