"""Log: what was done, the newest first."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ..store import records
from . import schemas as out
from .context import look, send

blueprint = APIBlueprint("log", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


@blueprint.get("/projects/<int:project_id>/log", operation_id="readLog", responses={200: out.LogOut})
def read_log(path: out.ProjectPath) -> Response:
    """Every step of a project so far."""
    with look() as session:
        project = records.project(session, path.project_id)
        entries = records.log_entries(session, project.id)
        return send(
            out.LogOut(
                entries=[out.LogLineOut(id=e.id, at=e.at, stage=e.stage, what=e.what, detail=e.detail) for e in entries]
            )
        )
