"""Lays that were found, and which of them a project goes by."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from typing import Any

from sqlalchemy import BindParameter, ColumnElement, and_, func, select
from sqlalchemy.orm import Session

from ..core.lay import hand
from ..core.lay.answer import Lay, from_json, to_json
from ..core.lay.hand import Change, HandLay
from ..core.lay.problem import Problem
from ..core.lay.reading import read_problem
from .errors import NotFound
from .models import Job, LayChange, LayRecord

#: A lay that is shorter by less than this is no shorter, mm.
SAME_LENGTH_MM = 1e-6


def lay(session: Session, use_id: int, number: int) -> LayRecord:
    """One lay of a cloth of a garment. Raises :class:`NotFound`."""
    row = session.get(LayRecord, number)
    if row is None or row.use_id != use_id or row.deleted_at is not None:
        raise NotFound("There is no such lay in this project.")
    return row


def is_chosen(use_ids: Collection[int] | BindParameter[Any]) -> ColumnElement[bool]:
    """That a lay is the one its cloth of a garment goes by."""
    return and_(LayRecord.use_id.in_(use_ids), LayRecord.chosen, LayRecord.deleted_at.is_(None))


def chosen_lays(session: Session, use_ids: Iterable[int]) -> dict[int, LayRecord]:
    """The lay each cloth of a garment goes by, by the number of its use."""
    query = select(LayRecord).where(is_chosen(list(use_ids))).order_by(LayRecord.id)
    return {row.use_id: row for row in session.scalars(query)}


Version = tuple[int, int, str]


@dataclass(frozen=True)
class _Stored:
    """A lay of the maker's own as it is stored, by its version, so that it is added up once."""

    version: Version
    lay: dict[str, Any] = field(compare=False)
    problem: dict[str, Any] = field(compare=False)
    changes: tuple[dict[str, Any], ...] = field(compare=False)


@dataclass(frozen=True)
class AddedUp:
    """A lay in the hand, the problem it answers, and what it was begun from."""

    version: Version
    hand: HandLay
    problem: Problem
    base: Lay

    @property
    def lay(self) -> Lay:
        """It as a lay of the format."""
        return hand.as_lay(self.hand, self.hand.asked(self.problem), self.base)


@lru_cache(maxsize=64)
def _added_up(stored: _Stored) -> AddedUp:
    asked, base = read_problem(stored.problem), from_json(stored.lay)
    found = hand.replayed(base, [hand.change_of(one) for one in stored.changes], asked)
    return AddedUp(stored.version, found, asked, base)


def in_hand(row: LayRecord) -> AddedUp:
    """A lay as it is held: what it was begun from and every change since."""
    changes = row.by_hand if row.name else []
    newest = (changes[-1].id, changes[-1].created_at) if changes else None
    version = _version(row.id, row.created_at, row.fingerprint, float(row.lay["length"]), newest)
    return _added_up(_Stored(version, row.lay, row.problem, tuple(one.change for one in changes)))


def _version(number: int, begun: datetime, asked: str, length: float, newest: tuple[int, datetime] | None) -> Version:
    """What tells one version of a lay from every other. A number is given again after it was taken back: when it was
    made tells the two apart; and what a search found gets shorter in its place."""
    if newest is None:
        return number, 0, f"{begun.isoformat()} {asked} {length!r}"
    return number, newest[0], f"{begun.isoformat()} {asked} {newest[1].isoformat()}"


def version_of(session: Session, use_id: int, number: int) -> Version:
    """The version of a lay without reading it. Raises :class:`NotFound`."""
    row = session.execute(
        select(
            LayRecord.created_at, LayRecord.fingerprint, LayRecord.lay["length"].as_float(), LayRecord.deleted_at
        ).where(LayRecord.id == number, LayRecord.use_id == use_id)
    ).one_or_none()
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such lay in this project.")
    newest = session.execute(
        select(LayChange.id, LayChange.created_at).where(
            LayChange.lay_id == number,
            LayChange.number == select(func.max(LayChange.number)).where(LayChange.lay_id == number).scalar_subquery(),
        )
    ).one_or_none()
    begun, asked, length, _ = row
    return _version(number, begun, asked, float(length), None if newest is None else (newest[0], newest[1]))


def as_lay(row: LayRecord) -> Lay:
    """The stored lay, with what was done to it by hand."""
    return in_hand(row).lay if row.name else from_json(row.lay)


def length_of(row: LayRecord) -> float:
    """How long a stored lay is, mm."""
    return as_lay(row).length if row.name else float(row.lay["length"])


def names(session: Session, use_id: int) -> list[str]:
    """What the maker's own lays of a cloth are called."""
    query = select(LayRecord.name).where(LayRecord.use_id == use_id, LayRecord.deleted_at.is_(None))
    return [name for name in session.scalars(query) if name]


def own_from(session: Session, row: LayRecord, name: str, lay: dict[str, Any] | None = None) -> LayRecord:
    """A lay of the maker's own, begun from another as it is now, or from ``lay``; gone by from now on."""
    own = LayRecord(
        use_id=row.use_id,
        job_id=None,
        fold=row.fold,
        fingerprint=row.fingerprint,
        lay=lay or (to_json(as_lay(row)) if row.name else row.lay),
        basis=row.basis,
        name=name,
    )
    session.add(own)
    session.flush()
    choose_lay(session, own, picked=True)
    return own


def add_change(session: Session, row: LayRecord, change: Change) -> None:
    """Add one change to a lay of the maker's own."""
    row.changes += 1
    session.add(LayChange(lay_id=row.id, number=row.changes, change=hand.change_json(change)))
    session.flush()
    session.expire(row, ["by_hand"])


def keep_lays(session: Session, job: Job, lays: list[tuple[str, dict[str, Any]]], *, choose: bool = True) -> None:
    """Store the best lay of each fold of one job, in place of what the job stored before; ``choose`` the shortest."""
    query = select(LayRecord).where(LayRecord.job_id == job.id, LayRecord.name == "")
    known = {row.fold: row for row in session.scalars(query).all()}
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
    if not choose:
        return
    chosen = chosen_lays(session, [job.use_id]).get(job.use_id)
    by_hand = chosen is not None and chosen.picked and chosen.fingerprint == job.fingerprint
    # a way the maker chose stays the chosen one, whatever a new search of the same pieces finds
    if not by_hand:
        choose_lay(session, min(known.values(), key=_rank))


def _rank(row: LayRecord) -> tuple[float, bool]:
    """The shortest first; of two as long, a fold by its own name."""
    return round(float(row.lay["length"]), 1), row.fold == "combination"


def found_by(session: Session, job_id: int) -> LayRecord | None:
    """The shortest lay a search has found so far."""
    rows = session.scalars(select(LayRecord).where(LayRecord.job_id == job_id, LayRecord.name == "")).all()
    return min(rows, key=_rank, default=None)


def choose_lay(session: Session, row: LayRecord, *, picked: bool = False) -> None:
    """Make this the lay its cloth goes by; ``picked`` when the maker did: it stays a lay of its own from then on."""
    for other in session.scalars(select(LayRecord).where(LayRecord.use_id == row.use_id, LayRecord.chosen)):
        if other is not row:
            other.chosen = False
    row.chosen, row.picked = True, picked or row.picked
    session.flush()


def alternatives(session: Session, row: LayRecord) -> list[LayRecord]:
    """The lays of the same problem that its own search and the newest one found, those that were picked before, and all
    of the maker's own; this one among them, shortest first, none twice."""
    query = select(LayRecord).where(
        LayRecord.use_id == row.use_id,
        LayRecord.deleted_at.is_(None),
        (LayRecord.fingerprint == row.fingerprint) | (LayRecord.name != ""),
    )
    rows = sorted(session.scalars(query), key=lambda one: (one.id != row.id, not one.picked, -one.id))
    newest = max((one.job_id for one in rows if one.job_id is not None), default=None)
    found: dict[tuple[str, str, float], LayRecord] = {}
    for one in rows:
        if (
            one.id == row.id
            or one.picked
            or one.name
            or (one.job_id is not None and one.job_id in (row.job_id, newest))
        ):
            found.setdefault((one.name, one.fold, round(length_of(one), 3)), one)
    return sorted(found.values(), key=length_of)
