"""Is the purchase the least there can be: the bound of the lay, seen from the counter."""

from __future__ import annotations

import math

from ..shrink.shrinkage import divide_not_add
from ..working import Figure, Step, length, percent
from .order import PURCHASE, Order, asked_for, rounding_step

#: Lengths nearer than this are one: overlap is only judged to 0.1 mm.
GIVE_MM = 0.1


def proved(length: float, bound: float, step: float, needed_beyond: float = 0.0) -> bool:
    """Whether no lay could mean buying less, when cloth is sold by ``step`` millimetres.

    ``needed_beyond`` is what is bought on top of the lay. Theorem: if the bound and the lay round up to the
    same number of steps, so does every lay between them.
    """
    if step <= 0:
        return length <= bound + GIVE_MM
    return math.ceil((bound + needed_beyond) / step - 1e-9) == math.ceil((length + needed_beyond) / step - 1e-9)


def least_figure(bound: float, shrinkage: float, order: Order) -> Figure:
    """What the shop would cut for a lay as short as its ``bound``, mm; ``shrinkage`` along in per cent."""
    needed = bound + order.ends + order.spare
    before = divide_not_add(needed, shrinkage)
    bought = asked_for(before, order)
    put = (
        ("shortest lay", length(bound)),
        ("ends", length(order.ends)),
        ("spare", length(order.spare)),
        ("shrinkage along", percent(shrinkage)),
    )
    formula = "(shortest lay + ends + spare) ÷ (1 − shrinkage along)"
    why = "no lay of these pieces is shorter"
    steps = (Step("before washing", formula, put, length(before), why), rounding_step(before, order, bought))
    return Figure(bought, "purchase", steps=steps, sources=(PURCHASE,))


def proved_purchase(lay: float, bound: float, shrinkage: float, order: Order) -> bool:
    """Whether no shorter lay would change what the shop cuts: :func:`proved` on the lengths before washing."""
    if max(divide_not_add(lay, shrinkage) + beyond(shrinkage, order), order.least) <= order.least:
        return True
    long, least = divide_not_add(lay, shrinkage), divide_not_add(bound, shrinkage)
    return proved(long, least, order.step, beyond(shrinkage, order))


def beyond(shrinkage: float, order: Order) -> float:
    """What is asked for on top of the lay, before washing, mm."""
    return divide_not_add(order.ends + order.spare, shrinkage) + order.bought_extra
