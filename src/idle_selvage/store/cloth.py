"""Cloths: finding them, and what the core needs to know of a row."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.buy.order import per_metre
from ..core.cloth.bars import Bar, BarPattern, read_bars
from ..core.cloth.direction import is_one_way
from ..core.cloth.dye import Dye
from ..core.cloth.make import Make
from ..core.cloth.width import Cloth as MeasuredCloth
from ..core.lay.asking import ClothToLay
from ..core.true.edge import EdgeFacts, edge_facts
from .errors import NotFound
from .models import Cloth, Project, SetCloth, Wash


def cloth(session: Session, number: int, *, deleted: bool = False) -> Cloth:
    """A cloth by its number. Raises :class:`NotFound`."""
    row = session.get(Cloth, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such cloth; it may have been put away.")
    return row


def cupboard(session: Session) -> list[Cloth]:
    """Every cloth that is not put away, the newest first."""
    return list(session.scalars(select(Cloth).where(Cloth.deleted_at.is_(None)).order_by(Cloth.id.desc())))


def of_project(session: Session, project: Project, cloth_id: int | None) -> Cloth:
    """A project's own cloth by its number, the main one when None. Raises :class:`NotFound`."""
    if cloth_id is None or cloth_id == project.cloth_id:
        return project.cloth
    beside = session.get(SetCloth, (project.id, cloth_id))
    if beside is None:
        raise NotFound("That cloth does not belong to this project.")
    return beside.cloth


def as_cloth(row: Cloth) -> MeasuredCloth:
    """The measured cloth; its price is per metre whatever the shop says."""
    return MeasuredCloth(
        tuple(row.width_readings),
        row.margin_low,
        row.margin_high,
        is_one_way(row.direction),
        row.in_hand,
        row.mass,
        per_metre(row.price, row.price_unit),
    )


def as_make(row: Cloth) -> Make:
    """What the cloth is made of."""
    return Make(tuple((fibre, share) for fibre, share in row.blend), row.weave, row.finish, row.colouring)


def as_dye(row: Cloth, washes: Sequence[Wash]) -> Dye:
    """What is known of its dye."""
    return Dye(row.depth, row.rub_grade, tuple(w.grade for w in washes if w.grade is not None))


def bar_sequence(row: Cloth, direction: Literal["along", "across"]) -> list[Bar]:
    """The bars of one direction as they were typed."""
    return [Bar(b["width"], b["colour"]) for b in row.bars.get(direction, [])]


def as_bars(row: Cloth) -> tuple[BarPattern, BarPattern]:
    """The bars that follow one another along the cloth, and across it."""
    return read_bars(bar_sequence(row, "along")), read_bars(bar_sequence(row, "across"))


def as_edge_facts(row: Cloth) -> EdgeFacts:
    """What decides how its first edge is made."""
    return edge_facts(as_make(row), as_bars(row)[0], row.answers)


def as_laid(row: Cloth) -> ClothToLay:
    """What of it decides a lay."""
    return ClothToLay(
        row.margin_low,
        *as_bars(row),
        is_one_way(row.direction),
        row.reversible,
        tuple((f["x"], f["y"], f["w"], f["h"]) for f in row.flaws),
        row.shop_fold,
    )
