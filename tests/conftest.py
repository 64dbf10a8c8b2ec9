"""What several tests share: an application on a fresh home folder, and a person at it."""

from __future__ import annotations

import io
import os
import shutil
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Any

import pytest
from filelock import FileLock
from hypothesis import settings

if TYPE_CHECKING:
    from flask.testing import FlaskClient

    from idle_selvage.api.services import Application
    from idle_selvage.store.database import Database

# machines differ in speed and tests must not: no deadlines, and the same examples every time
settings.register_profile("steady", deadline=None, derandomize=True)
settings.load_profile("steady")


def pytest_configure(config: pytest.Config) -> None:
    """Keep test data in memory where there is such a folder: every change is flushed to disk, and disks differ."""
    memory = Path("/dev/shm")
    if config.option.basetemp is None and memory.is_dir() and os.access(memory, os.W_OK):
        config.option.basetemp = memory / f"idle-selvage-tests-{os.getpid()}"


#: Files, or tests of files, that take more than a few seconds; `make check` leaves them out.
SLOW = (
    "tests/api/lay/test_laying.py",
    "tests/api/test_as_before.py",
    "tests/api/test_every_working.py",
    "tests/api/test_surface.py::test_no_request",
    "tests/api/washday/test_washday.py::test_the_demo_s",
    "tests/cli/test_cli.py",
    "tests/core/lay/engine/",
    "tests/core/lay/test_ground.py",
    "tests/core/plan/test_ways.py",
    "tests/core/project/test_never_too_little.py",
    "tests/core/shrink/test_sureness.py",
    "tests/core/test_working.py::test_every_step",
    "tests/core/washday/test_schedule.py",
    "tests/demo/",
    "tests/jobs/",
    "tests/operations/test_several_cloths.py",
    "tests/operations/test_whole_garment.py",
    "tests/outside/test_lays_by",
    "tests/outside/test_second_writing.py",
)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Mark what is slow."""
    for item in items:
        if item.nodeid.startswith(SLOW):
            item.add_marker(pytest.mark.slow)


def pytest_unconfigure(config: pytest.Config) -> None:
    """Memory is given back."""
    base = config.option.basetemp
    if base is not None and str(base).startswith("/dev/shm/idle-selvage-tests-"):
        shutil.rmtree(base, ignore_errors=True)


#: So many steps every search of a test takes: the same lays on every machine, in a fraction of a second.
STEPS = 40
#: What takes longer than so many seconds of the processor costs out of all proportion to what was asked. How fast
#: things are is measured by the benchmarks, not by tests, which run on machines of any speed.
OUT_OF_PROPORTION = 10.0


def data_of(app: Application) -> Database:
    """The data an application works on."""
    return app.services.database


def asks(app: Application) -> FlaskClient:
    """A client that is a page of ours."""
    client = app.test_client()
    client.environ_base["HTTP_X_PAGE"] = app.services.word
    return client


class Person:
    """Somebody at the API, speaking JSON."""

    def __init__(self, app: Application) -> None:
        self.app = app
        self.client = asks(app)

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

    def lay(self, number: int, **search: Any) -> int:
        """Lay a garment here and now, without a worker; the number of the job."""
        from idle_selvage.jobs import laying

        job = int(self.ask("POST", f"/projects/{number}/lays", **search)["id"])
        laying.run(data_of(self.app), job, STEPS)
        return job

    def sew(self, number: int, *pieces: int, key: str | None = None, **asked: Any) -> list[int]:
        """Sew each of some pieces to the next one, a single one to itself, by the edges that run up them; the seams."""
        there = {p["id"]: p for p in self.ask("GET", f"/projects/{number}/match")["pieces"]}
        sides = [steep_edges(there[one]) for one in pieces]
        pairs = [(pieces[0], sides[0][0], pieces[0], sides[0][-1])] if len(pieces) == 1 else [
            (a, ours[0], b, theirs[0])
            for a, ours, b, theirs in zip(pieces, sides, pieces[1:], sides[1:], strict=False)
        ]  # fmt: skip
        told: dict[str, Any] = {}
        for a, ours, b, theirs in pairs:
            keyed = {} if key is None else {"key_a": key, "key_b": key}
            told = self.ask(
                "POST", f"/projects/{number}/seams", 201, a={"piece_id": a, **ours}, b={"piece_id": b, **theirs},
                **keyed, **asked,
            )  # fmt: skip
        return [seam["id"] for seam in told["seams"]]

    def finished(self, job: int, seconds: float = 60) -> Any:
        """Wait for a job to end."""
        found = until(lambda: self._ended(job), seconds)
        assert found, f"job {job} did not end within {seconds} s"
        return found

    def _ended(self, job: int) -> Any:
        state = self.ask("GET", f"/jobs/{job}")
        return state if state["state"] not in ("waiting", "running") else None

    def progressed(self, job: int) -> Any:
        """Wait for a job to have found something."""
        return until(lambda: self.ask("GET", f"/jobs/{job}")["progress"])


def steep_edges(piece: dict[str, Any]) -> list[dict[str, Any]]:
    """The edges of a piece that run up it, the most to the right first, as a seam is told."""
    whole = [edge for edge in piece["edges"] if edge["whole"]]
    whole.sort(key=lambda edge: -abs(edge["line"][-1][0] - edge["line"][0][0]))
    steep = whole[: 1 if piece["mirror"] else 2]
    steep.sort(key=lambda edge: sum(place[1] for place in edge["line"]) / len(edge["line"]))
    return [{"begin": edge["begin"], "end": edge["end"]} for edge in steep]


def until(holds: Callable[[], Any], seconds: float = 60) -> Any:
    """Wait until something holds, and give it; what it last was when it never did."""
    end = time.monotonic() + seconds
    while not (found := holds()) and time.monotonic() < end:
        time.sleep(0.01)
    return found


def long_ago(database: Database, number: int) -> None:
    """As if nobody had worked at a job for a while, so that it is taken up at once."""
    from idle_selvage.store.models import Job

    with database.begin() as session:
        row = session.get_one(Job, number)
        row.created_at = row.created_at.replace(year=2001)
        row.heartbeat = row.heartbeat and row.heartbeat.replace(year=2001)


@pytest.fixture(scope="session")
def empty_data(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty data file, migrated once: migrating it for every test would be most of their time."""
    from idle_selvage.store.database import Database

    database = Database(tmp_path_factory.mktemp("empty"))
    database.migrate()
    database.close()
    return database.path


@pytest.fixture(scope="session")
def demo_data(tmp_path_factory: pytest.TempPathFactory, worker_id: str) -> Path:
    """The demo's data file, laid as ``make demo`` lays it, built once for all processes of a run."""
    from idle_selvage.demo.scenario import load
    from idle_selvage.jobs.pool import Pool
    from idle_selvage.store.data_file import FILE_NAME
    from idle_selvage.store.database import Database

    base = tmp_path_factory.getbasetemp()
    home = (base if worker_id == "master" else base.parent) / "choir"
    with FileLock(f"{home}.lock"):
        if not (home / FILE_NAME).is_file():
            database = Database(home)
            database.migrate()
            pool = Pool(database)
            load(database, pool)
            pool.close()
            database.close()
    return home / FILE_NAME


@pytest.fixture(scope="session")
def application(empty_data: Path) -> Application:
    """The application, made once. Each test puts its data in."""
    from idle_selvage.api.app import create_app

    return create_app(empty_data.parent)


@contextmanager
def served_with(app: Application, database: Database, **services: Any) -> Iterator[Person]:
    """A person at the application while it works on these data."""
    from idle_selvage.api.services import Services

    app.services = Services(database, **services)
    yield Person(app)
    database.close()


@pytest.fixture
def person(tmp_path: Path, empty_data: Path, application: Application) -> Iterator[Person]:
    """A person at an application without workers."""
    from idle_selvage.store.database import Database

    shutil.copy(empty_data, tmp_path)
    with served_with(application, Database(tmp_path)) as person:
        yield person


@pytest.fixture
def worked(tmp_path: Path, empty_data: Path, application: Application) -> Iterator[Person]:
    """A person at an application with a worker process, whose searches take so many steps."""
    yield from _worked(tmp_path, empty_data, application, STEPS)


@pytest.fixture
def timed(tmp_path: Path, empty_data: Path, application: Application) -> Iterator[Person]:
    """A person at an application with a worker process that searches as long as it is asked to."""
    yield from _worked(tmp_path, empty_data, application, None)


def _worked(home: Path, empty_data: Path, application: Application, steps: int | None) -> Iterator[Person]:
    from idle_selvage.jobs.pool import Pool
    from idle_selvage.store.database import Database

    shutil.copy(empty_data, home)
    database = Database(home)
    pool = Pool(database, size=1, steps=steps)
    pool.start()
    with served_with(application, database, pool=pool) as person:
        yield person
        pool.close()


@pytest.fixture
def choir(tmp_path: Path, demo_data: Path, application: Application) -> Iterator[Person]:
    """A person at the demo, without workers."""
    from idle_selvage.store.database import Database

    shutil.copy(demo_data, tmp_path)
    with served_with(application, Database(tmp_path)) as person:
        yield person


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


@pytest.fixture(scope="session")
def skirt_data(tmp_path_factory: pytest.TempPathFactory, empty_data: Path) -> Path:
    """A data file with a first project that is ready to be laid, made once."""
    from idle_selvage.api.app import create_app
    from idle_selvage.store.data_file import FILE_NAME
    from idle_selvage.store.database import Database

    home = tmp_path_factory.mktemp("skirt")
    shutil.copy(empty_data, home)
    database = Database(home)
    ready(Person(create_app(home, database=database)))
    database.close()
    return home / FILE_NAME


@pytest.fixture
def skirt(tmp_path: Path, skirt_data: Path, application: Application) -> Iterator[Person]:
    """Project 1 with cloth, swatch and two pieces: ready to be laid."""
    from idle_selvage.store.database import Database

    shutil.copy(skirt_data, tmp_path)
    with served_with(application, Database(tmp_path)) as person:
        yield person


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
