"""Long work done in this process: it begins at once, where a worker process would first have to load the engine."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

from sqlalchemy import update

from idle_selvage.jobs import worker
from idle_selvage.store.database import Database
from idle_selvage.store.job import OPEN
from idle_selvage.store.models import Job


class Here:
    """Does one job after another in a thread, every search with so many steps."""

    def __init__(self, database: Database, steps: int) -> None:
        self.database, self.steps = database, steps
        self._thread = ThreadPoolExecutor(1)

    def submit(self, number: int) -> None:
        self._thread.submit(worker.run, self.database, number, self.steps)

    def close(self) -> None:
        """Stop what is under way, and wait for its end."""
        with self.database.begin() as session:
            session.execute(update(Job).where(Job.state.in_(OPEN)).values(cancel=True))
        self._thread.shutdown(wait=True, cancel_futures=True)
