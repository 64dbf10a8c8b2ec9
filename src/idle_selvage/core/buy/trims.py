"""Trims by the metre: as long as the edges they go on, and a turning at each end."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..working import Figure, Source, Step, count, length, of

#: What is turned in or lapped at each end of a trim, mm. Common practice, no source.
TURNED_MM = 15.0
TURNED = Source("common practice", "a trim is as long as its edge and a turning at each end")


@dataclass(frozen=True)
class Run:
    """One edge a trim goes on: its length in mm, and how many times."""

    what: str
    length: float
    times: int = 1


def trim_length(runs: Sequence[Run]) -> Figure | None:
    """How much trim is sewn on, turnings included; None without an edge."""
    if not runs:
        return None
    total = math.fsum((run.length + 2 * TURNED_MM) * run.times for run in runs)
    turned = ("turning", length(TURNED_MM))
    each = []
    steps = []
    for k, run in enumerate(runs, 1):
        value = length((run.length + 2 * TURNED_MM) * run.times)
        each.append((f"edge {k}", value))
        put = (("edge", length(run.length)), turned, ("times", count(run.times)))
        steps.append(Step(f"edge {k}", "(edge + 2 × turning) × times", put, value, run.what))
    steps.append(Step("trim", of("sum", each), tuple(each), length(total)))
    return Figure(total, "length", steps=tuple(steps), sources=(TURNED,))
