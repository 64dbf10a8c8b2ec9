"""A second process that searches the same problem from another seed.

With a time limit the two share: each tells the other its better lays. With a number of steps they do not,
so that the result depends on nothing but the seed.

It never outlives the process that began it, however that one ended: it watches for its parent, and it keeps no end of
the pipe but its own, so that writing to a dead parent fails instead of waiting for ever.
"""

from __future__ import annotations

import multiprocessing
import os
import queue
import threading
import time
from multiprocessing.connection import Connection
from typing import TYPE_CHECKING, Any

from ..core.lay.problem import BadProblem, Problem
from .orphan import leave_with_parent

if TYPE_CHECKING:
    from ..core.lay.engine.lanes import Outcome
    from ..core.lay.engine.solver import Budget

#: How long a partner that was told to stop may take to do so, seconds.
STOP_WAIT = 1.0
#: After so many seconds it also proves how short no lay can be, for this part of its time; for more of it when nothing
#: shorter was found for some seconds.
PROVE_AFTER, PROVE_SHARE, SETTLED_AFTER, SETTLED_SHARE = 1.5, 0.25, 4.0, 0.5


def _context() -> Any:
    # a fork starts at once and has the compiled code already; elsewhere a fresh process loads it
    methods = multiprocessing.get_all_start_methods()
    return multiprocessing.get_context("fork" if "fork" in methods else "spawn")


def second_process(problem: Problem, budget: Budget) -> ProcessPartner:
    """Begin the other process; hand this to the solver as its ``partner``."""
    return ProcessPartner(problem, budget)


class ProcessPartner:
    """The other process, as seen from the first. The budget bounds it even when nobody stops it."""

    def __init__(self, problem: Problem, budget: Budget) -> None:
        context = _context()
        self.link, theirs = context.Pipe()
        self.heard: queue.SimpleQueue[tuple[list[Outcome], int, dict[str, float]]] = queue.SimpleQueue()
        self.bounds: dict[str, float] = {}
        self.process = context.Process(
            target=_work, args=(problem, budget, theirs, self.link, os.getpid()), daemon=True
        )
        try:
            self.process.start()
        except AssertionError:
            # a daemonic process may have no children: then this one searches alone
            self.process = None
        theirs.close()
        # always listening: were both to send at once with nobody reading, both would wait for ever
        self.listener = threading.Thread(target=self._listen, daemon=True)
        self.listener.start()

    def _listen(self) -> None:
        try:
            while True:
                self.heard.put(self.link.recv())
        except (EOFError, OSError):
            return

    def news(self) -> list[Outcome]:
        """What the other process has found since it was last asked."""
        return self._drain()[0]

    def _drain(self) -> tuple[list[Outcome], int]:
        found: list[Outcome] = []
        steps = 0
        while not self.heard.empty():
            outcomes, steps, bounds = self.heard.get()
            found += outcomes
            self.bounds.update(bounds)
        return found, steps

    def proved(self) -> dict[str, float]:
        """The bounds it had proved when it was last asked for news, by fold."""
        return self.bounds

    def tell(self, best: dict[str, Outcome]) -> None:
        """Tell the other process what was found here."""
        try:
            if self.process is not None:
                self.link.send(list(best.values()))
        except OSError:
            self.process = None

    def last(self) -> tuple[list[Outcome], int]:
        """Wait for the other process to end; its best outcomes and how many steps it took."""
        self.listener.join()
        return self._drain()

    def stop(self) -> None:
        """End it, whatever it is doing."""
        if self.process is not None:
            self.process.terminate()
            self.process.join(STOP_WAIT)
            if self.process.is_alive():
                self.process.kill()
        self.listener.join(STOP_WAIT)
        self.link.close()


def _work(problem: Problem, budget: Budget, link: Connection, parents: Connection, parent: int) -> None:
    from ..core.lay.engine.bounds import bound_of
    from ..core.lay.engine.climb import climb
    from ..core.lay.engine.solver import Lanes

    leave_with_parent(parent)
    # a fork has the parent's end too; with it open, nothing would tell that nobody reads any more
    parents.close()
    begun = found = time.monotonic()
    seconds, steps = budget.seconds, budget.steps
    try:
        lanes = Lanes(problem, budget.seed)
        share = steps is None
        proofs = climb(problem, {lane.fold: bound_of(problem, lane.fold) for lane in lanes.lanes})
        proving = 0.0
        told: dict[str, float] = {}
        lanes.try_jigsaw()
        if share:
            link.send((list(lanes.best.values()), lanes.steps, {}))
        while (seconds is None or time.monotonic() - begun < seconds) and (steps is None or lanes.steps < steps):
            if lanes.slice():
                found = time.monotonic()
                if share:
                    link.send((list(lanes.best.values()), lanes.steps, {}))
            while share and link.poll():
                for outcome in link.recv():
                    if lanes.adopt(outcome):
                        found = time.monotonic()
            now = time.monotonic()
            part = SETTLED_SHARE if now - found > SETTLED_AFTER else PROVE_SHARE
            if share and now - begun > PROVE_AFTER and proving < part * (now - begun):
                proved = next(proofs, told)
                proving += time.monotonic() - now
                if proved != told:
                    told = dict(proved)
                    link.send(([], lanes.steps, told))
        link.send((list(lanes.best.values()), lanes.steps, told))
    except (EOFError, OSError, BadProblem, KeyboardInterrupt):
        # the first process has what it wants, or says the fault itself
        pass
    finally:
        link.close()
