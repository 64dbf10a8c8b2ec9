"""What Lay sends and is asked."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ..plan.schemas import DrawnOut
from ..shared.entries import Key, LengthIn, Number
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point, UseQuery


class JobOut(Out):
    id: int
    use_id: int
    state: Literal["waiting", "running", "done", "cancelled", "failed"]
    seconds: float
    asked_seconds: float
    progress: list[tuple[float, float]] = Field(description="(seconds, best length in mm) each time it got shorter")
    length: LengthOut | None
    bound: LengthOut | None
    steps: int
    error: str


class ShapeOut(Out):
    key: str
    piece: str
    copy_number: int
    layers: int
    turn: int
    mirrored: bool
    outline: list[Point]
    tail: Point
    head: Point
    edge: str
    tail_distance: LengthOut
    head_distance: LengthOut
    tail_figure: FigureOut = Field(description="the distance with its working")
    head_figure: FigureOut
    name: str = Field(description="the piece and which of its copies")
    lies: Literal["straight", "cross", "bias"]
    lies_told: str = Field(description="what the two distances say when it is pinned right")
    from_end: str
    from_what: Literal["cut end", "fold"]
    marks: list[DrawnOut] = Field(description="notches, points, darts and lines, where they lie")
    pinned: str = Field(description="the placement it is cut by, the same in both views")
    section: int


class KeptOffOut(Out):
    outline: list[Point]
    under: bool = Field(description="on the lower layer")


class GroundOut(Out):
    low: float
    high: float
    layers: int
    under: bool = Field(description="only the lower layer is there")


class LineOut(Out):
    kind: Literal["near selvage", "far selvage", "fold", "lower edge", "meeting line", "cut", "crease"]
    start: Point
    end: Point


class StretchOut(Out):
    """A stretch of the table with one fold, mm along and across."""

    section: int
    fold: str
    label: str
    start: float
    end: float
    low: float
    high: float
    margins: tuple[float, float]
    grounds: list[GroundOut]
    lines: list[LineOut]


class DrawingOut(Out):
    view: Literal["pinned", "opened"]
    length: float
    low: float
    high: float
    folded: bool
    stretches: list[StretchOut]
    shapes: list[ShapeOut]
    kept_off: list[KeptOffOut] = Field(description="what was laid around, as it lies in this view")


class FoldingOut(Out):
    section: int
    fold: str
    label: str
    start: LengthOut
    end: LengthOut
    steps: list[str]


class AlternativeOut(Out):
    lay_id: int
    fold: str
    label: str
    length: LengthOut
    cuts: int
    unfoldings: int = Field(description="how often the cloth is folded anew while cutting")
    chosen: bool
    stretches: list[StretchOut]
    long: float = Field(description="how long the picture is, mm")
    outlines: list[list[Point]]
    low: float
    high: float


class RefusedOut(Out):
    fold: str
    label: str
    why: str


class LayOut(Out):
    lay_id: int
    fold: str
    fold_label: str
    length: LengthOut
    bound: LengthOut
    utilisation: float
    length_figure: FigureOut
    bound_figure: FigureOut
    used_figure: FigureOut
    stale: list[str]
    margins: tuple[float, float]
    pinned: DrawingOut
    opened: DrawingOut
    foldings: list[FoldingOut] = Field(description="how the cloth is folded for it, stretch by stretch")
    alternatives: list[AlternativeOut]
    refused: list[RefusedOut]
    seed: int
    steps: int


class MaybeLayOut(Out):
    lay: LayOut | None
    missing: str


class JobPath(BaseModel):
    job_id: int = Field(ge=1, le=2**31)


class LayIn(In):
    seconds: int | None = Field(default=None, ge=1, le=120, strict=True)
    seed: int = Field(default=1, ge=0, le=2**31, strict=True)


class ChooseIn(In):
    lay_id: Number


class FileQuery(UseQuery):
    view: Literal["pinned", "opened"] = "pinned"


class LayWishes(In):
    """Any of the wishes for laying; what is left out stays."""

    gap: LengthIn | None = None
    folds: list[Key] | None = Field(default=None, max_length=6)
    turn_on_bars: bool | None = Field(None, strict=True, description="pieces may be turned on bars not balanced")
    sides: Literal["together", "out"] | None = Field(None, description="which side of folded cloth looks out")
    lay_seconds: int | None = Field(default=None, ge=1, le=120, strict=True)
