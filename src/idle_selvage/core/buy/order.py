"""What is asked for besides the lay, what the cloth's rules cost, and rounding to what the shop cuts."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..units import MM_PER_INCH, MM_PER_YARD, System
from ..working import Figure, Quantity, Source, Step

PURCHASE = Source("common practice", "lay + ends + spare, divided by 1 − shrinkage", "divide, never add")


#: Steps shops cut in, millimetres: 10, 25, 50 cm, and eighth, quarter and half yards.
SHOP_STEPS_MM: tuple[float, ...] = (100.0, 250.0, 500.0, 114.3, 228.6, 457.2)


#: What most shops cut in and what both ends usually lose, mm, by the units of the counter: 10 cm and 5 cm an end, or an
#: eighth of a yard and 2 in an end. Common practice, no source.
USUAL_STEP_MM: dict[System, float] = {"metric": 100.0, "imperial": 114.3}
USUAL_ENDS_MM: dict[System, float] = {"metric": 100.0, "imperial": 4 * MM_PER_INCH}


#: Below this a length is the same length; floats are not exact to the last bit.
ROUNDING_MM = 1e-6


Rule = Literal["nap", "matching", "tops", "phase", "flaws"]


RULES: dict[Rule, str] = {
    "nap": "all tops one way",
    "matching": "meeting the bars",
    "tops": "tops one way on bars that are not balanced",
    "phase": "which bar falls where",
    "flaws": "laid around the flaws",
}


@dataclass(frozen=True)
class Extra:
    """What one rule of the cloth costs: the lay with it, and without it, millimetres."""

    rule: Rule
    without: float
    with_rule: float

    @property
    def adds(self) -> float:
        return self.with_rule - self.without


@dataclass(frozen=True)
class Order:
    """What is asked for besides the lay. Lengths in mm.

    ``ends`` is what both ends lose together when straightened; ``spare`` is kept after washing; ``bought_extra`` is
    bought on purpose, before washing, for the reason ``why``; ``step`` is what the shop cuts in and ``least`` the
    shortest length it cuts, ``stock`` the longest it has; ``in_hand`` a length already owned, as it is now.
    """

    ends: float = 100.0
    spare: float = 0.0
    step: float = 100.0
    bought_extra: float = 0.0
    why: str = ""
    least: float = 0.0
    price_per_m: float | None = None
    in_hand: float | None = None
    stock: float | None = None


#: Two ends to straighten, ten centimetres a step, and nothing else.
USUAL_ORDER = Order()


def per_metre(price: float | None, unit: str) -> float | None:
    """The price of a metre, whatever the shop says: ``unit`` is ``m`` or ``yd``."""
    return None if price is None else price * (1.0 if unit == "m" else 1000.0 / MM_PER_YARD)


def round_up(needed: float, step: float) -> float:
    """``needed`` up to a whole number of ``step``, never down by more than a millionth of a millimetre."""
    return math.ceil((needed - ROUNDING_MM) / step) * step


def asked_for(needed: float, order: Order) -> float:
    """What is asked for at the counter when ``needed`` mm must be there before washing: with what is bought on purpose,
    at least what the shop cuts, up to its step; its whole piece where that is enough and the next step is not there."""
    asked = max(needed + order.bought_extra, order.least)
    bought = round_up(asked, order.step)
    if order.stock is not None and asked - ROUNDING_MM <= order.stock < bought:
        return order.stock
    return bought


def rounding_step(before: float, order: Order, bought: float) -> Step:
    """Up to what the shop cuts, the least it cuts, and what is bought on purpose."""
    put = [("before washing", Quantity(before, "purchase"))]
    asked = "before washing"
    if order.bought_extra:
        put.append(("bought on purpose", Quantity(order.bought_extra, "purchase")))
        asked = f"({asked} + bought on purpose)"
    if order.least > before + order.bought_extra:
        put.append(("the least it cuts", Quantity(order.least, "purchase")))
        asked = f"largest of ({asked}, the least it cuts)"
    put.append(("the shop’s step", Quantity(order.step, "purchase")))
    result = Quantity(bought, "purchase")
    formula, why = f"{asked} rounded up to the shop’s step", "as the shop cuts"
    if order.stock is not None and bought == order.stock:
        put.append(("all the shop has", Quantity(order.stock, "purchase")))
        formula, why = f"smallest of ({formula}, all the shop has)", "its whole piece is enough"
    return Step("to buy", formula, tuple(put), result, why)


def _figure(
    value: float, kind: Literal["length", "purchase", "money"], *steps: Step, source: Source = PURCHASE
) -> Figure:
    return Figure(value, kind, steps=steps, sources=(source,))
