"""True: the first edge, the fold test and its log, and the checks made at the table."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ...operations import true
from ...operations.project import cloth_use
from ...store import models
from ..project.show import standing_out
from ..services import begin, look, send
from ..shared.figures import presenter
from ..shared.person import by
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import true_out


def _both(session: Session, row: models.ClothUse, status: int = 200) -> Response:
    """After a change: the project whole, and True."""
    found = true.read_true(session, row)
    show = presenter()
    return send(out.TrueKeptOut(project=standing_out(show, found.now), true=true_out(show, found)), status)


def read_true(path: ProjectPath, query: UseQuery) -> Response:
    """Is it on grain, what to do, and does it matter."""
    with look() as session:
        return send(true_out(presenter(), true.read_true(session, cloth_use(session, path.project_id, query.use))))


def change_true(path: ProjectPath, query: UseQuery, body: out.TrueChange) -> Response:
    """Keep what was read at the table. What straightening loses flows into the purchase and the lay."""
    given = body.model_dump(exclude_unset=True)
    # a list is sent whole, with the defaults of its parts
    given |= {k: v for k, v in body.model_dump(include={"fold", "bars"}).items() if k in body.model_fields_set}
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        true.keep_at_table(session, row, given, by())
        return _both(session, row)


def add_test(path: ProjectPath, query: UseQuery) -> Response:
    """Write the reading at hand down as a test."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        true.add_test(session, row)
        return _both(session, row, 201)


def delete_test(path: out.TestPath, query: UseQuery) -> Response:
    """Strike a test out. It can be brought back, and stays in the log."""
    return _strike(path, query, gone=True)


def restore_test(path: out.TestPath, query: UseQuery) -> Response:
    """Bring a test back."""
    return _strike(path, query, gone=False)


def _strike(path: out.TestPath, query: UseQuery, *, gone: bool) -> Response:
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        true.strike_test(session, row, path.test_id, gone=gone)
        return _both(session, row)
