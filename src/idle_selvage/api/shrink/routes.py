"""Shrink: swatches before and after, and how the cloth is treated."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ...operations import shrink
from ...operations.project import garment
from ...store import models
from ...store.cloth import of_project
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..services import begin, look, send, services
from ..shared.figures import presenter
from ..shared.schemas import ProjectPath
from . import schemas as out
from .show import shrink_out


def _kept(session: Session, row: models.Project, cloth: models.Cloth, status: int = 200) -> Response:
    """After a change of a swatch: the project whole, and the cloth's swatch."""
    return send(
        project_out.SwatchKeptOut(
            project=show_project(session, row),
            shrink=shrink_out(presenter(), row, shrink.read_swatch(session, cloth)),
        ),
        status,
    )


def read_shrink(path: ProjectPath, query: out.WhichCloth) -> Response:
    """One cloth's swatch, its verdict, and how to treat the cloth."""
    with look() as session:
        row = garment(session, path.project_id)
        found = shrink.read_swatch(session, of_project(session, row, query.cloth_id))
        return send(shrink_out(presenter(), row, found))


def keep_swatch(path: ProjectPath, body: out.SwatchIn) -> Response:
    """Keep a swatch's readings."""
    with begin() as session:
        row = garment(session, path.project_id)
        cloth = of_project(session, row, body.cloth_id)
        given = shrink.Readings(body.warp, body.weft, body.diagonals, body.graduation)
        shrink.keep_reading(session, row, cloth, given)
        return _kept(session, row, cloth)


def add_swatch(path: ProjectPath, body: out.WhichCloth) -> Response:
    """Begin another swatch of a cloth; earlier ones are kept, and one can go back to them."""
    with begin() as session:
        row = garment(session, path.project_id)
        cloth = of_project(session, row, body.cloth_id)
        shrink.add_swatch(session, row, cloth)
        return _kept(session, row, cloth, 201)


def use_swatch(path: ProjectPath, body: out.UseSwatch) -> Response:
    """Go by another of a cloth's swatches."""
    with begin() as session:
        row = garment(session, path.project_id)
        return _kept(session, row, shrink.use_swatch(session, row, body.swatch_id))


def wash_swatch(path: ProjectPath, body: out.WhichCloth) -> Response:
    """Wash the swatch in the stand-in washer: its readings are made up, and marked so."""
    with begin() as session:
        row = garment(session, path.project_id)
        cloth = of_project(session, row, body.cloth_id)
        shrink.wash_swatch(session, row, cloth, services().washer)
        return _kept(session, row, cloth)


def choose_school(path: ProjectPath, body: out.TreatIn) -> Response:
    """Choose how the cloth is treated before cutting; an empty text goes back to the default."""
    with begin() as session:
        row = garment(session, path.project_id)
        shrink.choose_school(session, row, body.school)
        return send(show_project(session, row))
