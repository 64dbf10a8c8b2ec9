"""One server per home folder: a lock file that also says where it is served."""

from __future__ import annotations

import sys
from pathlib import Path
from types import TracebackType

if sys.platform != "win32":
    import fcntl


class InUse(RuntimeError):
    """The home folder is being served already; ``where`` says at which address, if known."""

    def __init__(self, where: str) -> None:
        super().__init__(f"These data are in use by a running server{f' at {where}' if where else ''}. Stop it first.")
        self.where = where


def served_at(home: Path) -> str:
    """The address at which a home folder is being served, or nothing."""
    file = home / "serving"
    if not file.is_file():
        return ""
    try:
        with HomeLock(home):
            return ""
    except InUse as taken:
        return taken.where


class HomeLock:
    """Held while a home folder is served or restored. Raises :class:`InUse` on entering when taken."""

    def __init__(self, home: Path) -> None:
        home.mkdir(parents=True, exist_ok=True)
        self._path = home / "serving"
        self._file = self._path.open("a+", encoding="utf-8")

    def __enter__(self) -> HomeLock:
        if sys.platform != "win32":
            try:
                fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                self._file.seek(0)
                where = self._file.read().strip()
                self._file.close()
                raise InUse(where) from None
        return self

    def tell(self, where: str) -> None:
        """Write down the address, for whoever finds the lock taken."""
        self._file.seek(0)
        self._file.truncate()
        self._file.write(where)
        self._file.flush()

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.tell("")
        self._file.close()
