"""Shrink: swatches before and after, and how the cloth is treated."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ...operations import shrink
from ...operations.project import cloth_use, read_garment
from ...operations.standing import standing
from ...store import models
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..project.show import standing_out
from ..services import begin, look, send, services
from ..shared.figures import presenter
from ..shared.person import by, insisted
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import shrink_out


def _kept(session: Session, use: models.ClothUse, status: int = 200) -> Response:
    """After a change of a swatch: the project whole, and the cloth's swatch."""
    show, now = presenter(), standing(session, use)
    return send(
        project_out.SwatchKeptOut(
            project=standing_out(show, now), shrink=shrink_out(show, now, shrink.read_swatch(session, now.cloth))
        ),
        status,
    )


def read_shrink(path: ProjectPath, query: UseQuery) -> Response:
    """One cloth's swatch, its verdict, and how to treat the cloth."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        return send(shrink_out(presenter(), now, shrink.read_swatch(session, now.cloth)))


def keep_swatch(path: ProjectPath, query: UseQuery, body: out.SwatchIn) -> Response:
    """Keep a swatch's readings."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        given = shrink.Readings(body.warp, body.weft, body.diagonals, body.graduation, body.wash, body.dry)
        shrink.keep_reading(session, use, given, by(), sure=insisted.get())
        return _kept(session, use)


def add_swatch(path: ProjectPath, query: UseQuery) -> Response:
    """Begin another swatch of a cloth; earlier ones are kept, and one can go back to them."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        shrink.add_swatch(session, use)
        return _kept(session, use, 201)


def use_swatch(path: ProjectPath, query: UseQuery, body: out.UseSwatch) -> Response:
    """Go by another of a cloth's swatches."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        shrink.use_swatch(session, use, body.swatch_id)
        return _kept(session, use)


def wash_swatch(path: ProjectPath, query: UseQuery) -> Response:
    """Wash the swatch in the stand-in washer: its readings are made up, and marked so."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        shrink.wash_swatch(session, use, services().washer)
        return _kept(session, use)


def choose_school(path: ProjectPath, query: UseQuery, body: out.TreatIn) -> Response:
    """Choose how the cloth is treated before cutting; an empty text goes back to the default."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        shrink.choose_school(session, use, body.school)
        return send(show_project(session, use))
