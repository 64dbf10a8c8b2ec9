"""The log: what was done, line by line. Nothing there is ever changed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from ..core.wording import Part, Sentence
from ..core.working import Quantity
from ..store import log_entry, models
from ..store import project as projects

#: Under this key a line's quantities are kept, so that it can be read in either system of units.
SAID = "said"


def note(session: Session, garment: models.Project | None, stage: str, what: str, **detail: Any) -> None:
    """Write one line into a garment's log, or into the cupboard's own (None)."""
    if isinstance(what, Sentence):
        detail[SAID] = _kept(what)
    log_entry.add(session, None if garment is None else garment.id, stage, str(what), detail)


def note_cloth(session: Session, cloth: models.Cloth, stage: str, what: str, **detail: Any) -> None:
    """Write a line about a cloth into the log of every garment that uses it, or into the cupboard's own."""
    using: list[models.Project | None] = list(projects.of_cloth(session, cloth.id))
    for garment in using or [None]:
        note(session, garment, stage, what, cloth=cloth.id, **detail)


@dataclass(frozen=True)
class LogLine:
    """One thing that was done, and the values that went with it."""

    id: int
    at: datetime
    stage: str
    what: str
    detail: Mapping[str, Any]


def read_log(session: Session, garment: models.Project) -> list[LogLine]:
    """A garment's log, the newest first."""
    return [
        LogLine(row.id, row.at, row.stage, _said(row), {k: v for k, v in row.detail.items() if k != SAID})
        for row in log_entry.entries(session, garment.id)
    ]


def _kept(told: Sentence) -> dict[str, Any]:
    """A sentence as it is kept, sentences inside it too."""
    parts: dict[str, Any] = {}
    for name, part in told.parts.items():
        if isinstance(part, Quantity):
            parts[name] = [part.value, part.kind]
        else:
            parts[name] = _kept(part) if isinstance(part, Sentence) else str(part)
    return {"template": told.template, "parts": parts}


def _read(kept: Mapping[str, Any]) -> Sentence:
    parts: dict[str, Part] = {}
    for name, part in kept["parts"].items():
        parts[name] = _read(part) if isinstance(part, dict) else part if isinstance(part, str) else Quantity(*part)
    return Sentence(kept["template"], **parts)


def _said(row: models.LogEntry) -> str:
    kept = row.detail.get(SAID)
    return row.what if kept is None else _read(kept)
