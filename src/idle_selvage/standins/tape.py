"""A stand-in for a digital tape: readings come in one after another, and whoever measures takes them out."""

from __future__ import annotations

import threading
import time
from collections import deque
from dataclasses import dataclass

#: Readings nobody took are forgotten after so many newer ones.
KEPT = 50


@dataclass(frozen=True)
class Reading:
    """One reading in millimetres; numbers rise, also over a restart."""

    number: int
    mm: float


class Tape:
    """The readings of one server. Safe to use from several threads."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._readings: deque[Reading] = deque(maxlen=KEPT)
        # from the clock, so that a page that outlived the server never waits for a number that was long ago
        self._last = int(time.time() * 1000)

    def push(self, mm: float) -> Reading:
        """A new reading."""
        with self._lock:
            self._last = max(self._last + 1, int(time.time() * 1000))
            reading = Reading(self._last, mm)
            self._readings.append(reading)
            return reading

    @property
    def last(self) -> int:
        """The newest number there is."""
        with self._lock:
            return self._last

    def since(self, number: int) -> tuple[list[Reading], int]:
        """Readings after ``number``, and the newest number there is."""
        with self._lock:
            return [r for r in self._readings if r.number > number], self._last
