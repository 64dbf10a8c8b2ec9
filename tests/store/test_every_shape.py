"""A home of every shape the data file has had, as that version of the program left it: brought to the present one.

``homes/NNNN.sql.gz``: the demo as the program of that shape laid it out, ended while it searched, so that some of the
layings were still waiting (``tools/keep_home.py``). ``home_0004`` is looked at in every figure by
``test_migration``. The shapes 0013 and 0014 never left the place where they were written; a home of 0012 passes through
them.
"""

from __future__ import annotations

import gzip
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.store.data_file import FILE_NAME, HEAD, shape_of, shapes

from ..conftest import Person, data_of

HERE = Path(__file__).parent
KEPT = {path.name[:4]: path for path in sorted((HERE / "homes").glob("*.sql.gz"))}
KEPT["0004"] = HERE / "home_0004" / "data.sql.gz"
#: Never kept by anybody.
PASSED_THROUGH = {"0013", "0014"}
#: What no change of shape may lose a row of.
WHOLE = (
    "project",
    "cloth",
    "piece",
    "swatch",
    "lay",
    "job",
    "log_entry",
    "offer",
    "photo",
    "wash",
    "seam",
    "cut",
    "reading",
)
#: What a garment is looked at by.
STAGES = (
    "",
    "/sheet",
    "/shrink",
    "/true",
    "/offers",
    "/list",
    "/lay",
    "/match",
    "/cut",
    "/log",
    "/outcomes",
    "/together",
)


def told(data: sqlite3.Connection, query: str) -> list[tuple[Any, ...]]:
    return data.execute(query).fetchall()


def counts(data: sqlite3.Connection) -> dict[str, int]:
    """Rows of each of the tables that are there."""
    there = {name for (name,) in told(data, "SELECT name FROM sqlite_master WHERE type = 'table'")}
    return {table: int(told(data, f'SELECT count(*) FROM "{table}"')[0][0]) for table in WHOLE if table in there}


def test_every_shape_but_those_nobody_had_is_kept() -> None:
    assert {*KEPT, *PASSED_THROUGH, HEAD} == set(shapes())


@pytest.mark.parametrize("shape", KEPT)
def test_a_home_of_each_shape_is_brought_to_the_present(shape: str, tmp_path: Path) -> None:
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as data:
        data.executescript(gzip.decompress(KEPT[shape].read_bytes()).decode())
        before = counts(data)
        garments = told(data, "SELECT id, name FROM project WHERE deleted_at IS NULL ORDER BY id")
        pieces = told(data, "SELECT project_id, name FROM piece WHERE deleted_at IS NULL ORDER BY id")
    assert shape_of(tmp_path / FILE_NAME) == shape and garments and pieces

    person = Person(create_app(tmp_path))
    assert shape_of(tmp_path / FILE_NAME) == HEAD
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as data:
        assert told(data, "PRAGMA integrity_check") == [("ok",)] and not told(data, "PRAGMA foreign_key_check")
        after = counts(data)
    # what was a cloth of a set, or a figure in a list, has rows of its own since
    assert {table: rows for table, rows in before.items() if after[table] < rows} == {}
    assert {(one["id"], one["name"]) for one in person.ask("GET", "/projects")["projects"]} == set(garments)
    for number, name in garments:
        answers = {stage: person.ask("GET", f"/projects/{number}{stage}") for stage in STAGES}
        assert answers[""]["name"] == name
        assert [piece["name"] for piece in answers[""]["pieces"]] == [n for owner, n in pieces if owner == number]
        # it goes on from there: what is changed is kept, and can be taken back
        person.ask("PATCH", f"/projects/{number}", note="as it was")
        person.ask("POST", f"/undo?project={number}")
        assert person.ask("GET", f"/projects/{number}")["note"] == answers[""]["note"]
    data_of(person.app).close()
