"""How much to ask for at the counter: the lay, the ends, the spare, shrinkage divided, rounded up."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..shrink.shrinkage import divide_not_add
from ..working import Figure, Quantity, Source, Step, count, length, percent

PURCHASE = Source("common practice", "lay + ends + spare, divided by 1 − shrinkage", "divide, never add")
ENDS = Source("common practice", "up to 5 cm (2 in) at each end to straighten")
MEASURED = Source("common practice", "laid with the rule and without it", "the difference is what the rule costs here")

#: Steps shops cut in, millimetres: 10, 25, 50 cm, and eighth, quarter and half yards.
SHOP_STEPS_MM: tuple[float, ...] = (100.0, 250.0, 500.0, 114.3, 228.6, 457.2)

#: Below this a length is the same length; floats are not exact to the last bit.
SAME_MM = 1e-6


Rule = Literal["nap", "matching", "flaws"]

RULES: dict[Rule, str] = {
    "nap": "all tops one way",
    "matching": "meeting the bars",
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
class Line:
    """One part of the purchase: what it is for, what it adds in millimetres, and its working."""

    key: str
    name: str
    adds: float
    figure: Figure


@dataclass(frozen=True)
class Thumb:
    """A rule of thumb: what it would buy, mm before washing, and by how much that is off what is needed."""

    name: str
    figure: Figure
    off: float


@dataclass(frozen=True)
class Order:
    """What is asked for besides the lay. Lengths in mm.

    ``ends`` is what both ends lose together when straightened; ``spare`` is kept after washing; ``bought_extra`` is
    bought on purpose, before washing, for the reason ``why``; ``step`` is what the shop cuts in and ``least`` the
    shortest length it cuts; ``in_hand`` a length already owned, unwashed.
    """

    ends: float = 100.0
    spare: float = 0.0
    step: float = 100.0
    bought_extra: float = 0.0
    why: str = ""
    least: float = 0.0
    price_per_m: float | None = None
    in_hand: float | None = None


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


def round_up(needed: float, step: float) -> float:
    """``needed`` up to a whole number of ``step``, never down by more than a millionth of a millimetre."""
    return math.ceil((needed - SAME_MM) / step) * step


def _figure(
    value: float, kind: Literal["length", "purchase", "money"], *steps: Step, source: Source = PURCHASE
) -> Figure:
    return Figure(value, kind, steps=steps, sources=(source,))


def purchase(
    lay: float,
    warp_shrinkage: Figure,
    order: Order = Order(),
    *,
    extras: Sequence[Extra] = (),
    repeat: float | None = None,
    main_pieces: int = 0,
) -> Purchase:
    """Length to buy for a lay of ``lay`` millimetres on the washed cloth.

    ``warp_shrinkage`` is the one to plan with, in per cent; ``extras`` tell how much of the lay each rule of the
    cloth costs, each on top of the one before; ``repeat`` (of the bars along) and ``main_pieces`` serve a rule of
    thumb. Raises ValueError for a step that is not positive or a shrinkage of 100 % or more.
    """
    s = warp_shrinkage.value
    if order.step <= 0:
        raise ValueError("The shop's step must be more than nothing, such as 10 cm.")
    if s >= 100:
        raise ValueError("A cloth cannot shrink by all of itself.")
    needed = lay + order.ends + order.spare
    before = divide_not_add(needed, s)
    asked = max(before + order.bought_extra, order.least)
    bought = round_up(asked, order.step)
    after_washing = Step(
        "needed after washing",
        "lay + ends to straighten + spare",
        (("lay", length(lay)), ("ends", length(order.ends)), ("spare", length(order.spare))),
        length(needed),
    )
    before_washing = Step(
        "before washing",
        "needed ÷ (1 − shrinkage along)",
        (("needed", length(needed)), ("shrinkage along", percent(s))),
        length(before),
    )
    if order.bought_extra or order.least > before:
        rounding = Step(
            "to buy",
            "before washing + bought on purpose, at least what the shop cuts, rounded up to its step",
            (
                ("before washing", length(before)),
                ("bought on purpose", length(order.bought_extra)),
                ("the least it cuts", length(order.least)),
                ("the shop's step", length(order.step)),
            ),
            Quantity(bought, "purchase"),
        )
    else:
        rounding = Step(
            "to buy",
            "rounded up to what the shop cuts",
            (("before washing", length(before)), ("the shop's step", length(order.step))),
            Quantity(bought, "purchase"),
        )
    to_buy = Figure(
        bought,
        "purchase",
        None,
        None,
        (after_washing, *warp_shrinkage.steps, before_washing, rounding),
        (PURCHASE, ENDS, *warp_shrinkage.sources),
        warp_shrinkage.note,
    )
    return Purchase(
        to_buy,
        _lines(lay, extras, order, before_washing, rounding, needed, before, bought),
        _adding(needed, before, s),
        _thumbs(lay, extras, order, before, s, repeat, main_pieces),
        _left(bought, s, order.ends, lay),
        None if order.price_per_m is None else cost_of(bought, order.price_per_m),
        None if order.in_hand is None else _short(before, order.in_hand),
        before,
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
) -> tuple[Line, ...]:
    def given(key: str, name: str, value: float, formula: str, source: Source = PURCHASE) -> Line:
        return Line(key, name, value, _figure(value, "length", Step(name, formula, (), length(value)), source=source))

    plain = lay - math.fsum(extra.adds for extra in extras)
    first = Step(
        "the lay",
        "what the lay takes, less what each rule costs",
        (("lay", length(lay)), *((RULES[e.rule], length(e.adds)) for e in extras)),
        length(plain),
    )
    lines = [Line("lay", "the lay" if not extras else "the lay, without rules", plain, _figure(plain, "length", first))]
    for extra in extras:
        step = Step(
            RULES[extra.rule],
            "the lay with this rule − the lay without it",
            (("with it", length(extra.with_rule)), ("without it", length(extra.without))),
            length(extra.adds),
        )
        figure = _figure(extra.adds, "length", step, source=MEASURED)
        lines.append(Line(extra.rule, RULES[extra.rule], extra.adds, figure))
    lines.append(given("ends", "a true edge at both ends", order.ends, "what both ends lose together", ENDS))
    lines.append(given("spare", "spare", order.spare, "kept after washing, as wished"))
    shrunk = before - needed
    more = Step(
        "shrinkage along",
        "before washing − needed",
        (("before washing", length(before)), ("needed", length(needed))),
        length(shrunk),
    )
    lines.append(Line("shrinkage", "shrinkage along", shrunk, _figure(shrunk, "length", shrinking, more)))
    if order.bought_extra:
        why = f"bought on purpose: {order.why}" if order.why else "bought on purpose"
        lines.append(given("extra", why, order.bought_extra, "bought on purpose, before washing"))
    up = bought - before - order.bought_extra
    lines.append(Line("step", "up to what the shop cuts", up, _figure(up, "length", rounding)))
    return tuple(lines)


def _adding(needed: float, before: float, s: float) -> Figure:
    added = needed * (1.0 + s / 100.0)
    return _figure(
        added,
        "length",
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
    )


#: What the usual rules of thumb add. Common practice, no source.
THUMB_SHRINKAGE = 10.0
THUMB_NAP_MM = 228.6
THUMB_ENDS_MM = 2 * 50.8


def _thumbs(
    lay: float, extras: Sequence[Extra], order: Order, before: float, s: float, repeat: float | None, main_pieces: int
) -> tuple[Thumb, ...]:
    """Each rule in place of what was worked out for the same thing, all else as it is."""
    by_rule = {extra.rule: extra for extra in extras}

    def thumb(name: str, needed: float, shrinkage: Literal["divided", "added"], step: Step) -> Thumb:
        value = divide_not_add(needed, s) if shrinkage == "divided" else needed * (1 + THUMB_SHRINKAGE / 100.0)
        off = value - before
        figure = _figure(
            value,
            "length",
            step,
            Step("it would ask for", "before rounding", (("needed after washing", length(needed)),), length(value)),
            Step("off by", "it − worked out", (("worked out", length(before)),), length(off)),
        )
        return Thumb(name, figure, off)

    needed = lay + order.ends + order.spare
    out = [
        thumb(
            "10 % more for shrinkage",
            needed,
            "added",
            Step("more", "needed × 10 %", (("needed", length(needed)),), length(needed * THUMB_SHRINKAGE / 100.0)),
        )
    ]
    if repeat is not None and main_pieces and "matching" in by_rule:
        adds = repeat * main_pieces
        inputs = (("repeat", length(repeat)), ("main pieces", count(main_pieces)))
        step = Step("for matching", "one repeat for each main piece", inputs, length(adds))
        out.append(thumb("one repeat for each main piece", needed - by_rule["matching"].adds + adds, "divided", step))
    if "nap" in by_rule:
        step = Step("for nap", "a quarter yard", (), length(THUMB_NAP_MM))
        out.append(thumb("¼ yd more for nap", needed - by_rule["nap"].adds + THUMB_NAP_MM, "divided", step))
    step = Step("for straightening", "2 in at each end", (), length(THUMB_ENDS_MM))
    out.append(thumb("2 in at each end to straighten", needed - order.ends + THUMB_ENDS_MM, "divided", step))
    return tuple(out)


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
    inputs = (("bought", Quantity(bought, "purchase")), ("price of a metre", Quantity(price_per_m, "money")))
    return _figure(total, "money", Step("cost", "bought × price", inputs, Quantity(total, "money")))


def _short(before: float, in_hand: float) -> Figure:
    gap = before - in_hand
    inputs = (("needed before washing", length(before)), ("in hand", length(in_hand)))
    return _figure(gap, "length", Step("short by", "needed before washing − in hand", inputs, length(gap)))
