"""Buy: offers of shops, laid and compared."""

from __future__ import annotations

from typing import Any, Literal, cast

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.buy.offers import WeighedOffer, cheapest, least_waste, usable, weigh
from ..core.cloth.make import blend_text
from ..core.lay.problem import fingerprint, pieces_area, too_wide
from ..core.lay.reading import read_problem
from ..core.project.tally import Tally
from ..core.units import MM_PER_YARD
from ..standins.shop import PriceList
from ..store import models, records, trials
from . import buying, present
from . import schemas as out
from . import schemas_buy as buy_out
from .changes import within
from .context import Refused, begin, look, send, system
from .entries import LengthIn, Name, NumberIn
from .presenter import Presenter

blueprint = APIBlueprint("offers", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

MOST_OFFERS = 30


class OfferChange(out.In):
    """Any of an offer's entries; what is left out stays, and null clears what may be unknown."""

    name: Name | None = None
    width: LengthIn | None = None
    margin: LengthIn | None = None
    price: NumberIn | None = None
    price_unit: Literal["m", "yd"] | None = None
    warp: NumberIn | None = None
    weft: NumberIn | None = None
    step: LengthIn | None = None
    least: LengthIn | None = None
    stock: LengthIn | None = None


class NewOffer(OfferChange):
    """An offer by its name and width, or one of the shop's list by its number."""

    shop_number: str = Field(default="", max_length=20)


_CLEARED = {"price", "warp", "weft", "stock"}


_LIMITS = {
    "width": (50.0, 5000.0),
    "margin": (0.0, 400.0),
    "step": (1.0, 5000.0),
    "least": (0.0, 50_000.0),
    "stock": (1.0, 500_000.0),
}


def _price_list() -> PriceList:
    return cast(PriceList, current_app.config["SHOP"])


@blueprint.get("/projects/<int:project_id>/offers", operation_id="readOffers", responses={200: buy_out.OffersOut})
def read_offers(path: out.ProjectPath) -> Response:
    """Every offer with its lay, cost and waste, the project's own cloth first."""
    with look() as session:
        return send(_offers_out(session, records.project(session, path.project_id)))


def _offers_out(session: Session, row: models.Project) -> buy_out.OffersOut:
    show = Presenter(system())
    found, chosen, _ = present.work_up(session, row)
    rows: list[buy_out.OfferOut] = []
    weighed: list[WeighedOffer | None] = []
    needed = []
    own = _own(show, row, found, chosen)
    if own is not None:
        rows.append(own[0])
        weighed.append(own[1])
    order = buying.order_of(row)
    for offer in buying.offers(session, row.id):
        problem, made, why = buying.offer_problem(session, row, found, offer)
        trial, result = None, None
        if problem is not None:
            wide = too_wide(problem)
            why = " ".join(show.too_wide(piece, across, problem.width) for piece, across in wide)
            if not wide:
                needed.append(trials.TrialRequest(problem))
                print_ = fingerprint(problem)
                trial = trials.known(session, [print_]).get(print_)
                why = buying.why_not(show, trial)
        lay = trials.length_of(trial)
        if lay is not None and problem is not None and made is not None:
            result = weigh(made, lay, pieces_area(problem), order)
        weighed.append(result)
        rows.append(
            buy_out.OfferOut(
                id=offer.id,
                name=offer.name,
                width=show.length(offer.width),
                margin=show.length(offer.margin),
                usable=show.maybe(usable(made) if made is not None else None),
                price=offer.price,
                price_unit=offer.price_unit,
                price_text=_price(offer.price, offer.price_unit),
                warp=offer.warp,
                weft=offer.weft,
                shrinkage="" if made is None else f"{made.warp.value:.1f} × {made.weft.value:.1f} %",
                step=show.length(offer.step),
                least=show.length(offer.least),
                stock=show.maybe(offer.stock),
                shop_number=offer.shop_number,
                lay=None if problem is None else buying.small(show, problem, trial),
                **_result(show, result),
                cheapest=False,
                least_waste=False,
                told=why,
            )
        )
    for place, mark in ((cheapest(weighed), "cheapest"), (least_waste(weighed), "least_waste")):
        if place is not None and sum(w is not None for w in weighed) > 1:
            setattr(rows[place], mark, True)
    return buy_out.OffersOut(
        offers=rows,
        headline=_headline(rows),
        missing="" if rows else "Put an offer here, or lay the pieces on the cloth you have in mind.",
        trials=buying.trials_out(session, row, "offers", needed),
    )


def _result(show: Presenter, result: WeighedOffer | None) -> dict[str, Any]:
    bought = None if result is None else result.purchase
    return {
        "to_buy": None if bought is None else show.surely(bought.to_buy),
        "cost": None if bought is None else show.figure(bought.cost),
        "waste": None if result is None else show.surely(result.waste),
        "lacking": show.length(result.lacking) if result is not None and result.lacking > 0 else None,
    }


def _price(price: float | None, unit: str) -> str:
    return "" if price is None else f"{price:.2f} a {'metre' if unit == 'm' else 'yard'}"


def _headline(rows: list[buy_out.OfferOut]) -> str:
    best = next((r for r in rows if r.cheapest), None) or next((r for r in rows if r.least_waste), None)
    if best is None or best.to_buy is None:
        return "Which width to buy"
    cost = f", for {best.cost.text}" if best.cost is not None else ""
    return f"{best.to_buy.text} of {best.name}, {best.width.text} wide{cost}"


def _own(
    show: Presenter, row: models.Project, found: Tally, chosen: models.LayRecord | None
) -> tuple[buy_out.OfferOut, WeighedOffer] | None:
    """The project's own cloth as the first row, by the lay it goes by."""
    if (
        chosen is None
        or not row.cloth.width_readings
        or found.purchase is None
        or found.warp_taken.plan is None
        or found.weft_taken.plan is None
    ):
        return None
    cloth = row.cloth
    problem = read_problem(chosen.problem)
    offer = buying.OfferedCloth(
        min(cloth.width_readings),
        found.warp_taken.plan,
        found.weft_taken.plan,
        cloth.margin_low + cloth.margin_high,
        records.as_cloth(cloth).price_per_m,
        row.shop_step,
    )
    result = weigh(offer, float(chosen.lay["length"]), pieces_area(problem), buying.order_of(row))
    trial = models.Trial(fingerprint=chosen.fingerprint, problem={}, lays=[[chosen.fold, chosen.lay]], seconds=0.0)
    return (
        buy_out.OfferOut(
            id=None,
            name=cloth.name or "this cloth",
            width=show.length(offer.width),
            margin=show.length(offer.margin),
            usable=show.length(problem.width),
            price=cloth.price,
            price_unit=cloth.price_unit,
            price_text=_price(cloth.price, cloth.price_unit),
            warp=None,
            weft=None,
            shrinkage=f"{offer.warp.value:.1f} × {offer.weft.value:.1f} %",
            step=show.length(row.shop_step),
            least=show.length(0.0),
            stock=None,
            shop_number="",
            lay=buying.small(show, problem, trial),
            **_result(show, result),
            cheapest=False,
            least_waste=False,
            told="",
        ),
        result,
    )


@blueprint.post("/projects/<int:project_id>/offers", operation_id="addOffer", responses={201: buy_out.OffersOut})
def add_offer(path: out.ProjectPath, body: NewOffer) -> Response:
    """Put an offer beside the others."""
    with begin() as session:
        row = records.project(session, path.project_id)
        if len(buying.offers(session, row.id)) >= MOST_OFFERS:
            raise Refused(f"{MOST_OFFERS} offers are as many as can be compared. Take one out first.")
        margin = row.cloth.margin_low + row.cloth.margin_high or 20.0
        if body.shop_number:
            offer = _quoted(row, body.shop_number, margin)
        else:
            if not body.name or body.width is None:
                missing = "name" if not body.name else "width"
                raise Refused("An offer needs a name and the width of the cloth.", path=missing)
            offer = models.Offer(project_id=row.id, margin=margin, step=row.shop_step, least=0.0, price_unit="m")
            _fill(offer, body.model_dump(exclude_unset=True, exclude={"shop_number"}))
        session.add(offer)
        session.flush()
        records.log(session, row.id, "buy", f"Put the offer “{offer.name}” beside the others.", offer=offer.id)
        return send(_offers_out(session, row), 201)


def _quoted(row: models.Project, number: str, margin: float) -> models.Offer:
    quote = next((q for q in _price_list().like(records.as_make(row.cloth)) if q.number == number), None)
    if quote is None:
        raise Refused("There is no such cloth on the shop's list.", path="shop_number")
    return models.Offer(
        project_id=row.id,
        name=quote.name,
        width=quote.width,
        margin=margin,
        price=quote.price,
        price_unit="m",
        step=quote.step,
        least=quote.least,
        stock=quote.stock,
        shop_number=quote.number,
    )


def _fill(offer: models.Offer, given: dict[str, Any]) -> None:
    within({k: v for k, v in given.items() if v is not None}, _LIMITS)
    for key in ("warp", "weft"):
        if given.get(key) is not None and given[key] >= 50.0:
            raise Refused("A shrinkage is given in per cent and is under 50, such as 4.", path=key)
    for key, value in given.items():
        if value is not None or key in _CLEARED:
            setattr(offer, key, value)


def _offer(session: Session, path: buy_out.OfferPath, *, deleted: bool = False) -> models.Offer:
    offer = session.get(models.Offer, path.offer_id)
    if offer is None or offer.project_id != path.project_id or (offer.deleted_at is not None and not deleted):
        raise records.NotFound("There is no such offer in this project.")
    return offer


@blueprint.patch(
    "/projects/<int:project_id>/offers/<int:offer_id>", operation_id="changeOffer", responses={200: buy_out.OffersOut}
)
def change_offer(path: buy_out.OfferPath, body: OfferChange) -> Response:
    """Change an offer."""
    with begin() as session:
        row, offer = records.project(session, path.project_id), _offer(session, path)
        given = body.model_dump(exclude_unset=True)
        _fill(offer, given)
        session.flush()
        records.log(session, row.id, "buy", f"Changed the offer “{offer.name}”.", offer=offer.id, **given)
        return send(_offers_out(session, row))


@blueprint.delete(
    "/projects/<int:project_id>/offers/<int:offer_id>", operation_id="deleteOffer", responses={200: buy_out.OffersOut}
)
def delete_offer(path: buy_out.OfferPath) -> Response:
    """Take an offer out. It can be brought back."""
    return _set_deleted(path, gone=True)


@blueprint.post(
    "/projects/<int:project_id>/offers/<int:offer_id>/restore",
    operation_id="restoreOffer",
    responses={200: buy_out.OffersOut},
)
def restore_offer(path: buy_out.OfferPath) -> Response:
    """Bring an offer back."""
    return _set_deleted(path, gone=False)


def _set_deleted(path: buy_out.OfferPath, *, gone: bool) -> Response:
    with begin() as session:
        row, offer = records.project(session, path.project_id), _offer(session, path, deleted=not gone)
        offer.deleted_at = models.now() if gone else None
        session.flush()
        verb = "Took out" if gone else "Brought back"
        records.log(session, row.id, "buy", f"{verb} the offer “{offer.name}”.", offer=offer.id)
        return send(_offers_out(session, row))


@blueprint.get("/projects/<int:project_id>/shop", operation_id="readShop", responses={200: buy_out.ShopOut})
def read_shop(path: out.ProjectPath) -> Response:
    """The shop's list for a cloth like the project's."""
    with look() as session:
        row = records.project(session, path.project_id)
        show = Presenter(system())
        added = {offer.shop_number for offer in buying.offers(session, row.id)}
        make = records.as_make(row.cloth)
        return send(
            buy_out.ShopOut(
                shop=_price_list().name,
                stand_in=True,
                quotes=[
                    buy_out.QuoteOut(
                        number=q.number,
                        name=q.name,
                        made_of=blend_text(q.make),
                        width=show.length(q.width),
                        price=q.price if system() == "metric" else round(q.price * MM_PER_YARD / 1000.0, 2),
                        price_unit="m" if system() == "metric" else "yd",
                        step=show.length(q.step),
                        least=show.length(q.least),
                        stock=show.length(q.stock),
                        added=q.number in added,
                    )
                    for q in _price_list().like(make)
                ],
            )
        )
