"""Rounds of cutting, their deeds, and the list before them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.cut.really_left import Counts, asked_of
from ..core.cut.round import round_to_cut
from ..core.cut.tally import Deed, DeedKind, RoundToCut
from ..core.lay.answer import Lay, from_json
from ..core.lay.problem import Problem
from ..core.lay.reading import read_problem
from .errors import NotFound
from .models import BeforeLine, Cloth, CutDeed, Cutting, now


def rounds(session: Session, use_id: int) -> list[Cutting]:
    """The rounds of one cloth of a garment, the first one first."""
    return list(session.scalars(select(Cutting).where(Cutting.use_id == use_id).order_by(Cutting.id)))


def deeds(session: Session, use_id: int) -> list[CutDeed]:
    """Everything done in them, in the order in which it was done."""
    here = select(Cutting.id).where(Cutting.use_id == use_id)
    return list(session.scalars(select(CutDeed).where(CutDeed.cutting_id.in_(here)).order_by(CutDeed.id)))


def as_deed(row: CutDeed) -> Deed:
    """A deed as the core adds it up."""
    kind: DeedKind = row.kind  # type: ignore[assignment]
    return Deed(kind, row.cutting_id, row.key, row.copy)


@dataclass(frozen=True)
class _Known:
    problem: Problem
    lay: Lay
    to_cut: RoundToCut
    asked: dict[str, Counts]


#: What rounds give and ask for: their lays never change, and they are asked for at every look at their garment. A
#: number is given again after a restore: when a round was begun tells the two apart.
_known: dict[tuple[int, datetime, str], _Known] = {}
ROUNDS_KEPT = 64


def _read(row: Cutting) -> _Known:
    key = (row.id, row.begun_at, row.fingerprint)
    found = _known.get(key)
    if found is None:
        problem, lay = read_problem(row.problem), from_json(row.lay)
        found = _Known(problem, lay, round_to_cut(row.id, problem, lay), asked_of(problem))
        while len(_known) >= ROUNDS_KEPT:
            _known.pop(next(iter(_known)), None)
        _known[key] = found
    return found


def as_round(row: Cutting) -> RoundToCut:
    """A round as the core adds it up."""
    return _read(row).to_cut


def problem_and_lay(row: Cutting) -> tuple[Problem, Lay]:
    """What a round was begun on."""
    found = _read(row)
    return found.problem, found.lay


def asked_of_round(row: Cutting) -> dict[str, Counts]:
    """How many copies of each piece its lay was asked for."""
    return _read(row).asked


def round_(session: Session, use_id: int, number: int) -> Cutting:
    """One round by its number. Raises :class:`NotFound`."""
    row = session.get(Cutting, number)
    if row is None or row.use_id != use_id:
        raise NotFound("There is no such round of cutting in this project.")
    return row


def lines(session: Session, use_id: int) -> list[BeforeLine]:
    """The lines before cutting that were ticked or accepted."""
    return list(session.scalars(select(BeforeLine).where(BeforeLine.use_id == use_id).order_by(BeforeLine.id)))


def keep_line(session: Session, use_id: int, key: str, why: str) -> None:
    """Tick a line by hand, now, or accept it with a reason."""
    row = next((one for one in lines(session, use_id) if one.key == key), None)
    if row is None:
        session.add(BeforeLine(use_id=use_id, key=key, why=why))
    else:
        row.why, row.at = why, now()
    session.flush()


def forget_line(session: Session, use_id: int, key: str) -> bool:
    """Take a tick or an acceptance away; whether there was one."""
    row = next((one for one in lines(session, use_id) if one.key == key), None)
    if row is None:
        return False
    session.delete(row)
    session.flush()
    return True


def cut_of_cloth(session: Session, cloth_id: int) -> list[Cutting]:
    """Every round in which a cloth was cut, whichever garment it was for."""
    return list(session.scalars(select(Cutting).where(Cutting.cloth_id == cloth_id).order_by(Cutting.id)))


def remnants_of(session: Session, cloth_id: int) -> list[Cloth]:
    """The remnants of a cloth in the cupboard, the newest first."""
    query = select(Cloth).where(Cloth.remnant_of == cloth_id, Cloth.deleted_at.is_(None))
    return list(session.scalars(query.order_by(Cloth.id.desc())))
