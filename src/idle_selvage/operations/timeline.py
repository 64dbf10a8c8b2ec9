"""The log as a timeline: of a garment, of a cloth, of everything; searched, filtered, grouped; with notes of one's own
and photos."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta, tzinfo

from sqlalchemy.orm import Session

from ..core.wording import str_of
from ..formats.photo import BadPhoto, read_photo
from ..store import journal, log_entry, models
from .log import LogLine, note, note_cloth, placed
from .refused import Refused

#: Lines of one kind that follow each other within this are told as one, from so many on.
TOGETHER = timedelta(minutes=10)
GROUP_FROM = 4
#: A note is at most so long.
LONGEST_NOTE = 2000


@dataclass(frozen=True)
class Asked:
    """Which lines are wanted; ``since`` and ``until`` are days of the reader's own clock, both with them; ``text`` is
    looked for in the sentences, as they are told to her."""

    project_id: int | None = None
    cloth_id: int | None = None
    stages: tuple[str, ...] = ()
    since: date | None = None
    until: date | None = None
    text: str = ""
    before: int | None = None
    lines: int = 200


@dataclass(frozen=True)
class Told:
    """One line with what it is about: its garment and cloth, and whether it has a photo."""

    line: LogLine
    project: tuple[int, str] | None
    cloth: tuple[int, str] | None
    photo: bool


@dataclass(frozen=True)
class Timeline:
    """Lines, the newest first, in groups; ``earlier``: there are more before this line."""

    groups: tuple[tuple[Told, ...], ...]
    earlier: int | None

    @property
    def lines(self) -> tuple[Told, ...]:
        """All lines, one after another."""
        return tuple(one for group in self.groups for one in group)


def read_timeline(session: Session, asked: Asked, zone: tzinfo, as_read: Callable[[str], str] = str_of) -> Timeline:
    """What was asked for. ``zone``: where the reader's days begin; ``as_read``: a sentence as she reads it."""
    rows: list[models.LogEntry] = []
    wanted = asked.text.casefold().split()
    more = False
    for row in _rows(session, asked, zone):
        if wanted and not _says(as_read(placed(row, {}).what), wanted):
            continue
        if len(rows) == asked.lines:
            more = True
            break
        rows.append(row)
    told = _told(session, rows)
    return Timeline(tuple(_grouped(told)), rows[-1].id if more else None)


def _rows(session: Session, asked: Asked, zone: tzinfo) -> Iterator[models.LogEntry]:
    since = None if asked.since is None else datetime.combine(asked.since, time(), zone)
    until = None if asked.until is None else datetime.combine(asked.until + timedelta(days=1), time(), zone)
    return log_entry.timeline(
        session, project_id=asked.project_id, cloth_id=asked.cloth_id, stages=asked.stages, since=since, until=until,
        before=asked.before,
    )  # fmt: skip


def _says(text: str, wanted: Sequence[str]) -> bool:
    small = text.casefold()
    return all(word in small for word in wanted)


def _told(session: Session, rows: Sequence[models.LogEntry]) -> list[Told]:
    stands = journal.standing(session, [row.change_id for row in rows if row.change_id is not None])
    projects, cloths = log_entry.names(session)
    photos = log_entry.photos_of(session, [row.id for row in rows])
    return [
        Told(placed(row, stands), _named(row.project_id, projects), _named(row.cloth_id, cloths), row.id in photos)
        for row in rows
    ]


def _named(number: int | None, names: Mapping[int, str]) -> tuple[int, str] | None:
    return None if number is None else (number, names.get(number, ""))


def _grouped(lines: Sequence[Told]) -> Iterator[tuple[Told, ...]]:
    """Lines of one kind that follow each other closely, as one; a few stay apart."""
    run: list[Told] = []
    for one in lines:
        if run and not _together(run[-1], one):
            yield from _run(run)
            run = []
        run.append(one)
    yield from _run(run)


def _together(later: Told, earlier: Told) -> bool:
    a, b = later.line, earlier.line
    alike = (a.kind, a.stage, later.project, later.cloth) == (b.kind, b.stage, earlier.project, earlier.cloth)
    # the same entries again and again; another one is another thing
    alike = alike and a.after.keys() == b.after.keys()
    return alike and a.kind != "note" and a.at - b.at <= TOGETHER


def _run(run: Sequence[Told]) -> list[tuple[Told, ...]]:
    if len(run) >= GROUP_FROM:
        return [tuple(run)]
    return [(one,) for one in run]


def add_note(
    session: Session, text: str, *, project: models.Project | None = None, cloth: models.Cloth | None = None,
    photo: bytes | None = None,
) -> None:  # fmt: skip
    """Write a note of one's own, of a garment, a cloth, or neither, with a photo if there is one. Raises
    :class:`Refused`."""
    said = " ".join(text.split())
    if not said and photo is None:
        raise Refused("Write what there is to note, or choose a photo.", path="text")
    if len(said) > LONGEST_NOTE:
        raise Refused(f"A note has at most {LONGEST_NOTE} letters.", path="text")
    try:
        kept = None if photo is None else read_photo(photo).what
    except BadPhoto as fault:
        raise Refused(str(fault), path="photo") from None
    before = log_entry.newest_line(session)
    if cloth is not None and project is None:
        note_cloth(session, cloth, "log", "note", text=said or "A photo.")
    else:
        note(session, project, "log", "note", cloth=cloth, text=said or "A photo.")
    session.flush()
    if kept is not None:
        for line in log_entry.lines_since(session, before):
            session.add(models.LogPhoto(log_id=line, jpeg=kept))
        session.flush()
