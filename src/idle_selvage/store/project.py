"""Projects: finding them, and what they wish for as the core's records."""

from __future__ import annotations

from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from ..core.buy.order import Order
from ..core.lay.asking import LayRules
from ..core.project.tally import Wishes
from ..core.shrink.treatment import School
from ..core.true.edge import Ends
from .errors import NotFound
from .models import Project, SetCloth


def projects(session: Session) -> list[Project]:
    """Every project that is not deleted, the newest first, each with its main cloth."""
    return list(
        session.scalars(
            select(Project)
            .where(Project.deleted_at.is_(None))
            .options(joinedload(Project.cloth))
            .order_by(Project.created_at.desc(), Project.id.desc())
        )
    )


def project(session: Session, number: int, *, deleted: bool = False) -> Project:
    """A project by its number. Raises :class:`NotFound`."""
    row = session.get(Project, number, options=[joinedload(Project.cloth)])
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such project; it may have been deleted.")
    return row


def of_cloth(session: Session, cloth_id: int) -> list[Project]:
    """The open projects that use a cloth, as main cloth or beside it."""
    beside = select(SetCloth.project_id).where(SetCloth.cloth_id == cloth_id)
    return list(
        session.scalars(
            select(Project)
            .where(Project.deleted_at.is_(None), (Project.cloth_id == cloth_id) | Project.id.in_(beside))
            .order_by(Project.id)
        )
    )


def names_by_cloth(session: Session) -> dict[int, list[str]]:
    """The names of the open projects that use each cloth, by the cloth's number."""
    found: dict[int, list[str]] = {}
    main = select(Project.cloth_id, Project.id, Project.name).where(Project.deleted_at.is_(None))
    beside = (
        select(SetCloth.cloth_id, Project.id, Project.name)
        .join(Project, Project.id == SetCloth.project_id)
        .where(Project.deleted_at.is_(None))
    )
    rows = {(cloth, number, name) for query in (main, beside) for cloth, number, name in session.execute(query)}
    for cloth, _, name in sorted(rows):
        found.setdefault(cloth, []).append(name)
    return found


def school_of(row: Project) -> School | None:
    """The school the maker chose, or None for the default."""
    return cast(School, row.school) if row.school else None


def as_ends(row: Project) -> Ends:
    """What both ends lose."""
    return Ends(row.ends, row.first_end)


def as_rules(row: Project) -> LayRules:
    """What is wished for the lay."""
    return LayRules(row.gap, tuple(row.folds), as_ends(row).trim)


def as_wishes(row: Project) -> Wishes:
    """What the maker set for laying and buying."""
    return Wishes(row.gap, tuple(row.folds), row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)


def as_order(row: Project) -> Order:
    """What is asked for besides the lay."""
    return Order(row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)
