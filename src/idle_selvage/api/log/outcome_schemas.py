"""What is sent of how a garment came out."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from ..shared.entries import LengthIn, Text
from ..shared.schemas import In, LengthOut, Out, UseQuery

Kind = Literal["fit", "length", "twist", "seam", "pucker", "dye", "warp", "weft", "laying"]
Complaint = Literal["twist", "short", "narrow", "bars", "pucker", "dye"]


class ValueOut(Out):
    """A value as it is told: mm, per cent or a grade."""

    value: float
    text: str


class MeasurableOut(Out):
    """One thing that can be measured, with what is predicted of it now."""

    kind: Kind
    name: str
    how: str
    unit: Literal["length", "percent", "grade"]
    of: str
    number: int | None
    what: str
    predicted: ValueOut | None


class OutcomeOut(Out):
    """One thing that was measured, beside what was predicted of it then."""

    id: int
    kind: Kind
    name: str
    what: str
    measured: ValueOut
    predicted: ValueOut | None
    between: str = Field(description="the range that was predicted, or nothing")
    difference: ValueOut | None
    foreseen: bool | None
    washes: int
    note: str
    at: datetime


class OptionOut(Out):
    value: str
    label: str


class OutcomesOut(Out):
    """How a garment came out."""

    headline: str
    measurable: list[MeasurableOut]
    kept: list[OutcomeOut]
    complaints: list[OptionOut]
    pieces: list[OptionOut]
    seams: list[OptionOut]


class OutcomeIn(In):
    kind: Kind
    number: int | None = Field(None, ge=1, le=2**31, description="of which piece or seam")
    measured: LengthIn | None = Field(None, description="a length")
    grade: int | None = Field(None, ge=0, le=9, strict=True)
    before: LengthIn | None = Field(None, description="a marked distance before the washes")
    after: LengthIn | None = Field(None, description="the same distance after them")
    washes: int = Field(default=0, ge=0, le=1000, strict=True)
    note: Text = Field(default="", max_length=300)


class WhyQuery(UseQuery):
    complaint: Complaint
    number: int | None = Field(None, ge=1, le=2**31, description="of the piece, or of bars and puckers the seam")


class ReasonOut(Out):
    sure: Literal["reckoned", "hinted", "open"]
    told: str
    explains: LengthOut | None
    next_time: str


class WhyOut(Out):
    headline: str
    reasons: list[ReasonOut]


class OutcomePath(BaseModel):
    project_id: int = Field(ge=1, le=2**31)
    outcome_id: int = Field(ge=1, le=2**31)


class ReminderQuery(In):
    days: int = Field(default=28, ge=1, le=730)


class TaughtOut(Out):
    """What one kind teaches: how far off predictions are, on the average and how that scatters."""

    kind: Kind
    name: str
    unit: Literal["length", "percent", "grade"]
    count: int
    foreseen: int
    mean: ValueOut
    spread: ValueOut | None
    told: str
    points: list[TaughtPointOut]


class TaughtPointOut(Out):
    """One measure on the chart."""

    at: datetime
    garment: str
    what: str
    difference: ValueOut
    foreseen: bool


class BoughtOfOut(Out):
    garment: str
    cloth: str
    bought: LengthOut
    needed: LengthOut
    over: LengthOut
    short: bool = Field(description="whether it was too little")
    cost: str


class TeachesOut(Out):
    headline: str
    learned: list[TaughtOut]
    hand: LengthOut | None
    laid: int
    bought: list[BoughtOfOut]
    over_told: str


TaughtOut.model_rebuild()
