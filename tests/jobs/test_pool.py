"""Workers: killed, queued."""

from __future__ import annotations

import os
import signal
import threading
from pathlib import Path

import pytest
from sqlalchemy.exc import OperationalError

from idle_selvage.api.app import create_app
from idle_selvage.jobs.pool import Pool
from idle_selvage.store.database import Database
from idle_selvage.store.turns import Busy

from ..conftest import Person, long_ago, ready


def test_a_killed_worker_s_job_is_picked_up_again(tmp_path: Path) -> None:
    database = Database(tmp_path)
    database.migrate()
    pool = Pool(database, size=1)
    pool.start()
    person = Person(create_app(tmp_path, pool, database=database))
    try:
        ready(person)
        number = person.ask("POST", "/projects/1/lays", seconds=2)["id"]
        assert person.progressed(number)
        os.kill(pool._workers[0].process.pid, signal.SIGKILL)
        long_ago(database, number)
        job = person.finished(number, 90)
        assert job["state"] == "done" and person.ask("GET", "/projects/1/lay")["lay"] is not None
    finally:
        pool.close()
        database.close()


def test_jobs_wait_for_their_turn(worked: Person) -> None:
    ready(worked)
    worked.ask("POST", "/projects", name="Other")
    worked.ask("PATCH", "/projects/2/cloth", width_readings=["100 cm"], blend=[{"fibre": "linen", "share": 100}])
    square = [{"along": 0, "left": 100, "right": 100}, {"along": 200, "left": 100, "right": 100}]
    worked.ask("POST", "/projects/2/pieces", name="Square", stations=square, smooth=False)
    numbers = [worked.ask("POST", f"/projects/{n}/lays", seconds=1)["id"] for n in (1, 2)]
    assert [worked.finished(n)["state"] for n in numbers] == ["done", "done"]


def test_the_watch_goes_on_after_the_data_file_was_held(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    database = Database(tmp_path)
    database.migrate()
    looked = threading.Semaphore(0)
    faults: list[Exception] = [OperationalError("SELECT", None, Exception("database is locked")), Busy()]

    def look(_pool: Pool) -> None:
        if faults:
            raise faults.pop()
        looked.release()

    monkeypatch.setattr(Pool, "_pick_up", look)
    monkeypatch.setattr("idle_selvage.jobs.pool.WATCH_EVERY", 0.01)
    pool = Pool(database, size=1)
    watch = threading.Thread(target=pool._watch)
    watch.start()
    try:
        assert looked.acquire(timeout=10) and not faults
    finally:
        pool.close()
        watch.join(10)
        database.close()
    assert not watch.is_alive()
