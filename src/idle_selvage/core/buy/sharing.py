"""Several garments from one length: their lays put together, and what that saves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..lay.problem import Bars, Problem
from ..working import Figure, Quantity, Step

#: Less than this is nothing saved, mm: no shop cuts so finely.
NOTHING_MM = 0.5


@dataclass(frozen=True)
class Sharer:
    """A garment on the shared cloth, by a key of its own: its lay problem, or why it has none, as the end of a
    sentence."""

    key: str
    problem: Problem | None
    why_not: str = ""


def together(own: Problem, sharers: Sequence[Sharer]) -> Problem:
    """All garments as one problem on ``own``'s cloth, their pieces known by ids that no two share. Each keeps its
    grain and its own places to meet on the bars; the larger of the gaps between pieces is kept."""
    pieces = []
    for sharer in sharers:
        for piece in sharer.problem.pieces if sharer.problem is not None else ():
            match = tuple(replace(m, group=f"{sharer.key}: {m.group}") for m in piece.match)
            pieces.append(replace(piece, match=match))
    problems = [sharer.problem for sharer in sharers if sharer.problem is not None]
    # a garment that meets nothing on the bars was given none; the one that does has the cloth's
    bars = next((p.bars for p in problems if p.bars != Bars()), own.bars)
    return replace(own, pieces=tuple(pieces), gap=max(p.gap for p in problems), bars=bars)


def apart(purchases: Sequence[Figure | None]) -> Figure | None:
    """What they come to bought each on its own; None until all are known."""
    known = [figure for figure in purchases if figure is not None]
    if not known or len(known) < len(purchases):
        return None
    total = sum(figure.value for figure in known)
    inputs = tuple((f"purchase {k}", Quantity(figure.value, "purchase")) for k, figure in enumerate(known, 1))
    step = Step("apart", "each bought on its own", inputs, Quantity(total, "purchase"))
    return Figure(total, "purchase", steps=(step,), sources=known[0].sources)


@dataclass(frozen=True)
class Saving:
    """What buying together saves: length, and money where the price is known. ``worth``: it is not nothing."""

    length: Figure
    money: Figure | None

    @property
    def worth(self) -> bool:
        return self.length.value > NOTHING_MM


def saving(bought_apart: Figure | None, bought_together: Figure | None, price_per_m: float | None) -> Saving | None:
    """The difference, with the price of a metre if there is one; None until both are known."""
    if bought_apart is None or bought_together is None:
        return None
    saved = bought_apart.value - bought_together.value
    inputs = (
        ("apart", Quantity(bought_apart.value, "purchase")),
        ("together", Quantity(bought_together.value, "purchase")),
    )
    step = Step("saved", "apart − together", inputs, Quantity(saved, "purchase"))
    steps, money = [step], None
    if price_per_m is not None:
        worth = saved / 1000.0 * price_per_m
        put = (("saved", Quantity(saved, "purchase")), ("price of a metre", Quantity(price_per_m, "money")))
        steps.append(Step("saved money", "saved × price of a metre", put, Quantity(worth, "money")))
        money = Figure(worth, "money", steps=tuple(steps), sources=bought_apart.sources)
    return Saving(Figure(saved, "purchase", steps=tuple(steps), sources=bought_apart.sources), money)
