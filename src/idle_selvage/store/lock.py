"""One server per home folder: a lock, and beside it a note of where the folder is served."""

from __future__ import annotations

from pathlib import Path
from types import TracebackType

from filelock import FileLock, Timeout


class InUse(RuntimeError):
    """The home folder is being served already; ``where`` says at which address, if known."""

    def __init__(self, where: str) -> None:
        super().__init__(f"These data are in use by a running server{f' at {where}' if where else ''}. Stop it first.")
        self.where = where


def served_at(home: Path) -> str:
    """The address at which a home folder is being served, or nothing."""
    if not (home / "serving").is_file():
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
        # two files: where the system locks a file against reading too, the note could not be read
        self._note = home / "serving"
        self._lock = FileLock(home / "serving.lock", timeout=0)

    def __enter__(self) -> HomeLock:
        try:
            self._lock.acquire()
        except Timeout:
            raise InUse(self._note.read_text("utf-8").strip() if self._note.is_file() else "") from None
        return self

    def tell(self, where: str) -> None:
        """Write down the address, for whoever finds the lock taken."""
        self._note.write_text(where, "utf-8")

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.tell("")
        self._lock.release()
