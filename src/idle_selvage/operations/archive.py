"""Taking a garment, a cloth, or everything along as one file, and taking such a file in."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from sqlalchemy.orm import Session

from ..core.project.outcome import BY_KIND
from ..core.wording import listed, str_of
from ..formats.archive import BadArchive, read_archive, write_archive
from ..formats.photo import is_photo
from ..formats.svg_written import write_svg
from ..store import archive, log_entry, models
from ..store.archive_schema import FORMAT, ID, row_schema, text
from ..store.cloth import cloth as find
from ..store.data_file import HEAD
from ..store.database import rows_at_head
from .cut.rounds import read_cutting
from .log import line_of, note, note_cloth
from .match import matching
from .outcome import OutcomeStanding
from .project import garment, read_garment
from .refused import Refused
from .settings import bring_settings, is_unused
from .standing import cloth_standings
from .taking_in import pieces_of
from .true import TrueStanding

#: What is done with a cloth that is here already.
Cloths = Literal["ask", "same", "another"]
#: The tables of photos, and by which column each is called: they lie in the archive as pictures.
PHOTOS = {"photo": "cloth_id", "log_photo": "log_id"}
#: So many faults of a broken archive are told.
MOST_TOLD = 8


def write(
    session: Session, written: datetime, *, project: int | None = None, cloth: int | None = None
) -> tuple[bytes, str]:
    """An archive of a garment, of a cloth, or of everything where neither is given; and a plain name for it."""
    what, name = "everything", "everything"
    if project is not None:
        what, name = "garment", garment(session, project).name
    elif cloth is not None:
        what, name = "cloth", find(session, cloth).name
    whole = project is None and cloth is None
    garments = None if whole else [] if project is None else [project]
    rows = archive.gather(session, garments, None if whole else [] if cloth is None else [cloth])
    photos: dict[str, bytes] = {}
    for table, key in PHOTOS.items():
        for row in rows.get(table, []):
            file = f"photos/{table}-{row[key]}.jpg"
            photos[file] = archive.unplain(row["jpeg"])
            row["jpeg"] = {"$file": file}
    document = {
        "$schema": ID, "format": FORMAT, "shape": HEAD, "what": what, "written": written.isoformat(),
        "by": "Idle Selvage", "tables": rows,
    }  # fmt: skip
    drawings = {}
    for row in rows.get("project", []):
        found = pieces_of(read_garment(session, row["id"]))
        if found:
            drawings[f"{row['id']}-{_plain(row['name'])}.svg"] = write_svg(found, title=row["name"])
    return write_archive(document, text(), photos, drawings), _plain(name)


def _plain(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60] or "unnamed"


@dataclass(frozen=True)
class TakenArchive:
    """What came of an archive: its garments and cloths here, what was left out, a sentence each, and whether settings
    came along."""

    projects: tuple[tuple[int, str], ...]
    cloths: tuple[tuple[int, str], ...]
    left_out: tuple[str, ...]
    settings: bool = False


def take_in(session: Session, data: bytes, *, cloths: Cloths = "ask", what_can_be: bool = False) -> TakenArchive:
    """Put an archive in. ``cloths``: whether a cloth that is here already is the same one, or another; ``what_can_be``:
    of a broken one, all that can be read. The settings of a whole home come along where nothing was begun yet. Raises
    :class:`Refused`."""
    try:
        found = read_archive(data)
    except BadArchive as fault:
        raise Refused(str(fault), path="file") from None
    rows, faults = _rows(found.document)
    for table in PHOTOS:
        for row in rows.get(table, []):
            file = row.get("jpeg")
            photo = found.photos.get(file.get("$file", "")) if isinstance(file, dict) else None
            row["jpeg"] = None if photo is None or not is_photo(photo) else archive.plain(photo)
        there = [row for row in rows.get(table, []) if row["jpeg"] is not None]
        faults += ["a photo is missing, or is none"] * (len(rows.get(table, [])) - len(there))
        rows[table] = there
    measured = False
    if rows.get("settings") and is_unused(session):
        try:
            bring_settings(session, rows["settings"][0])
            measured = True
        except Refused as fault:
            faults.append(f"the settings: {str(fault).rstrip('.')}")
    if faults and not what_can_be:
        told = "; ".join(faults[:MOST_TOLD])
        more = f"; and {len(faults) - MOST_TOLD} more" if len(faults) > MOST_TOLD else ""
        raise Refused(f"This archive is broken: {told}{more}. What can be read of it may be taken in.", code="broken",
                      path="file")  # fmt: skip
    same = archive.same_cloths(session, rows)
    if same and cloths == "ask":
        names = [f"“{row['name']}”" if row["name"] else "a cloth without a name"
                 for row in rows["cloth"] if row["id"] in same]  # fmt: skip
        asks = "is in the cupboard already. Is it the same cloth, or another?"
        if len(names) > 1:
            asks = "are in the cupboard already. Are they the same cloths, or others?"
        told = listed(names)
        raise Refused(f"{told[:1].upper()}{told[1:]} {asks}", code="again", path="cloths")
    before = log_entry.newest_line(session)
    done = archive.put(session, rows, same if cloths == "same" else {})
    if not done.projects and not done.cloths:
        raise Refused("There is no garment and no cloth in this archive that is not here already.", path="file")
    _sound(session, done, before)
    projects = [session.get_one(models.Project, number) for number in done.projects]
    new = [session.get_one(models.Cloth, number) for number in done.cloths]
    for project in projects:
        note(session, project, "plan", "archive-in", name=project.name)
    for cloth in new:
        if not projects:
            note_cloth(session, cloth, "cloth", "archive-in", name=cloth.name)
    left = [*done.left_out, *(faults if what_can_be else [])]
    return TakenArchive(
        tuple((p.id, p.name) for p in projects),
        tuple((c.id, c.name) for c in new),
        tuple(left[: 4 * MOST_TOLD]),
        measured,
    )


def _rows(document: Mapping[str, Any]) -> tuple[archive.Rows, list[str]]:
    """The rows of a document in the shape of this home, and what is wrong with them; what is wrong is left out."""
    if document.get("format") != FORMAT:
        told = str(document.get("format"))[:60]
        raise Refused(f"This file calls itself “{told}”; archives of “{FORMAT}” are read.", path="file")
    shape = document.get("shape")
    if not isinstance(shape, str) or not re.fullmatch(r"\d{4}", shape):
        raise Refused("This archive does not say which shape its rows have.", path="file")
    if shape > HEAD:
        raise Refused("This archive was written by a newer program. Bring this one up to date first.", path="file")
    given = document.get("tables")
    if not isinstance(given, dict):
        raise Refused("There are no tables in this archive.", path="file")
    if shape < HEAD:
        try:
            given = rows_at_head(given, shape)
        except Exception:
            raise Refused("This archive of an older program could not be brought up to date: its rows do not fit.",
                          path="file") from None  # fmt: skip
    # a fifth of a second to import, and only taking in needs it
    import jsonschema

    known = {table.name: table for table in archive.tables()}
    rows: archive.Rows = {}
    faults: list[str] = []
    for name, of in given.items():
        if name not in known or not isinstance(of, list):
            faults.append(f"the table “{str(name)[:30]}” is not known")
            continue
        check = jsonschema.Draft202012Validator(row_schema(known[name]))
        for number, row in enumerate(of, start=1):
            fault = next(iter(check.iter_errors(row)), None)
            if fault is None:
                rows.setdefault(name, []).append(dict(row))
            else:
                where = ".".join(str(part) for part in fault.absolute_path)
                faults.append(f"row {number} of “{name}”{', ' + where if where else ''}: {fault.message[:100]}")
    return rows, faults


def looked_into(document: Mapping[str, Any]) -> tuple[archive.Rows, list[str]]:
    """The rows of an archive that are what they should be, and what is wrong with the others, a sentence each. Raises
    :class:`Refused` for none of ours."""
    return _rows(document)


def _sound(session: Session, done: archive.PutIn, before: int) -> None:
    """What was put in can be shown and reckoned with, page by page; else none of it is kept. ``before``: the newest
    line of the log there was. Raises :class:`Refused`."""
    try:
        for number in done.projects:
            now = read_garment(session, number)
            _ = (now.whole.stages, now.whole.cost)
            for use in now.whole.uses:
                _ = (
                    use.tally,
                    use.asked,
                    use.missing,
                    use.chosen,
                    use.bought,
                    use.stale,
                    read_cutting(session, use).tally,
                )
            _ = (matching(session, now).seams, TrueStanding(now).twists, OutcomeStanding(session, now).measurable)
            _ = [(BY_KIND[one.kind], one.foreseen) for _, one in OutcomeStanding(session, now).kept]
            pieces_of(now)
        cloths = [session.get_one(models.Cloth, number) for number in done.cloths]
        for cloth in cloth_standings(session, cloths):
            _ = (cloth.states, cloth.bars, cloth.warp, cloth.weft, cloth.dye, cloth.width_now, cloth.length_now)
            _ = (cloth.treatment_facts, cloth.needs_treatment)
        for line in log_entry.lines_since(session, before):
            str_of(line_of(session.get_one(models.LogEntry, line)).what)
    except Exception:
        # rows that each are what they should be, and together are nothing that can be
        raise Refused("The rows of this archive do not fit together: nothing of it was kept.", path="file") from None
