"""Lays tried on the side, one after another; each is kept as soon as it is there."""

from __future__ import annotations

import logging
import time
from typing import Any

from ..core.lay.answer import to_json
from ..core.lay.engine.solver import EngineFault, NoFold, solve
from ..core.lay.problem import BadProblem, too_wide
from ..core.lay.reading import read_problem
from ..operations.buy.trials import searched
from ..store import lay_problem, trial
from ..store.database import Database
from .allowed import Allowed, allowed
from .partner import second_process
from .pulse import Pulse

#: Every trial begins at the same place, so that two lays differ by their rules and not by chance.
SEED = 1


def run(database: Database, number: int, steps: int | None = None) -> None:
    """Try every lay of a job; ``steps``: with so many each instead of its time. What is there already is not tried
    again, so a restart goes on where it was."""
    pulse = Pulse(database, number)
    seconds = float(pulse.params["seconds"])
    content: set[str] = set()
    for one in pulse.params["trials"]:
        if pulse.cancelled():
            return pulse.end("cancelled")
        if {one["group"], one["after"]} & content:
            continue
        with database.look() as session:
            row = trial.known(session, [one["print"]]).get(one["print"])
            there = searched(row, seconds)
            found: dict[str, Any] = {"lays": list(row.lays)} if row is not None and there else {}
        if not there:
            with database.look() as session:
                asked = lay_problem.asked(session, one["print"])
            found = _try(asked, allowed(pulse.params, 0.0, steps), pulse)
            if pulse.stop:
                return pulse.end("cancelled")
            with database.begin() as session:
                trial.keep(session, one["print"], seconds, **found)
        lays = found.get("lays")
        if one["group"] and one["enough"] is not None and lays and lays[0][1]["length"] <= one["enough"]:
            content.add(one["group"])
    return pulse.end("done")


def _try(asked: dict[str, Any], spending: Allowed, pulse: Pulse) -> dict[str, Any]:
    """What one problem comes to, as the columns of its row."""
    try:
        problem = read_problem(asked)
        wide = too_wide(problem)
        if wide:
            return {"wide": [[piece, across, problem.width] for piece, across in wide]}
        answer = solve(
            problem,
            seed=SEED,
            seconds=spending.seconds,
            steps=spending.steps,
            clock=time.monotonic,
            cancelled=pulse.cancelled,
            partner=second_process if spending.partner else None,
        )
    except NoFold as fault:
        whys = [why for _, why in fault.refused]
        # widths are kept as numbers, to be told in the units of whoever asks
        return {
            "wide": [list(x) for x in dict.fromkeys((w.piece, w.across, w.width) for w in whys if w.across)],
            "why": " ".join(dict.fromkeys(str(w) for w in whys if not w.across)),
        }
    except BadProblem as fault:
        return {"why": str(fault)}
    except EngineFault:
        logging.getLogger(__name__).exception("a lay that was tried on the side")
        return {"fault": True}
    lays = sorted(answer.alternatives, key=lambda pair: pair[1].length)
    return {"lays": [[fold, to_json(lay)] for fold, lay in lays]}
