"""Data in which there is one of everything."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.api.services import Application
from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database

from ..conftest import STEPS, Person, served_with
from .surface import PHOTO


@pytest.fixture(scope="session")
def laid_data(tmp_path_factory: pytest.TempPathFactory, skirt_data: Path) -> Path:
    """A data file in which there is one of everything, made once."""
    from idle_selvage.jobs import laying

    home = tmp_path_factory.mktemp("laid")
    shutil.copy(skirt_data, home)
    database = Database(home)
    person = Person(create_app(home, database=database))
    person.sew(1, 1, 2)
    job = person.ask("POST", "/projects/1/lays", seconds=1)["id"]
    laying.run(database, job, STEPS)
    person.ask("POST", "/cloths", name="Spare")
    person.ask("PUT", "/cloths/1/photo", data=PHOTO)
    person.ask("POST", "/cloths/1/washes", how="40 °C", grade=3)
    person.ask("POST", "/washday/plan")
    person.ask("POST", "/projects/1/offers", name="Linen, narrow", width="90 cm")
    person.ask("POST", "/projects/1/list", kind="zip", name="Zip, 18 cm")
    person.ask("POST", "/projects", name="Waistcoat")
    person.ask("POST", "/projects/1/uses", name="Braid", role="trim")
    person.ask("PUT", "/pieces/2/cuts/3", copies=1)
    person.ask("PATCH", "/projects/1/true", now={"offset": "2 cm", "side": "far"})
    person.ask("POST", "/projects/1/true/tests")
    person.ask("PATCH", "/projects/1/strips", edge="80 cm", depth="12 cm")
    database.close()
    return home / FILE_NAME


@pytest.fixture
def laid(tmp_path: Path, laid_data: Path, application: Application) -> Iterator[Person]:
    """A person at an application in whose data there is one of everything."""
    from idle_selvage.demo.scenario import example

    shutil.copy(laid_data, tmp_path)
    with served_with(application, Database(tmp_path), example=example) as person:
        yield person
