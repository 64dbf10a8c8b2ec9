"""Which cloths of other garments are cut from the same length."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from .models import ClothUse, Project, SharedPurchase


def others(session: Session, use_id: int) -> list[int]:
    """The uses that share the purchase of one, those of open garments."""
    query = (
        select(SharedPurchase.other_id)
        .join(ClothUse, ClothUse.id == SharedPurchase.other_id)
        .join(Project, Project.id == ClothUse.project_id)
        .where(SharedPurchase.use_id == use_id, ClothUse.deleted_at.is_(None), Project.deleted_at.is_(None))
    )
    return sorted(session.scalars(query))


def choose(session: Session, use_id: int, numbers: Iterable[int]) -> None:
    """Make these the ones that share it."""
    wanted = set(numbers)
    for row in session.scalars(select(SharedPurchase).where(SharedPurchase.use_id == use_id)):
        if row.other_id in wanted:
            wanted.remove(row.other_id)
        else:
            session.delete(row)
    session.add_all(SharedPurchase(use_id=use_id, other_id=number) for number in sorted(wanted))
    session.flush()
