"""What every change touched, row by row: written as it is flushed, read to take a change back.

Nobody who changes a row has to think of it. A change is one session of :meth:`~.database.Database.begin`; its number is
the revision of the rows it touched, so that a page which was shown an older one can be told that it would overwrite
what another page did.
"""

from __future__ import annotations

import base64
import json
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import Select, Table, and_, event, func, inspect, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Mapper, Session, object_session

from .models import (
    Base,
    Change,
    ChangedRow,
    CutDeed,
    Cutting,
    Job,
    LayProblem,
    LogEntry,
    LogPhoto,
    PairedDevice,
    Project,
    Trial,
    now,
)

#: What is no change of anybody's: the journal and the log themselves, work under way, what is found again by asking;
#: and what no undo may bring back: cloth that was cut, a device's pairing.
_NOT_KEPT = frozenset(
    one.__tablename__
    for one in (Change, ChangedRow, LogEntry, LogPhoto, Job, LayProblem, Trial, Cutting, CutDeed, PairedDevice)
)
#: The column of what can be put away.
_AWAY = "deleted_at"
_KEPT, _UNDOING = "rows changed", "undoing"
#: Under which keys a session holds the number of its change, and whether the log has a line of it.
NUMBER, TOLD = "change", "told"


@dataclass(frozen=True)
class Asked:
    """Which page asks for a change, and the newest change it shows (None: it does not say)."""

    window: str = ""
    seen: int | None = None


#: Work that no page asked for.
NOBODY = Asked()


@dataclass(frozen=True)
class Cell:
    """One column of one row that two pages changed: as it is by now, and as it would have become."""

    table: str
    key: str
    column: str
    theirs: Any
    mine: Any


class ChangedElsewhere(Exception):
    """What a page would change was changed by another one since it was shown."""

    def __init__(self, cells: Iterable[Cell]) -> None:
        super().__init__("changed elsewhere")
        self.cells = tuple(cells)


class CannotUndo(Exception):
    """A change that cannot be taken back: ``later`` is the change that stands on it, if it is known."""

    def __init__(self, later: int | None = None) -> None:
        super().__init__("cannot be taken back")
        self.later = later


@contextmanager
def kept(session: Session, asked: Asked) -> Iterator[None]:
    """Keep what the session changes inside this block. Raises :class:`ChangedElsewhere`."""
    rows: list[ChangedRow] = []
    session.info[_KEPT] = rows
    # nobody else writes meanwhile; the log's lines, which are never changed, are to know their change
    session.info[NUMBER] = (session.scalar(select(func.max(Change.id))) or 0) + 1
    yield
    session.flush()
    if asked.seen is not None:
        _refuse_overwriting(session, rows, asked)
    del session.info[_KEPT]
    if not rows and not session.info.get(TOLD):
        return
    change = session.info.pop(_UNDOING, None) or Change()
    change.id, change.window, change.rows = session.info[NUMBER], asked.window, rows
    session.add(change)
    session.flush()
    if change.undoes is not None:
        session.get_one(Change, change.undoes).undone_by = change.id


def newest(session: Session, *, besides: str | None = None) -> int:
    """The newest change, of all pages or of all but one; 0 when there is none."""
    return session.scalar(newest_change(besides)) or 0


def newest_change(besides: str | None) -> Select[int]:
    """The query for it."""
    query = select(func.max(Change.id))
    return query if besides is None else query.where(Change.window != besides)


def standing(session: Session, numbers: Iterable[int]) -> dict[int, bool]:
    """Whether each of these changes stands (True) or was taken back; those that changed no row are left out."""
    query = select(Change.id, Change.undone_by).where(Change.id.in_(list(numbers)), Change.rows.any())
    return {number: undone is None for number, undone in session.execute(query)}


def take_back(session: Session, change: Change) -> None:
    """Put every row of a change back as it was before. Raises :class:`CannotUndo`."""
    if change.undone_by is not None:
        raise CannotUndo(change.undone_by)
    for row in change.rows:
        _refuse_later(session, change, row)
    kept_rows: list[ChangedRow] = session.info[_KEPT]
    try:
        for row in reversed(_to_put_back(change)):
            kept_rows.append(_put_back(session, row))
    except IntegrityError:
        raise CannotUndo from None
    session.expire_all()
    session.info[_UNDOING] = Change(undoes=change.id)
    if change.undoes is not None:
        # the change that had been taken back stands again
        session.get_one(Change, change.undoes).undone_by = None


def _to_put_back(change: Change) -> list[ChangedRow]:
    """Its rows; of a garment that was begun, only the garment: it is put away whole."""
    garment = [row for row in change.rows if row.how == "new" and row.table == Project.__tablename__]
    return garment or list(change.rows)


def _refuse_later(session: Session, change: Change, row: ChangedRow) -> None:
    """Nothing later may stand on what is to be put back."""
    query = (
        select(ChangedRow, Change)
        .join(Change, Change.id == ChangedRow.change_id)
        .where(ChangedRow.table == row.table, ChangedRow.key == row.key, Change.id > change.id)
        .where(Change.undone_by.is_(None), Change.undoes.is_(None))
        .order_by(Change.id.desc())
    )
    for other, later in session.execute(query):
        if row.how != "set" or other.how != "set" or row.after.keys() & other.after.keys():
            raise CannotUndo(later.id)


def _put_back(session: Session, row: ChangedRow) -> ChangedRow:
    """One row as it was, and what was done for that."""
    table = Base.metadata.tables[row.table]
    names = [column.name for column in table.primary_key.columns]
    here = and_(*(table.c[name] == value for name, value in zip(names, json.loads(row.key), strict=True)))
    if row.how == "gone":
        session.execute(table.insert().values(_read(row.before)))
        return ChangedRow(table=row.table, key=row.key, how="new")
    found = session.execute(select(table).where(here)).mappings().first()
    if found is None:
        raise CannotUndo
    if row.how == "new" and _AWAY in table.c:
        # the log speaks of it, and its number is not given again: it is put away
        at = now()
        session.execute(table.update().where(here).values({_AWAY: at}))
        return ChangedRow(table=row.table, key=row.key, how="set", before={_AWAY: None}, after=_written({_AWAY: at}))
    if row.how == "new":
        session.execute(table.delete().where(here))
        return ChangedRow(table=row.table, key=row.key, how="gone", before=_written(dict(found)))
    if any(plain(found[name]) != value for name, value in row.after.items()):
        raise CannotUndo
    session.execute(table.update().where(here).values(_read(row.before)))
    return ChangedRow(table=row.table, key=row.key, how="set", before=row.after, after=row.before)


def _refuse_overwriting(session: Session, rows: Iterable[ChangedRow], asked: Asked) -> None:
    cells: list[Cell] = []
    for row in rows:
        if row.how == "new":
            continue
        query = (
            select(ChangedRow)
            .join(Change, Change.id == ChangedRow.change_id)
            .where(ChangedRow.table == row.table, ChangedRow.key == row.key)
            # what a job found is nobody's word
            .where(Change.id > asked.seen, Change.window.not_in(["", asked.window]))
        )
        for other in session.scalars(query):
            touched = row.before.keys() if row.how == "gone" or other.how != "set" else row.after.keys()
            both = touched if other.how != "set" else touched & other.after.keys()
            cells += [
                Cell(row.table, row.key, name, row.before.get(name), row.after.get(name)) for name in sorted(both)
            ]
    if cells:
        raise ChangedElsewhere({(cell.table, cell.key, cell.column): cell for cell in cells}.values())


def plain(value: Any) -> Any:
    """A value as JSON holds it: times and bytes say what they are."""
    if isinstance(value, datetime):
        return {"$time": value.isoformat()}
    if isinstance(value, bytes):
        return {"$bytes": base64.b64encode(value).decode("ascii")}
    return value


def unplain(value: Any) -> Any:
    """A value back from JSON."""
    if isinstance(value, dict) and value.keys() == {"$time"}:
        return datetime.fromisoformat(value["$time"])
    if isinstance(value, dict) and value.keys() == {"$bytes"}:
        return base64.b64decode(value["$bytes"])
    return value


def _written(values: Mapping[str, Any]) -> dict[str, Any]:
    return {name: plain(value) for name, value in values.items()}


def _read(values: Mapping[str, Any]) -> dict[str, Any]:
    return {name: unplain(value) for name, value in values.items()}


def _key(mapper: Mapper[Any], row: Any) -> str:
    return json.dumps(list(mapper.primary_key_from_instance(row)))


def _keep(row: Any, how: str, mapper: Mapper[Any], before: Mapping[str, Any], after: Mapping[str, Any]) -> None:
    session = object_session(row)
    table = mapper.local_table
    if session is None or _KEPT not in session.info or not isinstance(table, Table) or table.name in _NOT_KEPT:
        return
    one = ChangedRow(table=table.name, key=_key(mapper, row), how=how, before=_written(before), after=_written(after))
    session.info[_KEPT].append(one)


@event.listens_for(Base, "after_insert", propagate=True)
def _inserted(mapper: Mapper[Any], _connection: Any, row: Any) -> None:
    _keep(row, "new", mapper, {}, {})


@event.listens_for(Base, "after_update", propagate=True)
def _updated(mapper: Mapper[Any], _connection: Any, row: Any) -> None:
    state = inspect(row)
    before, after = {}, {}
    for attribute in mapper.column_attrs:
        history = state.attrs[attribute.key].history
        if history.added and history.deleted and history.added[0] != history.deleted[0]:
            name = attribute.columns[0].name
            before[name], after[name] = history.deleted[0], history.added[0]
    if after:
        _keep(row, "set", mapper, before, after)


@event.listens_for(Base, "before_delete", propagate=True)
def _deleted(mapper: Mapper[Any], _connection: Any, row: Any) -> None:
    values = {one.columns[0].name: getattr(row, one.key) for one in mapper.column_attrs}
    _keep(row, "gone", mapper, values, {})
