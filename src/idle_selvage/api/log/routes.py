"""Log: what was done, the newest first."""

from __future__ import annotations

from flask import Response

from ...operations import log
from ...operations.project import garment
from ..services import look, send
from ..shared.schemas import ProjectPath
from . import schemas as out


def read_log(path: ProjectPath) -> Response:
    """Every step of a project so far."""
    with look() as session:
        lines = log.read_log(session, garment(session, path.project_id))
        return send(
            out.LogOut(
                entries=[
                    out.LogLineOut(id=line.id, at=line.at, stage=line.stage, what=line.what, detail=dict(line.detail))
                    for line in lines
                ]
            )
        )
