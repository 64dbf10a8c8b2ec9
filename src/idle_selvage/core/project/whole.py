"""A garment cut from several cloths: their stages as one, and what they cost together."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from ..wording import Sentence, capital
from ..working import Figure, Quantity, Step, of
from .stages import STAGES, Stage

#: From what needs a look first to what needs none.
_WORST = ("look-again", "empty", "begun", "done")
#: What is a garment's and not one cloth's.
_OF_GARMENT = ("plan", "log")


def combined(uses: Sequence[tuple[str, Sequence[Stage]]]) -> tuple[Stage, ...]:
    """The stages of a garment's cloths, given as (name, stages), as one: the worst of each, and which cloth it is of.

    The first one is the main cloth's. One cloth needs no name.
    """
    if len(uses) == 1:
        return tuple(uses[0][1])
    by_name = [(name, {stage.name: stage for stage in found}) for name, found in uses]
    out = []
    for stage in STAGES:
        of = [(name, there[stage]) for name, there in by_name if stage in there]
        name, worst = min(of, key=lambda pair: _WORST.index(pair[1].state))
        if stage not in _OF_GARMENT and worst.why:
            worst = replace(worst, why=Sentence("{name}: {why}", name=capital(name), why=worst.why), of=name)
        out.append(worst)
    return tuple(out)


def whole_cost(costs: Sequence[tuple[str, Figure | None]]) -> tuple[Figure | None, tuple[str, ...]]:
    """What a garment's cloths cost together, given as (name, cost); and the cloths whose cost is not known yet."""
    known = [(name, cost) for name, cost in costs if cost is not None]
    missing = tuple(name for name, cost in costs if cost is None)
    if not known:
        return None, missing
    total = math.fsum(cost.value for _, cost in known)
    inputs = tuple((f"“{name}”", Quantity(cost.value, "money")) for name, cost in known)
    step = Step("all cloths", of("sum", inputs), inputs, Quantity(total, "money"), "what each costs")
    note = f"without {', '.join(missing)}" if missing else ""
    sources = tuple(dict.fromkeys(source for _, cost in known for source in cost.sources))
    return Figure(total, "money", steps=(step,), sources=sources, note=note), missing
