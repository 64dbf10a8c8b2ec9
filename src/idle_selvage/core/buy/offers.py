"""Offers side by side: what each width would take, cost and waste, and which is the best buy."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..working import Figure, Quantity, Source, Step, length, percent
from .order import Order
from .purchase import Purchase, purchase

#: Less usable width than this holds no piece, mm.
NO_WIDTH_MM = 10.0
#: A shrinkage from here on, per cent, is a slip of the pen.
MOST_SHRINKAGE = 50.0
WASTE = Source("common practice", "share of the bought cloth that is not in a piece", "measured after washing")


@dataclass(frozen=True)
class OfferedCloth:
    """What a shop offers. ``width`` selvage to selvage and ``margin`` of both together, unwashed, mm; shrinkages are
    figures to plan with, in per cent; ``stock`` the longest piece it has, ``least`` the shortest it cuts."""

    width: float
    warp: Figure
    weft: Figure
    margin: float = 0.0
    price_per_m: float | None = None
    step: float = 100.0
    least: float = 0.0
    stock: float | None = None


@dataclass(frozen=True)
class WeighedOffer:
    """An offer with its purchase. ``waste`` is per cent of the cloth bought; ``lacking``: how much more than the stock
    that is, or nothing."""

    purchase: Purchase
    waste: Figure
    lacking: Figure | None


def usable(offer: OfferedCloth) -> float:
    """Usable width after washing, mm; zero or less when nothing is left."""
    return offer.width * (1.0 - offer.weft.value / 100.0) - offer.margin


def weigh(offer: OfferedCloth, lay: float, area: float, order: Order) -> WeighedOffer:
    """What an offer comes to when the pieces (``area`` mm² together) take ``lay`` mm of it."""
    bought = purchase(
        lay,
        offer.warp,
        Order(
            order.ends,
            order.spare,
            offer.step,
            order.bought_extra,
            order.why,
            offer.least,
            offer.price_per_m,
            stock=offer.stock,
        ),
    )
    washed = bought.to_buy.value * (1 - offer.warp.value / 100) * offer.width * (1 - offer.weft.value / 100)
    share = 100.0 * (1.0 - area / washed)
    step = Step(
        "waste",
        "1 − pieces ÷ (bought × (1 − shrinkage along) × width × (1 − shrinkage across))",
        (
            ("pieces", Quantity(area, "area")),
            ("bought", length(bought.to_buy.value)),
            ("width", length(offer.width)),
            ("shrinkage along", percent(offer.warp.value)),
            ("shrinkage across", percent(offer.weft.value)),
        ),
        percent(share),
        "of the cloth as it is cut, selvages and all",
    )
    waste = Figure(share, "percent", steps=(step,), sources=(WASTE,))
    return WeighedOffer(bought, waste, _lacking(bought, offer.stock))


def _lacking(bought: Purchase, stock: float | None) -> Figure | None:
    """How much more is asked for than the shop has; None where it has enough, or that is not known."""
    if stock is None or bought.to_buy.value <= stock:
        return None
    put = (("to buy", length(bought.to_buy.value)), ("all the shop has", length(stock)))
    short = bought.to_buy.value - stock
    step = Step("short by", "to buy − all the shop has", put, length(short))
    return Figure(short, "length", steps=(*bought.to_buy.steps, step), sources=bought.to_buy.sources)


def cheapest(weighed: Sequence[WeighedOffer | None]) -> int | None:
    """Which one costs least, of those that can be had and have a price."""
    costs = {
        k: w.purchase.cost.value for k, w in enumerate(weighed) if w is not None and w.purchase.cost and not w.lacking
    }
    return min(costs, key=lambda k: costs[k]) if costs else None


def least_waste(weighed: Sequence[WeighedOffer | None]) -> int | None:
    """Which one wastes the smallest share, of those that can be had."""
    shares = {k: w.waste.value for k, w in enumerate(weighed) if w is not None and not w.lacking}
    return min(shares, key=lambda k: shares[k]) if shares else None
