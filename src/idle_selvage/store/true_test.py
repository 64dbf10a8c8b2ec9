"""Fold tests."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from typing import Any

from sqlalchemy import BindParameter, ColumnElement, and_
from sqlalchemy.orm import Session

from ..core.true.attempts import Attempt
from .errors import NotFound
from .models import Cloth, ClothUse, TrueTest


def is_there(use_ids: Collection[int] | BindParameter[Any]) -> ColumnElement[bool]:
    """That a test was made on one of these cloths of a garment, and was not struck out."""
    return and_(TrueTest.use_id.in_(use_ids), TrueTest.deleted_at.is_(None))


def tests(there: Iterable[TrueTest], uses: Mapping[int, ClothUse]) -> dict[int, list[TrueTest]]:
    """The fold tests of the present cloth of each use, in any state it has been in, by the use's number, the first one
    first."""
    found: dict[int, list[TrueTest]] = {}
    for row in there:
        cloth = uses[row.use_id].cloth
        if row.cloth_id == cloth.id and row.wash_id in cloth.states:
            found.setdefault(row.use_id, []).append(row)
    return found


def of_state(cloth: Cloth, rows: Sequence[TrueTest]) -> tuple[TrueTest, ...]:
    """Those made in the state the cloth is in: what was true before a wash is no longer, and is tested anew."""
    return tuple(row for row in rows if row.wash_id == cloth.state_id)


def test(session: Session, use_id: int, number: int, *, deleted: bool = False) -> TrueTest:
    """One test of a cloth of a garment. Raises :class:`NotFound`."""
    row = session.get(TrueTest, number)
    if row is None or row.use_id != use_id or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such test in this project.")
    return row


def as_attempts(rows: Sequence[TrueTest]) -> list[Attempt]:
    """The tests as the core's attempts, oldest first."""
    return [Attempt(row.place, row.offset, row.done) for row in rows]
