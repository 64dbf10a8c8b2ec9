"""Files that are taken away: their names."""

from __future__ import annotations

import re

from flask import Response, make_response

from ...store import models


def file_name(project: models.Project, ending: str) -> str:
    """A plain file name from a project's."""
    plain = re.sub(r"[^a-z0-9]+", "-", project.name.lower()).strip("-") or "project"
    return f"{plain}-{ending}"


def attachment(body: str | bytes, kind: str, name: str) -> Response:
    """A file to be taken away."""
    answer = make_response(body)
    answer.headers["Content-Type"] = f"{kind}; charset=utf-8"
    answer.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


def described(what: str, kind: str, schema: dict[str, str] | None = None) -> dict[str, object]:
    """A file as the document of the API tells of it."""
    return {"description": what, "content": {kind: {"schema": schema or {"type": "string"}}}}
