"""What to do next."""

from __future__ import annotations

from collections.abc import Sequence

from .stages import Stage

#: The order of work: buying waits for the lay, trueing for the cloth that was bought.
ORDER = ("plan", "cloth", "shrink", "lay", "buy", "true")


def next_step(found: Sequence[Stage]) -> str:
    """The first thing that is not done, in the order of work."""
    by_name = {stage.name: stage for stage in found}
    for name in ORDER:
        if by_name[name].state != "done":
            return by_name[name].why
    return "All done so far: the lay can be printed."
