"""The bench: every project, and the settings of the person at it."""

from __future__ import annotations

from typing import Literal

from flask import Response
from flask_openapi3 import APIBlueprint

from .. import __version__
from ..core.shrink import treatment
from ..core.written import length_text
from ..store import models, records
from . import present
from . import schemas as out
from .changes import change
from .context import Refused, begin, look, send, system
from .entries import LengthIn, Name, Text
from .presenter import Presenter

blueprint = APIBlueprint("bench", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


#: What a usual tape is read to, in mm: 1 mm, or 1/16 in. Common practice, no source.
TAPES = {"metric": 1.0, "imperial": 25.4 / 16}


class NewProject(out.In):
    name: Name
    note: Text = ""


class ProjectChange(out.In):
    """Any of a project's own entries; what is left out stays."""

    name: Name | None = None
    note: Text | None = None
    wash: str | None = None
    dry: str | None = None


class TypedIn(out.In):
    text: LengthIn


class SettingsChange(out.In):
    system: Literal["metric", "imperial"] | None = None
    graduation: LengthIn | None = None


@blueprint.get("/health", operation_id="health", responses={200: out.HealthOut})
def health() -> Response:
    """Whether the server answers."""
    return send(out.HealthOut(name="Idle Selvage", version=__version__))


@blueprint.get("/settings", operation_id="readSettings", responses={200: out.SettingsOut})
def read_settings() -> Response:
    """Units and the tape's graduation."""
    with look() as session:
        return send(_settings(records.settings(session)))


@blueprint.patch("/settings", operation_id="changeSettings", responses={200: out.SettingsOut})
def change_settings(body: SettingsChange) -> Response:
    """Change units or the tape's graduation."""
    with begin() as session:
        row = records.settings(session)
        if body.graduation is not None:
            if not 0.1 <= body.graduation <= 20:
                raise Refused(
                    "A tape's graduation lies between 0.1 mm and 2 cm; 1 mm or 1/16 in are usual.", path="graduation"
                )
            row.graduation = body.graduation
        if body.system is not None and body.system != row.system:
            row.system = body.system
            if body.graduation is None and row.graduation in TAPES.values():
                # a tape in the other unit, unless this person's is a finer or a coarser one
                row.graduation = TAPES[body.system]
        return send(_settings(row))


def _settings(row: models.Settings) -> out.SettingsOut:
    return out.SettingsOut.model_validate(
        {
            "system": row.system,
            "graduation": {
                "mm": row.graduation,
                "text": f"{row.graduation:g} mm" if row.system == "metric" else length_text(row.graduation, "imperial"),
            },
        }
    )


@blueprint.post("/lengths/read", operation_id="readLength", responses={200: out.LengthOut})
def read_length(body: TypedIn) -> Response:
    """What a typed length is understood as, while it is being typed."""
    return send(Presenter(system()).length(body.text))


@blueprint.get("/choices", operation_id="readChoices", responses={200: out.ChoicesOut})
def read_choices() -> Response:
    """What the lists on the screens offer."""
    return send(present.choices(system()))


@blueprint.get("/projects", operation_id="listProjects", responses={200: out.ProjectsOut})
def list_projects() -> Response:
    """Every project, the newest first."""
    with look() as session:
        rows = records.projects(session)
        return send(out.ProjectsOut(projects=[present.line_out(session, row, system()) for row in rows]))


@blueprint.post("/projects", operation_id="addProject", responses={201: out.ProjectOut})
def add_project(body: NewProject) -> Response:
    """Begin a project, with a cloth of its own."""
    with begin() as session:
        cloth = models.Cloth()
        session.add(cloth)
        session.flush()
        row = models.Project(name=body.name, note=body.note, cloth_id=cloth.id)
        session.add(row)
        session.flush()
        session.refresh(row)
        records.log(session, row.id, "plan", f"Began “{row.name}”.")
        return send(present.project_out(session, row, system()), 201)


@blueprint.get("/projects/<int:project_id>", operation_id="readProject", responses={200: out.ProjectOut})
def read_project(path: out.ProjectPath) -> Response:
    """A project whole: pieces, cloth, shrinkage, stages, tally."""
    with look() as session:
        return send(present.project_out(session, records.project(session, path.project_id), system()))


@blueprint.patch("/projects/<int:project_id>", operation_id="changeProject", responses={200: out.ProjectOut})
def change_project(path: out.ProjectPath, body: ProjectChange) -> Response:
    """Change a project's name, note or care."""
    given = body.model_dump(exclude_unset=True, exclude_none=True)
    if "wash" in given and given["wash"] not in treatment.WASHES:
        raise Refused(f"Washing must be one of: {', '.join(treatment.WASHES)}.", path="wash")
    if "dry" in given and given["dry"] not in treatment.DRIES:
        raise Refused(f"Drying must be one of: {', '.join(treatment.DRIES)}.", path="dry")
    with begin() as session:
        row = records.project(session, path.project_id)
        return send(change(session, row, given, "plan", _NAMES))


_NAMES = {"name": "name", "note": "note", "wash": "washing", "dry": "drying"}


@blueprint.delete("/projects/<int:project_id>", operation_id="deleteProject", responses={200: out.ProjectsOut})
def delete_project(path: out.ProjectPath) -> Response:
    """Put a project away. It can be brought back."""
    with begin() as session:
        row = records.project(session, path.project_id)
        row.deleted_at = models.now()
        records.log(session, row.id, "plan", f"Put “{row.name}” away.")
        session.flush()
        return send(
            out.ProjectsOut(projects=[present.line_out(session, p, system()) for p in records.projects(session)])
        )


@blueprint.post("/projects/<int:project_id>/restore", operation_id="restoreProject", responses={200: out.ProjectOut})
def restore_project(path: out.ProjectPath) -> Response:
    """Bring back a project that was put away."""
    with begin() as session:
        row = records.project(session, path.project_id, deleted=True)
        if row.deleted_at is not None:
            row.deleted_at = None
            records.log(session, row.id, "plan", f"Brought “{row.name}” back.")
        return send(present.project_out(session, row, system()))
