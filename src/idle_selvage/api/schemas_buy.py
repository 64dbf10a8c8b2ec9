"""Models of what Buy sends besides the purchase itself."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from .schemas import FigureOut, LengthOut, Point, ProjectPath


class TrialsOut(BaseModel):
    """Lays that are tried on the side for one part of Buy."""

    what: str
    job_id: int | None
    state: Literal["idle", "waiting", "running"]
    done: int
    of: int
    lacking: int = Field(description="how many are still to be tried")
    error: str


class SmallLayOut(BaseModel):
    """A lay small: the open cloth and every piece on it, mm."""

    length: LengthOut
    width: float
    fold: str
    outlines: list[list[Point]]


class OfferOut(BaseModel):
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
    lay: SmallLayOut | None
    to_buy: FigureOut | None
    cost: FigureOut | None
    waste: FigureOut | None
    lacking: LengthOut | None = Field(description="how much more than the shop has")
    cheapest: bool
    least_waste: bool
    told: str = Field(description="why there is no lay, or nothing")


class OffersOut(BaseModel):
    offers: list[OfferOut]
    headline: str
    missing: str
    trials: TrialsOut


class QuoteOut(BaseModel):
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


class ShopOut(BaseModel):
    shop: str
    stand_in: bool
    quotes: list[QuoteOut]


class SharerOut(BaseModel):
    project_id: int
    name: str
    same_cloth: bool
    chosen: bool
    why_not: str
    alone: FigureOut | None = Field(description="what it would buy alone of this cloth")


class TogetherOut(BaseModel):
    """Several garments from one cloth."""

    projects: list[SharerOut]
    apart: FigureOut | None
    together: FigureOut | None
    saved: FigureOut | None
    lay: SmallLayOut | None
    told: str
    trials: TrialsOut


class HelpOut(BaseModel):
    kind: str
    name: str
    costs: str
    state: Literal["does", "short", "worse", "refused", "waiting", "not-needed"]
    told: str
    lay: SmallLayOut | None


class WillItDoOut(BaseModel):
    """Whether a cloth of the cupboard will do."""

    cloth_id: int | None
    cloth_name: str
    headline: str
    does: bool | None
    there: FigureOut | None = Field(default=None, description="what is there after washing and straightening")
    needs: LengthOut | None
    over: LengthOut | None = Field(description="left over when it does, or how far short (below nothing)")
    lay: SmallLayOut | None
    helps: list[HelpOut]
    hints: list[str]
    warnings: list[str]
    trials: TrialsOut


class RowOfChartOut(BaseModel):
    width: LengthOut | None
    lengths: list[LengthOut | None]


class ViewOut(BaseModel):
    name: str
    rows: list[RowOfChartOut]


class SizeOut(BaseModel):
    name: str
    body: LengthOut | None
    finished: LengthOut | None


class EnvelopeOut(BaseModel):
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
    headline: str
    told: list[str]
    faults: list[str]
    compared: str


class StripWayOut(BaseModel):
    key: str
    name: str
    strips: int
    each: LengthOut
    joined: FigureOut
    fullness: FigureOut
    cloth: FigureOut
    least: bool


class StripsOut(BaseModel):
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
    tape_told: str
    tape_fault: str


class SpokenOut(BaseModel):
    unit: str
    text: str
    rounded: str


class FractionOut(BaseModel):
    yards: str
    inches: str
    centimetres: str
    rounded: str


class ConvertOut(BaseModel):
    spoken: list[SpokenOut]
    table: list[FractionOut]
    source: str


class ItemOut(BaseModel):
    id: str
    kind: str
    kind_label: str
    name: str
    amount: str
    pretreat: str
    colour: str
    have: bool
    own: bool
    figure: FigureOut | None


class KindOut(BaseModel):
    value: str
    label: str
    pretreat: str


class ListOut(BaseModel):
    items: list[ItemOut]
    kinds: list[KindOut]
    headline: str


class OfferPath(ProjectPath):
    offer_id: int = Field(ge=1, le=2**31)


class ItemPath(ProjectPath):
    item_id: str = Field(max_length=40)
