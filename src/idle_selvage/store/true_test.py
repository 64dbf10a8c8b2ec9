"""Fold tests."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.true.attempts import Attempt
from .errors import NotFound
from .models import Project, TrueTest


def tests(session: Session, project_ids: Iterable[int]) -> dict[int, list[TrueTest]]:
    """The fold tests of each project's present cloth by the project's number, the first one first."""
    query = (
        select(TrueTest)
        .join(Project, (Project.id == TrueTest.project_id) & (Project.cloth_id == TrueTest.cloth_id))
        .where(TrueTest.project_id.in_(list(project_ids)), TrueTest.deleted_at.is_(None))
        .order_by(TrueTest.id)
    )
    found: dict[int, list[TrueTest]] = {}
    for row in session.scalars(query):
        found.setdefault(row.project_id, []).append(row)
    return found


def test(session: Session, project_id: int, number: int, *, deleted: bool = False) -> TrueTest:
    """One test of a project. Raises :class:`NotFound`."""
    row = session.get(TrueTest, number)
    if row is None or row.project_id != project_id or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such test in this project.")
    return row


def as_attempts(rows: Sequence[TrueTest]) -> list[Attempt]:
    """The tests as the core's attempts, oldest first."""
    return [Attempt(row.place, row.offset, row.done) for row in rows]
