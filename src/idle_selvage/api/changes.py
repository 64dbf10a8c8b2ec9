"""Keeping changes of a project's own entries: set, logged, and answered with the project whole."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy.orm import Session

from ..core.written import length_text
from ..store import models, records
from . import present
from . import schemas as out
from .context import Refused, system


def change(
    session: Session, row: models.Project, given: Mapping[str, Any], stage: str, names: Mapping[str, str]
) -> out.ProjectOut:
    """Set the entries ``given`` of a project, and write into the log which they were, by ``names``."""
    for key, value in given.items():
        setattr(row, key, value)
    if given:
        session.flush()
        records.log(session, row.id, stage, "Changed " + ", ".join(names[key] for key in given) + ".", **given)
    return present.project_out(session, row, system())


def within(given: Mapping[str, Any], limits: Mapping[str, tuple[float, float]]) -> None:
    """Refuse a length outside its limits, in millimetres, with a sentence in the person's units."""
    for key, (least, most) in limits.items():
        if key in given and not least <= given[key] <= most:
            told = f"That must be from {length_text(least, system())} to {length_text(most, system())}."
            raise Refused(told, path=key)
