"""What the tests of the operations share."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from idle_selvage.store.database import Database


@pytest.fixture
def database(tmp_path: Path) -> Iterator[Database]:
    """An empty home."""
    found = Database(tmp_path)
    found.migrate()
    yield found
    found.close()
