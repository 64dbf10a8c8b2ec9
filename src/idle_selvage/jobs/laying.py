"""One laying, run to its end inside a worker process. Everything it has to say goes into the job's row."""

from __future__ import annotations

import time

from ..core.lay.answer import to_json
from ..core.lay.engine.solver import Answer, EngineFault, Progress, solve
from ..core.lay.problem import BadProblem
from ..operations.by_hand import finish_closing
from ..operations.lay import note_laid
from ..operations.log import note
from ..store import job as jobs
from ..store import lay as lays
from ..store import lay_problem
from ..store.database import Database
from ..store.errors import NotFound
from ..store.models import ClothUse, now
from .allowed import allowed
from .partner import second_process
from .pulse import Pulse

#: Between two writings of progress, seconds; the first answer is written at once.
TELL_EVERY = 0.25


class _Job(Pulse):
    """A laying that has been taken up."""

    def __init__(self, database: Database, number: int, *, shares: bool) -> None:
        super().__init__(database, number, shares=shares)
        self.told = 0.0
        with database.look() as session:
            row = jobs.job(session, number)
            asked, self.quiet = row.fingerprint, row.kind == "quiet"
            # a number of steps gives the same lay everywhere, and so is taken without a break; a search that goes on
            # from a lay has nothing that could be kept on the way
            self.shares = self.shares and row.kind == "lay" and not self.params.keys() & {"steps", "closes"}
            if asked is None:
                raise NotFound("That work has no problem to lay.")
            self.problem = lay_problem.problem(session, asked)

    def hurried(self) -> bool:
        """Whether others have nothing to show yet: the machine is better used for their first lays."""
        with self.database.look() as session:
            return self.shares and jobs.somebody_waits(session, self.number, now())

    def progress(self, progress: Progress, answer: Answer) -> None:
        at = time.monotonic()
        if at - self.told >= TELL_EVERY or progress.steps <= 2 * len(self.problem.folds):
            self.told = at
            self.write(answer)

    def write(self, answer: Answer, state: str = "") -> None:
        with self.database.begin() as session:
            row = jobs.job(session, self.number)
            row.progress = [
                *self.earlier,
                *([round(self.before + p.seconds, 2), p.length, p.bound, p.fold, p.steps] for p in answer.progress),
            ]
            row.refused = [[fold, why.piece, why.across, why.width, why.why] for fold, why in answer.refused]
            row.spent, row.heartbeat = self.spent(), now()
            if state == "waiting":
                # not ended: it goes on from so much spent, with what it has found
                row.state, state = state, ""
            if self.quiet:
                lays.keep_lays(session, row, [(fold, to_json(lay)) for fold, lay in answer.alternatives], choose=False)
                if state:
                    jobs.finish(row, state)
                return
            closes = "closes" in self.params
            if closes and state:
                finish_closing(session, row, answer.lay)
            elif not closes:
                lays.keep_lays(session, row, [(fold, to_json(lay)) for fold, lay in answer.alternatives])
            if state:
                jobs.finish(row, state)
                note_laid(session, row, answer.lay)


def run(database: Database, number: int, steps: int | None = None) -> bool:
    """Run a job; ``steps``: with so many steps instead of its time, so that the same lay comes out wherever it runs.
    Faults end up in its row as a sentence; nothing is raised for them. Whether it made way for another one and is to go
    on later."""
    try:
        job = _Job(database, number, shares=steps is None)
        spending = allowed(job.params, job.before, steps)
        answer = solve(
            job.problem,
            seed=int(job.params["seed"]),
            seconds=spending.seconds,
            steps=spending.steps,
            clock=time.monotonic,
            on_progress=job.progress,
            cancelled=job.cancelled,
            partner=second_process if spending.partner and not job.quiet and not job.hurried() else None,
        )
        goes_on = answer.cancelled and job.made_way and not job.stop
        job.write(answer, "waiting" if goes_on else "cancelled" if answer.cancelled else "done")
        return goes_on
    except (BadProblem, EngineFault) as fault:
        _fail(database, number, str(fault))
    except NotFound:
        return False
    except Exception as fault:
        _fail(database, number, f"The laying stopped on a fault in the program ({type(fault).__name__}). Lay again.")
        raise
    return False


def _fail(database: Database, number: int, sentence: str) -> None:
    with database.begin() as session:
        row = jobs.job(session, number)
        jobs.finish(row, "failed", sentence)
        note(session, session.get_one(ClothUse, row.use_id), "lay", "laying-failed", why=sentence)
