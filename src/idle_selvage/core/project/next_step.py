"""What to do next, with one garment and over all of them."""

from __future__ import annotations

from collections.abc import Sequence

from ..wording import Sentence, small
from .stages import Stage

#: The order of work: buying waits for the lay, trueing for the cloth that was bought.
ORDER = ("plan", "cloth", "shrink", "lay", "buy", "true", "cut")


def next_step(found: Sequence[Stage]) -> str:
    """The first thing that is not done, in the order of work."""
    by_name = {stage.name: stage for stage in found}
    for name in ORDER:
        if by_name[name].state != "done":
            return by_name[name].why
    return "All is cut: label the pieces, and put what is left into the cupboard."


def next_over_all(garments: Sequence[tuple[str, Sequence[Stage]]]) -> Sentence:
    """The garment to go on with, given as (name, stages), and what to do with it: what needs another look first."""
    if not garments:
        return Sentence("What will you make?")
    for wanted in (_looks_again, _unfinished):
        for name, found in garments:
            if any(wanted(stage) for stage in found):
                return Sentence("Next, the {name}: {step}", name=name.lower(), step=small(next_step(found)))
    return Sentence("Everything on the bench is cut")


def _looks_again(stage: Stage) -> bool:
    return stage.state == "look-again"


def _unfinished(stage: Stage) -> bool:
    # the log is never finished: a garment is not brought up for it
    return stage.state == "empty" or (stage.state == "begun" and stage.name != "log")
