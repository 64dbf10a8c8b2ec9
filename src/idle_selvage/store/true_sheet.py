"""What was read at the table."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.true.slant import BANDS_MM
from .models import TrueSheet


def sheets(session: Session, project_ids: Iterable[int]) -> dict[int, TrueSheet]:
    """Each project's sheet, by the project's number; an empty one, not yet kept, before anything was read."""
    numbers = list(project_ids)
    rows = session.scalars(select(TrueSheet).where(TrueSheet.project_id.in_(numbers)))
    found = {row.project_id: row for row in rows}
    return {number: found.get(number) or _empty(number) for number in numbers}


def kept_sheet(session: Session, project_id: int) -> TrueSheet:
    """The sheet to write on."""
    row = session.get(TrueSheet, project_id) or _empty(project_id)
    session.add(row)
    return row


def _empty(project_id: int) -> TrueSheet:
    return TrueSheet(
        project_id=project_id,
        now={},
        edge=[],
        fold=[],
        ripple="",
        checks={},
        bars=[],
        bands=[],
        school="",
        accepted=False,
    )


def as_bands(row: TrueSheet) -> tuple[float, float, float]:
    """The maker's bands, or the usual ones."""
    return (row.bands[0], row.bands[1], row.bands[2]) if len(row.bands) == len(BANDS_MM) else BANDS_MM
