"""Serving a home folder: lock, port, data, workers, a copy each day; and what is told when it cannot be served."""

from __future__ import annotations

import contextlib
import errno
import gc
import logging
import os
import signal
import socket
import sys
import threading
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING, NoReturn

from .program_log import keep_log
from .store.data_file import FILE_NAME, BadData
from .store.lock import HomeLock, InUse

if TYPE_CHECKING:
    from waitress.server import BaseWSGIServer

    from .api.services import Application
    from .jobs.pool import Pool
    from .store.database import Database

#: Requests answered at the same time; each page that is looked at keeps one waiting for news.
THREADS = 64
#: So many connections are held open at once, and one that asks for nothing for so long is closed, seconds: whoever only
#: opens connections shuts nobody out.
CONNECTIONS, SILENT = 1000, 15
#: A request's head is not longer than this, bytes: addresses and a cookie.
LONGEST_HEAD = 32_768
#: How often it is looked whether a new day has begun, seconds.
LOOK_FOR_DAY = 600.0

log = logging.getLogger("idle_selvage")


class CannotServe(RuntimeError):
    """Why a folder is not served; a sentence."""


@dataclass(frozen=True)
class Served:
    """What is to be served, and how searches are done: with so many ``steps`` each, and whether quietly while nobody
    waits; and whether other devices are let in."""

    home: Path
    port: int
    steps: int | None = None
    quiet: bool = True
    lan: bool = False
    demo: bool = False
    reset: bool = False


def serve(asked: Served) -> None:
    """Serve until somebody ends it. Raises :class:`CannotServe`."""
    # what is made here is for its owner
    os.umask(0o077)
    try:
        with HomeLock(asked.home) as lock:
            keep_log(asked.home)
            if asked.reset:
                for name in (FILE_NAME, f"{FILE_NAME}-wal", f"{FILE_NAME}-shm"):
                    (asked.home / name).unlink(missing_ok=True)
            _serve_locked(asked, lock)
    except (InUse, BadData) as fault:
        told = str(fault)
        if isinstance(fault, BadData):
            told += " “idle-selvage doctor” says more, and which copies there are."
        raise CannotServe(told) from None
    except OSError as fault:
        why = fault.strerror or fault
        told = f"The data folder “{asked.home.name}” cannot be used: {why}. Choose another with --home."
        raise CannotServe(told) from None


def listening(port: int, *, lan: bool) -> socket.socket:
    """A socket on this machine, or for the home's network. Raises :class:`CannotServe`."""
    try:
        return socket.create_server(("" if lan else "127.0.0.1", port))
    except OSError as fault:
        if fault.errno not in (errno.EADDRINUSE, errno.EACCES):
            raise CannotServe(f"Port {port} cannot be used: {fault.strerror}.") from None
        raise CannotServe(
            f"Port {port} cannot be used: another program has it, or it is reserved. "
            "Choose another with --port, or --port 0 for any free one."
        ) from None


def _serve_locked(asked: Served, lock: HomeLock) -> None:
    # a fifth of the time of loading would go into looking for what can be given back, and all of it stays
    gc.disable()
    from .api.app import create_app
    from .api.door import Door
    from .api.memory import settle
    from .demo.scenario import example
    from .jobs.apart import Apart
    from .jobs.pool import Pool
    from .store.database import Database

    gc.freeze()
    gc.enable()
    fresh = not (asked.home / FILE_NAME).exists()
    # taken before anything is made, so that a port in use costs nothing
    listener = listening(asked.port, lan=asked.lan)
    own_port = listener.getsockname()[1]
    addresses = tuple(f"http://{here}:{own_port}/" for here in lan_addresses()) if asked.lan else ()
    door = Door(asked.lan, addresses)
    database = Database(asked.home)
    database.migrate()
    workers = Pool(database, steps=asked.steps, quiet=asked.quiet)
    apart = Apart()
    app = create_app(asked.home, workers, database=database, example=example, door=door, read=apart.take_in)

    def stop(_signal: int, _frame: object) -> NoReturn:
        # who waits for news would be waited for
        database.bell.close()
        raise SystemExit(0)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    try:
        workers.start()
        if asked.demo and fresh:
            _load_demo(database, workers)
        threading.Thread(target=_warm, daemon=True).start()
        threading.Thread(target=apart.warm, daemon=True).start()
        threading.Thread(target=_copy_each_day, args=(asked.home,), daemon=True).start()
        server = web_server(app, listener)
        address = f"http://127.0.0.1:{own_port}/"
        lock.tell(address)
        settle()
        print(f"Idle Selvage is at {address}  (Ctrl-C ends it)", flush=True)
        if door.open:
            reached = " or ".join(door.addresses) or "no address of this machine was found"
            print(f"Tablets: {reached}  (the pairing code stands on the first screen here)", flush=True)
        server.run()
    finally:
        workers.close()
        database.close()


def web_server(app: Application, listener: socket.socket) -> BaseWSGIServer:
    """The server on a socket: what is far too large is refused by what it announces, before it is stored;
    what is a little too large the application refuses, in words."""
    from waitress import create_server

    from .api.app import MAX_BODY

    return create_server(
        app,
        sockets=[listener],
        threads=THREADS,
        ident=None,
        channel_request_lookahead=1,
        max_request_body_size=2 * MAX_BODY,
        max_request_header_size=LONGEST_HEAD,
        connection_limit=CONNECTIONS,
        channel_timeout=SILENT,
        cleanup_interval=5,
        # more connections than the older call can watch
        asyncore_use_poll=True,
    )


def _load_demo(database: Database, workers: Pool) -> None:
    from .demo.scenario import load

    print("Loading the demo: a choir's concert outfits …", file=sys.stderr, flush=True)
    try:
        load(database, workers)
    except BaseException:
        # half a demo would look like the whole one at the next start
        workers.close()
        database.close()
        database.path.unlink(missing_ok=True)
        raise


def _copy_each_day(home: Path) -> None:
    """A copy now and whenever a new day has begun; one that cannot be made is told in the log, and tried again."""
    from .store.copies import BadBackup, daily_copy

    wait = threading.Event()
    while True:
        try:
            daily_copy(home, datetime.now())
        except (BadBackup, OSError) as fault:
            log.warning("today's copy could not be made: %s", fault if isinstance(fault, BadBackup) else fault.strerror)
        wait.wait(LOOK_FOR_DAY)


def lan_addresses() -> list[str]:
    """The addresses of this machine on the home's network, the one that leads out of it first; none of its own
    loop."""
    found: list[str] = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        # nothing is sent: a datagram socket only looks up by which address it would be
        try:
            probe.connect(("192.0.2.1", 9))
            found.append(probe.getsockname()[0])
        except OSError:
            pass
    with contextlib.suppress(OSError):
        found += [str(info[4][0]) for info in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)]
    return [one for one in dict.fromkeys(found) if not one.startswith("127.")]


def _warm() -> None:
    """Import now what the first smoothed outline, plan and sheet would otherwise wait for."""
    import scipy.interpolate
    import scipy.sparse.csgraph  # noqa: F401

    import idle_selvage.formats.pdf_sheet  # noqa: F401
