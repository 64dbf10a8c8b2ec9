"""Which cloths of other garments are cut from the same length."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import delete, select
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
    session.execute(delete(SharedPurchase).where(SharedPurchase.use_id == use_id))
    session.add_all(SharedPurchase(use_id=use_id, other_id=number) for number in numbers)
    session.flush()
