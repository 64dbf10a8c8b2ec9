"""Killed at some moments of many: nothing that was confirmed is lost. ``make trust`` kills two hundred times."""

from __future__ import annotations

import gzip
import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from idle_selvage.store.copies import backup
from idle_selvage.store.data_file import FILE_NAME, HEAD, shape_of
from idle_selvage.store.database import Database

from .killing import kill_once, killed_while, laid_home, state_of

OLD = Path(__file__).parents[1] / "store" / "home_0004" / "data.sql.gz"


def old_home(home: Path) -> None:
    """A home of the fourth shape, with data."""
    home.mkdir(exist_ok=True)
    with closing(sqlite3.connect(home / FILE_NAME)) as data:
        data.executescript(gzip.decompress(OLD.read_bytes()).decode())
        data.commit()


@pytest.mark.parametrize("seed", [0, 1, 2, 3])
def test_nothing_confirmed_is_lost(tmp_path: Path, seed: int) -> None:
    laid_home(tmp_path)
    # other tests run beside it; on a machine of its own, in ``make trust``, it is two seconds
    came = kill_once(tmp_path, seed, soon=6.0)
    assert came.faults == [] and came.left_behind == 0


@pytest.mark.parametrize("seed", range(4))
def test_killed_while_it_migrates(tmp_path: Path, seed: int) -> None:
    """All of a migration is done, or none of it."""
    old_home(tmp_path)
    killed_while(tmp_path, seed, "serve", "--port", "0")
    assert shape_of(tmp_path / FILE_NAME) in ("0004", HEAD)
    database = Database(tmp_path)
    database.migrate()
    database.close()
    old_home(tmp_path / "other")
    other = Database(tmp_path / "other")
    other.migrate()
    other.close()
    here, there = state_of(tmp_path / FILE_NAME), state_of(tmp_path / "other" / FILE_NAME)
    assert {table: len(rows) for table, rows in here.items()} == {table: len(rows) for table, rows in there.items()}


@pytest.mark.parametrize("seed", range(3))
def test_killed_while_it_copies(tmp_path: Path, skirt_data: Path, seed: int) -> None:
    """A backup is there whole or not at all, and the next one is not in its way."""
    home = tmp_path / "home"
    home.mkdir()
    shutil.copy(skirt_data, home)
    before = state_of(home / FILE_NAME)
    target = tmp_path / "copy.sqlite3"
    killed_while(home, seed, "backup", str(target))
    if target.exists():
        assert state_of(target) == before
    else:
        backup(home, target)
    assert state_of(home / FILE_NAME) == before == state_of(target)


@pytest.mark.parametrize("seed", range(3))
def test_killed_while_it_restores(tmp_path: Path, skirt_data: Path, empty_data: Path, seed: int) -> None:
    """Either what was there, or the backup; never something between."""
    home = tmp_path / "home"
    home.mkdir()
    shutil.copy(empty_data, home)
    old, new = state_of(home / FILE_NAME), state_of(skirt_data)
    killed_while(home, seed, "restore", str(skirt_data))
    assert state_of(home / FILE_NAME) in (old, new)
