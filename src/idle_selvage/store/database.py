"""Opening the one SQLite file: WAL, foreign keys, migrations."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Mapping
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from . import journal
from .bell import Bell
from .data_file import FILE_NAME, HEAD, MIGRATIONS, BadData, shape_of
from .journal import NOBODY, Asked
from .turns import Turns

if TYPE_CHECKING:
    from alembic.config import Config

#: So long a change waits for another one to be written, seconds.
WAIT = 15


class Database:
    """The data file of one home folder."""

    def __init__(self, home: Path) -> None:
        self.home = home
        self.path = home / FILE_NAME
        # what is in it is nobody else's business
        home.mkdir(parents=True, exist_ok=True, mode=0o700)
        # what a fault says goes into the program's log, and no entry of a person belongs there
        self.engine: Engine = create_engine(_address(self.path), connect_args={"timeout": WAIT}, hide_parameters=True)
        event.listen(self.engine, "connect", _on_connect)
        event.listen(self.engine, "begin", _on_begin)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        self.bell = Bell()
        self._turns = Turns()

    def migrate(self) -> None:
        """Bring the file, new or old, to the present shape. Raises :class:`~.data_file.BadData` for a file that is not
        whole, not ours, or newer than this program."""
        if self.path.exists() and self.path.stat().st_size > 0 and self._begun():
            try:
                shape = shape_of(self.path)
            except BadData as fault:
                raise BadData(f"The data file “{self.path.name}” {fault}") from None
            _for_its_owner(self.path)
            if shape == HEAD:
                return
        # half a second to import, and only a new or an old file needs it
        from alembic import command

        command.upgrade(alembic_config(self.path), "head")
        _for_its_owner(self.path)

    def _begun(self) -> bool:
        """Whether the file holds anything: one whose making was interrupted holds no table yet. A file that is no
        database holds something."""
        with closing(sqlite3.connect(self.path)) as connection:
            try:
                return bool(connection.execute("SELECT count(*) FROM sqlite_master").fetchone()[0])
            except sqlite3.DatabaseError:
                return True

    @contextmanager
    def begin(self, asked: Asked = NOBODY) -> Iterator[Session]:
        """A session that commits when the block ends, and rolls back when it fails; ``asked``: by which page, which
        shows what.

        It takes the write lock at once: one that reads first and writes later would be refused when
        another process wrote in between. What was changed is kept, so that it can be taken back. Raises
        :class:`~.journal.ChangedElsewhere`, and :class:`~.turns.Busy` where too many wait.
        """
        with self._turns.mine(WAIT), self._sessions() as session, session.begin():
            session.connection(execution_options={"writes": True})
            with journal.kept(session, asked):
                yield session
        self.bell.ring(asked.window)

    @contextmanager
    def alone(self) -> Iterator[None]:
        """Nobody else in this process writes while the block lasts. Raises :class:`~.turns.Busy`."""
        with self._turns.mine(WAIT):
            yield

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
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    config.attributes["address"] = _address(path)
    return config


def _address(path: Path) -> URL:
    """A data file for SQLAlchemy; its name may hold any letter."""
    return URL.create("sqlite", database=str(path))


def _for_its_owner(path: Path) -> None:
    """Let nobody else read a data file and what SQLite keeps beside it."""
    for end in ("", "-wal", "-shm"):
        part = Path(f"{path}{end}")
        try:
            if part.stat().st_mode & 0o077:
                part.chmod(0o600)
        except OSError:
            # another's file, or a disk that knows no owners: it can be served all the same
            continue


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


def rows_at_head(rows: Mapping[str, Any], shape: str) -> dict[str, list[dict[str, Any]]]:
    """Rows of an older shape as they are now: put into an empty file of that shape, which is then migrated. Raises
    whatever a row that does not fit raises."""
    import tempfile

    from alembic import command
    from sqlalchemy import MetaData, select

    from .archive import LEFT_HERE, tables
    from .journal import plain, unplain

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / FILE_NAME
        config = alembic_config(path)
        command.upgrade(config, shape)
        engine = create_engine(f"sqlite:///{path}")
        old = MetaData()
        old.reflect(engine)
        with engine.begin() as connection:
            for table in old.sorted_tables:
                for row in rows.get(table.name, []) if table.name not in LEFT_HERE else ():
                    values = {key: _as_stored(unplain(value)) for key, value in row.items() if key in table.c}
                    # the one row of settings is there already
                    into = table.update() if table.name == "settings" else table.insert()
                    connection.execute(into.values(values))
        engine.dispose()
        command.upgrade(config, "head")
        engine = create_engine(f"sqlite:///{path}")
        out: dict[str, list[dict[str, Any]]] = {}
        with engine.begin() as connection:
            for table in tables():
                found = [dict(row) for row in connection.execute(select(table)).mappings()]
                if found and (table.name != "settings" or rows.get("settings")):
                    out[table.name] = [{key: plain(value) for key, value in row.items()} for row in found]
        engine.dispose()
    return out


def _as_stored(value: Any) -> Any:
    """A time without its zone, as a table that is read off a file holds it."""
    return value.replace(tzinfo=None) if isinstance(value, datetime) else value
