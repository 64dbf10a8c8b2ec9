"""The log: what was done, event by event. Nothing there is ever changed; its sentences are made when it is read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from ..core.wording import Part, Sentence, str_of
from ..core.working import Quantity
from ..store import journal, log_entry, models
from ..store import project as projects
from .events import EVENTS, sentence_for

#: So many lines are shown of bench and cupboard.
MOST_LINES = 500
#: A line of the time before events, and the key under which it keeps its sentence with its quantities.
TOLD, SAID = "told", "said"
#: What is no deed of the maker's, or ends by itself.
NOT_TAKEN_BACK = (
    "laying-begun", "closing-begun", "closing-late", "laid", "laying-failed", "trials-begun",
    # cloth that was cut comes back by no undo: what was marked by mistake is said so at the table
    "cutting-begun", "piece-cut", "piece-not-cut", "piece-lost", "piece-found", "round-left", "cut-again",
    "device-paired", "device-revoked",
    # what was taken in as a whole is put away as a whole, and what was noted stays
    "archive-in", "note",
)  # fmt: skip
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
    use = garment if isinstance(garment, models.ClothUse) else None
    project = use.project_id if use is not None else garment.id if isinstance(garment, models.Project) else None
    of = cloth.id if cloth is not None else use.cloth_id if use is not None else None
    row = models.LogEntry(project_id=project, use_id=None if use is None else use.id, cloth_id=of)
    row.before, row.after = dict(before or {}), dict(after or {})
    _add(session, row, stage, kind, {**(values or {}), **more})


def note_again(session: Session, line: models.LogEntry, kind: str, **values: Any) -> None:
    """Write an event where another line stands: of its garment, cloth and stage."""
    row = models.LogEntry(project_id=line.project_id, use_id=line.use_id, cloth_id=line.cloth_id, before={}, after={})
    _add(session, row, line.stage, kind, values)


def _add(session: Session, row: models.LogEntry, stage: str, kind: str, values: Mapping[str, Any]) -> None:
    if kind not in EVENTS:
        raise KeyError(kind)
    row.stage, row.kind, row.values = stage, kind, {key: _kept(value) for key, value in values.items()}
    log_entry.add(session, row)


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
    #: the change it tells of, if that can be taken back; and whether it stands
    change: int | None = None
    stands: bool = True


def read_log(
    session: Session, garment: models.Project, before: int | None = None, most: int | None = None
) -> list[LogLine]:
    """A garment's log, the newest first: the whole, or ``most`` lines of those that come before one of them (by its
    number)."""
    return _read_lines(session, log_entry.entries(session, garment.id, most, before))


def length_of_log(session: Session, garment: models.Project) -> int:
    """How many lines a garment's log has."""
    return log_entry.count(session, garment.id)


def read_house_log(session: Session) -> list[LogLine]:
    """What was done on the bench and in the cupboard, the newest first; of what was done to a cloth of several garments
    one line."""
    seen: set[int] = set()
    rows = []
    for row in log_entry.entries(session, None, MOST_LINES):
        if row.change_id is None or row.change_id not in seen:
            rows.append(row)
            seen.add(row.change_id or 0)
    return _read_lines(session, rows)


def _read_lines(session: Session, rows: Sequence[models.LogEntry]) -> list[LogLine]:
    stands = journal.standing(session, [row.change_id for row in rows if row.change_id is not None])
    return [placed(row, stands) for row in rows]


def placed(row: models.LogEntry, stands: Mapping[int, bool]) -> LogLine:
    """A line as it is read, with whether what it tells of ``stands`` (by the numbers of changes)."""
    line = line_of(row)
    change = line.change if line.change in stands else None
    return replace(line, change=change, stands=stands.get(change or 0, True))


def line_of(row: models.LogEntry) -> LogLine:
    """A line as it is read."""
    old = row.values.get(SAID) if row.kind == TOLD else None
    said = sentence_for(row.kind, {k: _read(v) for k, v in row.values.items()}) if old is None else _sentence(old)
    plain = {key: value for key, value in row.values.items() if row.kind != TOLD or key not in (SAID, "what")}
    change = None if row.kind in NOT_TAKEN_BACK else row.change_id
    return LogLine(row.id, row.at, row.stage, row.kind, said, plain, row.before, row.after, change)


def done_in(row: models.LogEntry) -> str:
    """What was done: of a line that says that something was taken back or done again, that something."""
    said = row.values.get("said") if row.kind.removeprefix("whole-") in ("taken-back", "done-again") else None
    return line_of(row).what if said is None else str_of(_read(said))


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
