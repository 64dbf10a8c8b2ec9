"""An empty data file, and a garment in it."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from idle_selvage.operations.project import create_garment
from idle_selvage.store.database import Database


@pytest.fixture
def database(tmp_path: Path, empty_data: Path) -> Iterator[Database]:
    shutil.copy(empty_data, tmp_path)
    found = Database(tmp_path)
    with found.begin() as session:
        create_garment(session, "Skirt")
    yield found
    found.close()
