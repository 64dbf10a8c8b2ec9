"""How garments came out: what was measured of them, row by row."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.project.outcome import Outcome, OutcomeKind, Predicted
from .errors import NotFound
from .models import ClothUse, OutcomeRow, Project


def outcomes(session: Session, project_id: int | None = None) -> list[tuple[OutcomeRow, ClothUse, Project]]:
    """What was measured of one garment, or of all (None), the oldest first, each with its cloth and garment."""
    query = (
        select(OutcomeRow, ClothUse, Project)
        .join(ClothUse, ClothUse.id == OutcomeRow.use_id)
        .join(Project, Project.id == ClothUse.project_id)
        .where(OutcomeRow.deleted_at.is_(None), Project.deleted_at.is_(None))
        .order_by(OutcomeRow.at, OutcomeRow.id)
    )
    if project_id is not None:
        query = query.where(Project.id == project_id)
    return [(row, use, project) for row, use, project in session.execute(query).unique()]


def outcome(session: Session, number: int) -> OutcomeRow:
    """One of them. Raises :class:`NotFound`."""
    row = session.get(OutcomeRow, number)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such measure; it may have been struck out.")
    return row


def as_outcome(row: OutcomeRow) -> Outcome:
    """As the core has it."""
    predicted = None if row.predicted is None else Predicted(row.predicted, row.low, row.high)
    return Outcome(cast(OutcomeKind, row.kind), row.name, row.measured, predicted, row.at)


def laid_off(session: Session) -> Sequence[float]:
    """How far cut pieces of all garments were found to lie beside their places, mm."""
    query = select(OutcomeRow.measured).where(OutcomeRow.kind == "laying", OutcomeRow.deleted_at.is_(None))
    return list(session.scalars(query))
