"""Files that are taken away: their names."""

from __future__ import annotations

import re

from ..store import models


def file_name(project: models.Project, ending: str) -> str:
    """A plain file name from a project's."""
    plain = re.sub(r"[^a-z0-9]+", "-", project.name.lower()).strip("-") or "project"
    return f"{plain}-{ending}"
