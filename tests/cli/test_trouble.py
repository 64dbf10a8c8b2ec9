"""What goes wrong around the program: folders, files, ports, disks and clocks; each is told in a sentence."""

from __future__ import annotations

import os
import shutil
import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest

from idle_selvage.cli import main
from idle_selvage.doctor import examine
from idle_selvage.store.copies import daily_copy
from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database
from idle_selvage.store.lock import HomeLock

from ..conftest import Person, data_of


@pytest.fixture
def home(tmp_path: Path, skirt_data: Path) -> Path:
    folder = tmp_path / "home"
    folder.mkdir(mode=0o700)
    shutil.copy(skirt_data, folder)
    (folder / FILE_NAME).chmod(0o600)
    return folder


def told(capsys: pytest.CaptureFixture[str]) -> str:
    """What stands in the terminal: one line, and no trace."""
    said = capsys.readouterr().err
    assert "Traceback" not in said and len(said.splitlines()) <= 2, said
    return said


def serve(home: Path) -> int:
    return main(["serve", "--home", str(home), "--port", "0"])


@pytest.mark.parametrize("content", [b"no database" * 99, b"SQLite format 3\0" + b"\0" * 4000])
def test_a_data_file_that_is_none(tmp_path: Path, content: bytes, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / FILE_NAME).write_bytes(content)
    assert serve(tmp_path) == 2
    assert "doctor" in told(capsys) and (tmp_path / FILE_NAME).read_bytes() == content


def test_data_of_a_newer_program(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    with closing(sqlite3.connect(home / FILE_NAME)) as data:
        data.execute("UPDATE alembic_version SET version_num = '0999'")
        data.commit()
    assert serve(home) == 2 and "newer Idle Selvage" in told(capsys)
    assert main(["export", "--home", str(home), str(home / "x.zip")]) == 2 and "newer" in capsys.readouterr().err


def test_a_folder_in_which_nothing_can_be_made(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "file").write_text("")
    assert serve(tmp_path / "file" / "home") == 2
    said = told(capsys)
    assert "folder" in said and "Port" not in said


@pytest.mark.skipif(os.geteuid() == 0, reason="nothing is read-only to this user")
def test_a_folder_that_may_not_be_written(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    home.chmod(0o500)
    try:
        assert serve(home) == 2
        said = told(capsys)
        assert "folder" in said and "Port" not in said
    finally:
        home.chmod(0o700)


def test_a_second_server_on_one_folder(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    with HomeLock(home) as lock:
        lock.tell("http://127.0.0.1:1/")
        assert serve(home) == 2 and "in use by a running server at http://127.0.0.1:1/" in told(capsys)
        assert main(["doctor", "--home", str(home), "--mend"]) == 2 and "in use" in told(capsys)


def test_a_full_disk_is_said_and_what_was_typed_can_be_sent_again(skirt: Person) -> None:
    database = data_of(skirt.app)
    with database.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    # no page more can be written
    connections: list[Any] = []

    def small(connection: Any, _record: Any) -> None:
        connection.execute(f"PRAGMA max_page_count={pages}")
        connections.append(connection)

    from sqlalchemy import event

    database.engine.dispose()
    event.listen(database.engine, "connect", small)
    note = {"text": "x" * 1900, "project": 1}
    answers = [skirt.client.post("/api/log/notes", json=note, base_url="http://127.0.0.1") for _ in range(40)]
    full = [answer for answer in answers if answer.status_code == 503]
    assert full and "no room left" in full[0].get_json()["message"] and connections
    there = skirt.ask("GET", "/log/lines")["groups"]
    event.remove(database.engine, "connect", small)
    database.engine.dispose()
    assert skirt.ask("GET", "/log/lines")["groups"] == there
    assert skirt.ask("POST", "/log/notes", 201, **note)["id"]


def test_data_another_program_holds(skirt: Person, monkeypatch: pytest.MonkeyPatch) -> None:
    from idle_selvage.store import database as store

    monkeypatch.setattr(store, "WAIT", 0.2)
    held = Database(data_of(skirt.app).home)
    skirt.app.services.database = held
    with closing(sqlite3.connect(held.path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = skirt.client.post("/api/projects", json={"name": "Slip"}, base_url="http://127.0.0.1")
        assert answer.status_code == 503 and "Another program holds" in answer.get_json()["message"]
        assert skirt.ask("GET", "/projects/1")["name"], "what is there can be looked at meanwhile"
        other.execute("ROLLBACK")
    assert skirt.ask("POST", "/projects", 201, name="Slip")["name"] == "Slip"
    held.close()


def test_damaged_data_are_said(skirt: Person) -> None:
    database = data_of(skirt.app)
    database.engine.dispose()
    whole = bytearray(database.path.read_bytes())
    whole[4096 * 2 :] = os.urandom(len(whole) - 4096 * 2)
    database.path.write_bytes(whole)
    answer = skirt.client.get("/api/projects/1", base_url="http://127.0.0.1")
    assert answer.status_code == 503 and "doctor" in answer.get_json()["message"]


@pytest.mark.parametrize("year", [1970, 2100])
def test_days_far_from_now(skirt: Person, year: int, monkeypatch: pytest.MonkeyPatch) -> None:
    from datetime import UTC

    from idle_selvage.operations import timeline, washday
    from idle_selvage.store import log_entry, models

    at = datetime(year, 1, 1, 0, 0, 1, tzinfo=UTC)
    for module in (models, models.base, washday.models, timeline, log_entry):
        if hasattr(module, "now"):
            monkeypatch.setattr(module, "now", lambda: at)
    skirt.ask("PATCH", "/projects/1/cloth", in_hand="3 m")
    skirt.ask("POST", "/log/notes", 201, text="far away", project=1)
    skirt.ask("POST", "/washday/plan")
    for path in ("/log/lines", "/projects/1", "/projects", "/washday", "/cloths", "/teaches", "/projects/1/outcomes"):
        assert skirt.ask("GET", path)
    for path in ("/washday/plan.ics", "/log.csv", "/archive.zip"):
        assert skirt.client.get(f"/api{path}", base_url="http://127.0.0.1").status_code == 200


def findings(home: Path) -> list[str]:
    return [one.text for one in examine(home) if one.level == "bad"]


def test_the_doctor_finds_nothing_in_good_data(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    daily_copy(home, datetime(2026, 5, 1))
    assert main(["doctor", "--home", str(home)]) == 0
    said = capsys.readouterr().out
    assert "WRONG" not in said and "1 garments" in said and "2026-05-01" in said
    assert main(["doctor", "--home", str(home / "none")]) == 2


def test_the_doctor_shuts_what_others_can_read_and_sweeps(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    home.chmod(0o755)
    (home / FILE_NAME).chmod(0o644)
    (home / ".x-1.half").write_bytes(b"")
    (home / ".restoring-1").mkdir()
    assert len(findings(home)) == 2 and main(["doctor", "--home", str(home)]) == 1
    assert main(["doctor", "--home", str(home), "--mend"]) == 0
    assert home.stat().st_mode & 0o777 == 0o700 and (home / FILE_NAME).stat().st_mode & 0o777 == 0o600
    assert not (home / ".x-1.half").exists() and not (home / ".restoring-1").exists()
    assert "done" in capsys.readouterr().out


def test_the_doctor_puts_a_sound_copy_in_the_place_of_damaged_data(home: Path) -> None:
    daily_copy(home, datetime(2026, 5, 1))
    daily_copy(home, datetime(2026, 5, 2))
    (home / "copies" / "2026-05-02.sqlite3").write_bytes(b"torn")
    (home / FILE_NAME).write_bytes(b"torn as well")
    assert main(["doctor", "--home", str(home), "--mend"]) == 1, "the torn copy stays, and is told"
    with closing(sqlite3.connect(home / FILE_NAME)) as data:
        assert data.execute("SELECT count(*) FROM project").fetchone() == (1,)
    assert (home / "before-restore-1.sqlite3").read_bytes() == b"torn as well"


def test_without_a_copy_damaged_data_stay_as_they_are(home: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (home / FILE_NAME).write_bytes(b"torn")
    assert main(["doctor", "--home", str(home), "--mend"]) == 1
    assert (home / FILE_NAME).read_bytes() == b"torn" and "WRONG" in capsys.readouterr().out
