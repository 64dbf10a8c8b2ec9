"""Looking a home folder over: is it all there, whole, its owner's only; and mending what can be mended."""

from __future__ import annotations

import os
import shutil
import sqlite3
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Literal

from .store.copies import BadBackup, check_backup, copies, copy_of, restore
from .store.data_file import FILE_NAME, BadData, looked_into, shape_of
from .store.lock import HomeLock

Level = Literal["good", "note", "bad"]
#: With less room than this left nothing can be kept for long, bytes.
LEAST_ROOM = 50_000_000
#: What an interrupted copy or restore leaves.
STRAYS = (".*.half", ".*.half-*", ".restoring-*", "copies/.*.half", "copies/.*.half-*")


@dataclass(frozen=True)
class Finding:
    """One line of the report. ``mend``: does what can be done, and says what it did."""

    level: Level
    text: str
    mend: Callable[[], str] | None = None


def examine(home: Path) -> list[Finding]:
    """Everything that is found in a home folder, in the order it is looked at. Nothing is changed."""
    try:
        return [*_folder(home), *_data(home), *_strays(home), *_copies(home)]
    except (OSError, sqlite3.Error) as fault:
        return [Finding("bad", f"The folder could not be looked through: {fault}.")]


def _folder(home: Path) -> Iterator[Finding]:
    if not os.access(home, os.W_OK | os.X_OK):
        yield Finding("bad", "Nothing can be written into the folder: allow it, or choose another with --home.")
    room = shutil.disk_usage(home).free
    said = f"{room / 1e9:.1f} GB are free on its disk."
    yield Finding("bad" if room < LEAST_ROOM else "good", said + (" Make room." if room < LEAST_ROOM else ""))
    open_to_others = [one for one in (home, home / FILE_NAME) if one.exists() and one.stat().st_mode & 0o077]
    for path in open_to_others:
        what = "folder" if path.is_dir() else "data file"
        yield Finding("bad", f"Other people of this machine can read the {what}.", partial(_shut, path))
    if not open_to_others:
        yield Finding("good", "Only its owner can read it.")


def _shut(path: Path) -> str:
    path.chmod(0o700 if path.is_dir() else 0o600)
    return f"Only you can read “{path.name}” now."


def _data(home: Path) -> Iterator[Finding]:
    path = home / FILE_NAME
    if not path.exists():
        yield Finding("note", "There are no data yet.")
        return
    try:
        shape = shape_of(path)
    except BadData as fault:
        mend = None if fault.newer or _newest_sound(home) is None else (lambda: _put_back(home))
        yield Finding("bad", f"The data file {fault}", mend)
        return
    yield Finding("good", f"The data file is whole (shape {shape}).")
    with looked_into(path) as data:
        astray = len(data.execute("PRAGMA foreign_key_check").fetchall())
        garments, cloths = (
            data.execute(f"SELECT count(*) FROM {table} WHERE deleted_at IS NULL").fetchone()[0]
            for table in ("project", "cloth")
        )
    if astray:
        yield Finding("bad", f"{astray} rows belong to nothing that is there; write an archive and take it in anew.")
    yield Finding("good", f"{garments} garments, {cloths} cloths.")


def _newest_sound(home: Path) -> str | None:
    for one in copies(home):
        try:
            check_backup(copy_of(home, one.name))
        except BadBackup:
            continue
        return one.name
    return None


def _put_back(home: Path) -> str:
    """The newest sound copy in place of damaged data, which are kept beside it."""
    name = _newest_sound(home)
    if name is None:
        return "There is no sound copy to put in its place."
    kept = restore(home, copy_of(home, name))
    return f"The copy “{name}” is in its place; the damaged data are kept as “{kept.name if kept else ''}”."


def _strays(home: Path) -> Iterator[Finding]:
    there = sorted({path for pattern in STRAYS for path in home.glob(pattern)})
    if there:
        yield Finding("note", f"{len(there)} leftovers of copies that were interrupted.", lambda: _sweep(there))


def _sweep(there: list[Path]) -> str:
    for path in there:
        shutil.rmtree(path) if path.is_dir() else path.unlink(missing_ok=True)
    return "They are removed."


def _copies(home: Path) -> Iterator[Finding]:
    there = copies(home)
    if not there:
        yield Finding("note", "There is no daily copy yet; one is made while it is served.")
        return
    sound = 0
    for one in there:
        try:
            check_backup(copy_of(home, one.name))
            sound += 1
        except BadBackup as fault:
            yield Finding("bad", str(fault))
    if sound:
        yield Finding("good", f"{sound} copies can be gone back to, the newest of {there[0].day.isoformat()}.")


def mended(home: Path) -> list[str]:
    """Mend what can be mended, and what was done. Raises :class:`~.store.lock.InUse` while the folder is served, and
    :class:`OSError`, :class:`~.store.copies.BadBackup` where that fails."""
    with HomeLock(home):
        return [one.mend() for one in examine(home) if one.mend is not None]


def report(found: Iterable[Finding]) -> list[str]:
    """The findings as lines, without the name of anything a person keeps."""
    marks = {"good": "well ", "note": "note ", "bad": "WRONG"}
    return [f"{marks[one.level]} {one.text}" for one in found]
