"""Projects: finding them."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from .errors import NotFound
from .models import ClothUse, Project


def projects(session: Session) -> list[Project]:
    """Every project that is not deleted, the newest first."""
    query = select(Project).where(Project.deleted_at.is_(None))
    return list(session.scalars(query.order_by(Project.created_at.desc(), Project.id.desc())).unique())


def project(session: Session, number: int, *, deleted: bool = False) -> Project:
    """A project by its number. Raises :class:`NotFound`."""
    row = session.get(Project, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such project; it may have been deleted.")
    return row


def of_cloth(session: Session, cloth_id: int) -> list[Project]:
    """The open projects that use a cloth."""
    using = select(ClothUse.project_id).where(ClothUse.cloth_id == cloth_id, ClothUse.deleted_at.is_(None))
    query = select(Project).where(Project.deleted_at.is_(None), Project.id.in_(using))
    return list(session.scalars(query.order_by(Project.id)).unique())


def names_by_cloth(session: Session) -> dict[int, list[str]]:
    """The names of the open projects that use each cloth, by the cloth's number."""
    query = (
        select(ClothUse.cloth_id, Project.id, Project.name)
        .join(Project, Project.id == ClothUse.project_id)
        .where(Project.deleted_at.is_(None), ClothUse.deleted_at.is_(None))
        .distinct()
        .order_by(ClothUse.cloth_id, Project.id)
    )
    found: dict[int, list[str]] = {}
    for number, _, name in session.execute(query):
        found.setdefault(number, []).append(name)
    return found
