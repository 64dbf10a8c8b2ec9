"""No process is left behind: however the server ends while it lays, none of ours lives on, and the work goes on."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.store.database import Database
from idle_selvage.store.models import Job

from ..conftest import Person, data_of, long_ago, ready

#: How soon after the server's end none of ours may live, seconds.
SOON = 2.0


def _stat(number: int) -> tuple[str, int] | None:
    """State and parent of a process, or None when it is gone."""
    try:
        text = Path(f"/proc/{number}/stat").read_text()
    except OSError:
        return None
    state, parent = text.rpartition(")")[2].split()[:2]
    return state, int(parent)


def _below(root: int) -> set[int]:
    """Every process that descends from one."""
    parents = {int(p.name): _stat(int(p.name)) for p in Path("/proc").iterdir() if p.name.isdigit()}
    found = {root}
    while True:
        more = {n for n, stat in parents.items() if stat is not None and stat[1] in found} - found
        if not more:
            return found - {root}
        found |= more


def _alive(numbers: set[int]) -> set[int]:
    """Those that run; what has ended and only waits to be noticed does not."""
    return {n for n in numbers if (stat := _stat(n)) is not None and stat[0] not in "ZX"}


def _until(seconds: float, holds: Callable[[], object]) -> bool:
    end = time.monotonic() + seconds
    while not holds():
        if time.monotonic() > end:
            return False
        time.sleep(0.02)
    return True


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
        assert _until(60, lambda: len(_below(server.pid)) >= 2 and _row(database, number).progress)
        ours = _below(server.pid)
        assert len(ours) >= 2
        os.kill(server.pid, how)
        server.wait(10)
        assert _until(SOON, lambda: not _alive(ours)), "none of ours lives on"
    before = _row(database, number)
    assert before.state == "running", "it was interrupted"
    long_ago(database, number)
    with served(tmp_path):
        assert _until(60, lambda: _row(database, number).spent > before.spent), "and goes on"
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
            if b"idle_selvage.jobs.worker" in words and str(home).encode() in words:
                return int(entry.name)
    return None


def test_a_worker_killed_while_laying_takes_the_second_process_with_it(timed: Person) -> None:
    worked = timed
    ready(worked)
    worked.ask("PATCH", "/pieces/1", copies=14)
    worked.ask("POST", "/projects/1/lays", seconds=60)
    worker = _worker_of(data_of(worked.app).home)
    assert worker is not None and _until(60, lambda: _below(worker))
    ours = {worker} | _below(worker)
    assert len(ours) == 2, "the worker, and the second process of the engine"
    os.kill(worker, signal.SIGKILL)
    # the one killed waits to be noticed; a new one may have been begun for the work it left
    assert _until(SOON, lambda: not _alive(ours)), "the second process went with the first"
