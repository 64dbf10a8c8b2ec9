"""Models of what is sent. Those of what is asked stand beside the routes that take them."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..core.working import SourceKind

Point = tuple[float, float]


class In(BaseModel):
    """Whatever is asked: an unknown key is a mistake, said so."""

    model_config = ConfigDict(extra="forbid")


class FieldFault(BaseModel):
    path: str = Field(description="which entry, such as width_readings.1; empty for the whole")
    message: str


class ErrorOut(BaseModel):
    """The one shape of every error."""

    code: str
    message: str = Field(description="a sentence for the person at the screen")
    fields: list[FieldFault] = []


class LengthOut(BaseModel):
    mm: float
    text: str = Field(description="in the person's units, ready to be typed again")


class InputOut(BaseModel):
    name: str
    text: str


class StepOut(BaseModel):
    label: str
    formula: str
    inputs: list[InputOut]
    result: str


class SourceOut(BaseModel):
    kind: SourceKind
    name: str
    note: str


class FigureOut(BaseModel):
    """A figure whole: number and unit for reading, range, working, sources."""

    value: float
    number: str
    unit: str
    text: str
    low: str | None
    high: str | None
    sure: str | None = Field(description="half the range, such as “± 0.4 %”")
    note: str
    steps: list[StepOut]
    sources: list[SourceOut]


class BarOut(BaseModel):
    width: float
    colour: str


class ClothOut(BaseModel):
    name: str
    kind: str
    width_readings: list[LengthOut]
    margin_low: LengthOut
    margin_high: LengthOut
    in_hand: LengthOut | None
    mass: float | None
    price: float | None
    price_unit: Literal["m", "yd"]
    one_way: bool
    depth: str
    ground: str
    bars_along: list[BarOut]
    bars_across: list[BarOut]


class StationOut(BaseModel):
    along: LengthOut
    left: LengthOut
    right: LengthOut


class PieceOut(BaseModel):
    id: int
    name: str
    outline: list[Point]
    cut: list[Point] = Field(description="the cut line, seam allowance added")
    arrow: list[Point]
    size: str
    copies: int
    pair: bool
    on_fold: bool
    grain: str
    one_way: bool
    seam: LengthOut
    stations: list[StationOut]
    smooth: bool
    fault: str = ""


class PairOut(BaseModel):
    before: LengthOut
    after: LengthOut | None


class KnownOut(BaseModel):
    basis: Literal["swatch", "range", "none"]
    figure: FigureOut | None
    plan: FigureOut | None
    missing: str


class ShrinkOut(BaseModel):
    warp: list[PairOut]
    weft: list[PairOut]
    graduation: LengthOut
    warp_known: KnownOut
    weft_known: KnownOut
    steps: list[str]
    cautions: list[str]
    least_swatch: LengthOut = Field(description="the marked distance that is sure to 1 %")


class StageOut(BaseModel):
    name: str
    state: Literal["empty", "begun", "done", "look-again", "not-built"]
    why: str


class WarningOut(BaseModel):
    stage: str
    level: Literal["look", "spoil"]
    text: str


class TallyEntryOut(BaseModel):
    key: str
    label: str
    figure: FigureOut | None
    missing: str


class LineOut(BaseModel):
    name: str
    adds: LengthOut


class PurchaseOut(BaseModel):
    to_buy: FigureOut
    lines: list[LineOut]
    rule_of_thumb: FigureOut
    spare: FigureOut
    cost: FigureOut | None
    in_hand_short: FigureOut | None


class WishesOut(BaseModel):
    gap: LengthOut
    folds: list[str]
    lay_seconds: float
    ends: LengthOut
    spare: LengthOut
    shop_step: LengthOut


class JobOut(BaseModel):
    id: int
    project_id: int
    state: Literal["waiting", "running", "done", "cancelled", "failed"]
    seconds: float
    asked_seconds: float
    progress: list[tuple[float, float]] = Field(description="(seconds, best length in mm) each time it got shorter")
    length: LengthOut | None
    bound: LengthOut | None
    steps: int
    error: str


class ProjectOut(BaseModel):
    id: int
    name: str
    note: str
    wash: str
    dry: str
    cloth: ClothOut
    wishes: WishesOut
    pieces: list[PieceOut]
    shrink: ShrinkOut
    stages: list[StageOut]
    tally: list[TallyEntryOut]
    warnings: list[WarningOut]
    purchase: PurchaseOut | None
    job: JobOut | None
    next_step: str


class ProjectLineOut(BaseModel):
    id: int
    name: str
    note: str
    cloth: ClothOut
    stages: list[StageOut]
    pieces: int
    to_buy: str
    next_step: str


class ProjectsOut(BaseModel):
    projects: list[ProjectLineOut]


class ShapeOut(BaseModel):
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
    from_end: str


class DrawingOut(BaseModel):
    view: Literal["pinned", "opened"]
    length: float
    low: float
    high: float
    fold_at: float | None
    shapes: list[ShapeOut]


class AlternativeOut(BaseModel):
    lay_id: int
    fold: str
    label: str
    length: LengthOut
    cuts: int
    chosen: bool
    outlines: list[list[Point]]
    low: float
    high: float


class RefusedOut(BaseModel):
    fold: str
    label: str
    why: str


class LayOut(BaseModel):
    lay_id: int
    fold: str
    fold_label: str
    length: LengthOut
    bound: LengthOut
    utilisation: float
    stale: list[str]
    margins: tuple[float, float]
    pinned: DrawingOut
    opened: DrawingOut
    alternatives: list[AlternativeOut]
    refused: list[RefusedOut]
    seed: int
    steps: int


class MaybeLayOut(BaseModel):
    lay: LayOut | None
    missing: str


class SettingsOut(BaseModel):
    system: Literal["metric", "imperial"]
    graduation: LengthOut


class ChoiceOut(BaseModel):
    value: str
    label: str


class ChoicesOut(BaseModel):
    kinds: list[ChoiceOut]
    washes: list[ChoiceOut]
    dries: list[ChoiceOut]
    grains: list[ChoiceOut]
    folds: list[ChoiceOut]
    steps: list[ChoiceOut]


class OutlineOut(BaseModel):
    outline: list[Point]
    cut: list[Point]
    arrow: list[Point]
    size: str


class NotReadOut(BaseModel):
    what: str
    why: str


class ImportOut(BaseModel):
    added: list[str]
    not_read: list[NotReadOut]
    project: ProjectOut


class LogLineOut(BaseModel):
    id: int
    at: datetime
    stage: str
    what: str
    detail: dict[str, Any]


class LogOut(BaseModel):
    entries: list[LogLineOut]


class HealthOut(BaseModel):
    name: str
    version: str


class ProjectPath(BaseModel):
    project_id: int = Field(ge=1, le=2**31)


class PiecePath(BaseModel):
    piece_id: int = Field(ge=1, le=2**31)


class JobPath(BaseModel):
    job_id: int = Field(ge=1, le=2**31)
