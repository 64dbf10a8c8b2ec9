"""The purchase and everything around it, as it is sent."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...core.buy import bias, ruffles
from ...core.buy.convert import YARD, FractionRow, Spoken, spoken, yard_table
from ...core.buy.envelope import envelope_headline, more_told
from ...core.buy.offers import WeighedOffer, usable
from ...core.buy.order import RULES
from ...core.buy.purchase import Purchase
from ...core.buy.shopping import PRETREAT
from ...core.cloth.make import blend_text
from ...core.lay.long import lay_length
from ...core.lay.named import fold_name
from ...core.units import MM_PER_YARD
from ...core.wording import capital
from ...core.written import fraction_text, range_text
from ...operations.buy.cupboard import HelpTried, WillItDo
from ...operations.buy.envelope import EnvelopeStanding, ends_of
from ...operations.buy.list import Item
from ...operations.buy.offers import OffersStanding, OfferStanding
from ...operations.buy.strips import StripsStanding, What, strips_told
from ...operations.buy.together import Member, TogetherStanding
from ...operations.buy.trials import SmallLay, TrialsStanding
from ...operations.standing import Standing
from ...standins.shop import Quote
from ...store import models
from ..shared.figures import Presenter, rounded
from . import schemas as out


def purchase_out(show: Presenter, now: Standing) -> out.PurchaseOut | None:
    """The purchase, beside what it would be if the lay were as short as it can be."""
    bought, least = now.tally.purchase, now.least
    if bought is None or least is None:
        return None
    return out.PurchaseOut(
        to_buy=show.surely(bought.to_buy),
        lines=[
            out.LineOut(key=li.key, name=li.name, adds=show.length(li.adds), figure=show.surely(li.figure))
            for li in bought.lines
        ],
        rule_of_thumb=show.surely(bought.rule_of_thumb),
        adding_short=show.surely(bought.adding_short),
        thumbs=_thumbs(show, bought),
        spare=show.surely(bought.spare),
        least=show.surely(least),
        proved=now.proved,
        unmeasured=[RULES[rule] for rule in now.pending],
        cost=show.figure(bought.cost),
        still=show.surely(bought.still),
        told=now.buying,
        in_hand_short=show.figure(bought.in_hand_short),
        in_hand_does=bought.in_hand_does,
    )


def _thumbs(show: Presenter, bought: Purchase) -> list[out.ThumbOut]:
    return [
        out.ThumbOut(name=t.name, figure=show.surely(t.figure), off=show.length(t.off), verdict=t.verdict, told=t.told)
        for t in bought.thumbs
    ]


def trials_out(found: TrialsStanding) -> out.TrialsOut:
    """How far the lays of a part are."""
    job = found.job
    return out.TrialsOut.model_validate(
        {
            "what": found.part,
            "job_id": None if job is None else job.id,
            "state": "idle" if job is None else job.state,
            "done": found.done,
            "of": found.of,
            "lacking": found.lacking,
            "asks": found.asks,
            "under_way": found.under_way,
            "error": found.error,
        }
    )


def small_out(show: Presenter, small: SmallLay | None) -> out.SmallLayOut | None:
    """A lay small, on the open cloth."""
    if small is None:
        return None
    return out.SmallLayOut(
        length=show.length(small.lay.length),
        figure=show.surely(lay_length(small.lay, small.drawing.shapes)),
        width=small.width,
        fold=fold_name(small.fold),
        outlines=[rounded(s.outline) for s in small.drawing.shapes],
    )


# -- offers


def offers_out(show: Presenter, now: Standing, found: OffersStanding, trials: TrialsStanding) -> out.OffersOut:
    """Every offer with its lay, cost and waste, the project's own cloth first."""
    best = found.best
    rows = [_own(show, now, one) if one.row is None else _offer(show, one, one.row) for one in found.offers]
    return out.OffersOut(
        offers=rows,
        headline=_in_hand(now) or ("Which width to buy" if best is None else _headline(rows[found.offers.index(best)])),
        missing="" if rows else "Put an offer here, or lay the pieces on the cloth you have in mind.",
        trials=trials_out(trials),
    )


def _in_hand(now: Standing) -> str:
    """That nothing has to be bought, if so."""
    return capital(now.buying) if now.bought is not None and now.bought.in_hand_does else ""


def _headline(best: out.OfferOut) -> str:
    if best.to_buy is None:
        return "Which width to buy"
    cost = f", for {best.cost.text}" if best.cost is not None else ""
    return f"{best.to_buy.text} of {best.name}, {best.width.text} wide{cost}"


def _price(price: float | None, unit: str) -> str:
    return "" if price is None else f"{price:.2f} a {'metre' if unit == 'm' else 'yard'}"


def _result(show: Presenter, one: OfferStanding) -> dict[str, Any]:
    """What an offer comes to, as far as it was laid."""
    weighed: WeighedOffer | None = one.weighed
    bought = None if weighed is None else weighed.purchase
    offered = one.offered
    return {
        "shrinkage": "" if offered is None else f"{offered.warp.value:.1f} × {offered.weft.value:.1f} %",
        "warp_figure": None if offered is None else show.surely(offered.warp),
        "weft_figure": None if offered is None else show.surely(offered.weft),
        "lay": small_out(show, one.lay),
        "to_buy": None if bought is None else show.surely(bought.to_buy),
        "cost": None if bought is None else show.figure(bought.cost),
        "waste": None if weighed is None else show.surely(weighed.waste),
        "lacking": show.figure(weighed.lacking if weighed is not None else None),
        "cheapest": one.cheapest,
        "least_waste": one.least_waste,
        "told": one.told,
    }


def _offer(show: Presenter, one: OfferStanding, row: models.Offer) -> out.OfferOut:
    return out.OfferOut(
        id=row.id,
        name=row.name,
        width=show.length(row.width),
        margin=show.length(row.margin),
        usable=show.maybe(usable(one.offered) if one.offered is not None else None),
        price=row.price,
        price_unit=row.price_unit,
        price_text=_price(row.price, row.price_unit),
        warp=row.warp,
        weft=row.weft,
        step=show.length(row.step),
        least=show.length(row.least),
        stock=show.maybe(row.stock),
        shop_number=row.shop_number,
        same=row.same,
        fibre=row.blend[0][0] if len(row.blend) == 1 else "",
        **_result(show, one),
    )


def _own(show: Presenter, now: Standing, one: OfferStanding) -> out.OfferOut:
    cloth, offered = now.cloth.row, one.offered
    assert offered is not None and one.problem is not None
    return out.OfferOut(
        id=None,
        name=cloth.name or "this cloth",
        width=show.length(offered.width),
        margin=show.length(offered.margin),
        usable=show.length(one.problem.width),
        price=cloth.price,
        price_unit=cloth.price_unit,
        price_text=_price(cloth.price, cloth.price_unit),
        warp=None,
        weft=None,
        step=show.length(offered.step),
        least=show.length(0.0),
        stock=None,
        shop_number="",
        same=True,
        fibre="",
        **_result(show, one),
    )


def shop_out(show: Presenter, shop: str, quotes: Sequence[Quote], added: set[str]) -> out.ShopOut:
    """The shop's list."""
    return out.ShopOut(shop=shop, stand_in=True, quotes=[_quote(show, q, q.number in added) for q in quotes])


def _quote(show: Presenter, quote: Quote, added: bool) -> out.QuoteOut:
    metric = show.system == "metric"
    return out.QuoteOut(
        number=quote.number,
        name=quote.name,
        made_of=blend_text(quote.make),
        width=show.length(quote.width),
        price=quote.price if metric else round(quote.price * MM_PER_YARD / 1000.0, 2),
        price_unit="m" if metric else "yd",
        step=show.length(quote.step),
        least=show.length(quote.least),
        stock=show.length(quote.stock),
        added=added,
    )


# -- together


def together_out(show: Presenter, found: TogetherStanding, trials: TrialsStanding) -> out.TogetherOut:
    """What laying several garments together saves."""
    saving = found.saving
    return out.TogetherOut(
        uses=[_sharer(show, member) for member in found.members],
        apart=show.figure(found.apart),
        together=show.figure(found.together),
        saved=show.figure(saving.length if saving else None),
        saved_money=show.figure(saving.money if saving else None),
        saves=saving is not None and saving.worth,
        lay=small_out(show, found.lay),
        told=found.told,
        trials=trials_out(trials),
    )


def _sharer(show: Presenter, member: Member) -> out.SharerOut:
    return out.SharerOut(
        use_id=member.now.use.id,
        project_id=member.now.garment.id,
        name=member.name,
        same_cloth=member.same_cloth,
        chosen=member.chosen,
        why_not=member.why_not,
        alone=show.figure(member.alone),
    )


# -- will it do


def nothing_chosen(trials: TrialsStanding) -> out.WillItDoOut:
    """Before a cloth was chosen."""
    return out.WillItDoOut(
        cloth_id=None,
        cloth_name="",
        headline="Will a piece from the cupboard do?",
        does=None,
        needs=None,
        over=None,
        lay=None,
        helps=[],
        hints=[],
        warnings=[],
        trials=trials_out(trials),
    )


def will_it_do_out(show: Presenter, found: WillItDo, trials: TrialsStanding) -> out.WillItDoOut:
    """Whether a cloth of the cupboard will do, and what would help."""
    return out.WillItDoOut(
        cloth_id=found.cloth.id,
        cloth_name=found.cloth.name or "This cloth",
        headline=found.headline,
        does=found.does,
        there=show.figure(found.there),
        needs=show.figure(found.needs),
        over=show.figure(found.over),
        lay=small_out(show, found.lay),
        helps=[_help(show, one) for one in found.helps],
        hints=list(found.hints),
        warnings=list(found.warnings),
        trials=trials_out(trials),
    )


def _help(show: Presenter, one: HelpTried) -> out.HelpOut:
    return out.HelpOut(
        kind=one.help.kind,
        name=one.help.name,
        costs=one.help.costs,
        state=one.state,
        told=one.told,
        lay=small_out(show, one.lay),
    )


# -- envelope


def envelope_out(show: Presenter, found: EnvelopeStanding) -> out.EnvelopeOut:
    """The envelope's chart, and what it says."""
    typed, reading = found.typed, found.reading
    converted = reading.converted
    return out.EnvelopeOut(
        more_told=more_told(),
        views=[
            out.ViewOut(
                name=v["name"],
                rows=[
                    out.RowOfChartOut(
                        width=_range(show, r["width"]),
                        nap=r.get("nap", ""),
                        lengths=[show.chart(x) for x in r["lengths"]],
                    )
                    for r in v["rows"]
                ],
            )
            for v in typed["views"]
        ],
        sizes=[
            out.SizeOut(name=s["name"], body=_range(show, s["body"]), finished=show.maybe(s["finished"]))
            for s in typed["sizes"]
        ],
        measure=typed["measure"],
        mine=show.maybe(typed["mine"]),
        fit=typed["fit"],
        view=typed["view"],
        size=typed["size"],
        to_width=show.maybe(typed["to_width"]),
        sleeves_in_one=typed["sleeves_in_one"],
        chosen_size=reading.size,
        size_told=reading.size_told,
        ease_told=reading.ease_told,
        row=reading.row,
        column=reading.column,
        printed=show.maybe(reading.printed),
        converted=show.maybe(converted.length if converted else None),
        more=show.maybe(converted.more if converted and converted.more else None),
        answer=show.figure(reading.answer),
        washed=show.figure(reading.washed),
        headline=envelope_headline(reading),
        told=[out.EnvelopeToldOut(text=text, look=look) for text, look in reading.told],
        faults=list(reading.faults),
        compared=found.compared,
    )


def _range(show: Presenter, typed: Any) -> out.RangeOut | None:
    """A length or a range as it was typed."""
    ends = ends_of(typed)
    if ends is None:
        return None
    low, high = ends
    text = show.length(low).text if high == low else range_text(low, high, show.system)
    return out.RangeOut(mm=low, to=None if high == low else high, text=text)


# -- strips


def strips_out(show: Presenter, found: StripsStanding) -> out.StripsOut:
    """Gathered strips and bias tape."""
    typed, tape = found.typed, found.tape
    return out.StripsOut(
        edge=show.maybe(typed["edge"]),
        fullness=typed["fullness"],
        depth=show.maybe(typed["depth"]),
        width=show.maybe(found.width),
        hem=show.length(typed["hem"]),
        seam=show.length(typed["seam"]),
        ring=typed["ring"],
        ways=[
            _way(show, way, typed["fullness"], k == 0, _is_planned(found, way.key)) for k, way in enumerate(found.ways)
        ],
        headline=ruffles.headline(found.ways),
        fault=found.fault,
        long=show.maybe(typed["long"]),
        wide=show.maybe(typed["wide"]),
        tape=show.maybe(typed["tape"]),
        tape_seam=show.length(typed["tape_seam"]),
        cut_strips=show.figure(tape.strips) if tape else None,
        joins=tape.joins if tape else 0,
        continuous=show.figure(tape.continuous) if tape else None,
        rounds=tape.rounds if tape else 0,
        slants=[out.SlantOut(x0=a, y0=b, x1=c, y1=d) for a, b, c, d in found.slants],
        tape_told=bias.compared(tape) if tape else "",
        tape_fault=found.tape_fault,
        tape_planned=_is_planned(found, "tape"),
        told=strips_told(found),
    )


def _is_planned(found: StripsStanding, what: What) -> out.Planned:
    there = found.pieces.get(what)
    return "no" if there is None else "yes" if there.as_typed else "otherwise"


def _way(show: Presenter, way: ruffles.Way, wished: float, least: bool, planned: out.Planned) -> out.StripWayOut:
    return out.StripWayOut(
        key=way.key,
        name=way.name,
        strips=way.strips,
        each=show.length(way.each),
        joined=show.surely(way.joined),
        fullness=show.surely(way.fullness),
        cloth=show.surely(way.cloth),
        deep=show.length(way.deep),
        other_fullness=ruffles.other_fullness(way, wished),
        least=least,
        planned=planned,
    )


# -- conversions

ROUNDED = {
    "exact": "exactly",
    "up": "rounded up, so that it is enough",
    "nearest": "to the nearest mark",
}


def convert_out(show: Presenter, mm: float | None, weights: Sequence[tuple[str, str]] = ()) -> out.ConvertOut:
    """A length or a weight in every unit, and the fractions of a yard."""
    return out.ConvertOut(
        spoken=[_spoken(show, one) for one in (spoken(mm) if mm is not None else ())],
        weights=[out.WeightOut(unit=unit, text=text) for unit, text in weights],
        table=[_fraction(row) for row in yard_table()],
        source=f"{YARD.name}: {YARD.note}",
    )


def _spoken(show: Presenter, one: Spoken) -> out.SpokenOut:
    return out.SpokenOut(unit=one.unit, text=one.text, rounded=ROUNDED[one.rounded], figure=show.surely(one.figure))


def _fraction(row: FractionRow) -> out.FractionOut:
    return out.FractionOut(
        yards=f"{fraction_text(float(row.fraction), row.fraction.denominator)} yd",
        inches=f"{fraction_text(float(row.inches), row.inches.denominator)} in",
        centimetres=row.centimetres.text,
        rounded=ROUNDED[row.centimetres.rounded],
    )


# -- the list


def list_out(show: Presenter, items: Sequence[Item]) -> out.ListOut:
    """Everything that must be in the house before the first cut."""
    left = sum(not item.have for item in items)
    return out.ListOut(
        items=[_item(show, item) for item in items],
        kinds=[out.KindOut(value=k, label=label, pretreat=told) for k, (label, told) in PRETREAT.items()],
        headline="Everything is in the house" if not left else f"{left} {'thing' if left == 1 else 'things'} to bring",
    )


def _item(show: Presenter, item: Item) -> out.ItemOut:
    return out.ItemOut(
        id=item.id,
        kind=item.kind,
        kind_label=item.label,
        name=item.name,
        amount=item.amount,
        pretreat=show.told(item.pretreat),
        colour=item.colour,
        have=item.have,
        enough=item.enough,
        own=item.own,
        figure=show.figure(item.figure),
    )
