"""How long a search may take: so many seconds, or so many steps."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

#: A search that was interrupted near its end still gets so long, seconds.
LEAST_SECONDS = 0.2


@dataclass(frozen=True)
class Allowed:
    """What one search may spend, and whether a second process searches at the same time."""

    seconds: float | None
    steps: int | None
    partner: bool = True


def allowed(params: Mapping[str, Any], spent: float, steps: int | None) -> Allowed:
    """By what the job was asked with and has ``spent`` already, seconds. A job's own number of steps gives the same lay
    everywhere; so does ``steps``, the worker's, which is for short searches and leaves the second process out."""
    own = params.get("steps")
    if own is not None:
        return Allowed(None, int(own))
    if steps is not None:
        return Allowed(None, steps, partner=False)
    return Allowed(max(LEAST_SECONDS, float(params["seconds"]) - spent), None)
