"""What Cloth and the cupboard send and are asked."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from ..shared.entries import (
    AllowanceIn,
    ClothLengthIn,
    ClothWeightIn,
    Key,
    LengthIn,
    Name,
    Number,
    NumberIn,
    Text,
    WidthIn,
)
from ..shared.schemas import ClothPath, FigureOut, In, LengthOut, Out, Point


class BarOut(Out):
    width: float
    colour: str
    text: str = Field(description="its width in the person's units")


class ShareOut(Out):
    fibre: str
    share: float


class BarsOut(Out):
    """What one direction's bars come to."""

    repeat: LengthOut | None
    repeat_figure: FigureOut | None = Field(description="the repeat with its working")
    axes: list[float] = Field(description="mirror axes within one repeat, mm from the first bar's beginning")
    balanced: bool
    seen: bool
    dominant: BarOut | None
    readings: list[LengthOut] = Field(description="the repeat as it was measured at several places")
    uneven: str = Field(description="how far these differ, and what that means; or nothing")


class StateOut(Out):
    """The cloth in one of its states: what was measured then."""

    id: int = Field(description="the wash that brought it there, 0: as bought")
    name: str
    widths: list[LengthOut]
    length: LengthOut | None


class FlawOut(Out):
    """A place to keep off: from the cut end, from the near selvage, and its size along and across, as it was measured.

    ``drawn``: where it is now, its two corners in mm; ``predicted``: it was not measured in this state.
    """

    x: LengthOut
    y: LengthOut
    w: LengthOut
    h: LengthOut
    what: str
    drawn: list[Point]
    predicted: bool


class WashOut(Out):
    id: int
    at: datetime
    how: str
    grade: int | None
    length_after: LengthOut | None
    width_after: LengthOut | None
    simulated: bool


class ClothOut(Out):
    id: int
    name: str
    blend: list[ShareOut]
    made_of: str
    blend_note: str
    weave: str
    finish: str
    colouring: str
    width_readings: list[LengthOut]
    width_note: str
    margin_low: LengthOut
    margin_high: LengthOut
    margin_hint: str
    in_hand: LengthOut | None
    mass: float | None = Field(description="g/m²")
    mass_text: str = Field(description="in the person's unit, ready to be typed again")
    mass_unit: str
    price: float | None
    price_unit: Literal["m", "yd"]
    direction: str
    pile: str
    pile_why: str
    pile_note: str
    one_way: bool
    wales: float | None
    wale_note: str
    face: str
    face_mark: str
    reversible: bool
    depth: str
    rub_grade: int | None
    dye_note: str
    washed_alone: str
    ground: str
    bars_along: list[BarOut]
    bars_across: list[BarOut]
    along: BarsOut
    across: BarsOut
    bars_note: list[str]
    flaws: list[FlawOut]
    border: Literal["", "low", "high"] = Field(description="the selvage a border lies along")
    border_kind: Literal["edge", "embroidery", "print", "free"]
    border_deep: LengthOut
    shop_fold: LengthOut | None
    shop_fold_now: LengthOut | None = Field(description="where the faded fold is about now, from the near selvage")
    bars_now: Point = Field(description="what is left of the bars along and across since they were measured, shares")
    answers: dict[str, str]
    advice: list[str]
    style_number: str
    place: str
    treated: bool
    state: int = Field(description="the state it is in, by the wash that brought it there, 0: as bought")
    states: list[StateOut]
    width_now: FigureOut | None = Field(description="selvage to selvage as it is, measured or predicted")
    length_now: FigureOut | None = Field(description="its length as it is, measured or predicted")
    washes: list[WashOut]
    photo: str | None = Field(description="the address of its photo")


class CupboardLineOut(Out):
    """A cloth in the cupboard, with the projects that use it."""

    cloth: ClothOut
    left: str = Field(description="what is there of it, in a few words")
    shrinkage: str
    projects: list[str]


class CupboardOut(Out):
    cloths: list[CupboardLineOut]
    of: int = Field(description="how many there are, found or not")


class WashPath(ClothPath):
    wash_id: int = Field(ge=1, le=2**31)


MOST_FLAWS = 100


class BarIn(In):
    width: LengthIn
    colour: str = Field(pattern=r"^#[0-9A-Fa-f]{6}$")


class ShareIn(In):
    fibre: Key
    share: NumberIn


class FlawIn(In):
    """A place to keep off: lower left corner from the cut end and the near selvage, and its size."""

    x: LengthIn
    y: LengthIn
    w: LengthIn
    h: LengthIn
    what: Text = "flaw"


class ClothChange(In):
    """Any of a cloth's entries; what is left out stays, and null clears what may be unknown."""

    name: Text | None = None
    blend: list[ShareIn] | None = Field(default=None, max_length=6)
    weave: Key | None = None
    finish: Key | None = None
    colouring: Key | None = None
    width_readings: list[WidthIn] | None = Field(default=None, max_length=20)
    margin_low: AllowanceIn | None = None
    margin_high: AllowanceIn | None = None
    in_hand: ClothLengthIn | None = None
    mass: ClothWeightIn | None = None
    price: NumberIn | None = None
    price_unit: Literal["m", "yd"] | None = None
    direction: Key | None = None
    pile: Key | None = None
    pile_why: Text | None = None
    wales: NumberIn | None = None
    face: Text | None = None
    face_mark: Text | None = None
    reversible: bool | None = None
    depth: Literal["light", "medium", "dark"] | None = None
    rub_grade: int | None = Field(default=None, ge=1, le=5, strict=True)
    ground: str | None = Field(default=None, pattern=r"^#[0-9A-Fa-f]{6}$")
    bars_along: list[BarIn] | None = Field(default=None, max_length=60)
    bars_across: list[BarIn] | None = Field(default=None, max_length=60)
    repeats_along: list[LengthIn] | None = Field(default=None, max_length=20)
    repeats_across: list[LengthIn] | None = Field(default=None, max_length=20)
    flaws: list[FlawIn] | None = Field(default=None, max_length=MOST_FLAWS)
    border: Literal["", "low", "high"] | None = None
    border_kind: Literal["edge", "embroidery", "print", "free"] | None = None
    border_deep: LengthIn | None = None
    shop_fold: LengthIn | None = None
    answers: dict[str, str] | None = Field(default=None, max_length=20)
    style_number: Text | None = None
    place: Text | None = None
    treated: bool | None = None
    state: int | None = Field(
        default=None, ge=0, le=2**31, strict=True, description="of which state widths and length are; 0: as bought"
    )


class NewCloth(In):
    name: Name


class CupboardQuery(In):
    words: str = Field(default="", max_length=120)


class PhotoIn(In):
    data: str = Field(max_length=8_500_000, description="a JPEG, PNG or WebP picture in base64")


class PhotoQuery(In):
    at: int = Field(default=0, ge=0, le=2**53)


class WashIn(In):
    """One wash of the length. With ``stand_in`` the simulated washer makes up the grade and the measures."""

    how: Text = ""
    wash: Text = Field(default="", description="which kind of wash that was, one of those offered for a swatch")
    grade: int | None = Field(default=None, ge=1, le=5, strict=True)
    length_after: ClothLengthIn | None = None
    width_after: WidthIn | None = None
    stand_in: bool = False


class UseIn(In):
    cloth_id: Number
