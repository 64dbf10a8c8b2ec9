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
    text: str = Field(description="its width in the person's units")


class ShareOut(BaseModel):
    fibre: str
    share: float


class BarsOut(BaseModel):
    """What one direction's bars come to."""

    repeat: LengthOut | None
    axes: list[float] = Field(description="mirror axes within one repeat, mm from the first bar's beginning")
    balanced: bool
    seen: bool
    dominant: BarOut | None


class FlawOut(BaseModel):
    """A place to keep off: from the cut end, from the near selvage, and its size along and across."""

    x: LengthOut
    y: LengthOut
    w: LengthOut
    h: LengthOut
    what: str


class WashOut(BaseModel):
    id: int
    at: datetime
    how: str
    grade: int | None
    length_after: LengthOut | None
    width_after: LengthOut | None
    simulated: bool


class ClothOut(BaseModel):
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
    mass: float | None
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
    shop_fold: LengthOut | None
    answers: dict[str, str]
    advice: list[str]
    style_number: str
    place: str
    treated: bool
    washes: list[WashOut]
    photo: str | None = Field(description="the address of its photo")


class CupboardLineOut(BaseModel):
    """A cloth in the cupboard, with the projects that use it."""

    cloth: ClothOut
    left: str = Field(description="what is there of it, in a few words")
    shrinkage: str
    projects: list[str]


class CupboardOut(BaseModel):
    cloths: list[CupboardLineOut]
    of: int = Field(description="how many there are, found or not")


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
    meets: str
    meets_at: LengthOut
    centred: bool
    hidden: bool
    hem: bool
    stations: list[StationOut]
    smooth: bool
    fault: str = ""
    enlarged: list[Point] = Field(default=[], description="the cut line for raw cloth, when it is shrunk to fit")


class RowOut(BaseModel):
    """One marked distance: before washing, then after each wash; null where it was not measured."""

    values: list[LengthOut | None]


class KnownOut(BaseModel):
    basis: Literal["swatch", "history", "range", "raw", "none"]
    figure: FigureOut | None
    plan: FigureOut | None
    missing: str


class CycleOut(BaseModel):
    """One wash: change in all, and what this wash alone added, per cent."""

    wash: int
    warp: FigureOut | None
    weft: FigureOut | None
    warp_added: float | None
    weft_added: float | None
    skew: FigureOut | None
    corners: list[Point] = Field(description="the swatch's true shape after this wash, mm; empty when not known")


class TreatStepOut(BaseModel):
    text: str
    materials: list[str]
    caution: str


class SchoolOut(BaseModel):
    value: str
    label: str
    why: str


class AdviceOut(BaseModel):
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


class PastOut(BaseModel):
    cloth: str
    warp: str
    weft: str


class SwatchLineOut(BaseModel):
    id: int
    used: bool
    simulated: bool
    text: str


class ShrinkOut(BaseModel):
    cloth_id: int
    cloth_name: str
    role: str
    warp: list[RowOut]
    weft: list[RowOut]
    diagonals: list[list[LengthOut | None] | None]
    washes: int
    graduation: LengthOut
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
    least_swatch: LengthOut = Field(description="the marked distance that is sure to 1 %")
    too_small: LengthOut | None = Field(description="how large it would have to be, when this swatch cannot tell 1 %")


class MemberOut(BaseModel):
    """One cloth of a project's set, beside the others."""

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


class SetOut(BaseModel):
    members: list[MemberOut]
    mismatches: list[str]
    all_washed: str
    wanted: list[str] = Field(description="what still belongs beside the main cloth, from how it was judged by hand")


class LoadTaskOut(BaseModel):
    id: int
    load_id: int
    what: str
    machine: str
    machine_label: str
    minutes: int
    start_at: datetime
    end_at: datetime
    started_at: datetime | None
    finished_at: datetime | None
    late: bool
    rings: bool = Field(description="somebody must come when the time is up; drying can wait for the morning")
    ready: bool = Field(description="what comes before it is done")


class LoadOut(BaseModel):
    id: int
    name: str
    why: str
    kilograms: float
    too_heavy: bool
    cloths: list[str]
    tasks: list[LoadTaskOut]


class WaitingOut(BaseModel):
    """A cloth that is to be treated, or that cannot be planned yet and why."""

    cloth_id: int
    name: str
    project: str
    programme: str
    kilograms: float | None
    missing: str


class LearnedOut(BaseModel):
    what: str
    minutes: float
    times: int


class WashdayOut(BaseModel):
    """What waits to be washed, the loads planned and under way, and what the plan rests on."""

    now: datetime
    waiting: list[WaitingOut]
    loads: list[LoadOut]
    finish_at: datetime | None
    out_of_date: str
    washer_kg: float
    rise: str
    sleep: str
    learned: list[LearnedOut]


class TapeReadingOut(BaseModel):
    id: int
    length: LengthOut


class TapeOut(BaseModel):
    readings: list[TapeReadingOut]
    last: int


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
    key: str
    name: str
    adds: LengthOut
    figure: FigureOut


class ThumbOut(BaseModel):
    """A rule of thumb beside what was worked out."""

    name: str
    figure: FigureOut
    off: LengthOut = Field(description="it less what was worked out; below nothing: too little")
    told: str


class PurchaseOut(BaseModel):
    to_buy: FigureOut
    lines: list[LineOut]
    rule_of_thumb: FigureOut
    thumbs: list[ThumbOut]
    spare: FigureOut
    least: LengthOut = Field(description="what would be bought if the lay were as short as its bound")
    proved: bool = Field(description="no shorter lay would change what the shop cuts")
    unmeasured: list[str] = Field(description="rules of the cloth whose cost was not measured yet")
    cost: FigureOut | None
    in_hand_short: FigureOut | None


class EdgeWayOut(BaseModel):
    key: str
    name: str
    loss: LengthOut
    why: str
    steps: list[str]
    caution: str


class EdgeOut(BaseModel):
    """How the first edge is best made on this cloth, and why not the other ways."""

    way: str
    why: str
    ways: list[EdgeWayOut]


class WishesOut(BaseModel):
    gap: LengthOut
    folds: list[str]
    lay_seconds: float
    ends: LengthOut
    spare: LengthOut
    shop_step: LengthOut
    edge_way: str
    edge: EdgeOut
    bought_extra: LengthOut
    extra_why: str


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
    school: str
    cloth: ClothOut
    set: SetOut
    wishes: WishesOut
    pieces: list[PieceOut]
    stages: list[StageOut]
    tally: list[TallyEntryOut]
    warnings: list[WarningOut]
    purchase: PurchaseOut | None
    job: JobOut | None
    next_step: str


class SwatchKeptOut(BaseModel):
    """After a change of a swatch: the project whole, and the cloth's swatch."""

    project: ProjectOut
    shrink: ShrinkOut


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


class AreaOut(BaseModel):
    """A rectangle on the cloth, mm."""

    x0: float
    y0: float
    x1: float
    y1: float


class LayOut(BaseModel):
    lay_id: int
    fold: str
    fold_label: str
    length: LengthOut
    bound: LengthOut
    utilisation: float
    stale: list[str]
    margins: tuple[float, float]
    blocked: list[AreaOut] = Field(description="what was laid around, on the open usable cloth")
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


class QuestionOut(BaseModel):
    key: str
    asks: str
    how: str
    answers: list[ChoiceOut]


class ChoicesOut(BaseModel):
    fibres: list[ChoiceOut]
    weaves: list[ChoiceOut]
    finishes: list[ChoiceOut]
    colourings: list[ChoiceOut]
    directions: list[ChoiceOut]
    piles: list[ChoiceOut]
    grades: list[ChoiceOut]
    grade_scale: str
    roles: list[ChoiceOut]
    questions: list[QuestionOut]
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


class ClothPath(BaseModel):
    cloth_id: int = Field(ge=1, le=2**31)


class WashPath(ClothPath):
    wash_id: int = Field(ge=1, le=2**31)


class SetPath(ProjectPath):
    cloth_id: int = Field(ge=1, le=2**31)


class TaskPath(BaseModel):
    task_id: int = Field(ge=1, le=2**31)


class JobPath(BaseModel):
    job_id: int = Field(ge=1, le=2**31)
