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
        return send(out.LogOut(entries=[_line(line) for line in lines]))


def _line(line: log.LogLine) -> out.LogLineOut:
    return out.LogLineOut(
        id=line.id,
        at=line.at,
        stage=line.stage,
        kind=line.kind,
        what=line.what,
        values=dict(line.values),
        before=dict(line.before),
        after=dict(line.after),
    )
