"""How far True is, from the tests that were written down."""

from __future__ import annotations

from sqlalchemy.orm import Session

from ..core.attempts import Attempt, loop
from ..core.slant import BANDS_MM
from ..core.stages import State
from ..store import models, records


def bands_of(sheet: models.TrueSheet) -> tuple[float, float, float]:
    """The maker's bands, or the usual ones."""
    return (sheet.bands[0], sheet.bands[1], sheet.bands[2]) if len(sheet.bands) == 3 else BANDS_MM


def attempts_of(tests: list[models.TrueTest]) -> list[Attempt]:
    """The tests as the core's attempts, oldest first."""
    return [Attempt(t.place, t.offset, t.done) for t in tests]


def stage_of(session: Session, row: models.Project) -> tuple[State, str]:
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
