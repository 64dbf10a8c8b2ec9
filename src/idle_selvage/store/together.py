"""Rows of several tables in one query: a page needs a little of many, and it is the queries that cost."""

from __future__ import annotations

from collections.abc import Sequence
from operator import attrgetter
from typing import Any, TypeVar

from sqlalchemy import BindParameter, ColumnElement, Select, and_, bindparam, inspect, literal_column, select, union_all
from sqlalchemy.orm import Session, joinedload, lazyload
from sqlalchemy.orm.attributes import set_committed_value
from sqlalchemy.orm.interfaces import ORMOption

from .models.base import Base

Row = TypeVar("Row", bound=Base)


class Found:
    """What was found, table by table, in the order of its key."""

    def __init__(self, rows: dict[type[Base], list[Any]]) -> None:
        self._rows = rows

    def of(self, table: type[Row]) -> list[Row]:
        """The rows of one table."""
        rows: list[Row] = self._rows[table]
        return rows


class Together:
    """A query for rows of several tables: of each those that meet its condition, or whose keys are selected.

    ``with_``: relations to one row that are fetched along. Conditions hold parameters (:func:`values`), so that
    the query is made once. Keys first, one after another, then each row by its key: joined side by side, tables
    multiply one another.
    """

    def __init__(self, wanted: dict[type[Base], ColumnElement[bool] | Select[Any]], *with_: Any) -> None:
        keys = {table: inspect(table).primary_key[0] for table in wanted}
        picked: list[Select[Any]] = []
        for n, (table, which) in enumerate(wanted.items()):
            one = which if isinstance(which, Select) else select(keys[table]).where(which)
            picked.append(one.add_columns(literal_column(str(n)).label("what")))
        pick = union_all(*picked).subquery()
        number, what = list(pick.c)
        query: Any = select(*wanted).select_from(pick)
        for n, table in enumerate(wanted):
            query = query.outerjoin(table, and_(what == literal_column(str(n)), keys[table] == number))
        options: list[ORMOption] = [lazyload("*"), *(joinedload(relation) for relation in with_)]
        self._query = query.options(*options)
        self._keys = {table: inspect(table).get_property_by_column(key).key for table, key in keys.items()}

    def fetch(self, session: Session, **given: Sequence[Any]) -> Found:
        """Ask it."""
        found: dict[type[Base], list[Any]] = {table: [] for table in self._keys}
        for rows in session.execute(self._query, given):
            for table, row in zip(self._keys, rows, strict=True):
                if row is not None:
                    found[table].append(row)
        for table, key in self._keys.items():
            found[table].sort(key=attrgetter(key))
        return Found(found)


def values(name: str) -> BindParameter[Any]:
    """A parameter that stands for several values."""
    return bindparam(name, expanding=True)


def hand_out(owners: Sequence[Base], relation: str, rows: Sequence[Any], by: str) -> None:
    """Give each owner its rows, known by their column ``by``, as if it had fetched them; what it has already stays, for
    it may have been changed."""
    of: dict[int, list[Any]] = {}
    for row in rows:
        of.setdefault(getattr(row, by), []).append(row)
    for owner in owners:
        if relation in inspect(owner).unloaded:
            set_committed_value(owner, relation, of.get(owner.id, []))  # type: ignore[attr-defined]
