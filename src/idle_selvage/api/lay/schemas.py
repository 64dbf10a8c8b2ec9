"""What Lay sends and is asked."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ...core.plan.piece import Grain
from ..plan.schemas import DrawnOut
from ..shared.entries import Key, LengthIn, Number
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point, ProjectPath, UseQuery


class JobOut(Out):
    id: int
    use_id: int
    state: Literal["waiting", "running", "done", "cancelled", "failed"]
    ahead: int = Field(description="how many searches that wait come before it")
    seconds: float
    asked_seconds: float
    progress: list[tuple[float, float]] = Field(description="(seconds, best length in mm) each time it got shorter")
    length: LengthOut | None
    bound: LengthOut | None
    steps: int
    error: str


class HemOut(Out):
    """What a straight border takes of a curved hem."""

    edge: list[Point]
    at: Point
    lost: LengthOut


class BorderLeftOut(Out):
    side: Literal["low", "high"]
    left: LengthOut
    longest: LengthOut


class ShapeOut(Out):
    key: str
    piece_id: str = Field(description="the key of its piece")
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
    origin: Point = Field(description="its own origin on the open cloth, mm")
    hem: HemOut | None
    locked: bool
    beside: list[str] = Field(description="what lies beside it, the nearest first")
    broken: list[str] = Field(description="the signs of the rules it breaks")


class KeptOffOut(Out):
    outline: list[Point]
    under: bool = Field(description="on the lower layer")


class GroundOut(Out):
    low: float
    high: float
    layers: int
    under: bool = Field(description="only the lower layer is there")


class ClothLineOut(Out):
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
    offset: float = Field(description="how far from the cut end the picture's beginning lies on the open cloth, mm")
    grounds: list[GroundOut]
    lines: list[ClothLineOut]


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


class AsideOut(Out):
    piece: str = Field(description="its key")
    name: str
    count: int
    mirrored: int = Field(description="how many of them are turned over")
    outline: list[Point]
    grain: str


class BrokenOut(Out):
    sign: str
    kind: str
    told: str
    cost: str
    keys: list[str]
    spoils: bool
    meant: bool


class AlternativeOut(Out):
    lay_id: int
    own: bool = Field(description="the maker's own, named by her")
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


class ShorterOut(Out):
    lay_id: int
    would_do: str
    instead_of: str


class LayOut(Out):
    lay_id: int
    own: str = Field(description="what the maker calls it; empty: it was found")
    tray: list[AsideOut] = Field(description="what is asked for and not laid")
    broken: list[BrokenOut]
    grains: dict[str, str] = Field(description="the grains pieces have on this lay only, by their keys")
    shorter: ShorterOut | None = Field(description="a lay that was found quietly, for which less would do")
    border_left: list[BorderLeftOut] = Field(description="what of a border no hem lies on, within the lay")
    nudge: LengthOut = Field(description="what an arrow key moves by")
    step: float = Field(description="what the shop cuts in, mm")
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


class LeftOut(Out):
    along: LengthOut
    across: LengthOut


class ComparedOut(Out):
    lay_id: int
    label: str
    own: bool
    chosen: bool
    length: LengthOut
    to_buy: FigureOut | None
    cost: FigureOut | None
    cuts: int
    unfoldings: int
    broken: list[str]
    left: list[LeftOut] = Field(description="the largest rectangles it leaves over")


class CompareOut(Out):
    lays: list[ComparedOut]


class TakenIn(In):
    text: str = Field(max_length=5_000_000, description="a lay in idle-selvage/lay/1")


class MaybeLayOut(Out):
    lay: LayOut | None
    missing: str


class JobPath(BaseModel):
    job_id: int = Field(ge=1, le=2**31)


class LayIn(In):
    seconds: int | None = Field(default=None, ge=1, le=120, strict=True)
    seed: int = Field(default=1, ge=0, le=2**31, strict=True)


class ClosingIn(LayIn):
    how: Literal["along", "anywhere", "mend"]


class ChooseIn(In):
    lay_id: Number


Place = Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)]
PieceKey = Annotated[str, Field(max_length=80)]


class HeldQuery(UseQuery):
    """What a window holds: placements by their keys, or a copy of a piece from the tray."""

    lay_id: int = Field(ge=1, le=2**31)
    keys: list[PieceKey] = Field(default_factory=list, max_length=400)
    piece: PieceKey = ""
    mirrored: bool = False
    loose: bool = Field(False, description="over flaws and into selvages, on purpose")


class NearQuery(HeldQuery):
    x: Place
    y: Place
    within: float = Field(0.0, ge=0, le=500, description="how far it is drawn to what is near, mm")


class NearOut(Out):
    """Where what is held comes to lie; ``outline`` is about the origin, where it lies otherwise than it was taken."""

    there: bool
    x: float
    y: float
    section: int
    caught: list[str]
    outline: list[Point] | None


class BandOut(Out):
    low: float
    high: float
    runs: list[tuple[float, float]]


class LightOut(Out):
    bands: list[BandOut]


class AgreeingOut(Out):
    """Where the bars of a piece agree: origins that are free, how far apart they lie, and what meets the same bars."""

    places: list[Point]
    along: LengthOut | None
    across: LengthOut | None
    group: list[str]


class HandIn(In):
    """One gesture on a lay."""

    do: Literal[
        "move", "nudge", "step", "turn", "over", "aside", "take", "lock", "lock-all", "one-layer", "two-layers",
        "grain", "accept", "refuse", "empty", "push", "rename", "away", "stretch", "no-stretch",
    ]  # fmt: skip
    keys: list[PieceKey] = Field(default_factory=list, max_length=400)
    piece: PieceKey = ""
    mirrored: bool = Field(False, strict=True)
    loose: bool = Field(False, strict=True)
    x: Place = 0.0
    y: Place = 0.0
    section: int = Field(0, ge=0, le=1000)
    by: int = Field(0, ge=-360, le=360, strict=True)
    grain: Grain = "lengthwise"
    why: str = Field("", max_length=200)
    fold: str = Field("", max_length=20)
    depth: LengthIn | None = None
    sign: str = Field("", max_length=200)
    name: str = Field("", max_length=200)


class LayPath(ProjectPath):
    lay_id: int = Field(ge=1, le=2**31)


class FileQuery(UseQuery):
    view: Literal["pinned", "opened"] = "pinned"


class LayWishes(In):
    """Any of the wishes for laying; what is left out stays."""

    gap: LengthIn | None = None
    folds: list[Key] | None = Field(default=None, max_length=6)
    turn_on_bars: bool | None = Field(None, strict=True, description="pieces may be turned on bars not balanced")
    sides: Literal["together", "out"] | None = Field(None, description="which side of folded cloth looks out")
    lay_seconds: int | None = Field(default=None, ge=1, le=120, strict=True)
