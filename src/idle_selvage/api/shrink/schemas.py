"""What Shrink sends and is asked."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...core.shrink.swatch import MOST_WASHES
from ..shared.entries import Key, LengthIn, Number
from ..shared.schemas import ChoiceOut, FigureOut, In, LengthOut, Out, Point


class RowOut(Out):
    """One marked distance: before washing, then after each wash; null where it was not measured."""

    values: list[LengthOut | None]


class KnownOut(Out):
    basis: Literal["swatch", "limit", "history", "range", "raw", "none"]
    figure: FigureOut | None
    plan: FigureOut | None
    missing: str
    told: str = Field(description="what is to be minded about it: how the swatch was washed")


class CycleOut(Out):
    """One wash: change in all, and what this wash alone added, per cent."""

    wash: int
    warp: FigureOut | None
    weft: FigureOut | None
    warp_added: float | None
    weft_added: float | None
    skew: FigureOut | None
    corners: list[Point] = Field(description="the swatch's true shape after this wash, mm; empty when not known")


class TreatStepOut(Out):
    text: str
    materials: list[str]
    caution: str


class SchoolOut(Out):
    value: str
    label: str
    why: str


class AdviceOut(Out):
    """How to treat the cloth, by which school, and why."""

    school: SchoolOut
    chosen: bool
    why: str
    schools: list[SchoolOut] = Field(description="all of them, in the order they are offered")
    changed: list[str]
    forbids: list[str]
    usual: list[str]
    steps: list[TreatStepOut]
    cautions: list[str]


class PastOut(Out):
    cloth: str
    warp: str
    weft: str


class SwatchLineOut(Out):
    id: int
    used: bool
    simulated: bool
    text: str


class ShrinkOut(Out):
    use_id: int
    cloth_id: int
    cloth_name: str
    role: str
    warp: list[RowOut]
    weft: list[RowOut]
    diagonals: list[list[LengthOut | None] | None]
    washes: int
    graduation: LengthOut
    wash: str = Field(description="how the swatch was washed; empty: not written down")
    dry: str
    washes_offered: list[ChoiceOut] = Field(description="how a swatch may have been washed")
    dries_offered: list[ChoiceOut]
    simulated: bool
    before_corners: list[Point]
    cycles: list[CycleOut]
    verdict: Literal["unwashed", "once", "again", "stable", "unsure"]
    verdict_text: str
    warp_known: KnownOut
    weft_known: KnownOut
    past: list[PastOut]
    past_note: str
    advice: AdviceOut
    swatches: list[SwatchLineOut]
    marks_told: str = Field(description="how far apart marks must be")
    too_small: bool = Field(description="whether the marks of this swatch are too near each other")
    how_to_begin: str


class MemberOut(Out):
    """One cloth of a project's set, beside the others."""

    use_id: int
    cloth_id: int
    name: str
    role: str
    role_label: str
    made_of: str
    warp: FigureOut | None
    weft: FigureOut | None
    basis: str
    washed: bool
    treatment: str
    rub: str


class SetOut(Out):
    members: list[MemberOut]
    headline: str
    mismatches: list[str]
    all_washed: str
    wanted: list[str] = Field(description="what still belongs beside the main cloth, from how it was judged by hand")


class SwatchIn(In):
    """A swatch's readings: a row per marked distance, before and then after each wash; null where not measured.

    ``diagonals``: the two diagonals of the marked square, before and after each wash. What is left out stays.
    """

    warp: list[list[LengthIn | None]] | None = Field(default=None, max_length=30)
    weft: list[list[LengthIn | None]] | None = Field(default=None, max_length=30)
    diagonals: list[list[LengthIn | None] | None] | None = Field(default=None, max_length=MOST_WASHES + 1)
    graduation: LengthIn | None = None
    wash: Key | None = None
    dry: Key | None = None


class TreatIn(In):
    school: Key


class UseSwatch(In):
    swatch_id: Number
