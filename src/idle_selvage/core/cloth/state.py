"""A cloth in one of its states: as bought, and after each treatment it has had."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class State:
    """What was measured of a cloth in one state, mm: widths in several places, and its length; nothing where it was
    not measured then. ``name``: how it came to be so."""

    widths: tuple[float, ...] = ()
    length: float | None = None
    name: str = "as bought"


#: A cloth of which nothing was measured, as it came from the shop.
AS_BOUGHT = State()
