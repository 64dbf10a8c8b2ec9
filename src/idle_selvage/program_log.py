"""The log of the program: in the home folder, never large, and without what a person typed.

What goes wrong is written with the place in the program and the kind of fault; the words of a fault may repeat an
entry, and are left out.
"""

from __future__ import annotations

import logging
import traceback
from logging.handlers import RotatingFileHandler
from pathlib import Path

#: Inside the home folder.
FOLDER, NAME = "log", "program.log"
#: One file is so large, bytes, and so many older ones are kept.
LARGEST, OLDER = 500_000, 3


class Bare(logging.Formatter):
    """Lines without the words of a fault: its kind, and where in the program it was."""

    def __init__(self) -> None:
        super().__init__("%(asctime)s %(levelname)s %(name)s: %(message)s", "%Y-%m-%dT%H:%M:%S%z")

    def format(self, record: logging.LogRecord) -> str:
        """One line, and where it was. What another handler made of the fault is not used."""
        made, record.exc_text = record.exc_text, None
        try:
            return super().format(record)
        finally:
            record.exc_text = made

    def formatException(self, ei: object) -> str:  # noqa: N802 (the name is the library's)
        """The fault ``ei``, as :func:`sys.exc_info` gives it, and what it followed from."""
        fault = ei[1] if isinstance(ei, tuple) else None
        told: list[str] = []
        while isinstance(fault, BaseException):
            places = traceback.extract_tb(fault.__traceback__)
            told.append(type(fault).__qualname__)
            # the name of a file without its folders, which hold the name of a person
            told += [f"  {Path(place.filename).name}:{place.lineno} {place.name}" for place in places]
            fault = fault.__cause__ or fault.__context__
        return "\n".join(told)


def keep_log(home: Path) -> None:
    """Write the program's log into a home folder from now on. Raises :class:`OSError`."""
    folder = home / FOLDER
    folder.mkdir(exist_ok=True, mode=0o700)
    handler = RotatingFileHandler(folder / NAME, maxBytes=LARGEST, backupCount=OLDER, encoding="utf-8", delay=True)
    handler.setFormatter(Bare())
    top = logging.getLogger()
    for old in [one for one in top.handlers if isinstance(one.formatter, Bare)]:
        top.removeHandler(old)
        old.close()
    # and into the terminal, where the program was started in one
    shown = logging.StreamHandler()
    shown.setFormatter(Bare())
    top.addHandler(handler)
    top.addHandler(shown)


def read_log(home: Path, lines: int = 400) -> list[str]:
    """The last lines of the log, the oldest first."""
    found: list[str] = []
    for path in (home / FOLDER / f"{NAME}.1", home / FOLDER / NAME):
        if path.is_file():
            found += path.read_text("utf-8", "replace").splitlines()
    return found[-lines:]
