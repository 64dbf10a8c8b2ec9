"""What Buy sends and is asked."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..shared.entries import (
    AllowanceIn,
    BodyIn,
    BodyRangeIn,
    ChartLengthIn,
    Key,
    LengthIn,
    Name,
    Number,
    NumberIn,
    Text,
    WidthIn,
    WidthRangeIn,
    YardageIn,
)
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point, ProjectPath, UseQuery


class TrialsOut(Out):
    """Lays that are tried on the side for one part of Buy."""

    what: str
    job_id: int | None
    state: Literal["idle", "waiting", "running"]
    done: int
    of: int
    lacking: int = Field(description="how many are still to be tried")
    asks: str = Field(description="stands for the very lays that are lacking; empty: none")
    under_way: bool = Field(description="the job that is under way tries all that is lacking")
    error: str


class SmallLayOut(Out):
    """A lay small: the open cloth and every piece on it, mm."""

    length: LengthOut
    figure: FigureOut = Field(description="its length with its working")
    width: float
    fold: str
    outlines: list[list[Point]]


class OfferOut(Out):
    """One row of the table; ``id`` None is the project's own cloth."""

    id: int | None
    name: str
    width: LengthOut
    margin: LengthOut
    usable: LengthOut | None
    price: float | None
    price_unit: str
    price_text: str
    warp: float | None
    weft: float | None
    shrinkage: str
    step: LengthOut
    least: LengthOut
    stock: LengthOut | None
    shop_number: str
    same: bool = Field(description="this cloth in another width")
    fibre: str = Field(description="what it is made of, where that is one fibre and not this cloth's")
    warp_figure: FigureOut | None = Field(description="the shrinkage it is planned with")
    weft_figure: FigureOut | None
    lay: SmallLayOut | None
    to_buy: FigureOut | None
    cost: FigureOut | None
    waste: FigureOut | None
    lacking: FigureOut | None = Field(description="how much more than the shop has")
    cheapest: bool
    least_waste: bool
    told: str = Field(description="why there is no lay, or nothing")


class OffersOut(Out):
    offers: list[OfferOut]
    headline: str
    missing: str
    trials: TrialsOut


class QuoteOut(Out):
    """A cloth on the shop's price list."""

    number: str
    name: str
    made_of: str
    width: LengthOut
    price: float
    price_unit: str
    step: LengthOut
    least: LengthOut
    stock: LengthOut
    added: bool


class ShopOut(Out):
    shop: str
    stand_in: bool
    quotes: list[QuoteOut]


class SharerOut(Out):
    use_id: int
    project_id: int
    name: str
    same_cloth: bool
    chosen: bool
    why_not: str
    alone: FigureOut | None = Field(description="what it would buy alone of this cloth")


class TogetherOut(Out):
    """Several garments from one cloth."""

    uses: list[SharerOut]
    apart: FigureOut | None
    together: FigureOut | None
    saved: FigureOut | None
    saved_money: FigureOut | None
    saves: bool = Field(description="whether it saves anything")
    lay: SmallLayOut | None
    told: str
    trials: TrialsOut


class HelpOut(Out):
    kind: str
    name: str
    costs: str
    state: Literal["does", "short", "worse", "waiting"]
    told: str
    lay: SmallLayOut | None


class WillItDoOut(Out):
    """Whether a cloth of the cupboard will do."""

    cloth_id: int | None
    cloth_name: str
    headline: str
    does: bool | None
    there: FigureOut | None = Field(default=None, description="what is there after washing and straightening")
    needs: FigureOut | None
    over: FigureOut | None = Field(description="left over when it does, or how far short (below nothing)")
    lay: SmallLayOut | None
    helps: list[HelpOut]
    hints: list[str]
    warnings: list[str]
    trials: TrialsOut


class RangeOut(Out):
    """One length, or the two ends of a range."""

    mm: float
    to: float | None = Field(description="the upper end in mm; null: one length")
    text: str


class RowOfChartOut(Out):
    width: RangeOut | None
    nap: Literal["", "with", "without"]
    lengths: list[LengthOut | None]


class ViewOut(Out):
    name: str
    rows: list[RowOfChartOut]


class SizeOut(Out):
    name: str
    body: RangeOut | None
    finished: LengthOut | None


class EnvelopeToldOut(Out):
    text: str
    look: bool = Field(description="it asks for another look")


class EnvelopeOut(Out):
    more_told: str = Field(description="when the conversion table asks for more")
    views: list[ViewOut]
    sizes: list[SizeOut]
    measure: str
    mine: LengthOut | None
    fit: Literal["close", "loose"]
    view: int
    size: str
    to_width: LengthOut | None
    sleeves_in_one: bool
    chosen_size: str
    size_told: str
    ease_told: str
    row: int | None
    column: int | None
    printed: LengthOut | None
    converted: LengthOut | None
    more: LengthOut | None
    answer: FigureOut | None = Field(description="for this width, as the chart means it: cloth that does not shrink")
    washed: FigureOut | None = Field(description="the same divided by what is left of the cloth after washing")
    headline: str
    told: list[EnvelopeToldOut]
    faults: list[str]
    compared: str


#: Whether strips are pieces of the garment: not yet, as they are typed now, or otherwise.
Planned = Literal["no", "yes", "otherwise"]


class StripWayOut(Out):
    key: Literal["across", "along"]
    name: str
    strips: int
    each: LengthOut
    joined: FigureOut
    fullness: FigureOut
    cloth: FigureOut
    deep: LengthOut = Field(description="depth of each strip as cut")
    other_fullness: bool = Field(description="gathered otherwise than wished")
    least: bool
    planned: Planned


class SlantOut(Out):
    """Where the rectangle is cut, mm from its corner."""

    x0: float
    y0: float
    x1: float
    y1: float


class StripsOut(Out):
    edge: LengthOut | None
    fullness: float
    depth: LengthOut | None
    width: LengthOut | None
    hem: LengthOut
    seam: LengthOut
    ring: bool
    ways: list[StripWayOut]
    headline: str
    fault: str
    long: LengthOut | None
    wide: LengthOut | None
    tape: LengthOut | None
    tape_seam: LengthOut
    cut_strips: FigureOut | None
    joins: int
    continuous: FigureOut | None
    rounds: int
    slants: list[SlantOut]
    tape_told: str
    tape_fault: str
    tape_planned: Planned
    told: str = Field(description="in which state of the cloth these lengths are, and whether they are bought")


class SpokenOut(Out):
    unit: str
    text: str
    rounded: str
    figure: FigureOut


class WeightOut(Out):
    unit: str
    text: str


class FractionOut(Out):
    yards: str
    inches: str
    centimetres: str
    rounded: str


class ConvertOut(Out):
    spoken: list[SpokenOut]
    weights: list[WeightOut] = Field(description="a weight in every unit, to the nearest; empty for a length")
    table: list[FractionOut]
    source: str


class ItemOut(Out):
    id: str
    kind: str
    kind_label: str
    name: str
    amount: str
    pretreat: str
    colour: str
    have: bool
    enough: bool = Field(description="so much is in the house that nothing has to be bought")
    own: bool
    figure: FigureOut | None


class KindOut(Out):
    value: str
    label: str
    pretreat: str


class ListOut(Out):
    items: list[ItemOut]
    kinds: list[KindOut]
    headline: str


class OfferPath(ProjectPath):
    offer_id: int = Field(ge=1, le=2**31)


class ItemPath(ProjectPath):
    item_id: str = Field(max_length=40)


class LineOut(Out):
    key: str
    name: str
    adds: LengthOut
    figure: FigureOut


class ThumbOut(Out):
    """A rule of thumb beside what was worked out."""

    name: str
    figure: FigureOut
    off: LengthOut = Field(description="it less what was worked out; below nothing: too little")
    verdict: Literal["right", "more", "short"]
    told: str


class PurchaseOut(Out):
    to_buy: FigureOut
    lines: list[LineOut]
    rule_of_thumb: FigureOut
    adding_short: FigureOut = Field(description="by how much adding the shrinkage falls short of dividing")
    thumbs: list[ThumbOut]
    spare: FigureOut
    least: FigureOut = Field(description="what would be bought if the lay were as short as its bound")
    proved: bool = Field(description="no shorter lay would change what the shop cuts")
    unmeasured: list[str] = Field(description="rules of the cloth whose cost was not measured yet")
    cost: FigureOut | None
    still: FigureOut = Field(description="what is still to be bought: nothing where the length in hand will do")
    told: str = Field(description="what is to be bought beside what is in hand, as a phrase")
    in_hand_short: FigureOut | None
    in_hand_does: bool | None = Field(description="whether the length in hand will do; null without one")


class EdgeWayOut(Out):
    key: str
    name: str
    loss: LengthOut
    why: str
    steps: list[str]
    caution: str


class EdgeOut(Out):
    """How the first edge is best made on this cloth, and why not the other ways."""

    way: str
    why: str
    ways: list[EdgeWayOut]


class PurchaseChange(In):
    """Any of the wishes for buying; what is left out stays. Choosing ``edge_way`` sets the ends it takes."""

    ends: LengthIn | None = None
    spare: LengthIn | None = None
    shop_step: LengthIn | None = None
    edge_way: Literal["", "tear", "thread", "bar", "shears", "square"] | None = None
    bought_extra: YardageIn | None = None
    extra_why: Text | None = None


What = Literal["extras", "offers", "together", "cupboard", "again"]


class TrialsIn(In):
    what: What
    cloth_id: Number | None = None


class TrialsQuery(UseQuery):
    what: What
    cloth_id: int | None = Field(default=None, ge=1, le=2**31)


class ConvertQuery(In):
    length: str = Field(max_length=60, description="a length, or a weight with its unit")


class OfferChange(In):
    """Any of an offer's entries; what is left out stays, and null clears what may be unknown."""

    name: Name | None = None
    width: LengthIn | None = None
    margin: LengthIn | None = None
    price: NumberIn | None = None
    price_unit: Literal["m", "yd"] | None = None
    warp: NumberIn | None = None
    weft: NumberIn | None = None
    step: LengthIn | None = None
    least: YardageIn | None = None
    stock: YardageIn | None = None
    same: bool | None = Field(default=None, description="it is this cloth in another width, so that its swatch counts")
    fibre: Key | None = Field(default=None, description="what it is made of; empty: of this cloth's fibres")


class NewOffer(OfferChange):
    """An offer by its name and width, or one of the shop's list by its number."""

    shop_number: str = Field(default="", max_length=20)


class TogetherIn(In):
    uses: list[Number] = Field(max_length=20)


class ClothQuery(UseQuery):
    cloth_id: int | None = Field(default=None, ge=1, le=2**31)


class ChartRowIn(In):
    width: WidthRangeIn | None = None
    nap: Literal["", "with", "without"] = Field(default="", description="printed for cloth with or without nap")
    lengths: list[ChartLengthIn | None] = Field(default=[], max_length=20)


class ViewIn(In):
    name: Text = ""
    rows: list[ChartRowIn] = Field(default=[], max_length=12)


class SizeIn(In):
    name: Text = ""
    body: BodyRangeIn | None = None
    finished: BodyIn | None = None


class EnvelopeIn(In):
    """The envelope as typed; what is left out stays."""

    views: list[ViewIn] | None = Field(default=None, max_length=8)
    sizes: list[SizeIn] | None = Field(default=None, max_length=20)
    measure: Text | None = None
    mine: BodyIn | None = None
    fit: Literal["close", "loose"] | None = None
    view: int | None = Field(default=None, ge=0, le=7, strict=True)
    size: Text | None = None
    to_width: WidthIn | None = None
    sleeves_in_one: bool | None = None


class StripsIn(In):
    """A gathered strip and a rectangle for bias tape; what is left out stays, null clears."""

    edge: LengthIn | None = None
    fullness: NumberIn | None = None
    depth: LengthIn | None = None
    hem: AllowanceIn | None = None
    seam: AllowanceIn | None = None
    ring: bool | None = None
    long: LengthIn | None = None
    wide: LengthIn | None = None
    tape: LengthIn | None = None
    tape_seam: AllowanceIn | None = None


class StripsPieceIn(In):
    """Which strips become pieces of the garment: joined across, in one along, or the rectangle for tape."""

    what: Literal["across", "along", "tape"]


class ItemIn(In):
    kind: Key
    name: Name
    amount: Text = ""


class HaveIn(In):
    have: bool
