"""The cloths of garments: finding them, and what is wished for each as the core's records."""

from __future__ import annotations

from collections.abc import Iterable
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session
from sqlalchemy.orm.attributes import set_committed_value

from ..core.buy.order import Order
from ..core.buy.trims import Run
from ..core.lay.asking import LayRules
from ..core.project.tally import Wishes
from ..core.shrink.treatment import School
from ..core.true.edge import Ends
from .errors import NotFound
from .models import ClothUse, Project, TrimRun


def of_project(garment: Project, number: int | None) -> ClothUse:
    """One of a garment's cloths by the number of its use, the main one when None. Raises :class:`NotFound`."""
    found = garment.main if number is None else next((use for use in garment.uses if use.id == number), None)
    if found is None:
        raise NotFound("That cloth does not belong to this project; it may have been taken out.")
    # it keeps its garment, which would else be forgotten and fetched again
    set_committed_value(found, "project", garment)
    return found


def school_of(row: ClothUse) -> School | None:
    """The school the maker chose, or None for the default."""
    return cast(School, row.school) if row.school else None


def as_ends(row: ClothUse) -> Ends:
    """What both ends lose."""
    return Ends(row.ends, row.first_end)


def as_rules(row: ClothUse) -> LayRules:
    """What is wished for the lay."""
    return LayRules(row.gap, tuple(row.folds), as_ends(row).trim, row.turn_on_bars)


def as_wishes(row: ClothUse) -> Wishes:
    """What the maker set for laying and buying."""
    return Wishes(row.gap, tuple(row.folds), row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)


def as_order(row: ClothUse) -> Order:
    """What is asked for besides the lay."""
    return Order(row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)


def runs(session: Session, number: int) -> tuple[TrimRun, ...]:
    """The edges a trim goes on."""
    return by_use(session.scalars(select(TrimRun).where(TrimRun.use_id == number))).get(number, ())


def by_use(rows: Iterable[TrimRun]) -> dict[int, tuple[TrimRun, ...]]:
    """The edges each trim goes on, by its use, as they were told."""
    found: dict[int, list[TrimRun]] = {}
    for row in sorted(rows, key=lambda row: (row.position, row.id)):
        found.setdefault(row.use_id, []).append(row)
    return {number: tuple(edges) for number, edges in found.items()}


def as_run(row: TrimRun) -> Run:
    """The core's edge."""
    return Run(row.what, row.length, row.times)
