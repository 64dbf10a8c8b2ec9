"""Lays that were found, and which of them a project goes by."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from ..core.lay.answer import Lay, from_json
from .errors import NotFound
from .models import Job, LayRecord

#: A lay that is shorter by less than this is no shorter, mm.
SAME_LENGTH_MM = 1e-6


def lay(session: Session, use_id: int, number: int) -> LayRecord:
    """One lay of a cloth of a garment. Raises :class:`NotFound`."""
    row = session.get(LayRecord, number)
    if row is None or row.use_id != use_id:
        raise NotFound("There is no such lay in this project.")
    return row


def chosen_lays(session: Session, use_ids: Iterable[int]) -> dict[int, LayRecord]:
    """The lay each cloth of a garment goes by, by the number of its use."""
    query = select(LayRecord).where(LayRecord.use_id.in_(list(use_ids)), LayRecord.chosen).order_by(LayRecord.id)
    return {row.use_id: row for row in session.scalars(query)}


def as_lay(row: LayRecord) -> Lay:
    """The stored lay."""
    return from_json(row.lay)


def keep_lays(session: Session, job: Job, lays: list[tuple[str, dict[str, Any]]]) -> None:
    """Store the best lay of each fold of one job, in place of what the job stored before; choose the shortest."""
    known = {row.fold: row for row in session.scalars(select(LayRecord).where(LayRecord.job_id == job.id)).all()}
    for fold, data in lays:
        row = known.get(fold)
        if row is None:
            row = LayRecord(
                use_id=job.use_id,
                job_id=job.id,
                fold=fold,
                fingerprint=job.fingerprint,
                lay=data,
                basis=job.params.get("basis", {}),
            )
            session.add(row)
            known[fold] = row
        elif data["length"] < row.lay["length"] - SAME_LENGTH_MM:
            row.lay = data
    session.flush()
    if not any(row.picked for row in known.values()):
        choose_lay(session, min(known.values(), key=lambda row: float(row.lay["length"])))


def choose_lay(session: Session, row: LayRecord, *, picked: bool = False) -> None:
    """Make this the lay its cloth goes by; ``picked`` when the maker did."""
    session.execute(update(LayRecord).where(LayRecord.use_id == row.use_id).values(chosen=False, picked=False))
    row.chosen, row.picked = True, picked
    session.flush()


def alternatives(session: Session, row: LayRecord) -> list[LayRecord]:
    """The lays one job found, this one among them, shortest first."""
    if row.job_id is None:
        return [row]
    rows = session.scalars(select(LayRecord).where(LayRecord.job_id == row.job_id)).all()
    return sorted(rows, key=lambda other: float(other.lay["length"]))
