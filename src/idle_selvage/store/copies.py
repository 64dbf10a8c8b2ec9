"""Copies of the data file: written on request and every day, looked through, and put back in its place."""

from __future__ import annotations

import contextlib
import os
import sqlite3
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import date, datetime
from pathlib import Path

from .data_file import FILE_NAME, BadData, Trouble, looked_into, shape_of, trouble
from .database import Database

#: Where the daily copies are, inside the home folder.
FOLDER = "copies"
#: So many of the newest days are kept, and beyond them the last of each month, so many.
DAYS, MONTHS = 7, 6
#: The data file is waited for so long, seconds.
WAIT = 5.0


class BadBackup(ValueError):
    """A file that is no backup of ours, or a copy that could not be made; the message is a sentence."""


#: What of SQLite's troubles is said in other words than its own.
_SAID: dict[Trouble, str] = {
    "full": "there is no room left on the disk",
    "held": "another program holds the data file",
}


@dataclass(frozen=True)
class Copy:
    """A copy in the home folder, by the day it was made and why (empty: as every day)."""

    name: str
    day: date
    why: str
    size: int


def backup(home: Path, target: Path) -> None:
    """A consistent copy of the data file, also while it is being served (SQLite's own backup call).

    There is a whole copy afterwards or none. Raises :class:`BadBackup`, :class:`OSError`.
    """
    source = home / FILE_NAME
    if not source.exists():
        raise BadBackup("There is no data yet in this folder, so there is nothing to back up.")
    if target.exists():
        raise BadBackup(f"“{target.name}” exists already. Choose another name; a backup never overwrites.")
    target.parent.mkdir(parents=True, exist_ok=True)
    with _beside(target) as half:
        try:
            with closing(sqlite3.connect(source, timeout=WAIT)) as live, closing(sqlite3.connect(half)) as copy:
                live.backup(copy)
                # a copy is one file, and can be read where nothing can be written
                copy.execute("PRAGMA journal_mode=DELETE")
        except sqlite3.Error as fault:
            raise BadBackup(f"“{target.name}” could not be written: {_why(fault)}.") from None
        try:
            # fails where somebody has made a file of that name meanwhile; a move would overwrite it
            os.link(half, target)
        except FileExistsError:
            raise BadBackup(f"“{target.name}” exists already. Choose another name.") from None
        except OSError:
            # no links on this disk
            half.replace(target)


@contextmanager
def _beside(target: Path) -> Iterator[Path]:
    """A new file in the same folder, readable by its owner only; it and what SQLite puts beside it are gone at the
    end."""
    handle, name = tempfile.mkstemp(prefix=f".{target.name[:80]}-", suffix=".half", dir=target.parent)
    os.close(handle)
    try:
        yield Path(name)
    finally:
        for end in ("", "-journal", "-wal", "-shm"):
            Path(f"{name}{end}").unlink(missing_ok=True)


def _why(fault: sqlite3.Error) -> str:
    """What SQLite says, as people say it."""
    return _SAID.get(trouble(fault), str(fault))


def check_backup(file: Path) -> None:
    """Raise :class:`BadBackup` unless ``file`` is a whole data file of ours, of a shape this program knows."""
    if not file.is_file():
        raise BadBackup(f"There is no file “{file.name}” there.")
    try:
        shape_of(file)
    except BadData as fault:
        raise BadBackup(f"The backup “{file.name}” {fault}") from None


def restore(home: Path, file: Path) -> Path | None:
    """Put a backup in place of the data file; returns where the replaced data were kept, if any.

    The backup is brought to the present shape first, on a copy: a fault in that leaves everything as it was. Raises
    :class:`BadBackup`, :class:`OSError`.
    """
    check_backup(file)
    home.mkdir(parents=True, exist_ok=True, mode=0o700)
    target = home / FILE_NAME
    with at_head(home, file) as ready:
        kept: Path | None = None
        if target.exists():
            kept = _free(home, "before-restore-{}.sqlite3")
            _set_aside(home, kept)
        with closing(sqlite3.connect(ready)) as source, closing(sqlite3.connect(target, timeout=0.1)) as live:
            _overwrite(source, live, "It could not be restored")
        target.chmod(0o600)
    return kept


def _overwrite(source: sqlite3.Connection, live: sqlite3.Connection, failed: str) -> None:
    """Put all of one data file in place of another, or nothing of it. Raises :class:`BadBackup`."""
    end = time.monotonic() + WAIT

    def wait(status: int, _left: int, _pages: int) -> None:
        # tried again for ever otherwise
        if status in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED) and time.monotonic() > end:
            raise BadBackup(f"{failed}: another program holds the data file. Nothing was changed.")

    try:
        source.backup(live, progress=wait, sleep=0.1)
    except sqlite3.Error as fault:
        raise BadBackup(f"{failed}: {_why(fault)}. Nothing was changed.") from None


def _set_aside(home: Path, kept: Path) -> None:
    """Keep the data that are replaced, also when they are damaged: then byte by byte."""
    try:
        backup(home, kept)
    except BadBackup:
        # what cannot be copied as data is moved as it is, with what belongs to it
        for end in ("", "-wal", "-shm"):
            with contextlib.suppress(FileNotFoundError):
                (home / f"{FILE_NAME}{end}").rename(f"{kept}{end}")


@contextmanager
def at_head(home: Path, file: Path) -> Iterator[Path]:
    """A copy of a data file, of the present shape, gone afterwards."""
    with tempfile.TemporaryDirectory(prefix=".restoring-", dir=home) as folder:
        copy = Path(folder) / FILE_NAME
        with looked_into(file) as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
        database = Database(Path(folder))
        try:
            database.migrate()
        finally:
            database.close()
        yield copy


def _free(folder: Path, name: str) -> Path:
    """The first name of a row of numbered ones that nothing has."""
    number = 1
    while (folder / name.format(number)).exists():
        number += 1
    return folder / name.format(number)


def copies(home: Path) -> list[Copy]:
    """The copies in the home folder, the newest first."""
    found = []
    for path in (home / FOLDER).glob("*.sqlite3"):
        day, _, why = path.stem.partition(" ")
        with contextlib.suppress(ValueError, OSError):
            found.append(Copy(path.name, date.fromisoformat(day), why, path.stat().st_size))
    return sorted(found, key=lambda one: (one.day, one.why), reverse=True)


def copy_of(home: Path, name: str) -> Path:
    """Where a copy is. Raises :class:`BadBackup` when there is none of that name."""
    for one in copies(home):
        if one.name == name:
            return home / FOLDER / one.name
    raise BadBackup("There is no copy of that name any more.")


def daily_copy(home: Path, now: datetime) -> Path | None:
    """Make today's copy unless there is one, then let old ones go; the copy that was made.

    A clock that has gone back makes no copy twice and lets none go: what is dated later than today stays. Raises
    :class:`BadBackup`, :class:`OSError`.
    """
    today = now.date()
    target = home / FOLDER / f"{today.isoformat()}.sqlite3"
    if target.exists() or not (home / FILE_NAME).exists():
        return None
    target.parent.mkdir(exist_ok=True, mode=0o700)
    backup(home, target)
    for one in gone(copies(home), today):
        (home / FOLDER / one.name).unlink(missing_ok=True)
    return target


def gone(there: list[Copy], today: date) -> list[Copy]:
    """Which of the copies, the newest first, are no longer needed on a day."""
    daily = [one for one in there if not one.why and one.day <= today]
    last_of_month: dict[tuple[int, int], Copy] = {}
    for one in daily:
        last_of_month.setdefault((one.day.year, one.day.month), one)
    stay = {one.name for one in [*daily[:DAYS], *list(last_of_month.values())[:MONTHS]]}
    # what was kept for a reason stays as long as the days around it
    asides = [one for one in there if one.why and one.day <= today]
    stay |= {one.name for one in asides[: DAYS * 2]}
    return [one for one in [*daily, *asides] if one.name not in stay]


def aside(home: Path, now: datetime, why: str) -> Path:
    """A copy made for a reason, such as “before going back”. Raises :class:`BadBackup`, :class:`OSError`."""
    folder = home / FOLDER
    folder.mkdir(exist_ok=True, mode=0o700)
    target = _free(folder, f"{now:%Y-%m-%d} {why} {{}}.sqlite3")
    backup(home, target)
    return target


def go_back(database: Database, name: str, now: datetime) -> Path:
    """Put a copy in place of the data that are being served; what was there is kept first, and where is returned.

    Raises :class:`BadBackup`.
    """
    file = copy_of(database.home, name)
    check_backup(file)
    # what is written meanwhile would be neither in the one nor in the other
    with at_head(database.home, file) as ready, database.alone():
        kept = aside(database.home, now, "before going back")
        with closing(sqlite3.connect(ready)) as source, closing(sqlite3.connect(database.path, timeout=0.1)) as live:
            _overwrite(source, live, "The copy could not be put in place")
    database.bell.ring()
    return kept
