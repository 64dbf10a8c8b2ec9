"""A worker process: ``python -m idle_selvage.jobs.begin HOME SERVER [STEPS]``, with the server's process number, and
how many steps a search takes instead of its time.

It loads the compiled engine once, says ``ready``, then runs the job numbers it reads from standard
input, answering each with ``done N``, or with ``again N`` when it made way for another one and is to go on. When its
input ends it leaves; when the server is gone it leaves at once, and the job it was at is taken up again by the next
server.
"""

from __future__ import annotations

import contextlib
import os
import signal
import sys
import traceback
from pathlib import Path

from ..core.lay.engine.warm import compile_ahead
from ..store import job as jobs
from ..store.bell import Bell
from ..store.database import Database
from ..store.errors import NotFound
from . import laying, trying

#: The last word on the line of a worker that searches quietly, and how far below others it runs; any search runs a
#: little below the server and the page, which show what it finds.
QUIET = "quiet"
LOWEST, BELOW = 15, 5


class _Told(Bell):
    """Rings at the server."""

    def ring(self, by: str = "") -> None:
        # a server that is gone hears nothing; the work it began is taken up by the next one
        with contextlib.suppress(OSError):
            print("told", flush=True)


def run(database: Database, number: int, steps: int | None = None) -> bool:
    """Do one job of whatever kind; one that has ended already is left alone. Whether it is to go on later."""
    with database.look() as session:
        kind = jobs.job(session, number).kind
    if kind != "trials":
        return laying.run(database, number, steps)
    try:
        trying.run(database, number, steps)
    except NotFound:
        return False
    except Exception as fault:
        told = f"Trying stopped on a fault in the program ({type(fault).__name__}). Try again."
        with database.begin() as session:
            jobs.finish(jobs.job(session, number), "failed", told)
        raise
    return False


def main() -> None:
    """Serve jobs until standard input ends."""
    # Ctrl-C in the terminal is for the server, which then ends us in order
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    os.nice(LOWEST if sys.argv[-1] == QUIET else BELOW)
    # seconds of loading are better spent now than out of the first search's time
    compile_ahead()
    database = Database(Path(sys.argv[1]))
    steps = int(sys.argv[3]) if len(sys.argv) > 3 and sys.argv[3] != QUIET else None
    # what is written here the server's own pages hear of by the server's bell
    database.bell = _Told()
    print("ready", flush=True)
    for line in sys.stdin:
        number = int(line)
        goes_on = False
        try:
            goes_on = run(database, number, steps)
        except Exception:
            traceback.print_exc()
        print(f"{'again' if goes_on else 'done'} {number}", flush=True)
