"""Lays that were found, and which of them a project goes by."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any

from sqlalchemy import BindParameter, ColumnElement, and_, select
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


def is_chosen(use_ids: Collection[int] | BindParameter[Any]) -> ColumnElement[bool]:
    """That a lay is the one its cloth of a garment goes by."""
    return and_(LayRecord.use_id.in_(use_ids), LayRecord.chosen)


def chosen_lays(session: Session, use_ids: Iterable[int]) -> dict[int, LayRecord]:
    """The lay each cloth of a garment goes by, by the number of its use."""
    query = select(LayRecord).where(is_chosen(list(use_ids))).order_by(LayRecord.id)
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
    chosen = chosen_lays(session, [job.use_id]).get(job.use_id)
    by_hand = chosen is not None and chosen.picked and chosen.fingerprint == job.fingerprint
    # a way the maker chose stays the chosen one, whatever a new search of the same pieces finds
    if not by_hand:
        choose_lay(session, min(known.values(), key=lambda row: float(row.lay["length"])))


def choose_lay(session: Session, row: LayRecord, *, picked: bool = False) -> None:
    """Make this the lay its cloth goes by; ``picked`` when the maker did: it stays a lay of its own from then on."""
    for other in session.scalars(select(LayRecord).where(LayRecord.use_id == row.use_id, LayRecord.chosen)):
        if other is not row:
            other.chosen = False
    row.chosen, row.picked = True, picked or row.picked
    session.flush()


def alternatives(session: Session, row: LayRecord) -> list[LayRecord]:
    """The lays of the same problem that its own search and the newest one found, and those that were picked before;
    this one among them, shortest first, none twice."""
    query = select(LayRecord).where(LayRecord.use_id == row.use_id, LayRecord.fingerprint == row.fingerprint)
    rows = sorted(session.scalars(query), key=lambda one: (one.id != row.id, not one.picked, -one.id))
    newest = max((one.job_id for one in rows if one.job_id is not None), default=None)
    found: dict[tuple[str, float], LayRecord] = {}
    for one in rows:
        if one.id == row.id or one.picked or (one.job_id is not None and one.job_id in (row.job_id, newest)):
            found.setdefault((one.fold, round(float(one.lay["length"]), 3)), one)
    return sorted(found.values(), key=lambda one: float(one.lay["length"]))
