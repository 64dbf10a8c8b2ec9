"""What True comes to for other stages: how far it is, and what straightening takes off the ends."""

from __future__ import annotations

from typing import cast

from sqlalchemy.orm import Session

from ..core.project.stages import StageState
from ..core.true.attempts import Attempt, loop
from ..core.true.edge import METHODS, EdgeWay, advise_edge, edge_cost
from ..core.true.slant import BANDS_MM
from ..core.working import Figure
from ..store import models, records


def bands_of(sheet: models.TrueSheet) -> tuple[float, float, float]:
    """The maker's bands, or the usual ones."""
    return (sheet.bands[0], sheet.bands[1], sheet.bands[2]) if len(sheet.bands) == 3 else BANDS_MM


def attempts_of(tests: list[models.TrueTest]) -> list[Attempt]:
    """The tests as the core's attempts, oldest first."""
    return [Attempt(t.place, t.offset, t.done) for t in tests]


def stage_of(session: Session, row: models.Project) -> tuple[StageState, str]:
    """How far True is, for the rail."""
    tests = records.true_tests(session, row)
    sheet = records.true_sheet(session, row.id)
    found = loop(attempts_of(tests), bands_of(sheet))
    if found.state == "true":
        return "done", ""
    if not tests:
        begun = bool(sheet.edge or sheet.now)
        return ("begun" if begun else "empty"), "Make a true edge and test the fold."
    if sheet.accepted:
        return "done", ""
    return "begun", found.told


def edge_way(row: models.Project) -> EdgeWay:
    """How the first edge is made: as chosen, or as the cloth wants it."""
    return cast(EdgeWay, row.edge_way) if row.edge_way else advise_edge(records.edge_facts(row.cloth)).way


def first_end(row: models.Project, sheet: models.TrueSheet) -> Figure:
    """What the measured end loses before anything is cut off further in."""
    return edge_cost(sheet.edge, edge_way(row))


def settle_ends(row: models.Project, sheet: models.TrueSheet) -> None:
    """What both ends lose, from the edge's readings, the way it is made and what is cut off; both stages call this."""
    row.first_end = first_end(row, sheet).value + row.cut_off
    row.ends = row.first_end + METHODS[edge_way(row)].loss
