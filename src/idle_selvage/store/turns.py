"""Writers of this process wait in the order they came. SQLite lets any of those who wait be the next, so that with
many of them one may wait for ever."""

from __future__ import annotations

import threading
from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager


class Busy(Exception):
    """A turn did not come in time. No fault of a disk, so that nobody who looks for those takes it for one."""


class Turns:
    """One at a time, the first that came first. Safe to use from several threads, never twice by the same one."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._taken = False
        # a locked lock for each who waits; it is opened when the turn is theirs
        self._waiting: deque[threading.Lock] = deque()

    @contextmanager
    def mine(self, seconds: float) -> Iterator[None]:
        """The turn, for as long as the block lasts. Raises :class:`Busy` when it does not come in so many seconds."""
        self._take(seconds)
        try:
            yield
        finally:
            with self._lock:
                if self._waiting:
                    self._waiting.popleft().release()
                else:
                    self._taken = False

    def _take(self, seconds: float) -> None:
        with self._lock:
            if not self._taken:
                self._taken = True
                return
            gate = threading.Lock()
            gate.acquire()
            self._waiting.append(gate)
        if gate.acquire(timeout=seconds):
            return
        with self._lock:
            # it may have been opened in this very moment, and then the turn is ours
            if gate in self._waiting:
                self._waiting.remove(gate)
                raise Busy
