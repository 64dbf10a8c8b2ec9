"""The server's side of long work: warm workers, a queue, and picking up what a dead server left."""

from __future__ import annotations

import bisect
import contextlib
import logging
import os
import subprocess
import sys
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from typing import Protocol

from sqlalchemy import select
from sqlalchemy.exc import OperationalError

from ..operations.quiet import next_search
from ..store import job as jobs
from ..store.database import Database
from ..store.models.base import now
from ..store.models.job import Job
from ..store.turns import Busy

log = logging.getLogger(__name__)

#: A job without a sign of life for this long is picked up again.
STALE = timedelta(seconds=6)
WATCH_EVERY = 1.0
#: Nothing was under way for so long before the quiet search begins, seconds.
QUIET_AFTER = 5.0


class _Worker:
    def __init__(self, pool: Pool, *, quiet: bool = False) -> None:
        self.job: int | None = None
        #: whether it tries lays on the side
        self.tries = False
        self.ready = False
        # always by the same thread: a worker ends with the thread that began it
        self.process = pool.spawner.submit(
            subprocess.Popen,
            [
                sys.executable,
                "-m",
                "idle_selvage.jobs.begin",
                str(pool.database.home),
                str(os.getpid()),
                *([] if pool.steps is None else [str(pool.steps)]),
                *(["quiet"] if quiet else []),
            ],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
            start_new_session=True,
        ).result()
        threading.Thread(target=self._listen, args=(pool,), daemon=True).start()

    def _listen(self, pool: Pool) -> None:
        assert self.process.stdout is not None
        for line in self.process.stdout:
            if line.startswith("ready"):
                self.ready = True
            elif line.startswith("told"):
                pool.database.bell.ring()
                continue
            elif line.startswith("done"):
                self.job = None
            elif line.startswith("again"):
                self.job = None
                pool.submit(int(line.split()[1]))
                continue
            pool.dispatch()
        pool.lost(self)

    def give(self, number: int) -> None:
        assert self.process.stdin is not None
        self.job = number
        self.process.stdin.write(f"{number}\n")
        self.process.stdin.flush()


class Workers(Protocol):
    """Whoever does long work: handed the number of a job that is in the database as ``waiting``."""

    def submit(self, number: int) -> None: ...


class Pool:
    """Up to ``size`` worker processes; the first is started at once, so that the engine is warm. ``steps``: how many a
    search takes instead of its time, so that the same lay comes out wherever it runs."""

    def __init__(self, database: Database, size: int = 2, steps: int | None = None, *, quiet: bool = False) -> None:
        self.database, self.size, self.steps = database, size, steps
        self.spawner = ThreadPoolExecutor(1, "spawner")
        #: whether it searches on while nobody waits, and the process that does
        self.quiet = quiet
        self._quiet: _Worker | None = None
        self._idle_since = time.monotonic()
        # what waits, by kind and turn: see the store's order
        self._queue: list[tuple[tuple[int, bool, int], int]] = []
        self._workers: list[_Worker] = []
        self._lock = threading.RLock()
        self._closing = threading.Event()

    def start(self) -> None:
        """Warm the first worker, pick up unfinished jobs, and keep watch for dead ones."""
        with self._lock:
            self._workers.append(_Worker(self))
        self._pick_up()
        threading.Thread(target=self._watch, daemon=True).start()

    def submit(self, number: int) -> None:
        """Queue a job that is in the database as ``waiting``: as it was asked for, layings before trials."""
        with self.database.look() as session:
            row = session.get(Job, number)
            if row is None:
                return
            turn = jobs.turn(row)
        with self._lock:
            if all(queued != number for _, queued in self._queue):
                bisect.insort(self._queue, (turn, number))
        self.dispatch()

    def dispatch(self) -> None:
        with self._lock:
            while self._queue and not self._closing.is_set():
                turn, number = self._queue[0]
                if self._is_trial(turn) and self._trying() >= max(1, self.size - 1):
                    # one worker is kept for whoever lays
                    return
                free = next((w for w in self._workers if w.ready and w.job is None and w.process.poll() is None), None)
                if free is None:
                    # one that still loads the engine gets nothing: who was asked for later would be done before
                    self._have_another()
                    return
                try:
                    free.give(number)
                except OSError:
                    free.job = None
                    self._workers.remove(free)
                    continue
                free.tries = self._is_trial(turn)
                del self._queue[0]
                self._have_another()

    def _have_another(self) -> None:
        """Load the engine once more when all workers are at something, for whoever comes next."""
        idle = any(w.job is None and w.process.poll() is None for w in self._workers)
        if not idle and len(self._workers) < self.size:
            self._workers.append(_Worker(self))

    @staticmethod
    def _is_trial(turn: tuple[int, bool, int]) -> bool:
        return turn[0] == jobs.KINDS.index("trials")

    def _trying(self) -> int:
        """How many workers try lays on the side."""
        return sum(w.job is not None and w.tries for w in self._workers)

    def lost(self, worker: _Worker) -> None:
        """A worker ended. Its job, if any, goes stale and is picked up by the watch."""
        with self._lock:
            if worker in self._workers:
                self._workers.remove(worker)
        if not self._closing.is_set():
            self.dispatch()

    def close(self) -> None:
        """End the workers; unfinished jobs stay in the database and go on at the next start."""
        self._closing.set()
        with self._lock:
            all_ = [*self._workers, *([] if self._quiet is None else [self._quiet])]
            for worker in all_:
                worker.process.terminate()
            for worker in all_:
                with contextlib.suppress(subprocess.TimeoutExpired):
                    worker.process.wait(timeout=3)
            self._workers.clear()
        self.spawner.shutdown(wait=False)

    def _watch(self) -> None:
        while not self._closing.wait(WATCH_EVERY):
            try:
                self._pick_up()
                if self.quiet:
                    self._search_quietly()
            except (OperationalError, Busy):
                # somebody held the data file, or its disk was full: what waits is looked for again the next time
                log.warning("the data file could not be used, and is looked at again", exc_info=True)

    def _search_quietly(self) -> None:
        """Begin the next quiet search once nothing was under way for a while."""
        with self._lock:
            busy = bool(self._queue) or any(w.job is not None for w in self._workers)
            if busy or (self._quiet is not None and self._quiet.job is not None):
                self._idle_since = time.monotonic()
                return
        if time.monotonic() - self._idle_since < QUIET_AFTER:
            return
        with self.database.begin() as session:
            job = next_search(session)
            number = None if job is None else job.id
        with self._lock:
            if number is None:
                self._idle_since = time.monotonic()
                return
            if self._closing.is_set():
                return
            if self._quiet is None or self._quiet.process.poll() is not None:
                self._quiet = _Worker(self, quiet=True)
            with contextlib.suppress(OSError):
                self._quiet.give(number)

    def _pick_up(self) -> None:
        """Queue jobs nobody works at: all that wait unqueued, and all that have gone quiet."""
        with self._lock:
            ours = {w.job for w in self._workers if w.process.poll() is None} | {number for _, number in self._queue}
            if self._quiet is not None and self._quiet.process.poll() is None:
                ours.add(self._quiet.job)
        with self.database.look() as session:
            rows = session.scalars(select(Job).where(Job.state.in_(("waiting", "running"))).order_by(Job.id)).all()
            limit = now() - STALE
            quiet = [row.id for row in rows if row.id not in ours and (row.heartbeat or row.created_at) < limit]
        for number in quiet:
            self.submit(number)
