"""How much to ask for at the counter: the lay, the ends, the spare, shrinkage divided, rounded up."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..shrink.shrinkage import divide_not_add
from ..wording import Sentence
from ..working import Figure, Quantity, Source, Step, given, length, percent
from .order import PURCHASE, RULES, USUAL_ORDER, Extra, Order, _figure, asked_for, rounding_step
from .thumbs import Thumb, _thumbs

ENDS = Source("common practice", "up to 5 cm (2 in) at each end to straighten")


PRICE = Source("your own log", "the price as you gave it", "of a metre or of a yard")


MEASURED = Source("common practice", "laid with the rule and without it", "the difference is what the rule costs here")


#: A length short by less than this is long enough, mm.
NOTHING_MM = 0.5


@dataclass(frozen=True)
class Line:
    """One part of the purchase: what it is for, what it adds in millimetres, and its working."""

    key: str
    name: str
    adds: float
    figure: Figure


@dataclass(frozen=True)
class Purchase:
    """The whole answer: lines that add up to ``to_buy``, and the figures around them."""

    to_buy: Figure
    lines: tuple[Line, ...]
    rule_of_thumb: Figure
    thumbs: tuple[Thumb, ...]
    spare: Figure
    cost: Figure | None
    in_hand_short: Figure | None
    #: needed before washing, before rounding, mm
    before: float
    #: by how much adding the shrinkage, instead of dividing by what is left, falls short
    adding_short: Figure

    @property
    def in_hand_does(self) -> bool | None:
        """Whether the length in hand will do; None when none is in hand."""
        return None if self.in_hand_short is None else self.in_hand_short.value <= NOTHING_MM

    @property
    def still(self) -> Figure:
        """What is still to be bought: nothing where the length in hand will do, else the whole length anew."""
        short = self.in_hand_short
        if short is None or not self.in_hand_does:
            return self.to_buy
        nothing = Quantity(0.0, "purchase")
        put = (("nothing", nothing), ("short by", length(short.value)))
        step = Step("to buy", "largest of (nothing, short by)", put, nothing, "the length in hand will do")
        return Figure(0.0, "purchase", steps=(*short.steps, step), sources=short.sources)

    def told(self, in_hand: float | None, *, verb: bool = True) -> Sentence:
        """What is to be bought beside what is in hand (mm, as it is now), as a phrase; without ``verb``: on a list."""
        amount, buy = Quantity(self.to_buy.value, "purchase"), " to buy" if verb else ""
        if self.in_hand_short is None or in_hand is None:
            return Sentence("{amount}{buy}", amount=amount, buy=buy)
        there = length(in_hand)
        if self.in_hand_does:
            return Sentence("nothing to buy: {there} in hand will do", there=there)
        short = length(self.in_hand_short.value)
        said = "{amount}{buy}: {there} in hand is {short} short"
        return Sentence(said, amount=amount, buy=buy, there=there, short=short)


def purchase(
    lay: float,
    warp_shrinkage: Figure,
    order: Order = USUAL_ORDER,
    *,
    extras: Sequence[Extra] = (),
    repeat: float | None = None,
    main_pieces: int = 0,
    in_hand_warp: Figure | None = None,
    what: str = "the lay",
) -> Purchase:
    """Length to buy for a lay of ``lay`` millimetres on the washed cloth.

    ``warp_shrinkage`` is the one to plan with, in per cent, from the cloth as bought; ``in_hand_warp`` the one that is
    still to come of the length in hand (None: it is as bought); ``what`` is cut: a lay, or a trim's edges. ``extras``
    tell how much of the lay each rule of the cloth costs, each on top of the one before; ``repeat`` (of the bars along)
    and ``main_pieces`` serve a rule of thumb. Raises ValueError for a step that is not positive or a shrinkage of 100 %
    or more.
    """
    s = warp_shrinkage.value
    if order.step <= 0:
        raise ValueError("The shop's step must be more than nothing, such as 10 cm.")
    if s >= 100:
        raise ValueError("A cloth cannot shrink by all of itself.")
    needed = lay + order.ends + order.spare
    before = divide_not_add(needed, s)
    bought = asked_for(before, order)
    after_washing = Step(
        "needed after washing",
        "lay + ends + spare",
        (("lay", length(lay)), ("ends", length(order.ends)), ("spare", length(order.spare))),
        length(needed),
    )
    before_washing = Step(
        "before washing",
        "needed ÷ (1 − shrinkage along)",
        (("needed", length(needed)), ("shrinkage along", percent(s))),
        length(before),
    )
    rounding = rounding_step(before, order, bought)
    to_buy = Figure(
        bought,
        "purchase",
        None,
        None,
        (after_washing, *warp_shrinkage.steps, before_washing, rounding),
        (PURCHASE, ENDS, *warp_shrinkage.sources),
        warp_shrinkage.note,
    )
    adding = _adding(needed, before, s)
    return Purchase(
        to_buy,
        _lines(lay, extras, order, before_washing, rounding, needed, before, bought, what),
        adding,
        _thumbs(lay, extras, order, before, s, repeat, main_pieces),
        _left(bought, s, order.ends, lay),
        None if order.price_per_m is None else cost_of(bought, order.price_per_m),
        None if order.in_hand is None else _short(needed, in_hand_warp or warp_shrinkage, order.in_hand),
        before,
        replace(adding, value=before - adding.value, steps=adding.steps),
    )


def _lines(
    lay: float,
    extras: Sequence[Extra],
    order: Order,
    shrinking: Step,
    rounding: Step,
    needed: float,
    before: float,
    bought: float,
    what: str,
) -> tuple[Line, ...]:
    def told(key: str, name: str, value: float, why: str, source: Source = PURCHASE) -> Line:
        return Line(key, name, value, _figure(value, "length", given(name, length(value), why), source=source))

    costs = tuple((RULES[e.rule], length(e.adds)) for e in extras)
    plain = lay - math.fsum(extra.adds for extra in extras)
    if extras:
        formula = " − ".join((what, *(name for name, _ in costs)))
        first = Step(f"{what}, without rules", formula, ((what, length(lay)), *costs), length(plain))
    else:
        first = given(what, length(lay), "as it was laid")
    lines = [Line("lay", what if not extras else f"{what}, without rules", plain, _figure(plain, "length", first))]
    for extra in extras:
        step = Step(
            RULES[extra.rule],
            "with it − without it",
            (("with it", length(extra.with_rule)), ("without it", length(extra.without))),
            length(extra.adds),
        )
        figure = _figure(extra.adds, "length", step, source=MEASURED)
        lines.append(Line(extra.rule, RULES[extra.rule], extra.adds, figure))
    lines.append(told("ends", "a true edge at both ends", order.ends, "what both ends lose together", ENDS))
    lines.append(told("spare", "spare", order.spare, "kept after washing, as wished"))
    shrunk = before - needed
    both = (("before washing", length(before)), ("needed", length(needed)))
    more = Step("shrinkage along", "before washing − needed", both, length(shrunk))
    lines.append(Line("shrinkage", "shrinkage along", shrunk, _figure(shrunk, "length", shrinking, more)))
    if order.bought_extra:
        why = f"bought on purpose: {order.why}" if order.why else "bought on purpose"
        lines.append(told("extra", why, order.bought_extra, "before washing"))
    up = bought - before - order.bought_extra
    over = [("to buy", length(bought)), ("before washing", length(before))]
    formula = "to buy − before washing"
    if order.bought_extra:
        over.append(("bought on purpose", length(order.bought_extra)))
        formula += " − bought on purpose"
    last = Step("up to what the shop cuts", formula, tuple(over), length(up))
    lines.append(Line("step", "up to what the shop cuts", up, _figure(up, "length", rounding, last)))
    return tuple(lines)


def _adding(needed: float, before: float, s: float) -> Figure:
    added = needed * (1.0 + s / 100.0)
    put = (("needed", length(needed)), ("shrinkage along", percent(s)))
    return _figure(
        added,
        "length",
        Step("dividing", "needed ÷ (1 − shrinkage along)", put, length(before)),
        Step("adding", "needed × (1 + shrinkage along)", put, length(added), "instead of dividing"),
        Step(
            "short by",
            "dividing − adding",
            (("dividing", length(before)), ("adding", length(added))),
            length(before - added),
        ),
    )


def _left(bought: float, s: float, ends: float, lay: float) -> Figure:
    left = bought * (1.0 - s / 100.0) - ends - lay
    inputs = (
        ("bought", length(bought)),
        ("shrinkage along", percent(s)),
        ("ends", length(ends)),
        ("lay", length(lay)),
    )
    step = Step("left over", "bought × (1 − shrinkage along) − ends − lay", inputs, length(left))
    return _figure(left, "length", step)


def cost_of(bought: float, price_per_m: float) -> Figure:
    """What a length costs at a price of a metre."""
    total = bought / 1000.0 * price_per_m
    inputs = (("bought", Quantity(bought, "purchase")), ("price", Quantity(price_per_m, "price")))
    return _figure(total, "money", Step("cost", "bought × price", inputs, Quantity(total, "money")), source=PRICE)


def _short(needed: float, still: Figure, in_hand: float) -> Figure:
    """How far the length in hand is short, in the measure it has now."""
    now = divide_not_add(needed, still.value)
    gap = now - in_hand
    need = Step(
        "needed as it is now",
        "needed ÷ (1 − still to shrink)",
        (("needed", length(needed)), ("still to shrink", percent(still.value))),
        length(now),
        "after washing and straightening; what is still to shrink",
    )
    put = (("needed as it is now", length(now)), ("in hand", length(in_hand)))
    short = Step("short by", "needed as it is now − in hand", put, length(gap))
    sources = (PURCHASE, *still.sources)
    return Figure(gap, "length", steps=(*still.steps, need, short), sources=sources)
