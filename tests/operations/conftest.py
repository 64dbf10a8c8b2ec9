"""What the tests of the operations share."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from idle_selvage.store.database import Database


@pytest.fixture
def database(tmp_path: Path, empty_data: Path) -> Iterator[Database]:
    """An empty home."""
    shutil.copy(empty_data, tmp_path)
    found = Database(tmp_path)
    yield found
    found.close()
