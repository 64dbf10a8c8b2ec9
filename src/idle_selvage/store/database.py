"""Opening the one SQLite file: WAL, foreign keys, migrations, and a consistent copy while serving."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from . import journal
from .bell import Bell
from .journal import NOBODY, Asked

if TYPE_CHECKING:
    from alembic.config import Config

FILE_NAME = "idle-selvage.sqlite3"
#: The newest migration; a file that is there already is not migrated again.
HEAD = "0012"
_MIGRATIONS = Path(__file__).parent / "migrations"


class BadBackup(ValueError):
    """A file that is no backup of ours; the message is a sentence."""


class Database:
    """The data file of one home folder."""

    def __init__(self, home: Path) -> None:
        self.home = home
        self.path = home / FILE_NAME
        home.mkdir(parents=True, exist_ok=True)
        self.engine: Engine = create_engine(f"sqlite:///{self.path}", connect_args={"timeout": 15})
        event.listen(self.engine, "connect", _on_connect)
        event.listen(self.engine, "begin", _on_begin)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        self.bell = Bell()

    def migrate(self) -> None:
        """Bring the file, new or old, to the present shape."""
        if self._version() == HEAD:
            return
        # half a second to import, and only a new or an old file needs it
        from alembic import command

        command.upgrade(alembic_config(self.path), "head")

    def _version(self) -> str | None:
        with closing(sqlite3.connect(self.path)) as connection:
            try:
                row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
            except sqlite3.OperationalError:
                return None
        return None if row is None else str(row[0])

    @contextmanager
    def begin(self, asked: Asked = NOBODY) -> Iterator[Session]:
        """A session that commits when the block ends, and rolls back when it fails; ``asked``: by which page, which
        shows what.

        It takes the write lock at once: one that reads first and writes later would be refused when
        another process wrote in between. What was changed is kept, so that it can be taken back. Raises
        :class:`~.journal.ChangedElsewhere`.
        """
        with self._sessions() as session, session.begin():
            session.connection(execution_options={"writes": True})
            with journal.kept(session, asked):
                yield session
        self.bell.ring(asked.window)

    @contextmanager
    def look(self) -> Iterator[Session]:
        """A session for reading only; it never waits for a writer and keeps nothing."""
        with self._sessions() as session:
            yield session

    def close(self) -> None:
        self.bell.close()
        self.engine.dispose()


def alembic_config(path: Path) -> Config:
    """Alembic's configuration for one data file."""
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(_MIGRATIONS).replace("%", "%%"))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{path}".replace("%", "%%"))
    return config


def _on_begin(connection: Connection) -> None:
    writes = connection.get_execution_options().get("writes", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")


def _on_connect(connection: Any, _record: Any) -> None:
    # we say BEGIN ourselves; the driver would say it late, and only before a write
    connection.isolation_level = None
    connection.create_function(
        "casefold", 1, lambda text: None if text is None else str(text).casefold(), deterministic=True
    )
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    # a confirmed change must survive a lost power plug, not just a killed process
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.close()


def backup(home: Path, target: Path) -> None:
    """A consistent copy of the data file, also while it is being served (SQLite's own backup call)."""
    source = home / FILE_NAME
    if not source.exists():
        raise BadBackup("There is no data yet in this folder, so there is nothing to back up.")
    if target.exists():
        raise BadBackup(f"“{target.name}” exists already. Choose another name; a backup never overwrites.")
    target.parent.mkdir(parents=True, exist_ok=True)
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(target)) as copy:
        live.backup(copy)


def check_backup(file: Path) -> None:
    """Raise :class:`BadBackup` unless ``file`` is a whole data file of ours."""
    if not file.is_file():
        raise BadBackup(f"There is no file “{file.name}” there.")
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as copy:
            sound = copy.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            tables = {row[0] for row in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    except sqlite3.DatabaseError:
        raise BadBackup(f"“{file.name}” is not a backup of Idle Selvage.") from None
    if not sound or not {"project", "cloth", "alembic_version"} <= tables:
        raise BadBackup(f"“{file.name}” is damaged or not a backup of Idle Selvage.")


def restore(home: Path, file: Path) -> Path | None:
    """Put a backup in place of the data file; returns where the replaced data were kept, if any.

    The server must not be running on this folder. Raises :class:`BadBackup`.
    """
    check_backup(file)
    home.mkdir(parents=True, exist_ok=True)
    target = home / FILE_NAME
    kept: Path | None = None
    if target.exists():
        number = 1
        while (home / f"before-restore-{number}.sqlite3").exists():
            number += 1
        kept = home / f"before-restore-{number}.sqlite3"
        backup(home, kept)
    with closing(sqlite3.connect(file)) as source, closing(sqlite3.connect(target, timeout=5)) as live:
        try:
            source.backup(live)
        except sqlite3.OperationalError:
            raise BadBackup("The data are in use. Stop the server first, then restore.") from None
    Database(home).migrate()
    return kept
