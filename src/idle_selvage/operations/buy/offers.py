"""Offers of shops, laid and compared."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy.orm import Session

from ...core.buy.offers import (
    MOST_SHRINKAGE,
    NO_WIDTH_MM,
    OfferedCloth,
    WeighedOffer,
    cheapest,
    least_waste,
    usable,
    weigh,
)
from ...core.buy.order import per_metre
from ...core.cloth.make import FIBRES, Make
from ...core.cloth.margins import both_margins
from ...core.lay.problem import Problem, fingerprint, pieces_area, too_wide_sentences
from ...core.plan.outline import BadPiece
from ...core.shrink.known import Shrinkage, known_shrinkage
from ...core.shrink.ranges import alike
from ...core.shrink.shrinkage import Direction
from ...core.shrink.states import Move
from ...core.shrink.swatch import BOTH_WAYS, Swatch
from ...core.shrink.to_fit import fit_by
from ...core.wording import joined, sentence_of
from ...core.working import Figure, Source, percent
from ...core.working import given as as_told
from ...standins.shop import PriceList
from ...store import cloth as cloths
from ...store import models, trial
from ...store import offer as offers
from ..log import note
from ..refused import Refused, within
from ..standing import NO_FIT, Standing
from .trials import SmallLay, TrialRequest, small_lay, small_of, why_not

MOST_OFFERS = 30
#: What may be unknown again.
CLEARED = {"price", "warp", "weft", "stock"}
_LIMITS = {
    "width": (50.0, 5000.0),
    "margin": (0.0, 400.0),
    "step": (1.0, 5000.0),
    "least": (0.0, 50_000.0),
    "stock": (1.0, 500_000.0),
}


@dataclass(frozen=True)
class OfferStanding:
    """An offer with its lay, or why it has none. ``row`` None: the garment's own cloth."""

    row: models.Offer | None
    offered: OfferedCloth | None
    problem: Problem | None
    lay: SmallLay | None
    weighed: WeighedOffer | None
    told: str
    cheapest: bool = False
    least_waste: bool = False


@dataclass(frozen=True)
class OffersStanding:
    """Every offer, the garment's own cloth first, and the lays they ask for."""

    offers: tuple[OfferStanding, ...]
    wanted: tuple[TrialRequest, ...]

    @property
    def best(self) -> OfferStanding | None:
        """The one to name: the cheapest, else the one that wastes least."""
        marked = [one for one in self.offers if one.cheapest] or [one for one in self.offers if one.least_waste]
        return marked[0] if marked else None


def read_offers(session: Session, now: Standing) -> OffersStanding:
    """Every offer with its lay, cost and waste."""
    rows = offers.offers(session, now.use.id)
    asked = [_asked(now, row) for row in rows]
    prints = [fingerprint(one.problem) for one in asked if one.problem is not None]
    there = trial.known(session, prints)
    own = _own(now)
    found = [*([own] if own is not None else []), *(_found(now, one, there) for one in asked)]
    weighed = [one.weighed for one in found]
    several = sum(one is not None for one in weighed) > 1
    low, lean = cheapest(weighed), least_waste(weighed)
    marked = tuple(
        OfferStanding(
            one.row,
            one.offered,
            one.problem,
            one.lay,
            one.weighed,
            one.told,
            several and k == low,
            several and k == lean,
        )
        for k, one in enumerate(found)
    )
    return OffersStanding(marked, tuple(TrialRequest(one.problem) for one in asked if one.problem is not None))


UNKNOWN_MAKE = "Say what it is made of, or give its shrinkages: how much it shrinks is not known."


@dataclass(frozen=True)
class _Asked:
    row: models.Offer
    offered: OfferedCloth | None
    problem: Problem | None
    told: str


def _asked(now: Standing, row: models.Offer) -> _Asked:
    """The lay on an offered width, or why there can be none."""
    offered = _offered(now, row)
    if offered is None:
        return _Asked(row, None, None, UNKNOWN_MAKE)
    width = usable(offered)
    if width <= NO_WIDTH_MM:
        return _Asked(row, offered, None, "Nothing is left of its width after washing and margins.")
    if not now.rows.cuts:
        return _Asked(row, offered, None, now.missing)
    fit = _fit_of(now, row) if now.to_fit else None
    if now.to_fit and fit is None:
        return _Asked(row, offered, None, NO_FIT)
    try:
        shrunk = (offered.warp.value, offered.weft.value)
        cloth = replace(now.cutting.laid, bars_move=Move(shrunk, shrunk, shrunk))
        problem = now.lay_on(cloth, width, fit, flaws=False)
    except BadPiece as fault:
        return _Asked(row, offered, None, sentence_of(fault))
    wide = too_wide_sentences(problem)
    if wide:
        return _Asked(row, offered, None, joined(wide))
    return _Asked(row, offered, problem, "")


def _offered(now: Standing, row: models.Offer) -> OfferedCloth | None:
    """The core's offer, with the shrinkages given with it, or those of what it is made of; None while they are not
    known."""
    plans = [_planned(now, row, way) for way in BOTH_WAYS]
    warp, weft = plans
    if warp is None or weft is None:
        return None
    price = per_metre(row.price, row.price_unit)
    return OfferedCloth(row.width, warp, weft, row.margin, price, row.step, row.least, row.stock)


def _planned(now: Standing, row: models.Offer, way: Direction) -> Figure | None:
    """What a length of it loses before it is cut: this garment's own swatch only tells of the same cloth."""
    found = now.tally
    taken, whole = (found.warp_taken, found.warp) if way == "warp" else (found.weft_taken, found.weft)
    if now.cutting.treatment not in ("coming", "done"):
        return taken.plan
    # a length still to be bought was not treated, even if the one in hand was
    return whole.plan if row.same and _typed(row, way) is None else _known(now, row, way).plan


def _typed(row: models.Offer, way: Direction) -> float | None:
    """The shrinkage given with an offer, per cent."""
    return row.warp if way == "warp" else row.weft


def _known(now: Standing, row: models.Offer, way: Direction) -> Shrinkage:
    """What an offered cloth loses in all: as given with it, by this cloth's swatch where it is the same, else by what
    it is made of."""
    typed = _typed(row, way)
    if typed is not None:
        step = as_told("shrinkage", percent(typed), "as given with the offer")
        figure = Figure(typed, "percent", steps=(step,), sources=(WITH_OFFER,), note="as given with the offer")
        return Shrinkage(way, "swatch", figure, figure)
    own, made = now.cloth.make, make_of(now, row)
    past = now.cloth.rows.past if alike(own, made) else ()
    return known_shrinkage(made, now.cloth.test if row.same else Swatch(), past, way, how=now.cutting.how)


def _fit_of(now: Standing, row: models.Offer) -> tuple[float, float] | None:
    """By how much pieces are enlarged for an offered cloth: what it loses itself, and not what this one has left."""
    warp, weft = (_known(now, row, way) for way in BOTH_WAYS)
    return fit_by(warp, weft)


WITH_OFFER = Source("your own log", "the shrinkage given with the offer")


def make_of(now: Standing, row: models.Offer) -> Make:
    """What an offer is made of: as said, else of this cloth's fibres; how another cloth is finished is not known."""
    if row.same:
        return now.cloth.make
    if row.blend:
        return Make(tuple((fibre, share) for fibre, share in row.blend), row.weave)
    return replace(now.cloth.make, finish="")


def _found(now: Standing, asked: _Asked, there: Mapping[str, models.Trial]) -> OfferStanding:
    row = there.get(fingerprint(asked.problem)) if asked.problem is not None else None
    length, weighed = trial.length_of(row), None
    if length is not None and asked.problem is not None and asked.offered is not None:
        weighed = weigh(asked.offered, length, pieces_area(asked.problem), now.order)
    told = asked.told or why_not(row, now.names)
    return OfferStanding(asked.row, asked.offered, asked.problem, small_of(asked.problem, row), weighed, told)


def _own(now: Standing) -> OfferStanding | None:
    """The garment's own cloth, by the lay it goes by."""
    found, chosen, row = now.tally, now.chosen, now.cloth.row
    widths = next((state.widths for state in now.cloth.states.states if state.widths), ())
    warp, weft = found.warp_taken.plan, found.weft_taken.plan
    if chosen is None or now.ladder is None or not widths or found.purchase is None:
        return None
    if warp is None or weft is None:
        return None
    cloth = cloths.as_cloth(row)
    margin = row.margin_low + row.margin_high
    offered = OfferedCloth(min(widths), warp, weft, margin, cloth.price_per_m, now.order.step)
    problem = now.ladder.problem
    weighed = weigh(offered, now.ladder.length, pieces_area(problem), now.order)
    return OfferStanding(None, offered, problem, small_lay(problem, [(chosen.fold, chosen.lay)]), weighed, "")


def add_offer(
    session: Session, use: models.ClothUse, given: Mapping[str, Any], shop: PriceList, shop_number: str = ""
) -> models.Offer:
    """Put an offer beside the others: by its name and width, or one of the shop's list by its number.

    Raises :class:`Refused`.
    """
    if len(offers.offers(session, use.id)) >= MOST_OFFERS:
        raise Refused(f"{MOST_OFFERS} offers are as many as can be compared. Take one out first.")
    cloth = use.cloth
    margin = both_margins(cloth.margin_low, cloth.margin_high)
    if shop_number:
        row = _quoted(use, shop, shop_number, margin)
    else:
        if not given.get("name") or given.get("width") is None:
            missing = "name" if not given.get("name") else "width"
            raise Refused("An offer needs a name and the width of the cloth.", path=missing)
        row = models.Offer(use_id=use.id, margin=margin, step=use.shop_step, least=0.0, price_unit="m")
        _fill(row, given)
    session.add(row)
    session.flush()
    note(session, use, "buy", "offer-added", name=row.name, offer=row.id)
    return row


def _quoted(use: models.ClothUse, shop: PriceList, number: str, margin: float) -> models.Offer:
    quote = next((q for q in shop.like(cloths.as_make(use.cloth)) if q.number == number), None)
    if quote is None:
        raise Refused("There is no such cloth on the shop's list.", path="shop_number")
    return models.Offer(
        use_id=use.id,
        name=quote.name,
        width=quote.width,
        margin=margin,
        price=quote.price,
        price_unit="m",
        step=quote.step,
        least=quote.least,
        stock=quote.stock,
        shop_number=quote.number,
        blend=list(quote.make.blend),
        weave=quote.make.weave,
    )


def _fill(row: models.Offer, given: Mapping[str, Any]) -> None:
    within(given, _LIMITS)
    for key in ("warp", "weft"):
        if given.get(key) is not None and given[key] >= MOST_SHRINKAGE:
            told = f"A shrinkage is given in per cent and is under {MOST_SHRINKAGE:g}, such as 4."
            raise Refused(told, path=key)
    fibre = given.get("fibre")
    if fibre is not None:
        if fibre and fibre not in FIBRES:
            raise Refused(f"It must be one of: {', '.join(FIBRES)}.", path="fibre")
        row.blend = [(fibre, 100.0)] if fibre else []
    for key, value in given.items():
        if key != "fibre" and (value is not None or key in CLEARED):
            setattr(row, key, value)


def change_offer(session: Session, use: models.ClothUse, number: int, given: Mapping[str, Any]) -> None:
    """Change an offer. Raises NotFound and :class:`Refused`."""
    row = offers.offer(session, use.id, number)
    before = {key: row.blend if key == "fibre" else getattr(row, key) for key in given}
    _fill(row, given)
    session.flush()
    note(session, use, "buy", "offer-changed", before=before, after=given, name=row.name, offer=row.id)


def take_out(session: Session, use: models.ClothUse, number: int, *, gone: bool) -> None:
    """Take an offer out, or bring it back. Raises NotFound."""
    row = offers.offer(session, use.id, number, deleted=not gone)
    row.deleted_at = models.now() if gone else None
    session.flush()
    note(session, use, "buy", "offer-out" if gone else "offer-back", name=row.name, offer=row.id)


def added_numbers(session: Session, use: models.ClothUse) -> set[str]:
    """Which cloths of the shop's list stand beside the others already."""
    return {row.shop_number for row in offers.offers(session, use.id)}
