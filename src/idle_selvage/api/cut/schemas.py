"""What Cut sends and is asked."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..buy.schemas import SmallLayOut, TrialsOut
from ..lay.schemas import FoldingOut, KeptOffOut, StretchOut
from ..plan.schemas import DrawnOut
from ..shared.entries import Key, LengthIn, Name, Number, Text
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point, UseQuery

Paper = Literal["a4", "a3", "letter"]
CopyState = Literal["waits", "good", "spoilt", "short", "stained", "missing", "left"]
PlacementKey = Annotated[str, Field(max_length=80)]


class BeforeLineOut(Out):
    key: str
    asks: str
    state: Literal["clean", "open", "accepted"]
    told: str
    picture: Literal[
        "width", "edge", "lay", "copies", "pairs", "direction", "grain", "fold", "flaws", "bars", "wash", "shears",
        "blade",
    ]  # fmt: skip
    mend: str = Field(description="the stage where it is mended, or nothing")
    by_hand: bool
    can_accept: bool
    ticked: bool
    why: str


class BeforeCuttingOut(Out):
    lines: list[BeforeLineOut]
    ready: bool
    open: int


class CutMarkOut(Out):
    kind: Literal["notch", "point", "dart", "fold", "centre", "buttons"]
    label: str
    name: str
    along: LengthOut
    across: LengthOut


class CopyOut(Out):
    copy_number: int = Field(description="which of the copies of its placement, from 0")
    state: CopyState
    label: str
    mirrored: bool


class CutShapeOut(Out):
    """One placement on the table."""

    key: str
    round: int
    piece_id: str
    name: str
    number: int = Field(description="its place in the order; 0: it was given up")
    section: int
    layers: int
    outline: list[Point]
    tail: Point
    head: Point
    marks: list[DrawnOut]
    state: Literal["waits", "cut", "lost", "left"]


class TableStepOut(Out):
    """One step at the table."""

    round: int
    key: str
    number: int
    of: int
    name: str
    cloth: str = Field(description="the cloth it is cut from, where that is another one")
    done: bool
    copies: list[CopyOut]
    begins: LengthOut
    ends: LengthOut
    from_what: Literal["cut end", "fold"]
    edge: str
    tail_distance: LengthOut
    head_distance: LengthOut
    lies_told: str
    face: str
    turned: str
    layers: str
    marks: list[CutMarkOut]
    marked: str = Field(description="how many marks of each kind, or nothing")
    allowance: str
    match: list[str]
    stop_at: list[str]
    beside: list[str] = Field(description="the keys of its neighbours")
    says: str = Field(description="the step as it is read aloud")


class FaultOut(Out):
    value: str
    label: str


class RoundOut(Out):
    round: int
    cloth: str
    length: float
    low: float
    high: float
    stretches: list[StretchOut]
    kept_off: list[KeptOffOut]
    shapes: list[CutShapeOut]
    foldings: list[FoldingOut]
    unfoldings: int
    own_order: bool
    against: list[str] = Field(description="of an order of one's own: what should be cut the other way round")
    route: list[Point] = Field(description="the middles of the pieces in the order they are cut, mm")
    ruler: float = Field(description="how far a graduation of its ruler is, mm")


class CutMarkHow(Out):
    kind: str
    label: str
    do: str
    why: str


class HandlingOut(Out):
    hold: str
    hold_why: str
    cut: list[str]
    marks: list[CutMarkHow]
    cautions: list[str]


class LastCutOut(Out):
    round: int
    key: str
    name: str


class CuttingOut(Out):
    """Cut as it stands: the list before, and, once it is begun, every step."""

    missing: str = Field(description="why nothing can be cut yet, or nothing")
    before: BeforeCuttingOut
    begun: bool
    done: bool
    at: int | None = Field(description="the place of the step at hand among the steps")
    good: int
    of: int
    owed: list[str]
    headline: str
    rounds: list[RoundOut]
    steps: list[TableStepOut]
    faults: list[FaultOut]
    handling: HandlingOut
    last_cut: LastCutOut | None = Field(description="the last piece that was cut and still is")


class BeforeIn(In):
    """A line of the list before cutting: ticked by hand, or accepted with a reason (empty: no longer)."""

    key: Key
    ticked: bool | None = None
    why: Text | None = None


class DeedIn(In):
    round: Number
    key: PlacementKey
    kind: Literal["cut", "not cut", "spoilt", "short", "stained", "missing", "found"]
    copy_number: int = Field(default=0, ge=0, le=400, strict=True)
    why: Text = ""
    really: bool = Field(default=False, description="what is asked back is answered: cut cloth is whole after all")


class AtIn(In):
    round: Number
    key: PlacementKey


class CutOrderIn(In):
    """The placements in an order of one's own; none: as computed."""

    round: Number
    keys: list[PlacementKey] = Field(max_length=400)


class AgainWayOut(Out):
    key: str
    kind: Literal["beside", "rest", "remnant", "set", "turned", "joined", "bought"]
    told: str
    costs: str
    state: Literal["waits", "does", "short", "cannot", "buy"]
    came: str
    cost: FigureOut | None
    lay: SmallLayOut | None
    gone: list[list[Point]] = Field(description="cut cloth, as it is laid around")
    joins: list[list[Point]] = Field(description="where parts are joined, as they lie")


class AgainOut(Out):
    missing: list[str]
    ways: list[AgainWayOut]
    trials: TrialsOut


class WayIn(In):
    way: Annotated[str, Field(max_length=80)]


class RectangleOut(Out):
    x: float
    y: float
    along: LengthOut
    across: LengthOut


class RemnantOut(Out):
    number: int
    area: float
    x: float
    y: float
    outline: list[Point]
    holes: list[list[Point]]
    along: LengthOut
    across: LengthOut
    rectangles: list[RectangleOut]
    border: LengthOut | None
    kept: bool


class ClothLeftOut(Out):
    """What is left of a cloth."""

    there: bool = Field(description="whether anything was cut from it yet")
    long: LengthOut
    known: bool = Field(description="whether its length is known, or only what the lay took")
    width: float
    remnants: list[RemnantOut]
    gone: list[list[Point]]
    scraps: int
    scrap_told: str
    used: FigureOut | None
    least: LengthOut


class RemnantIn(In):
    """A remnant as it was seen: its corner, mm, and its area, mm²."""

    x: float = Field(ge=0, le=1e6, allow_inf_nan=False)
    y: float = Field(ge=0, le=1e5, allow_inf_nan=False)
    area: float = Field(ge=0, le=1e11, allow_inf_nan=False)


class ScrapIn(In):
    least: LengthIn


class PaperQuery(UseQuery):
    paper: Paper = "a4"
    show: bool = Field(default=False, description="to be looked at and printed, instead of taken away")


class PieceQuery(PaperQuery):
    piece: str | None = Field(default=None, max_length=40, description="one piece by its key; all when left out")


class SwatchQuery(In):
    side: str = Field(default="", max_length=60, description="as typed, such as “25 cm”; empty: as usual")
    paper: Paper = "a4"


class CornersIn(In):
    """A device at its true size: four corners of a rectangle of known size in its picture, from the upper left one
    clockwise; or the measured sides of a square that was drawn."""

    wide: LengthIn
    high: LengthIn
    corners: list[Point] | None = Field(default=None, min_length=4, max_length=4)
    drawn: float | None = Field(default=None, gt=0, le=1e5, description="the side of the square, picture points")


class CalibrationOut(Out):
    matrix: list[list[float]] = Field(description="from mm on the table to points of the picture, row by row")
    css: list[float] = Field(description="the sixteen numbers of CSS matrix3d")


class SizeCheckIn(In):
    meant: LengthIn
    measured: LengthIn


class SizeCheckOut(Out):
    good: bool
    told: str


class DeviceOut(Out):
    id: int
    name: str
    paired: str
    seen: str


class PairingOut(Out):
    """Devices on the home's network, as the first screen shows them."""

    open: bool = Field(description="whether other devices can reach this server at all")
    code: str
    addresses: list[str]
    qr: str = Field(description="the address with its code as a picture (a data URI), or nothing")
    devices: list[DeviceOut]


class PairIn(In):
    code: Annotated[str, Field(max_length=40)]
    name: Name


class PairedOut(Out):
    name: str
