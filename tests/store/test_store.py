"""What is kept: nothing half migrated, nothing remembered too long, everything in the backup."""

from __future__ import annotations

import base64
import sqlite3
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from sqlalchemy import event
from sqlalchemy.exc import OperationalError

from idle_selvage.api.app import create_app
from idle_selvage.store.copies import backup, restore
from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database, alembic_config

from ..conftest import Person, photo


def test_a_migration_that_fails_leaves_everything_as_it_was(tmp_path: Path) -> None:
    file = tmp_path / FILE_NAME
    file.touch()
    command.upgrade(alembic_config(file), "0001")
    with sqlite3.connect(file) as data:
        # something in the way, half way through the second migration
        data.execute("CREATE TABLE photo (hole INTEGER)")
        before = {row[0] for row in data.execute("SELECT name FROM sqlite_master")}
    with pytest.raises(OperationalError):
        Database(tmp_path).migrate()
    with sqlite3.connect(file) as data:
        assert {row[0] for row in data.execute("SELECT name FROM sqlite_master")} == before
        assert data.execute("SELECT version_num FROM alembic_version").fetchone() == ("0001",)
        data.execute("DROP TABLE photo")
    Database(tmp_path).migrate()
    with sqlite3.connect(file) as data:
        assert data.execute("SELECT count(*) FROM wash_load").fetchone() == (0,)


def test_a_whole_answer_asks_the_database_few_times(skirt: Person) -> None:
    asked: list[str] = []
    event.listen(skirt.app.services.database.engine, "before_cursor_execute", lambda *a: asked.append(a[2]))
    skirt.ask("GET", "/projects/1")
    queries = [one for one in asked if not one.startswith("BEGIN")]
    assert len(queries) <= 10, "one answer, not one query per figure"
    assert any("FROM project" in one for one in queries), "they were counted"


def test_cloths_photos_loads_and_washes_are_in_the_backup(person: Person, tmp_path: Path) -> None:
    person.ask("POST", "/projects", name="Skirt")
    facts = {"width_readings": ["140"] * 3, "in_hand": "2 m", "blend": [{"fibre": "linen", "share": 100}]}
    person.ask("PATCH", "/projects/1/cloth", name="Linen", **facts)
    person.ask("PUT", "/cloths/1/photo", data=base64.b64encode(photo(30, 20)).decode())
    first = person.ask("POST", "/washday/plan")["loads"][0]["tasks"][0]
    person.ask("POST", f"/washday/steps/{first['id']}/end")
    home = Path(str(person.app.services.database.home))
    backup(home, tmp_path / "copy" / "all.sqlite3")
    restore(tmp_path / "elsewhere", tmp_path / "copy" / "all.sqlite3")
    other = Person(create_app(tmp_path / "elsewhere"))
    assert other.ask("GET", "/cloths")["cloths"] == person.ask("GET", "/cloths")["cloths"]
    assert other.ask("GET", "/washday")["loads"] == person.ask("GET", "/washday")["loads"]
    pictures = [p.client.get("/api/cloths/1/photo", base_url="http://127.0.0.1").data for p in (person, other)]
    assert pictures[0] == pictures[1] and pictures[0].startswith(b"\xff\xd8")
    other.app.services.database.close()


@pytest.mark.parametrize("system", ["metric", "imperial"])
def test_every_length_of_cloth_and_swatch_is_told_in_the_person_s_units(person: Person, system: str) -> None:
    # what a tape is read to is told in millimetres
    units, other = (("cm", " mm"), " in") if system == "metric" else (("in",), "cm")
    person.ask("POST", "/projects", name="Skirt")
    flaw = {"x": "50 cm", "y": "20 cm", "w": "2 cm", "h": "2 cm"}
    bar = {"width": "1 cm", "colour": "#a02020"}
    person.ask("PATCH", "/projects/1/cloth", width_readings=["140 cm"], in_hand="2 m", flaws=[flaw], shop_fold="70 cm")
    person.ask("PATCH", "/projects/1/cloth", bars_along=[bar, {**bar, "colour": "#ffffff"}])
    person.ask("PUT", "/projects/1/swatch", warp=[["25 cm", "24 cm"]], weft=[["25 cm", "24 cm"]])
    person.ask("POST", "/cloths/1/washes", length_after="190 cm", width_after="135 cm")
    person.ask("PATCH", "/settings", system=system)
    told = person.ask("GET", "/cloths/1")
    assert told["flaws"][0]["what"] == "flaw", "what is left out has its usual value"
    texts: list[str] = []

    def walk(value: object) -> None:
        if isinstance(value, dict):
            if isinstance(value.get("text"), str) and ("mm" in value or "colour" in value):
                texts.append(value["text"])
            for inner in value.values():
                walk(inner)
        elif isinstance(value, list):
            for inner in value:
                walk(inner)

    walk(person.ask("GET", "/cloths/1"))
    walk(person.ask("GET", "/projects/1/shrink"))
    assert len(texts) > 15 and all(text.endswith(units) for text in texts if text not in ("", "0 in"))
    assert not any(other in text for text in texts)


#: A change reckons its garment once, and so does a look.
ONCE = [
    ("GET", "/projects/1", {}),
    ("GET", "/projects/1/lay", {}),
    ("GET", "/projects/1/true", {}),
    ("GET", "/projects/1/list", {}),
    ("GET", "/projects/1/offers", {}),
    ("PATCH", "/projects/1/purchase", {"spare": "3 cm"}),
    ("PATCH", "/projects/1/cloth", {"place": "Blue box"}),
    ("PATCH", "/projects/1/true", {"edge": ["2 cm"]}),
    ("PUT", "/projects/1/swatch", {"graduation": "1 mm"}),
    ("PUT", "/projects/1/list/use-1/have", {"have": True}),
    ("PATCH", "/pieces/1", {"copies": 4}),
]


@pytest.mark.parametrize(("method", "path", "body"), ONCE, ids=[f"{m} {p}" for m, p, _ in ONCE])
def test_one_request_reckons_a_garment_once(
    method: str, path: str, body: dict[str, object], skirt: Person, monkeypatch: pytest.MonkeyPatch
) -> None:
    from idle_selvage.operations import standing

    reckoned: list[int] = []
    usual = standing.tally

    def counted(*given: Any) -> Any:
        reckoned.append(1)
        return usual(*given)

    monkeypatch.setattr(standing, "tally", counted)
    skirt.ask(method, path, **body)
    assert len(reckoned) == 1
