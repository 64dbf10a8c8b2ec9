"""How long and how wide a piece is as it is cut."""

from __future__ import annotations

from ..working import Figure, Inputs, Source, Step, count, length
from .outline import Outline

FROM_THE_PIECE = Source("your own log", "the piece’s own cut line", "seam allowance added")


def size_of(cut: Outline, on_fold: bool) -> tuple[Figure, Figure] | None:
    """Length along the grain and width across it of a whole piece, mm; None without an outline."""
    if not cut:
        return None
    xs, ys = [x for x, _ in cut], [y for _, y in cut]
    long = _span("long", min(xs), max(xs), ("the low end", "the top"), 1)
    return long, _span("wide", min(ys), max(ys), ("one side", "the other side"), 2 if on_fold else 1)


def _span(name: str, low: float, high: float, ends: tuple[str, str], halves: int) -> Figure:
    value = (high - low) * halves
    put: Inputs = ((ends[1], length(high)), (ends[0], length(low)))
    formula = f"{ends[1]} − {ends[0]}"
    if halves > 1:
        put, formula = (*put, ("halves", count(halves))), f"({formula}) × halves"
    step = Step(name, formula, put, length(value), "places on the piece, from its own corner")
    return Figure(value, "length", steps=(step,), sources=(FROM_THE_PIECE,))
