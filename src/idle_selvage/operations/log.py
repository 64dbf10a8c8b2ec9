"""The log: what was done, event by event. Nothing there is ever changed; its sentences are made when it is read."""

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
from .events import EVENTS, sentence_for

#: A line of the time before events, and the key under which it keeps its sentence with its quantities.
TOLD, SAID = "told", "said"
Garment = models.Project | models.ClothUse | None


def note(
    session: Session,
    garment: Garment,
    stage: str,
    kind: str,
    *,
    cloth: models.Cloth | None = None,
    before: Mapping[str, Any] | None = None,
    after: Mapping[str, Any] | None = None,
    values: Mapping[str, Any] | None = None,
    **more: Any,
) -> None:
    """Write one event into a garment's log (given as itself, or as one of its cloths), or into the cupboard's own
    (None). ``values`` (and ``more``) go with it, ``before`` and ``after`` are the entries it changed."""
    if kind not in EVENTS:
        raise KeyError(kind)
    use = garment if isinstance(garment, models.ClothUse) else None
    project = use.project_id if use is not None else garment.id if isinstance(garment, models.Project) else None
    of = cloth.id if cloth is not None else use.cloth_id if use is not None else None
    log_entry.add(
        session,
        models.LogEntry(
            project_id=project,
            use_id=None if use is None else use.id,
            cloth_id=of,
            stage=stage,
            kind=kind,
            values={key: _kept(value) for key, value in {**(values or {}), **more}.items()},
            before=dict(before or {}),
            after=dict(after or {}),
        ),
    )


def note_cloth(session: Session, cloth: models.Cloth, stage: str, kind: str, **values: Any) -> None:
    """Write an event of a cloth into the log of every garment that uses it, or into the cupboard's own."""
    using: list[models.Project | None] = list(projects.of_cloth(session, cloth.id))
    for garment in using or [None]:
        note(session, garment, stage, kind, cloth=cloth, **values)


@dataclass(frozen=True)
class LogLine:
    """One thing that was done: what kind of thing, the sentence, the values that go with it, and what it changed."""

    id: int
    at: datetime
    stage: str
    kind: str
    what: str
    values: Mapping[str, Any]
    before: Mapping[str, Any]
    after: Mapping[str, Any]


def read_log(session: Session, garment: models.Project) -> list[LogLine]:
    """A garment's log, the newest first."""
    return [_line(row) for row in log_entry.entries(session, garment.id)]


def _line(row: models.LogEntry) -> LogLine:
    old = row.values.get(SAID) if row.kind == TOLD else None
    said = sentence_for(row.kind, {k: _read(v) for k, v in row.values.items()}) if old is None else _sentence(old)
    plain = {key: value for key, value in row.values.items() if row.kind != TOLD or key not in (SAID, "what")}
    return LogLine(row.id, row.at, row.stage, row.kind, said, plain, row.before, row.after)


def _kept(value: Any) -> Any:
    """A value as JSON holds it: quantities, and sentences with theirs, can be read again."""
    if isinstance(value, Sentence):
        return {"template": value.template, "parts": {name: _kept(part) for name, part in value.parts.items()}}
    if isinstance(value, Quantity):
        return {"value": value.value, "kind": value.kind}
    if isinstance(value, list | tuple):
        return [_kept(one) for one in value]
    return value


def _read(kept: Any) -> Any:
    if isinstance(kept, dict) and kept.keys() == {"template", "parts"}:
        return _sentence(kept)
    if isinstance(kept, dict) and kept.keys() == {"value", "kind"}:
        return Quantity(kept["value"], kept["kind"])
    if isinstance(kept, list):
        return [_read(one) for one in kept]
    return kept


def _sentence(kept: Mapping[str, Any]) -> Sentence:
    parts: dict[str, Part] = {}
    for name, part in kept["parts"].items():
        # before events a quantity was kept as a pair
        parts[name] = Quantity(*part) if isinstance(part, list) else _read(part)
    return Sentence(kept["template"], **parts)
