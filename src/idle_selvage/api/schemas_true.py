"""Models of what True sends."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from .schemas import ChoiceOut, EdgeOut, FigureOut, LengthOut, Point, ProjectOut, ProjectPath


class SchoolChoiceOut(BaseModel):
    value: str
    label: str
    why: str
    forbidden: bool


class AdviceOnTrueOut(BaseModel):
    """What to do next for one reading."""

    band: Literal["true", "steam", "straighten", "cut"]
    action: str
    headline: str
    steps: list[str]
    school: str
    school_why: str
    schools: list[SchoolChoiceOut]
    forbids: list[str]
    cautions: list[str]
    other: list[str] = Field(description="other ways out")


class ReadingOut(BaseModel):
    """The reading at hand, not written down yet."""

    place: LengthOut
    offset: LengthOut = Field(description="how far apart, without its sign")
    signed: float = Field(description="mm, above nothing when the far selvage's corner sticks out")
    long_side: Literal["", "near", "far"]
    bow: LengthOut
    done: str
    read: bool = Field(description="whether anything was read yet")


class TestOut(BaseModel):
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


class TwistOut(BaseModel):
    piece_id: int
    piece: str
    twist: FigureOut
    drift: FigureOut
    verdict: Literal["harmless", "visible", "will not hang"]
    drift_told: str
    outline: list[Point]
    hangs: list[Point]


class StationOfFoldOut(BaseModel):
    along: LengthOut
    distance: LengthOut
    move: LengthOut | None
    told: str


class FoldLineOut(BaseModel):
    stations: list[StationOfFoldOut]
    spread: LengthOut | None
    mean: LengthOut | None
    good: bool | None
    headline: str
    limit: str
    ripple: str
    torque: str


class CheckOut(BaseModel):
    """A pinned piece of the chosen lay: the distances it should have, those read, and what to move."""

    key: str
    piece: str
    copy_number: int
    edge: str
    wanted_tail: LengthOut
    wanted_head: LengthOut
    arrow: LengthOut
    tail: LengthOut | None
    head: LengthOut | None
    tilt: FigureOut | None
    good: bool | None
    told: str


class BarOfPlaidOut(BaseModel):
    place: LengthOut
    off: LengthOut
    signed: float
    told: str


class PlaidOut(BaseModel):
    bars: list[BarOfPlaidOut]
    headline: str
    square: bool | None


class EdgeCostOut(BaseModel):
    """What the present cut edge costs, and what follows from it."""

    readings: list[LengthOut]
    this_end: FigureOut
    other_end: LengthOut
    cut_off: LengthOut
    ends: LengthOut
    in_hand_after: LengthOut | None
    to_buy: str
    measured: bool


class TrueOut(BaseModel):
    headline: str
    width: LengthOut | None
    missing: str
    edge: EdgeOut
    edge_way: str
    cost: EdgeCostOut
    now: ReadingOut
    skew: FigureOut | None
    angle: FigureOut | None
    bow: FigureOut | None
    advice: AdviceOnTrueOut | None
    bands: list[LengthOut]
    limit: str
    tests: list[TestOut]
    loop_state: Literal["none", "true", "go-on", "stop"]
    loop_told: str
    good_from: LengthOut | None
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


class TrueKeptOut(BaseModel):
    """After a change: the project whole, and True."""

    project: ProjectOut
    true: TrueOut


class TestPath(ProjectPath):
    test_id: int = Field(ge=1, le=2**31)
