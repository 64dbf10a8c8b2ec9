"""No process is left behind: however the server ends while it lays, none of ours lives on, and the work goes on."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.store.database import Database
from idle_selvage.store.models import Job

from ..conftest import Person, data_of, long_ago, ready
from ..trust.processes import SOON, alive, below, until


@contextmanager
def served(home: Path) -> Iterator[subprocess.Popen[str]]:
    command = [sys.executable, "-m", "idle_selvage.cli", "serve", "--home", str(home), "--port", "0"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    try:
        assert process.stdout is not None and re.search("127.0.0.1", process.stdout.readline())
        yield process
    finally:
        process.terminate()
        process.wait(10)


def _row(database: Database, number: int) -> Job:
    with database.look() as session:
        return session.get_one(Job, number)


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGTERM, signal.SIGINT])
def test_a_server_that_ends_while_laying_leaves_no_process(tmp_path: Path, how: signal.Signals) -> None:
    database = Database(tmp_path)
    database.migrate()
    person = Person(create_app(tmp_path, database=database))
    ready(person)
    person.ask("PATCH", "/pieces/1", copies=14)
    number = person.ask("POST", "/projects/1/lays", seconds=60)["id"]
    long_ago(database, number)
    with served(tmp_path) as server:
        # the worker, and the second process of the engine
        assert until(60, lambda: len(below(server.pid)) >= 2 and _row(database, number).progress)
        ours = below(server.pid)
        assert len(ours) >= 2
        os.kill(server.pid, how)
        server.wait(10)
        assert until(SOON, lambda: not alive(ours)), "none of ours lives on"
    before = _row(database, number)
    assert before.state == "running", "it was interrupted"
    long_ago(database, number)
    with served(tmp_path):
        assert until(60, lambda: _row(database, number).spent > before.spent), "and goes on"
        person.ask("POST", f"/jobs/{number}/cancel")
        assert person.finished(number)["state"] == "cancelled"
    assert person.ask("GET", "/projects/1/lay")["lay"]["length"]["mm"] <= before.progress[-1][1]
    database.close()


def _worker_of(home: Path) -> int | None:
    """The worker process of one data folder."""
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                words = (entry / "cmdline").read_bytes().split(b"\0")
            except OSError:
                continue
            if b"idle_selvage.jobs.begin" in words and str(home).encode() in words:
                return int(entry.name)
    return None


def test_a_worker_killed_while_laying_takes_the_second_process_with_it(timed: Person) -> None:
    worked = timed
    ready(worked)
    worked.ask("PATCH", "/pieces/1", copies=14)
    worked.ask("POST", "/projects/1/lays", seconds=60)
    worker = _worker_of(data_of(worked.app).home)
    assert worker is not None and until(60, lambda: below(worker))
    ours = {worker} | below(worker)
    assert len(ours) == 2, "the worker, and the second process of the engine"
    os.kill(worker, signal.SIGKILL)
    # the one killed waits to be noticed; a new one may have been begun for the work it left
    assert until(SOON, lambda: not alive(ours)), "the second process went with the first"
