"""The selvage margins: how much of either edge is not used, and where that is measured to."""

from __future__ import annotations

#: What both selvages take together when nobody has measured them, mm. Common practice, from memory.
USUAL_BOTH_MM = 20.0


def margin_hint(weave: str) -> str:
    """Where a margin is measured to, for a kind of cloth. Common practice, no source."""
    if weave == "sequin":
        return "Measure from the backing's selvage to the edge of the sequins."
    if weave in ("fur", "lace"):
        return "The soft edge stretches: measure to where the cloth turns firm."
    return "Measure the edge you will not use: pin holes, lettering, the tight weave."


def both_margins(low: float, high: float) -> float:
    """What both selvages take of another cloth of the kind, mm: as measured on this one, or what is usual."""
    return low + high or USUAL_BOTH_MM
