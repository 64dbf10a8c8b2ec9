"""What True sends and is asked."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from ..buy.schemas import EdgeOut
from ..project.schemas import ProjectOut
from ..shared.entries import LengthIn
from ..shared.schemas import ChoiceOut, FigureOut, In, LengthOut, Out, Point, ProjectPath


class SchoolChoiceOut(Out):
    value: str
    label: str
    why: str
    forbidden: bool


class AdviceOnTrueOut(Out):
    """What to do next for one reading."""

    band: Literal["true", "steam", "straighten", "cut"]
    action: str
    headline: str
    steps: list[str]
    school: str
    school_why: str
    chooses: bool = Field(description="whether the school of straightening matters for this action")
    schools: list[SchoolChoiceOut]
    forbids: list[str]
    cautions: list[str]
    other: list[str] = Field(description="other ways out")


class ReadingOut(Out):
    """The reading at hand, not written down yet."""

    place: LengthOut
    offset: LengthOut = Field(description="how far apart, without its sign")
    signed: float = Field(description="mm, above nothing when the far selvage's corner sticks out")
    long_side: Literal["", "near", "far"]
    bow: LengthOut
    done: str
    read: bool = Field(description="whether anything was read yet")


class TestOut(Out):
    id: int
    at: datetime
    place: LengthOut
    offset: LengthOut
    signed: float
    long_side: str
    bow: LengthOut
    done: str
    done_label: str
    band: str


class TwistOut(Out):
    piece_id: int
    piece: str
    twist: FigureOut
    drift: FigureOut
    verdict: Literal["harmless", "visible", "will not hang"]
    drift_told: str
    meets: bool | None = Field(description="whether bars meet at its seams; null where none are carried by the weft")
    outline: list[Point]
    hangs: list[Point]


class StationOfFoldOut(Out):
    along: LengthOut
    distance: LengthOut
    move: LengthOut | None = Field(description="by how much the fold is moved here, without its sign")
    move_figure: FigureOut | None = Field(description="the same with its working and sign")
    outwards: bool = Field(description="whether it is moved away from the selvages")
    told: str


class FoldLineOut(Out):
    stations: list[StationOfFoldOut]
    spread: FigureOut | None
    mean: FigureOut | None
    good: bool | None
    headline: str
    limit: str
    ripple: str
    torque: str
    next_place: LengthOut = Field(description="where to read next, along")


class CheckOut(Out):
    """A pinned piece of the chosen lay: the distances it should have, those read, and what to move."""

    key: str
    piece: str
    copy_number: int
    edge: str
    wanted_tail: FigureOut
    wanted_head: FigureOut
    arrow: LengthOut
    tail: LengthOut | None
    head: LengthOut | None
    tilt: FigureOut | None
    good: bool | None
    told: str


class BarOfPlaidOut(Out):
    place: LengthOut
    off: LengthOut
    signed: float
    square: bool
    told: str


class PlaidOut(Out):
    bars: list[BarOfPlaidOut]
    headline: str
    square: bool | None
    next_place: LengthOut = Field(description="where the next bar is read")


class EdgeCostOut(Out):
    """What the present cut edge costs, and what follows from it."""

    readings: list[LengthOut]
    this_end: FigureOut
    other_end: FigureOut
    cut_off: LengthOut
    ends: FigureOut
    in_hand_after: FigureOut | None = Field(description="what is left of the length in hand, as it is cut")
    to_buy: str
    measured: bool


class BeforeOut(Out):
    """What the last test before a treatment would read now."""

    offset: LengthOut
    signed: float
    bow: LengthOut


class TrueOut(Out):
    headline: str
    width: FigureOut | None
    missing: str
    edge: EdgeOut
    edge_way: str
    way: str = Field(description="the way gone by: as chosen, or as the cloth wants it")
    cost: EdgeCostOut
    now: ReadingOut
    skew: FigureOut | None
    angle: FigureOut | None
    bow: FigureOut | None
    advice: AdviceOnTrueOut | None
    bands: list[LengthOut]
    limit: str
    tests: list[TestOut] = Field(description="those made in the state the cloth is in")
    before: BeforeOut | None = Field(description="predicted from before a treatment, until it is tested again")
    here: list[int] = Field(description="tests made where the newest was, the oldest first")
    by_place: list[int] = Field(description="the newest test of each place, along the length")
    side: Literal["near", "far"] = Field(description="the selvage whose corner is the longer one, to begin with")
    loop_state: Literal["none", "true", "go-on", "stop"]
    loop_told: str
    good_from: LengthOut | None = Field(description="from where on it is good; null when it is nowhere, or everywhere")
    accepted: bool
    basis: str = Field(description="on which reading the twist rests")
    twist_limits: str
    matters: str = Field(description="whether it matters, in a sentence")
    twists: list[TwistOut]
    fold: FoldLineOut
    checks: list[CheckOut]
    checks_missing: str
    checks_limit: str
    plaid: PlaidOut
    done_choices: list[ChoiceOut]


class TrueKeptOut(Out):
    """After a change: the project whole, and True."""

    project: ProjectOut
    true: TrueOut


class TestPath(ProjectPath):
    test_id: int = Field(ge=1, le=2**31)


Side = Literal["", "near", "far"]
Done = Literal["", "steam", "pull", "pin", "short", "cut"]


class ReadingIn(In):
    """The reading at hand; what is left out stays. ``side`` says which selvage's corner sticks out."""

    place: LengthIn | None = None
    offset: LengthIn | None = None
    side: Side | None = None
    bow: LengthIn | None = None
    done: Done | None = None


class StationOfFoldIn(In):
    along: LengthIn
    distance: LengthIn


class BarOfPlaidIn(In):
    place: LengthIn
    off: LengthIn
    side: Literal["out", "in"] = "out"


class CheckIn(In):
    key: str = Field(max_length=200)
    tail: LengthIn | None = None
    head: LengthIn | None = None


class TrueChange(In):
    """Any of what is read at the table; what is left out stays, and a list is sent whole."""

    edge: list[LengthIn] | None = Field(default=None, max_length=20)
    edge_way: Literal["", "tear", "thread", "bar", "shears", "square"] | None = None
    cut_off: LengthIn | None = None
    now: ReadingIn | None = None
    fold: list[StationOfFoldIn] | None = Field(default=None, max_length=30)
    ripple: Literal["", "out", "in"] | None = None
    check: CheckIn | None = None
    bars: list[BarOfPlaidIn] | None = Field(default=None, max_length=30)
    bands: list[LengthIn] | None = Field(default=None, max_length=3)
    school: Literal["", "pin", "pull"] | None = None
    accepted: bool | None = None
