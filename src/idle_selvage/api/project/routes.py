"""Garments as a whole, and the settings of the person at the bench."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ... import __version__
from ...core.buy.order import USUAL_STEP_MM
from ...core.project.next_step import next_over_all
from ...core.units import System
from ...core.working import Quantity
from ...core.written import quantity_text
from ...operations import project
from ...operations.refused import Refused
from ...store import models
from ...store.settings import settings
from ..services import begin, look, send, services
from ..shared.figures import Presenter, presenter
from ..shared.person import system as asking
from ..shared.schemas import LengthOut, ProjectPath, UseQuery
from . import schemas as out
from .show import choices_out, line_out, project_out


def health() -> Response:
    """Whether the server answers."""
    return send(out.HealthOut(name="Idle Selvage", version=__version__))


def read_settings() -> Response:
    """Units and the tape's graduation."""
    with look() as session:
        return send(_settings(settings(session)))


def change_settings(body: out.SettingsChange) -> Response:
    """Change units, the tape's graduation, what the shop cuts in, how money is written."""
    with begin() as session:
        return send(_settings(project.change_settings(session, project.SettingsGiven(**body.model_dump()))))


def _settings(row: models.Settings) -> out.SettingsOut:
    # in the units just chosen, which are not yet those the request came in
    system: System = "imperial" if row.system == "imperial" else "metric"
    show = Presenter(system)
    step = row.shop_step or USUAL_STEP_MM[system]
    return out.SettingsOut(
        system=system,
        graduation=show.graduation(row.graduation),
        shop_step=LengthOut(mm=step, text=quantity_text(Quantity(step, "purchase"), system)),
        currency=row.currency,
        asked=row.asked,
    )


def read_length(body: out.TypedIn) -> Response:
    """What a typed length is understood as, while it is being typed."""
    return send(presenter().length(body.text))


def write_length(query: out.LengthQuery) -> Response:
    """A length as it is written in the person's units."""
    return send(presenter().length(query.mm))


def read_choices() -> Response:
    """What the lists on the screens offer."""
    return send(choices_out(asking()))


def _all(session: Session) -> out.ProjectsOut:
    show = presenter()
    found = project.list_garments(session)
    headline = next_over_all([(now.rows.project.name, now.stages) for now in found])
    return out.ProjectsOut(headline=headline, projects=[line_out(show, now) for now in found])


def list_projects() -> Response:
    """Every project, the newest first."""
    with look() as session:
        return send(_all(session))


def add_project(body: out.NewProject) -> Response:
    """Begin a project, with a cloth of its own."""
    with begin() as session:
        return send(project_out(session, project.create_garment(session, body.name, body.note).main), 201)


def add_example() -> Response:
    """Put the demo's overshirt on the bench, to look at."""
    example = services().example
    if example is None:
        raise Refused("There is no example garment here.", code="not_ready")
    number = example(services().database)
    with look() as session:
        return send(project_out(session, project.garment(session, number).main), 201)


def read_project(path: ProjectPath, query: UseQuery) -> Response:
    """A project whole, seen through one of its cloths: pieces, cloth, shrinkage, stages, tally."""
    with look() as session:
        return send(project_out(session, project.cloth_use(session, path.project_id, query.use)))


def change_project(path: ProjectPath, query: UseQuery, body: out.ProjectChange) -> Response:
    """Change a project's name, note or care."""
    with begin() as session:
        use = project.cloth_use(session, path.project_id, query.use)
        row = project.garment(session, path.project_id)
        project.change_garment(session, row, body.model_dump(exclude_unset=True, exclude_none=True))
        return send(project_out(session, use))


def set_aside(path: ProjectPath, query: UseQuery, body: out.AsideIn) -> Response:
    """Set a warning aside, with a reason; or look at it again."""
    with begin() as session:
        use = project.cloth_use(session, path.project_id, query.use)
        project.set_aside(session, project.garment(session, path.project_id), body.key, body.why)
        return send(project_out(session, use))


def delete_project(path: ProjectPath) -> Response:
    """Put a project away. It can be brought back."""
    with begin() as session:
        project.put_away(session, project.garment(session, path.project_id))
        return send(_all(session))


def restore_project(path: ProjectPath) -> Response:
    """Bring back a project that was put away."""
    with begin() as session:
        return send(project_out(session, project.bring_back(session, path.project_id).main))
