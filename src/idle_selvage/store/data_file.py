"""What a data file is: whether it is ours, whole, and of a shape this program knows; read without changing it."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path
from typing import Literal

FILE_NAME = "idle-selvage.sqlite3"
#: The newest migration; a file that is there already is not migrated again.
HEAD = "0015"
MIGRATIONS = Path(__file__).parent / "migrations"
#: Tables every data file of ours has had from the first shape on.
OURS = frozenset({"project", "cloth", "alembic_version"})
#: A larger file is looked through quickly, without its indexes: starting must not take minutes, bytes.
LOOKED_THROUGH = 64_000_000


#: What a data file's trouble is, whatever words it is told in.
Trouble = Literal["full", "held", "readonly", "disk", "damaged", ""]
_TROUBLES: dict[int, Trouble] = {
    sqlite3.SQLITE_FULL: "full",
    sqlite3.SQLITE_BUSY: "held",
    sqlite3.SQLITE_LOCKED: "held",
    sqlite3.SQLITE_READONLY: "readonly",
    sqlite3.SQLITE_IOERR: "disk",
    sqlite3.SQLITE_CANTOPEN: "disk",
    sqlite3.SQLITE_CORRUPT: "damaged",
    sqlite3.SQLITE_NOTADB: "damaged",
}


def trouble(fault: BaseException | None) -> Trouble:
    """What SQLite has, by its code; the lowest byte of it says the kind."""
    return _TROUBLES.get(getattr(fault, "sqlite_errorcode", 0) & 0xFF, "")


class BadData(ValueError):
    """A file that cannot be served or restored; the message is a sentence that follows the file's name. ``newer``: it
    is sound, and only this program is too old for it."""

    def __init__(self, message: str, *, newer: bool = False) -> None:
        super().__init__(message)
        self.newer = newer


@cache
def shapes() -> tuple[str, ...]:
    """Every shape data files of ours have had, the oldest first."""
    return tuple(sorted(path.name[:4] for path in (MIGRATIONS / "versions").glob("[0-9]*.py")))


@contextmanager
def looked_into(path: Path) -> Iterator[sqlite3.Connection]:
    """A data file opened for reading only, whatever letters its name holds. Raises :class:`sqlite3.Error`."""
    with closing(_opened(path)) as connection:
        yield connection


def _opened(path: Path) -> sqlite3.Connection:
    # as an address, for a name may hold “#”, “?” or “%”
    address = f"{path.absolute().as_uri()}?mode=ro"
    connection = sqlite3.connect(address, uri=True)
    try:
        connection.execute("SELECT count(*) FROM sqlite_master")
    except sqlite3.OperationalError:
        # a file of the write-ahead kind in a folder where nothing may be written: nobody writes into it meanwhile
        connection.close()
        connection = sqlite3.connect(f"{address}&immutable=1", uri=True)
        connection.execute("SELECT count(*) FROM sqlite_master")
    return connection


def shape_of(path: Path) -> str:
    """The shape of a data file that is whole and ours. Raises :class:`BadData`."""
    try:
        with looked_into(path) as data:
            _must_be_whole(data, path)
            tables = {row[0] for row in data.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables >= OURS:
                raise BadData("is not a data file of Idle Selvage.")
            rows = data.execute("SELECT version_num FROM alembic_version").fetchall()
    except sqlite3.OperationalError as fault:
        raise BadData(f"cannot be read: {fault}.") from None
    except sqlite3.DatabaseError:
        raise BadData("is no data file of Idle Selvage, or it is damaged.") from None
    shape = str(rows[0][0]) if len(rows) == 1 else ""
    if shape not in shapes():
        newer = shape.isdigit() and shape > HEAD
        told = f"was written by a newer Idle Selvage (shape {shape}; this one knows shapes up to {HEAD}). "
        if newer:
            raise BadData(f"{told}Install the newer one to open it.", newer=True)
        raise BadData("is not a data file of Idle Selvage.")
    return shape


def _must_be_whole(data: sqlite3.Connection, path: Path) -> None:
    check = "integrity_check" if path.stat().st_size <= LOOKED_THROUGH else "quick_check"
    found = [str(row[0]) for row in data.execute(f"PRAGMA {check}(3)")]
    if found != ["ok"]:
        raise BadData(f"is damaged ({found[0].splitlines()[-1].strip()}).")
