"""How much to ask for at the counter: the lay, the ends, the spare, shrinkage divided, rounded up."""

from __future__ import annotations

import math
from dataclasses import dataclass

from .shrinkage import divide_not_add
from .working import Figure, Quantity, Source, Step, length, percent

PURCHASE = Source("common practice", "lay + ends + spare, divided by 1 − shrinkage", "divide, never add")
ENDS = Source("common practice", "up to 5 cm (2 in) at each end to straighten")

#: Steps shops cut in, millimetres: 10, 25, 50 cm, and eighth, quarter and half yards.
SHOP_STEPS_MM: tuple[float, ...] = (100.0, 250.0, 500.0, 114.3, 228.6, 457.2)

#: Below this a length is the same length; floats are not exact to the last bit.
SAME_MM = 1e-6


@dataclass(frozen=True)
class Line:
    """One part of the purchase: what it is for and what it adds, millimetres."""

    name: str
    adds: float


@dataclass(frozen=True)
class Purchase:
    """The whole answer: lines that add up to ``to_buy``, and the figures around them."""

    to_buy: Figure
    lines: tuple[Line, ...]
    rule_of_thumb: Figure
    spare: Figure
    cost: Figure | None
    in_hand_short: Figure | None


def round_up(needed: float, step: float) -> float:
    """``needed`` up to a whole number of ``step``, never down by more than a millionth of a millimetre."""
    return math.ceil((needed - SAME_MM) / step) * step


def purchase(
    lay: float,
    warp_shrinkage: Figure,
    *,
    ends: float,
    spare: float,
    step: float,
    price_per_m: float | None = None,
    in_hand: float | None = None,
) -> Purchase:
    """Length to buy for a lay of ``lay`` millimetres on the washed cloth.

    ``warp_shrinkage`` is the one to plan with, in per cent; ``ends`` what both ends lose together when
    straightened; ``spare`` extra on purpose; ``step`` what the shop cuts in; ``in_hand`` a length already
    owned, unwashed. Raises ValueError for a step that is not positive or a shrinkage of 100 % or more.
    """
    s = warp_shrinkage.value
    if step <= 0:
        raise ValueError("The shop's step must be more than nothing, such as 10 cm.")
    if s >= 100:
        raise ValueError("A cloth cannot shrink by all of itself.")
    needed = lay + ends + spare
    before = divide_not_add(needed, s)
    bought = round_up(before, step)
    steps = [
        Step(
            "needed after washing",
            "lay + ends to straighten + spare",
            (("lay", length(lay)), ("ends", length(ends)), ("spare", length(spare))),
            length(needed),
        ),
        *warp_shrinkage.steps,
        Step(
            "before washing",
            "needed ÷ (1 − shrinkage along)",
            (("needed", length(needed)), ("shrinkage along", percent(s))),
            length(before),
        ),
        Step(
            "to buy",
            "rounded up to what the shop cuts",
            (("before washing", length(before)), ("the shop's step", length(step))),
            Quantity(bought, "purchase"),
        ),
    ]
    to_buy = Figure(
        bought, "purchase", None, None, tuple(steps), (PURCHASE, ENDS, *warp_shrinkage.sources), warp_shrinkage.note
    )
    lines = (
        Line("the lay", lay),
        Line("a true edge at both ends", ends),
        Line("spare", spare),
        Line("shrinkage along", before - needed),
        Line("up to what the shop cuts", bought - before),
    )
    added = needed * (1.0 + s / 100.0)
    thumb = Figure(
        added,
        "length",
        None,
        None,
        (
            Step(
                "adding instead of dividing",
                "needed × (1 + shrinkage along)",
                (("needed", length(needed)), ("shrinkage along", percent(s))),
                length(added),
            ),
            Step(
                "short by",
                "dividing − adding",
                (("dividing", length(before)), ("adding", length(added))),
                length(before - added),
            ),
        ),
        (PURCHASE,),
    )
    left = bought * (1.0 - s / 100.0) - ends - lay
    spare_figure = Figure(
        left,
        "length",
        None,
        None,
        (
            Step(
                "left over",
                "bought × (1 − shrinkage along) − ends − lay",
                (
                    ("bought", length(bought)),
                    ("shrinkage along", percent(s)),
                    ("ends", length(ends)),
                    ("lay", length(lay)),
                ),
                length(left),
            ),
        ),
        (PURCHASE,),
    )
    cost = None
    if price_per_m is not None:
        total = bought / 1000.0 * price_per_m
        cost = Figure(
            total,
            "money",
            None,
            None,
            (
                Step(
                    "cost",
                    "bought × price",
                    (("bought", Quantity(bought, "purchase")), ("price of a metre", Quantity(price_per_m, "money"))),
                    Quantity(total, "money"),
                ),
            ),
            (PURCHASE,),
        )
    short = None
    if in_hand is not None:
        gap = before - in_hand
        short = Figure(
            gap,
            "length",
            None,
            None,
            (
                Step(
                    "short by",
                    "needed before washing − in hand",
                    (("needed before washing", length(before)), ("in hand", length(in_hand))),
                    length(gap),
                ),
            ),
            (PURCHASE,),
        )
    return Purchase(to_buy, lines, thumb, spare_figure, cost, short)
