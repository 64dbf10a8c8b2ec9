"""The row of a job as its worker sees it: begun, alive, asked to stop, ended."""

from __future__ import annotations

import time
from datetime import timedelta
from typing import Any

from ..store import job as jobs
from ..store.database import Database
from ..store.errors import NotFound
from ..store.models.base import now

#: Between two looks at the cancel flag, seconds.
LOOK_EVERY = 0.05
#: Between two signs of life, seconds.
BEAT_EVERY = 1.0
#: A laying searches for so long before it makes way for one that has nothing to show yet, and that one has waited so
#: long: a worker that is free takes it sooner.
TURN, WAITED = 0.4, timedelta(seconds=0.3)


class Pulse:
    """A job that has been taken up. Raises :class:`NotFound` when it has ended already.

    ``shares``: whether it makes way for others once it has had its turn; it goes on later.
    """

    def __init__(self, database: Database, number: int, *, shares: bool = False) -> None:
        self.database, self.number, self.shares = database, number, shares
        self.looked = self.beaten = 0.0
        self.stop = self.made_way = False
        with database.begin() as session:
            row = jobs.job(session, number)
            if row.state not in ("waiting", "running"):
                raise NotFound("This work has ended already.")
            row.state = "running"
            row.heartbeat = now()
            self.params: dict[str, Any] = dict(row.params)
            self.before = row.spent
            self.earlier = list(row.progress)
        self.begun = time.monotonic()

    def spent(self) -> float:
        """Seconds worked at it, those before a restart among them."""
        return self.before + time.monotonic() - self.begun

    def cancelled(self) -> bool:
        """Whether somebody asked to stop, or waits for a turn; gives a sign of life on the way."""
        at = time.monotonic()
        if at - self.looked >= LOOK_EVERY:
            self.looked = at
            with self.database.look() as session:
                self.stop = jobs.job(session, self.number).cancel
                if self.shares and at - self.begun >= TURN:
                    self.made_way = jobs.somebody_waits(session, self.number, now() - WAITED)
            if at - self.beaten >= BEAT_EVERY:
                self.beaten = at
                with self.database.begin() as session:
                    row = jobs.job(session, self.number)
                    row.heartbeat, row.spent = now(), self.spent()
        return self.stop or self.made_way

    def end(self, state: str, error: str = "") -> None:
        """Close the row."""
        with self.database.begin() as session:
            row = jobs.job(session, self.number)
            row.spent = self.spent()
            jobs.finish(row, state, error)
