"""What several tests share: an application on a fresh home folder, and a person at it."""

from __future__ import annotations

import io
import os
import shutil
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from idle_selvage.api.app import create_app
from idle_selvage.jobs.pool import Pool
from idle_selvage.store.database import Database

# machines differ in speed and tests must not: no deadlines, and the same examples every time
settings.register_profile("steady", deadline=None, derandomize=True)
settings.load_profile("steady")


def pytest_configure(config: pytest.Config) -> None:
    """Keep test data in memory where there is such a folder: every change is flushed to disk, and disks differ."""
    memory = Path("/dev/shm")
    if config.option.basetemp is None and memory.is_dir() and os.access(memory, os.W_OK):
        config.option.basetemp = memory / f"idle-selvage-tests-{os.getpid()}"


def pytest_unconfigure(config: pytest.Config) -> None:
    """Memory is given back."""
    base = config.option.basetemp
    if base is not None and str(base).startswith("/dev/shm/idle-selvage-tests-"):
        shutil.rmtree(base, ignore_errors=True)


def data_of(app: Any) -> Database:
    """The data an application works on."""
    database: Database = app.config["SERVICES"].database
    return database


class Person:
    """Somebody at the API, speaking JSON."""

    def __init__(self, app: Any) -> None:
        self.app = app
        self.client = app.test_client()

    def ask(self, method: str, path: str, status: int | None = None, *, sure: bool = False, **body: Any) -> Any:
        """One request; fails the test unless the answer has ``status`` (any below 400 when not given). ``sure``: what
        was asked back is insisted on."""
        headers = {"X-Insist": "1"} if sure else None
        answer = self.client.open(
            f"/api{path}", method=method, json=body or None, base_url="http://127.0.0.1", headers=headers
        )
        assert answer.status_code == status if status else answer.status_code < 400, answer.get_data(as_text=True)
        return answer.get_json()

    def refused(self, method: str, path: str, **body: Any) -> Any:
        """A request that must be refused with 422 and the one error shape."""
        told = self.ask(method, path, 422, **body)
        assert set(told) == {"code", "message", "fields", "both"} and told["message"].endswith((".", "?"))
        return told

    def finished(self, job: int, seconds: float = 60) -> Any:
        """Wait for a job to end."""
        until = time.monotonic() + seconds
        while time.monotonic() < until:
            state = self.ask("GET", f"/jobs/{job}")
            if state["state"] not in ("waiting", "running"):
                return state
            time.sleep(0.05)
        raise AssertionError(f"job {job} did not end within {seconds} s")


@pytest.fixture(scope="session")
def empty_data(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty data file, migrated once: migrating it for every test would be most of their time."""
    database = Database(tmp_path_factory.mktemp("empty"))
    database.migrate()
    database.close()
    return database.path


@pytest.fixture
def person(tmp_path: Path, empty_data: Path) -> Iterator[Person]:
    """A person at an application without workers."""
    shutil.copy(empty_data, tmp_path)
    app = create_app(tmp_path)
    yield Person(app)
    data_of(app).close()


@pytest.fixture
def worked(tmp_path: Path, empty_data: Path) -> Iterator[Person]:
    """A person at an application with a worker process."""
    shutil.copy(empty_data, tmp_path)
    database = Database(tmp_path)
    database.migrate()
    pool = Pool(database, size=1)
    pool.start()
    yield Person(create_app(tmp_path, pool, database=database))
    pool.close()
    database.close()


def photo(width: int, height: int, kind: str = "JPEG") -> bytes:
    """A made-up picture."""
    from PIL import Image

    out = io.BytesIO()
    Image.effect_noise((width, height), 40).convert("RGB").save(out, kind)
    return out.getvalue()


SLEEVE = [
    {"along": "0", "left": "12", "right": "12"},
    {"along": "40", "left": "18", "right": "18"},
    {"along": "48", "left": "14", "right": "14"},
    {"along": "55", "left": "1", "right": "1"},
]


@pytest.fixture
def skirt(person: Person) -> Person:
    """Project 1 with cloth, swatch and two pieces: ready to be laid."""
    ready(person)
    return person


def ready(person: Person) -> None:
    """Bring a first project to where it can be laid."""
    person.ask("POST", "/projects", name="Skirt")
    person.ask(
        "PATCH",
        "/projects/1/cloth",
        name="Linen",
        blend=[{"fibre": "linen", "share": 100}],
        width_readings=["112 cm", "112.2 cm", "111.9"],
        margin_low="1 cm",
        margin_high="1 cm",
        price="12,50",
    )
    person.ask("PUT", "/projects/1/swatch", warp=[["25 cm", "23.5 cm"]] * 3, weft=[["25", "24.5"]] * 3)
    person.ask("POST", "/projects/1/pieces", name="Sleeve", stations=SLEEVE, copies=2, pair=True, seam="1.5 cm")
    person.ask(
        "POST",
        "/projects/1/pieces",
        name="Band",
        smooth=False,
        copies=1,
        stations=[{"along": "0", "left": "4", "right": "4"}, {"along": "70", "left": "4", "right": "4"}],
    )
