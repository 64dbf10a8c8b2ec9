"""Garments and cloths as rows that another home can take in: gathered with all that hangs on them, put in anew under
numbers of its own.

What belongs to this home alone stays here: changes that can be undone, work under way, trials, paired devices. Rows
keep their columns; what one calls another by is renumbered as it is put in.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import JSON, Table, and_, select
from sqlalchemy.orm import Session

from ..core.lay.problem import BadProblem, fingerprint
from ..core.lay.reading import read_problem
from .journal import plain, unplain
from .models import Base, Cloth, LayProblem, Project
from .models import now as present

#: What is of this home alone.
LEFT_HERE = frozenset({"change", "changed_row", "job", "trial", "paired_device"})
#: What many cloths share, and how the person measures; only the whole home has it whole.
OF_THE_WHOLE = frozenset({"wash_load", "load_cloth", "load_task", "settings"})
#: What hangs on a cloth, and on a garment, beside what its foreign keys say.
Rows = dict[str, list[dict[str, Any]]]


#: What calls pieces by their numbers.
_LAID = frozenset({"lay", "lay_change", "cutting", "cut_deed"})


def tables(*, whole: bool = True) -> list[Table]:
    """The tables of an archive, each after those it points to."""
    left = LEFT_HERE if whole else LEFT_HERE | OF_THE_WHOLE
    found = [table for table in Base.metadata.sorted_tables if table.name not in left]
    # what is laid calls pieces by their numbers, without a foreign key
    return sorted(found, key=lambda table: table.name in _LAID)


def gather(session: Session, projects: Sequence[int] | None, cloths: Sequence[int] | None) -> Rows:
    """All rows of some garments with the cloths they use, and of some cloths; of everything where both are None.
    Nothing that was put away goes along, except what the rest points to."""
    whole = projects is None and cloths is None
    kept: dict[str, set[Any]] = {"project": _there(session, Project, projects), "cloth": set()}
    uses = Base.metadata.tables["cloth_use"]
    of = session.execute(select(uses.c.cloth_id).where(uses.c.project_id.in_(kept["project"])))
    kept["cloth"] = {row[0] for row in of} | _there(session, Cloth, cloths if not whole else None, none=not whole)
    out: Rows = {}
    for table in tables(whole=whole):
        if table.name == "lay_problem":
            continue
        found = [dict(row) for row in session.execute(select(table)).mappings()]
        rows = [row for row in found if _belongs(table, row, kept, whole=whole)]
        ids = [c.name for c in table.primary_key.columns]
        if len(ids) == 1:
            kept[table.name] = {row[ids[0]] for row in rows}
        out[table.name] = rows
    asked = {row["fingerprint"] for name in ("lay", "cutting") for row in out.get(name, [])}
    problems = Base.metadata.tables["lay_problem"]
    query = select(problems).where(problems.c.fingerprint.in_(asked))
    out["lay_problem"] = [dict(row) for row in session.execute(query).mappings()]
    return {name: [_cleaned(name, row, whole=whole) for row in rows] for name, rows in out.items() if rows}


def _there(
    session: Session, model: type[Project] | type[Cloth], ids: Sequence[int] | None, *, none: bool = False
) -> set[int]:
    if ids is not None:
        return set(ids)
    if none:
        return set()
    return set(session.scalars(select(model.id).where(model.deleted_at.is_(None))))


def _belongs(table: Table, row: Mapping[str, Any], kept: Mapping[str, set[Any]], *, whole: bool) -> bool:
    if table.name in ("project", "cloth"):
        return row["id"] in kept[table.name]
    if table.name == "log_entry":
        own = (
            row["project_id"] in kept["project"] if row["project_id"] is not None else row["cloth_id"] in kept["cloth"]
        )
        return own or (whole and row["project_id"] is None and row["cloth_id"] is None)
    parents = [(column, next(iter(column.foreign_keys)).column.table.name)
               for column in table.columns if column.foreign_keys]  # fmt: skip
    parents = [(column, name) for column, name in parents if name in kept]
    if not parents:
        return whole
    for column, name in parents:
        value = row[column.name]
        if value is not None and value not in kept[name] and not _loose(table, column.name):
            return False
    # a reading of a piece stays with its piece, one of a cloth with its cloth
    return any(row[column.name] in kept[name] for column, name in parents)


def _loose(table: Table, column: str) -> bool:
    """Whether a row is whole without what this column points to."""
    return bool(table.c[column].nullable) and (table.name, column) not in _OWNERS


#: Columns that may be empty, and own their row where they are not.
_OWNERS = frozenset(("reading", name) for name in ("cloth_id", "swatch_id", "use_id", "piece_id", "wash_id"))


def _cleaned(name: str, row: dict[str, Any], *, whole: bool) -> dict[str, Any]:
    out = dict(row)
    for column, of in (("job_id", "lay"), ("change_id", "log_entry")):
        if name == of:
            out[column] = None
    if name == "wash" and not whole:
        out["task_id"] = None
    return {key: plain(value) for key, value in out.items()}


@dataclass
class PutIn:
    """What came of an archive: the numbers its garments and cloths have here, and what was left out, a sentence
    each."""

    projects: list[int] = field(default_factory=list)
    cloths: list[int] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)


def same_cloths(session: Session, rows: Rows) -> dict[int, int]:
    """Cloths of an archive that are here already, by their names and the moment they were begun: the archive's number
    to the one here."""
    there = {(row.name, row.created_at): row.id for row in session.scalars(select(Cloth))}
    out = {}
    for row in rows.get("cloth", []):
        key = (row.get("name"), unplain(row.get("created_at")))
        if key in there:
            out[row["id"]] = there[key]
    return out


def put(session: Session, rows: Rows, same: Mapping[int, int]) -> PutIn:
    """Put the rows of an archive in, but for its settings. ``same``: its cloths that are the ones here, which stay as
    they are. Rows whose owner is missing are left out."""
    done = PutIn()
    numbers: dict[str, dict[Any, Any]] = {"cloth": dict(same)}
    prints: dict[str, str] = {}
    lost: dict[str, int] = {}
    theirs: dict[str, set[Any]] = {"cloth": set(same)}
    for table in tables():
        numbers.setdefault(table.name, {})
        if table.name in ("lay_problem", "settings"):
            # the pieces of a problem are called by their new numbers, which are not known yet
            continue
        if table.name in ("lay", "cutting") and not prints:
            prints = _put_problems(session, rows, numbers)
        for row in rows.get(table.name, []):
            if table.name == "cloth" and row["id"] in same:
                continue
            if _of_same(table, row, theirs):
                # it tells of a cloth that is here already, which stays as it is
                if "id" in row:
                    theirs.setdefault(table.name, set()).add(row["id"])
                    numbers[table.name][row["id"]] = _equal_here(session, table, row, numbers)
                continue
            here = _renumbered(table, row, numbers, prints)
            if here is None:
                lost[table.name] = lost.get(table.name, 0) + 1
                continue
            key = [c.name for c in table.primary_key.columns]
            if key == ["id"]:
                old = here.pop("id")
                found = session.connection().execute(table.insert().values(here))
                new = found.inserted_primary_key
                assert new is not None
                numbers[table.name][old] = new[0]
                if table.name in ("project", "cloth") and here.get("deleted_at") is None:
                    (done.projects if table.name == "project" else done.cloths).append(new[0])
            elif session.execute(select(table).where(_at(table, here))).first() is None:
                session.execute(table.insert().values(here))
    _remnants(session, done.cloths, numbers["cloth"])
    done.left_out = [f"{count} of “{name}”: what they belong to is missing" for name, count in lost.items() if count]
    session.expire_all()
    return done


def _at(table: Table, row: Mapping[str, Any]) -> Any:
    return and_(*(column == row[column.name] for column in table.primary_key.columns))


def _of_same(table: Table, row: Mapping[str, Any], theirs: Mapping[str, set[Any]]) -> bool:
    """Whether a row only tells of a cloth that is here already, or of what hangs on it."""
    if table.name in ("cloth_use", "cutting", "true_test", "log_entry"):
        return False
    for column in table.columns:
        to = next(iter(column.foreign_keys)).column.table.name if column.foreign_keys else ""
        if to in theirs and row.get(column.name) in theirs[to] and not _loose(table, column.name):
            return True
    return False


def _equal_here(
    session: Session, table: Table, row: Mapping[str, Any], numbers: Mapping[str, Mapping[Any, Any]]
) -> int | None:
    """The number of the row of a cloth that is here already which is the same in all but its numbers."""
    if "cloth_id" not in table.c or row.get("cloth_id") is None:
        return None
    plain_ = [c for c in table.columns if not c.foreign_keys and not c.primary_key and not isinstance(c.type, JSON)]
    same = and_(
        table.c.cloth_id == numbers["cloth"].get(row["cloth_id"]),
        *(column == unplain(row.get(column.name)) if row.get(column.name) is not None else column.is_(None)
          for column in plain_),
    )  # fmt: skip
    return session.connection().execute(select(table.c.id).where(same)).scalar()


def _renumbered(
    table: Table, row: Mapping[str, Any], numbers: Mapping[str, Mapping[Any, Any]], prints: Mapping[str, str]
) -> dict[str, Any] | None:
    """A row as it is put in; None where what owns it is missing."""
    out = {name: unplain(value) for name, value in row.items() if name in table.c}
    for column in table.columns:
        if not column.foreign_keys or out.get(column.name) is None:
            continue
        to = next(iter(column.foreign_keys)).column.table.name
        if to in LEFT_HERE:
            out[column.name] = None
            continue
        value = out[column.name]
        new = prints.get(value) if to == "lay_problem" else numbers.get(to, {}).get(value)
        if new is None and (not column.nullable or (table.name, column.name) in _OWNERS):
            return None
        out[column.name] = new
    pieces = numbers.get("piece", {})
    for name in ("lay", "change", "own_order", "key", "at"):
        if table.name in _LAID and name in out and not _is_time(out[name]):
            out[name] = called_anew(out[name], pieces)
    if table.name == "list_tick":
        out["line"] = _line_anew(str(out.get("line", "")), numbers)
    return out


def _is_time(value: Any) -> bool:
    return hasattr(value, "isoformat")


def _line_anew(line: str, numbers: Mapping[str, Mapping[Any, Any]]) -> str:
    """The key of a line of the list: of a use, or of a thing of one's own."""
    kind, _, number = line.rpartition("-")
    of = {"use": "cloth_use", "own": "list_item"}.get(kind)
    if of is None or not number.isdigit():
        return line
    return f"{kind}-{numbers.get(of, {}).get(int(number), number)}"


_CALLED = re.compile(r"^(\d+)(.*)$", re.DOTALL)
#: Where a lay, its problem, a change by hand and a placement call a piece.
_NAMES = frozenset({"piece", "id", "key", "keys", "pieces", "of"})


def called_anew(value: Any, pieces: Mapping[Any, Any], *, name: bool = True) -> Any:
    """A value in which pieces are called by their new numbers: “12”, and what begins with it, such as “12·2”."""
    if isinstance(value, str):
        found = _CALLED.match(value) if name else None
        new = pieces.get(int(found[1])) if found else None
        return value if found is None or new is None else f"{new}{found[2]}"
    if isinstance(value, list):
        return [called_anew(one, pieces, name=name) for one in value]
    if isinstance(value, dict):
        return {key: called_anew(one, pieces, name=key in _NAMES) for key, one in value.items()}
    return value


def _put_problems(session: Session, rows: Rows, numbers: Mapping[str, Mapping[Any, Any]]) -> dict[str, str]:
    """The problems that lays answer, their pieces called anew; the fingerprints they had and have."""
    out = {}
    for row in rows.get("lay_problem", []):
        problem = called_anew(row.get("problem"), numbers.get("piece", {}))
        try:
            print_ = fingerprint(read_problem(problem))
        except (BadProblem, KeyError, TypeError, ValueError):
            continue
        out[row["fingerprint"]] = print_
        if session.get(LayProblem, print_) is None:
            session.add(LayProblem(fingerprint=print_, problem=problem, created_at=present()))
            session.flush()
    return out


def _remnants(session: Session, cloths: Iterable[int], numbers: Mapping[Any, Any]) -> None:
    """A remnant that came along is still of the cloth it was cut from, if that came too."""
    for number in cloths:
        row = session.get_one(Cloth, number)
        if row.remnant_of is not None:
            row.remnant_of = numbers.get(row.remnant_of)
    session.flush()


def canonical(rows: Rows) -> Rows:
    """The same rows with numbers in the order they are met: two archives of the same things are equal then."""
    numbers: dict[str, dict[Any, int]] = {}
    for table in tables():
        if [c.name for c in table.primary_key.columns] == ["id"]:
            numbers[table.name] = {row["id"]: k for k, row in enumerate(rows.get(table.name, []), start=1)}
    out: Rows = {}
    prints: dict[Any, Any] = {}
    for row in rows.get("lay_problem", []):
        problem = called_anew(row["problem"], numbers["piece"])
        prints[row["fingerprint"]] = fingerprint(read_problem(problem))
        out.setdefault("lay_problem", []).append(
            {"fingerprint": prints[row["fingerprint"]], "problem": problem, "created_at": None}
        )
    for table in tables():
        if table.name == "lay_problem":
            continue
        for row in rows.get(table.name, []):
            made = _renumbered(table, row, numbers, prints) or {}
            if "id" in made and table.name in numbers:
                made["id"] = numbers[table.name][row["id"]]
            if table.name == "cloth" and made.get("remnant_of") is not None:
                made["remnant_of"] = numbers["cloth"].get(made["remnant_of"])
            out.setdefault(table.name, []).append({key: plain(value) for key, value in made.items()})
    out.get("lay_problem", []).sort(key=lambda row: str(row["fingerprint"]))
    return out
