"""Reading a file of somebody else's in a process apart: what it makes of a reader takes so much time and memory and no
more, and holds nobody up who asks for something else meanwhile."""

from __future__ import annotations

import contextlib
import logging
import multiprocessing
import os
import signal
import sys
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from ..formats.audit import Unreadable
from ..formats.reading import Taken, Wishes, format_of, take_in
from .orphan import leave_with_parent

log = logging.getLogger(__name__)

#: A file may take so much of the processor by its format, seconds: thirty pages of a PDF take two, and ezdxf takes one
#: for ten thousand parts. And so long in all, on a machine that is busy.
BUSY, OTHERS, IN_ALL = {"pdf": 6.0, "dxf": 4.0}, 2.0, 40.0
#: And so much memory more than the readers themselves, bytes.
MEMORY = 400_000_000
TOO_LONG = (
    "Reading this file takes longer, or more memory, than any file of pieces does, so it was left. "
    "Save only the pieces."
)
BROKEN = "This file could not be read: something in it is not as any program writes it."
NO_READER = "The file could not be read just now. Try again."
#: Loaded once, in a process from which each of the others is split off in a moment.
_LOADED = [
    "idle_selvage.jobs.ends_with_parent",
    "idle_selvage.jobs.apart",
    "ezdxf",
    "ezdxf.recover",
    "svgelements",
    "scipy.spatial",
    "shapely",
]


class Apart:
    """Readers in processes of their own."""

    def __init__(self, *, in_all: float = IN_ALL) -> None:
        self.in_all = in_all
        # where processes cannot be split off from a loaded one, each loads the readers anew
        there = "forkserver" in multiprocessing.get_all_start_methods()
        self._context: Any = multiprocessing.get_context("forkserver" if there else "spawn")
        if there:
            self._context.set_forkserver_preload(_LOADED)

    def warm(self) -> None:
        """Load the readers now."""
        with contextlib.suppress(Unreadable):
            self.take_in(b"<svg/>", "a.svg")

    def take_in(self, data: bytes, name: str = "", wishes: Wishes | None = None) -> Taken:
        """What can be understood of a file. Raises :class:`~..formats.audit.Unreadable`, also for one that takes too
        long or too much."""
        busy = BUSY.get(format_of(data, name), OTHERS)
        ours, theirs = self._context.Pipe(duplex=False)
        with ours:
            with theirs:
                process = self._begin(theirs, data, name, wishes, busy)
            try:
                if not ours.poll(self.in_all):
                    raise Unreadable(TOO_LONG)
                found = ours.recv()
            except (EOFError, ConnectionResetError):
                # it was ended by its bounds
                raise Unreadable(TOO_LONG) from None
            finally:
                process.kill()
                process.join()
        if isinstance(found, Taken):
            return found
        raise Unreadable(str(found))

    def _begin(self, *asked: Any) -> Any:
        """A reader at work. The process it is split off from may just have been ended by somebody: then there is a new
        one the next time."""
        for last in (False, True):
            process = self._context.Process(target=_read, args=asked, daemon=True)
            try:
                process.start()
            except (EOFError, OSError):
                if last:
                    log.exception("no process to read a file in")
                    raise Unreadable(NO_READER) from None
            else:
                break
        return process


def _read(link: Connection, data: bytes, name: str, wishes: Wishes | None, busy: float) -> None:
    leave_with_parent(os.getppid())
    _bound(busy)
    try:
        link.send(take_in(data, name, wishes))
    except Unreadable as fault:
        link.send(str(fault))
    except (MemoryError, RecursionError):
        link.send(TOO_LONG)
    except Exception:
        # a fault of ours or of a library, which no file may bring further than here
        log.exception("reading a file")
        link.send(BROKEN)
    finally:
        link.close()


def _bound(busy: float) -> None:
    """This process ends after so much of the processor, also inside a reader that never looks up; and gets no more
    memory."""
    if sys.platform == "win32":
        # there the whole time bounds it, from outside
        return
    import resource

    signal.signal(signal.SIGPROF, signal.SIG_DFL)
    signal.setitimer(signal.ITIMER_PROF, busy)
    status = Path("/proc/self/status")
    if status.is_file():
        taken = next(int(line.split()[1]) * 1024 for line in status.read_text().splitlines() if "VmData" in line)
        most = taken + MEMORY
        resource.setrlimit(resource.RLIMIT_DATA, (most, most))
