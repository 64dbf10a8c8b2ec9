"""The server's side of long work: warm workers, a queue, and picking up what a dead server left."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
import threading
import time
from collections import deque
from datetime import timedelta
from typing import Protocol

from sqlalchemy import select

from ..operations.quiet import next_search
from ..store.database import Database
from ..store.models.base import now
from ..store.models.job import Job

#: A job without a sign of life for this long is picked up again.
STALE = timedelta(seconds=6)
WATCH_EVERY = 1.0
#: Nothing was under way for so long before the quiet search begins, seconds.
QUIET_AFTER = 5.0


class _Worker:
    def __init__(self, pool: Pool, *, quiet: bool = False) -> None:
        self.job: int | None = None
        self.ready = False
        self.process = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "idle_selvage.jobs.worker",
                str(pool.database.home),
                str(os.getpid()),
                *([] if pool.steps is None else [str(pool.steps)]),
                *(["quiet"] if quiet else []),
            ],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
            start_new_session=True,
        )
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
        #: whether it searches on while nobody waits, and the process that does
        self.quiet = quiet
        self._quiet: _Worker | None = None
        self._idle_since = time.monotonic()
        self._queue: deque[int] = deque()
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
        """Queue a job that is in the database as ``waiting``."""
        with self._lock:
            self._queue.append(number)
        self.dispatch()

    def dispatch(self) -> None:
        with self._lock:
            while self._queue and not self._closing.is_set():
                free = next((w for w in self._workers if w.job is None and w.process.poll() is None), None)
                if free is None:
                    if len(self._workers) >= self.size:
                        return
                    free = _Worker(self)
                    self._workers.append(free)
                number = self._queue.popleft()
                try:
                    free.give(number)
                except OSError:
                    free.job = None
                    self._queue.appendleft(number)
                    self._workers.remove(free)

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

    def _watch(self) -> None:
        while not self._closing.wait(WATCH_EVERY):
            self._pick_up()
            if self.quiet:
                self._search_quietly()

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
            if self._quiet is None or self._quiet.process.poll() is not None:
                self._quiet = _Worker(self, quiet=True)
            with contextlib.suppress(OSError):
                self._quiet.give(number)

    def _pick_up(self) -> None:
        """Queue jobs nobody works at: all that wait unqueued, and all that have gone quiet."""
        with self._lock:
            ours = {w.job for w in self._workers if w.process.poll() is None} | set(self._queue)
            if self._quiet is not None and self._quiet.process.poll() is None:
                ours.add(self._quiet.job)
        with self.database.look() as session:
            rows = session.scalars(select(Job).where(Job.state.in_(("waiting", "running"))).order_by(Job.id)).all()
            limit = now() - STALE
            quiet = [row.id for row in rows if row.id not in ours and (row.heartbeat or row.created_at) < limit]
        for number in quiet:
            self.submit(number)
