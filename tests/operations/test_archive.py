"""Archives: what goes out comes in as its equal, in an empty home and in one that has the same cloth; broken and old
ones."""

from __future__ import annotations

import gzip
import io
import json
import random
import shutil
import sqlite3
import zipfile
from collections.abc import Iterator
from contextlib import nullcontext
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from sqlalchemy import select

from idle_selvage.formats.archive import DOCUMENT, read_archive
from idle_selvage.operations import archive
from idle_selvage.operations.cut.left import change_scrap
from idle_selvage.operations.outcome import OutcomeGiven, keep_outcome
from idle_selvage.operations.project import SettingsGiven, change_settings, read_garment
from idle_selvage.operations.refused import Refused
from idle_selvage.operations.washday import change_house
from idle_selvage.store import archive as rows_of
from idle_selvage.store.archive_schema import archive_schema, text
from idle_selvage.store.data_file import FILE_NAME, HEAD
from idle_selvage.store.database import Database
from idle_selvage.store.models import Cloth, Photo, Project, Settings
from idle_selvage.store.settings import settings

from ..conftest import photo

NOW = datetime(2026, 5, 1, 12, tzinfo=UTC)
ROOT = Path(__file__).parents[2]


@pytest.fixture
def demo(tmp_path: Path, demo_data: Path) -> Iterator[Database]:
    home = tmp_path / "demo"
    home.mkdir()
    shutil.copy(demo_data, home / FILE_NAME)
    database = Database(home)
    yield database
    database.close()


@pytest.fixture
def empty(tmp_path: Path, empty_data: Path) -> Iterator[Database]:
    home = tmp_path / "empty"
    home.mkdir()
    shutil.copy(empty_data, home / FILE_NAME)
    database = Database(home)
    yield database
    database.close()


def written(database: Database, **of: int) -> bytes:
    with database.look() as session:
        return archive.write(session, NOW, **of)[0]


def taken(database: Database, data: bytes, **how: Any) -> archive.TakenArchive:
    with database.begin() as session:
        return archive.take_in(session, data, **how)


def tables(data: bytes) -> rows_of.Rows:
    found: rows_of.Rows = read_archive(data).document["tables"]
    return found


def without_log(rows: rows_of.Rows) -> rows_of.Rows:
    return {name: of for name, of in rows.items() if name != "log_entry"}


def garments(database: Database) -> dict[str, int]:
    with database.look() as session:
        return {
            row.name: row.id for row in session.scalars(select(Project).where(Project.deleted_at.is_(None))).unique()
        }


def told(database: Database, number: int) -> list[Any]:
    """What is reckoned of a garment: its tallies, lays and pieces."""
    with database.look() as session:
        now = read_garment(session, number)
        out: list[Any] = []
        for use in now.whole.uses:
            figures = {key: value and round(value.value, 6) for key, value in vars(use.tally).items()
                       if hasattr(value, "value")}  # fmt: skip
            out.append((use.name, figures, len(use.asked), use.missing, use.chosen and use.chosen.fold))
        return out


def test_everything_comes_in_as_its_equal(demo: Database, empty: Database) -> None:
    data = written(demo)
    jsonschema.Draft202012Validator(archive_schema()).validate(read_archive(data).document)
    came = taken(empty, data)
    assert not came.left_out and {name for _, name in came.projects} == set(garments(demo))
    again = written(empty)
    first, second = rows_of.canonical(without_log(tables(data))), rows_of.canonical(without_log(tables(again)))
    assert first.keys() == second.keys()
    for name in first:
        assert first[name] == second[name], name
    here, there = garments(demo), garments(empty)
    for name, number in here.items():
        assert told(demo, number) == told(empty, there[name]), name
    # its log too, and one line more that it was taken in
    old, new = (len(found["log_entry"]) for found in (tables(data), tables(again)))
    assert new == old + len(came.projects)


def test_how_a_person_measures_comes_along_where_nothing_was_begun(demo: Database, empty: Database) -> None:
    with demo.begin() as session:
        change_settings(session, SettingsGiven(system="imperial", graduation=25.4 / 16, shop_step=228.6, currency="£"))
        change_scrap(session, 150.0)
        change_house(session, 5.0, "6:05", "21:30")
    data = written(demo)
    came = taken(empty, data)
    assert came.settings and as_measured(empty) == as_measured(demo)
    # where somebody measures already, it stays as it is
    with demo.begin() as session:
        change_settings(session, SettingsGiven(system="metric", shop_step=100.0))
    before = as_measured(empty)
    came = taken(empty, written(demo), cloths="another")
    assert not came.settings and as_measured(empty) == before


def as_measured(database: Database) -> dict[str, Any]:
    with database.look() as session:
        row = settings(session)
        return {column.name: getattr(row, column.name) for column in Settings.__table__.columns}


def test_a_shop_s_usual_step_comes_along_as_usual(demo: Database, empty: Database) -> None:
    with empty.begin() as session:
        change_settings(session, SettingsGiven(shop_step=250.0))

    def leave_out(document: dict[str, Any]) -> None:
        del document["tables"]["settings"][0]["shop_step"]

    assert taken(empty, rezipped(written(demo), leave_out)).settings
    assert as_measured(empty) == as_measured(demo) and as_measured(demo)["shop_step"] is None


def test_no_garment_s_file_brings_settings(demo: Database, empty: Database) -> None:
    data = written(demo, project=next(iter(garments(demo).values())))
    assert "settings" not in tables(data)
    assert not taken(empty, data).settings


@pytest.mark.parametrize(
    ("name", "value", "says"),
    [
        ("system", "cubits", "metric or imperial"),
        ("graduation", -1.0, "settings"),
        ("shop_step", 1e9, "cuts in steps"),
        ("scrap", 0.0, "Scraps are told"),
        ("washer_kg", 1e6, "washer"),
        ("rise", 5000, "time of day"),
        ("sleep", 430, "three hours"),
    ],
)
def test_settings_that_could_not_be_typed_are_not_kept(
    demo: Database, empty: Database, name: str, value: Any, says: str
) -> None:
    def spoil(document: dict[str, Any]) -> None:
        document["tables"]["settings"][0] |= {"currency": "£", name: value}

    data, before = rezipped(written(demo), spoil), as_measured(empty)
    with pytest.raises(Refused, match=says) as refused:
        taken(empty, data)
    assert refused.value.code == "broken" and as_measured(empty) == before and garments(empty) == {}
    came = taken(empty, data, what_can_be=True)
    assert came.projects and not came.settings and any(says in one for one in came.left_out)
    assert as_measured(empty) == before


def test_one_garment_beside_others_and_its_cloth_again(demo: Database, empty: Database) -> None:
    for name, number in garments(demo).items():
        data = written(demo, project=number)
        assert {row["id"] for row in tables(data)["project"]} == {number}
        with pytest.raises(Refused, match="the same cloth") if _has_cloth(empty, data) else nullcontext():
            taken(empty, data)
        if garments(empty).get(name) is None:
            taken(empty, data, cloths="same")
        assert told(empty, garments(empty)[name]) == told(demo, number), name


def _has_cloth(database: Database, data: bytes) -> bool:
    with database.look() as session:
        return bool(rows_of.same_cloths(session, tables(data)))


def test_the_same_cloth_is_kept_once_and_another_twice(demo: Database) -> None:
    number = next(iter(garments(demo).values()))
    data = written(demo, project=number)
    with demo.look() as session:
        before = len(session.scalars(select(Cloth)).unique().all())
    with pytest.raises(Refused, match="the same cloth"):
        taken(demo, data)
    same = taken(demo, data, cloths="same")
    assert same.cloths == ()
    with demo.look() as session:
        assert len(session.scalars(select(Cloth)).unique().all()) == before
        use, old = read_garment(session, same.projects[0][0]), read_garment(session, number)
        assert use.cloth.row.id == old.cloth.row.id
    other = taken(demo, data, cloths="another")
    assert len(other.cloths) == len(tables(data)["cloth"])
    assert told(demo, other.projects[0][0]) == told(demo, number)


def test_a_cloth_goes_with_all_that_was_measured(demo: Database, empty: Database) -> None:
    with demo.look() as session:
        number = next(
            row.id for row in session.scalars(select(Cloth)).unique() if row.readings and row.deleted_at is None
        )
    data = written(demo, cloth=number)
    assert "project" not in tables(data) and tables(data)["reading"]
    came = taken(empty, data)
    assert len(came.cloths) == 1 and came.projects == ()
    first, second = (rows_of.canonical(without_log(tables(d))) for d in (data, written(empty, cloth=came.cloths[0][0])))
    assert first == second


def rezipped(data: bytes, change: Any) -> bytes:
    """An archive whose document was changed."""
    document = read_archive(data).document
    document = change(document) or document
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            new.writestr(name, json.dumps(document) if name == DOCUMENT else old.read(name))
    return out.getvalue()


def test_a_broken_one_says_what_is_wrong_and_brings_what_can_be(demo: Database, empty: Database) -> None:
    number = next(iter(garments(demo).values()))
    data = written(demo, project=number)

    def spoil(document: dict[str, Any]) -> None:
        found = document["tables"]
        found["piece"][0]["name"] = 17
        del found["reading"][0]["value"]
        found["nonsense"] = [{}]

    broken = rezipped(data, spoil)
    with pytest.raises(Refused, match="row 1 of “piece”, name") as refused:
        taken(empty, broken)
    assert refused.value.code == "broken" and "nonsense" in str(refused.value) and garments(empty) == {}
    came = taken(empty, broken, what_can_be=True)
    assert len(came.projects) == 1 and any("piece" in one for one in came.left_out)
    with empty.look() as session:
        assert len(read_garment(session, came.projects[0][0]).pieces) == len(tables(data)["piece"]) - 1


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda d: d.update(format="something else"), "something else"),
        (lambda d: d.update(shape="9999"), "newer program"),
        (lambda d: d.update(shape="x"), "which shape"),
        (lambda d: d.update(tables=[]), "no tables"),
        (lambda d: d.update(tables={}), "no garment and no cloth"),
    ],
)
def test_what_is_no_archive_of_ours_is_refused(demo: Database, empty: Database, change: Any, says: str) -> None:
    data = written(demo, project=next(iter(garments(demo).values())))
    with pytest.raises(Refused, match=says):
        taken(empty, rezipped(data, change))


def test_any_byte_may_be_wrong(demo: Database, empty: Database) -> None:
    data = written(demo, project=next(iter(garments(demo).values())))
    pick = random.Random(3)
    for _ in range(25):
        broken = bytearray(data[: pick.choice((len(data), len(data) // 2, 40))])
        for _ in range(pick.choice((1, 20))):
            broken[pick.randrange(len(broken))] = pick.randrange(256)
        try:
            taken(empty, bytes(broken), cloths="another", what_can_be=pick.random() < 0.5)
        except Refused as fault:
            assert str(fault).endswith((".", "?"))


def test_rows_that_do_not_fit_together_are_not_kept(demo: Database, empty: Database) -> None:
    data = written(demo, project=next(iter(garments(demo).values())))

    def spoil(document: dict[str, Any]) -> None:
        for row in document["tables"]["piece"]:
            row["points"] = {"no": "points"}

    with pytest.raises(Refused, match="do not fit together"):
        taken(empty, rezipped(data, spoil))
    assert garments(empty) == {}


@pytest.mark.parametrize(
    ("table", "column", "value"),
    [
        ("log_entry", "kind", "nonsense"),
        ("log_entry", "values", {}),
        ("cloth", "blend", {"no": "blend"}),
        ("outcome", "kind", "nonsense"),
        ("lay", "lay", {"no": "lay"}),
        ("photo", "jpeg", {"$file": "photos/photo-999.jpg"}),
    ],
)
def test_what_a_page_could_never_show_is_not_kept(
    demo: Database, empty: Database, table: str, column: str, value: Any
) -> None:
    """Each of these rows is by the schema what it should be; shown, it would be a fault for good."""
    with demo.begin() as session:
        number = garments(demo)["Boxy overshirt"]
        use = read_garment(session, number).use
        keep_outcome(session, read_garment(session, number), OutcomeGiven("fit", measured=4.0))
        session.merge(Photo(cloth_id=use.cloth_id, jpeg=photo(30, 20)))
    data = written(demo, project=number)

    def spoil(document: dict[str, Any]) -> None:
        assert document["tables"][table], table
        for row in document["tables"][table]:
            row[column] = value

    with pytest.raises(Refused):
        taken(empty, rezipped(data, spoil))
    assert garments(empty) == {}
    taken(empty, data)
    assert list(garments(empty)) == ["Boxy overshirt"]


def test_a_photo_that_is_none_is_left(demo: Database, empty: Database) -> None:
    with demo.begin() as session:
        number = garments(demo)["Bias slip"]
        session.merge(Photo(cloth_id=read_garment(session, number).use.cloth_id, jpeg=b"<script>"))
    data = written(demo, project=number)
    with pytest.raises(Refused, match="photo is missing, or is none"):
        taken(empty, data)
    taken(empty, data, what_can_be=True)
    with empty.look() as session:
        assert session.scalars(select(Photo)).all() == []


def test_an_older_one_is_brought_up_to_date(empty: Database, tmp_path: Path) -> None:
    """A home of the fourth shape, as an archive of that time would have held it."""
    script = gzip.decompress((ROOT / "tests/store/home_0004/data.sql.gz").read_bytes()).decode()
    with sqlite3.connect(tmp_path / "old.sqlite3") as data:
        data.executescript(script)
        data.row_factory = sqlite3.Row
        names = [row[0] for row in data.execute("select name from sqlite_master where type = 'table'")]
        shape = data.execute("select version_num from alembic_version").fetchone()[0]
        rows = {
            name: [_as_told(dict(row)) for row in data.execute(f"select * from {name}")]
            for name in names if name != "alembic_version"
        }  # fmt: skip
    assert shape < HEAD
    document = {"format": "idle-selvage/archive/1", "shape": shape, "what": "everything", "tables": rows}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as file:
        file.writestr(DOCUMENT, json.dumps(document))
    came = taken(empty, out.getvalue(), what_can_be=True)
    assert came.settings
    # its other garments had been put away
    assert sorted(name for _, name in came.projects) == [
        "Bias slip", "Bow ties and cuffs", "Boxy overshirt", "Notched waistcoat", "Six-gore skirt",
    ]  # fmt: skip
    with empty.look() as session:
        for number, _ in came.projects:
            assert read_garment(session, number).pieces


def _as_told(row: dict[str, Any]) -> dict[str, Any]:
    """A row as an archive holds it: documents as such, times as such."""
    out: dict[str, Any] = {}
    for key, value in row.items():
        if isinstance(value, str) and value[:1] in "[{" and value:
            out[key] = json.loads(value)
        elif isinstance(value, str) and key.endswith(("_at", "at")) and value[:2] == "20":
            out[key] = {"$time": f"{value}+00:00".replace(" ", "T")}
        else:
            out[key] = value
    return out


def test_the_published_schema_is_the_one_that_is_checked_by() -> None:
    assert (ROOT / "docs" / "archive.schema.json").read_text(encoding="utf-8") == text()
    jsonschema.Draft202012Validator.check_schema(archive_schema())
