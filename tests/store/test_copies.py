"""Copies: whole or not there, of every name, of shapes that are known; each day one, the old ones let go."""

from __future__ import annotations

import os
import sqlite3
import threading
import time
from collections.abc import Iterator
from contextlib import closing
from datetime import date, datetime, timedelta
from pathlib import Path

import pytest

from idle_selvage.store import copies as store
from idle_selvage.store.copies import BadBackup, Copy, backup, copies, daily_copy, go_back, gone, restore
from idle_selvage.store.data_file import FILE_NAME, HEAD, BadData, shape_of, shapes
from idle_selvage.store.database import Database
from idle_selvage.store.models import Project


@pytest.fixture
def home(tmp_path: Path) -> Iterator[Database]:
    database = Database(tmp_path / "home")
    database.migrate()
    add(database, "Skirt")
    yield database
    database.close()


def add(database: Database, name: str) -> None:
    with database.begin() as session:
        session.add(Project(name=name))


def names(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as data:
        return [row[0] for row in data.execute("SELECT name FROM project ORDER BY id")]


@pytest.mark.parametrize("name", ["a#b.sqlite3", "100 %.sqlite3", "what?.sqlite3", "é ½.sqlite3", "x" * 180])
def test_a_name_may_hold_any_letter(home: Database, tmp_path: Path, name: str) -> None:
    backup(home.home, tmp_path / "out" / name)
    assert [one.name for one in (tmp_path / "out").iterdir()] == [name], "and nothing is left beside it"
    restore(tmp_path / "new #1?", tmp_path / "out" / name)
    assert names(tmp_path / "new #1?" / FILE_NAME) == ["Skirt"]


def test_a_copy_is_its_owner_s_and_one_file(home: Database, tmp_path: Path) -> None:
    backup(home.home, tmp_path / "c.sqlite3")
    assert (tmp_path / "c.sqlite3").stat().st_mode & 0o077 == 0
    with closing(sqlite3.connect(tmp_path / "c.sqlite3")) as data:
        assert data.execute("PRAGMA journal_mode").fetchone() == ("delete",)


def test_without_room_there_is_a_sentence_and_no_half_copy(
    home: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The disk is full: the pages of the copy are bounded, as if no more could be written."""
    real = sqlite3.connect

    def small(path: object, *given: object, **named: object) -> sqlite3.Connection:
        made = real(path, *given, **named)  # type: ignore[call-overload]
        if str(path).endswith(".half"):
            made.execute("PRAGMA max_page_count=2")
        return made  # type: ignore[no-any-return]

    monkeypatch.setattr(store.sqlite3, "connect", small)
    with pytest.raises(BadBackup, match="no room left"):
        backup(home.home, tmp_path / "out" / "c.sqlite3")
    assert list((tmp_path / "out").iterdir()) == []
    monkeypatch.undo()
    backup(home.home, tmp_path / "out" / "c.sqlite3")


def test_a_backup_of_a_newer_shape_leaves_the_data_as_they_are(home: Database, tmp_path: Path) -> None:
    newer = tmp_path / "newer.sqlite3"
    backup(home.home, newer)
    with closing(sqlite3.connect(newer)) as data:
        data.execute("UPDATE alembic_version SET version_num = '9999'")
        data.commit()
    add(home, "Slip")
    with pytest.raises(BadBackup, match="newer Idle Selvage"):
        restore(home.home, newer)
    assert names(home.path) == ["Skirt", "Slip"]
    assert sorted(one.name for one in home.home.iterdir() if "restor" in one.name) == []


def test_a_foreign_database_and_a_damaged_one_are_no_backup(home: Database, tmp_path: Path) -> None:
    foreign, torn, text = tmp_path / "f", tmp_path / "t", tmp_path / "x"
    with closing(sqlite3.connect(foreign)) as data:
        data.execute("CREATE TABLE songs (name TEXT)")
    backup(home.home, torn)
    whole = bytearray(torn.read_bytes())
    whole[8192:40960] = os.urandom(32768)
    torn.write_bytes(whole)
    text.write_text("no database")
    for path in (foreign, torn, text, tmp_path / "none", tmp_path):
        with pytest.raises(BadBackup, match=r"\.$"):
            restore(home.home, path)
    assert names(home.path) == ["Skirt"]


def test_damaged_data_are_kept_when_a_copy_takes_their_place(home: Database, tmp_path: Path) -> None:
    backup(home.home, tmp_path / "c.sqlite3")
    home.close()
    for end in ("-wal", "-shm"):
        Path(f"{home.path}{end}").unlink(missing_ok=True)
    home.path.write_bytes(b"no database at all" * 500)
    kept = restore(home.home, tmp_path / "c.sqlite3")
    assert kept is not None and kept.read_bytes().startswith(b"no database")
    assert names(home.path) == ["Skirt"]


def test_each_day_one_copy_and_old_ones_go(home: Database) -> None:
    day = datetime(2026, 1, 1, 9)
    for n in range(120):
        assert daily_copy(home.home, day + timedelta(days=n)) is not None
        assert daily_copy(home.home, day + timedelta(days=n, hours=9)) is None, "one a day"
    there = [one.day for one in copies(home.home)]
    week = [date(2026, 4, 30) - timedelta(days=n) for n in range(7)]
    assert there == [*week, date(2026, 3, 31), date(2026, 2, 28), date(2026, 1, 31)]


def test_a_clock_that_goes_back_lets_nothing_go(home: Database) -> None:
    for n in range(10):
        daily_copy(home.home, datetime(2100, 1, 1) + timedelta(days=n))
    later = {one.day for one in copies(home.home)}
    for day in (datetime(1970, 1, 1), datetime(1970, 1, 2), datetime(2026, 5, 5)):
        assert daily_copy(home.home, day) is not None
    assert later <= {one.day for one in copies(home.home)}


def test_what_was_kept_for_a_reason_is_bounded_too() -> None:
    asides = [Copy(f"a{n}", date(2026, 5, 1), "before going back", 1) for n in range(40)]
    assert len(gone(asides, date(2026, 5, 2))) == 40 - 14


def test_going_back_while_it_is_served(home: Database) -> None:
    daily_copy(home.home, datetime(2026, 5, 1))
    add(home, "Slip")
    rung = home.bell.rung
    kept = go_back(home, "2026-05-01.sqlite3", datetime(2026, 5, 2))
    with home.look() as session:
        assert [row.name for row in session.query(Project)] == ["Skirt"]
    add(home, "Waistcoat")
    assert names(home.path) == ["Skirt", "Waistcoat"] and home.bell.rung > rung
    # and what was there can be come back to
    go_back(home, kept.name, datetime(2026, 5, 2))
    assert names(home.path) == ["Skirt", "Slip"]
    with pytest.raises(BadBackup, match="no copy of that name"):
        go_back(home, "../../etc/passwd", datetime(2026, 5, 2))


def test_going_back_waits_for_whoever_writes_and_says_so(home: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    daily_copy(home.home, datetime(2026, 5, 1))
    monkeypatch.setattr(store, "WAIT", 0.2)
    with closing(sqlite3.connect(home.path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        with pytest.raises(BadBackup, match="another program holds"):
            go_back(home, "2026-05-01.sqlite3", datetime(2026, 5, 2))
        other.execute("ROLLBACK")
    assert names(home.path) == ["Skirt"]


def test_what_is_written_while_one_goes_back_is_in_the_one_or_the_other(home: Database) -> None:
    """Somebody at another page keeps on: whatever was confirmed is in what was kept, or in what is there now."""
    daily_copy(home.home, datetime(2026, 5, 1))
    stop, confirmed = threading.Event(), list[str]()

    def keep_on() -> None:
        while not stop.is_set():
            name = f"Note {len(confirmed)}"
            add(home, name)
            confirmed.append(name)

    thread = threading.Thread(target=keep_on)
    thread.start()
    kept = []
    for _ in range(8):
        before = len(confirmed)
        while len(confirmed) < before + 3:
            time.sleep(0.002)
        kept.append(go_back(home, "2026-05-01.sqlite3", datetime(2026, 5, 2)))
    stop.set()
    thread.join()
    there = set(names(home.path)).union(*(names(one) for one in kept))
    assert len(confirmed) > 20 and set(confirmed) <= there


def test_a_restore_does_not_wait_for_ever(home: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    backup(home.home, tmp_path / "c.sqlite3")
    monkeypatch.setattr(store, "WAIT", 0.2)
    with closing(sqlite3.connect(home.path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        with pytest.raises(BadBackup, match="another program holds"):
            restore(home.home, tmp_path / "c.sqlite3")
        other.execute("ROLLBACK")
    assert names(home.path) == ["Skirt"]


@pytest.mark.parametrize(
    ("spoil", "told"),
    [
        (b"not a database, but longer than the head of one" * 9, "no data file of Idle Selvage"),
        (None, "newer Idle Selvage"),
    ],
)
def test_a_file_that_cannot_be_served_is_said_in_a_sentence(home: Database, spoil: bytes | None, told: str) -> None:
    home.close()
    if spoil is None:
        with closing(sqlite3.connect(home.path)) as data:
            data.execute("UPDATE alembic_version SET version_num = '0999'")
            data.commit()
    else:
        home.path.write_bytes(spoil)
    with pytest.raises(BadData, match=told) as fault:
        Database(home.home).migrate()
    assert str(fault.value).endswith(".") and "\n" not in str(fault.value)


def test_the_shapes_are_known_and_end_with_the_present_one(home: Database) -> None:
    assert shapes()[-1] == HEAD == shape_of(home.path) and shapes()[0] == "0001"


def test_data_are_their_owner_s_only(home: Database) -> None:
    assert home.home.stat().st_mode & 0o777 == 0o700
    assert home.path.stat().st_mode & 0o077 == 0
    home.path.chmod(0o644)
    again = Database(home.home)
    again.migrate()
    again.close()
    assert home.path.stat().st_mode & 0o077 == 0, "an older one is shut as it is opened"
