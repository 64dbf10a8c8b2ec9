"""Several garments from one length: their lays put together, and what that saves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..lay.problem import Bars, Problem
from ..working import Figure, Quantity, Step, length, numbered, of
from .order import Order
from .purchase import PRICE

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
    grain and its own places to meet on the bars; the larger of the gaps between pieces is kept, and pieces are turned
    on the bars only where every garment allows it."""
    pieces = []
    for sharer in sharers:
        for piece in sharer.problem.pieces if sharer.problem is not None else ():
            match = tuple(replace(m, group=f"{sharer.key}: {m.group}") for m in piece.match)
            pieces.append(replace(piece, match=match))
    problems = [sharer.problem for sharer in sharers if sharer.problem is not None]
    # a garment that meets nothing on the bars was given none; the one that does has the cloth's
    bars = next((p.bars for p in problems if p.bars != Bars()), own.bars)
    # one that meets nothing and lies any way has no part in it
    turned = all(p.turn_on_bars or (p.bars == Bars() and not p.one_way) for p in problems)
    gap = max(p.gap for p in problems)
    return replace(own, pieces=tuple(pieces), gap=gap, bars=bars, turn_on_bars=turned and bars != Bars())


def shared_order(own: Order, others: Sequence[Order]) -> Order:
    """What is asked for besides the lay when several are cut from ``own``'s length: its two ends once, and every one's
    spare and what it buys on purpose."""
    every = (own, *others)
    why = "; ".join(dict.fromkeys(order.why for order in every if order.why))
    return replace(
        own,
        spare=sum(order.spare for order in every),
        bought_extra=sum(order.bought_extra for order in every),
        why=why,
        in_hand=None,
    )


def own_order(member: Order, on: Order) -> Order:
    """What one garment would ask for alone, of another's cloth: its own spare, at that cloth's ends, step and price."""
    return replace(on, spare=member.spare, bought_extra=member.bought_extra, why=member.why, in_hand=None)


def apart(purchases: Sequence[Figure | None]) -> Figure | None:
    """What they come to bought each on its own; None until all are known."""
    known = [figure for figure in purchases if figure is not None]
    if not known or len(known) < len(purchases):
        return None
    total = sum(figure.value for figure in known)
    inputs = numbered("purchase", (Quantity(figure.value, "purchase") for figure in known))
    step = Step("apart", of("sum", inputs), inputs, Quantity(total, "purchase"), "each bought on its own")
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
    inputs = (("apart", length(bought_apart.value)), ("together", length(bought_together.value)))
    step = Step("saved", "apart − together", inputs, length(saved))
    money = None
    if price_per_m is not None:
        worth = saved / 1000.0 * price_per_m
        put = (("saved", Quantity(saved, "purchase")), ("price", Quantity(price_per_m, "price")))
        paid = Step("saved money", "saved × price", put, Quantity(worth, "money"))
        money = Figure(worth, "money", steps=(step, paid), sources=(PRICE, *bought_apart.sources))
    return Saving(Figure(saved, "length", steps=(step,), sources=bought_apart.sources), money)
