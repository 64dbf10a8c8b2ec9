"""What is sent and asked of seams and of the bars at them."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ..shared.entries import AllowanceIn, LengthIn, Number, SidedIn, Text
from ..shared.schemas import In, LengthOut, Out, Point, ProjectPath, UseQuery

Letter = Literal["a", "b"]
SeamKind = Literal["sewn", "laid on"]
Way = Literal["levels", "lengthwise"]
Verdict = Literal["meets", "nearly", "misses", "not asked", "unknown"]


class SeamPath(BaseModel):
    seam_id: int = Field(ge=1, le=2**31)


class SeamOfProject(ProjectPath):
    seam_id: int = Field(ge=1, le=2**31)


class MatchQuery(UseQuery):
    lay_id: int | None = Field(default=None, ge=1, le=2**31, description="another lay than the one that is gone by")


class PreviewQuery(MatchQuery):
    couple: int = Field(default=0, ge=0, le=400, description="which of the copies that are sewn so")
    at_cut: bool = Field(default=False, description="compared at the cut edges instead of the seam line")


class SpotOut(Out):
    after: int
    at: float


class SewnEdgeOut(Out):
    """An edge that can be sewn: from corner to corner (``whole``), or part of one between notches."""

    begin: SpotOut
    end: SpotOut
    name: str
    whole: bool
    has_parts: bool = Field(description="whether the edges that follow are its parts between notches")
    long: LengthOut
    line: list[Point]


class CornerOut(Out):
    key: int
    number: int
    place: Point
    corner: bool
    said: bool = Field(description="whether the maker said so")


class WishSpotOut(Out):
    """A place of a piece on which a bar can be wished for."""

    way: Way
    at: float
    name: str


class SeamPieceOut(Out):
    """A piece of the diagram, in its own axes: the seam line, the cut line, its edges and its corners."""

    id: int
    name: str
    outline: list[Point]
    cut: list[Point]
    mirror: bool = Field(description="half of a piece on the fold: its mirror image is drawn too")
    how_cut: str
    edges: list[SewnEdgeOut]
    corners: list[CornerOut]
    spots: list[WishSpotOut]
    level: float | None = Field(description="where the garment's level lies along it, mm; null where nothing places it")
    fault: str


class SideOut(Out):
    piece_id: int
    piece: str
    begin: SpotOut | None
    end: SpotOut | None
    place: Point | None = Field(description="where on this piece the other one is laid")
    run: list[Point] = Field(description="the seam line of this side in the piece's axes")
    long: LengthOut | None
    key: Point | None


class StripOut(Out):
    """The mismatch along one seam between two copies: pairs of length along the seam and mm off, signed."""

    way: Way
    kind: str
    kind_told: str
    places: list[Point]
    worst: float
    mean: float


class SewnCoupleOut(Out):
    name: str
    strips: list[StripOut]


class SeamWayOut(Out):
    what: str
    told: str
    worst: float | None
    key_a: float | None


class SeamWaysOut(Out):
    ways: list[SeamWayOut]


class SeamOut(Out):
    id: int
    name: str
    kind: SeamKind
    a: SideOut
    b: SideOut
    at_along: LengthOut | None = Field(description="where on the other piece it is laid")
    at_across: LengthOut | None
    same_way: bool
    longer: str
    ease: LengthOut
    spread: Point
    key_a: LengthOut | None
    key_b: LengthOut | None
    levels: bool
    lengthwise: bool
    priority: int
    unlike: str = Field(description="that its sides differ by more than the ease that was told; or nothing")
    standing: str = Field(description="how it stands among the seams of its group: exact, follows, misses, or nothing")
    graph: str
    verdict: Verdict
    told: str
    worst: LengthOut | None
    mean: LengthOut | None
    chance: float | None = Field(description="the share of draws in which it stays within its tolerance")
    couples: list[SewnCoupleOut]
    gone: str


class ProposedOut(Out):
    number: int
    name: str
    told: str
    levels: bool
    lengthwise: bool


class LaidBarOut(Out):
    begins: float
    width: float
    colour: str


class LaidBarsOut(Out):
    """The bars of the cloth as it is laid: of one repeat along and across, each from where it begins, mm."""

    x_repeat: float | None
    y_repeat: float | None
    x: list[LaidBarOut]
    y: list[LaidBarOut]
    x_seen: bool
    y_seen: bool
    left: Point = Field(description="what is left of the bars as they were measured, along and across")
    ground: str


class WishOut(Out):
    piece_id: int
    way: Way
    at: float
    bar: float


class NamedBarOut(Out):
    """A place of the bars that can be wished for by name."""

    way: Way
    bar: float
    name: str
    colour: str


class CutStepOut(Out):
    told: str
    why: str
    piece_ids: list[int]


class MatchOut(Out):
    """All that is known of the seams of a garment on one of its cloths."""

    pieces: list[SeamPieceOut]
    seams: list[SeamOut]
    worst_first: list[int]
    proposed: list[ProposedOut]
    consequences: list[str]
    limits: str
    limit_good: float
    limit_bad: float
    bars: LaidBarsOut
    wishes: list[WishOut]
    named_bars: list[NamedBarOut]
    steps: list[CutStepOut]
    laid: bool
    out_of_date: bool
    lay_id: int | None
    how_sure: str


class HalfOut(Out):
    shown: list[Point]
    seam: list[Point]
    matrix: list[float]
    name: str


class PreviewOut(Out):
    """A seam as one will see it: both pieces on the cloth with how each is moved into the picture, mm, y up."""

    a: HalfOut
    b: HalfOut
    along: list[Point]
    gap: LengthOut
    couples: list[str]
    strips: list[StripOut]
    bars: LaidBarsOut
    told: str


class SpotIn(In):
    after: int = Field(ge=0, le=2**31, strict=True)
    at: float = Field(default=0.0, ge=0.0, le=100_000.0)


class SideIn(In):
    piece_id: Number
    begin: SpotIn | None = None
    end: SpotIn | None = None
    along: SidedIn | None = None
    across: SidedIn | None = None


class SeamIn(In):
    a: SideIn
    b: SideIn
    name: Text = ""
    kind: SeamKind = "sewn"
    same_way: bool | None = Field(default=None, description="left out: the lower ends meet")
    longer: Literal["", "a", "b"] = ""
    ease: AllowanceIn = 0.0
    key_a: LengthIn | None = None
    key_b: LengthIn | None = None
    levels: bool = True
    lengthwise: bool = False


class SeamChange(In):
    name: Text | None = None
    same_way: bool | None = None
    longer: Literal["", "a", "b"] | None = None
    ease: AllowanceIn | None = None
    spread_from: float | None = Field(default=None, ge=0.0, le=1.0)
    spread_to: float | None = Field(default=None, ge=0.0, le=1.0)
    key_a: LengthIn | None = None
    key_b: LengthIn | None = None
    free_b: bool = Field(default=False, description="let the other side's key point follow")
    free_key: bool = Field(default=False, description="take the key point away")
    along: SidedIn | None = None
    across: SidedIn | None = None
    levels: bool | None = None
    lengthwise: bool | None = None


class OrderIn(In):
    seams: list[Number] = Field(max_length=400)


class TakeIn(In):
    which: list[int] = Field(max_length=400)


class CornerIn(In):
    key: int = Field(ge=0, le=2**31, strict=True)
    corner: bool | None = None


class BarWishIn(In):
    piece_id: Number
    way: Way
    at: float = Field(default=0.0, ge=-100_000.0, le=100_000.0)
    bar: float | None = Field(default=None, ge=-100_000.0, le=100_000.0)
