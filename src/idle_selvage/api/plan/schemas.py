"""What Plan sends and is asked."""

from __future__ import annotations

from functools import cached_property
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..shared.entries import AllowanceIn, LengthIn, Name, Number, SidedIn, Text
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point, UseQuery

Ends = Literal["mitre", "square", "folded"]
MarkKind = Literal["point", "dart", "fold", "centre", "buttons", "level"]


class DrawnOut(Out):
    """A mark as it is drawn: the tick of a notch, or its places."""

    kind: str
    line: list[Point]
    name: str


class CutOut(Out):
    """How a piece is cut from one of the garment's cloths."""

    use_id: int
    copies: int
    pair: bool
    on_fold: bool
    grain: str
    one_way: bool
    seam: LengthOut
    bare: bool = Field(description="cut at the seam line, without any allowance")
    shorter: LengthOut
    hidden: bool
    border: str
    border_at: LengthOut
    how_cut: str
    fault: str = ""


class PieceOut(Out):
    """A piece as it is cut from the first of its cloths, in its own axes; ``cuts``: from each; ``cut_here``: from the
    one the page shows."""

    id: int
    name: str
    cuts: list[CutOut]
    cut_here: bool
    half: bool = Field(description="half of a symmetrical piece, its straight edge the fold")
    outline: list[Point]
    cut: list[Point] = Field(description="the cut line, seam allowance added")
    seam_line: list[Point] = Field(description="where it is sewn; empty where it is the outline or the cut line")
    arrow: list[Point] = Field(description="its own grainline; where none is drawn, one with room to measure from")
    own_arrow: bool = Field(description="whether that arrow stands on the paper")
    lean: str = Field(description="how far the arrow leans from the piece, as 45.0°; empty where it runs along it")
    drawn: list[DrawnOut] = Field(description="notches, points, darts and lines")
    sizes: list[str]
    levels: list[str] = Field(description="its named heights: bust, waist, hip")
    fold: list[float] = Field(description="where the fold edge begins and ends along the grain; empty without one")
    size: str
    long: FigureOut | None = Field(description="along the grain, as it is cut")
    wide: FigureOut | None = Field(description="across the grain, whole")
    how_cut: str = Field(description="how many, and how, in a few words")
    copies: int
    pair: bool
    on_fold: bool
    grain: str
    one_way: bool
    seam: LengthOut
    centred: bool
    hidden: bool
    hem: bool
    fault: str = ""
    enlarged: list[Point] = Field(default=[], description="the cut line for raw cloth, when it is shrunk to fit")

    @cached_property
    def written(self) -> str:
        """As JSON."""
        return self.model_dump_json()


class PlaceOut(Out):
    along: LengthOut
    across: LengthOut


class PointOut(Out):
    """A point of the run; ``allowance`` and ``ends`` belong to the edge that begins here."""

    key: int
    along: LengthOut
    across: LengthOut
    smooth: bool
    straight: bool
    allowance: LengthOut | None
    ends: Ends


class NotchOut(Out):
    after: int = Field(description="the key of the point it is measured from")
    at: LengthOut
    double: bool
    place: Point


class MarkOut(Out):
    kind: MarkKind
    name: str
    places: list[PlaceOut]


class PieceEdgeOut(Out):
    """An edge from corner to corner: its length along the seam, and along the line that is drawn."""

    number: int
    name: str = Field(description="the numbers of its first and last point: 2–5")
    first: int = Field(description="the key of the point it begins at")
    begins: Point = Field(description="where that point lies")
    begins_at: int = Field(description="the number of that point")
    seam: LengthOut
    drawn: LengthOut
    allowance: LengthOut
    on_fold: bool
    grown: LengthOut | None = Field(default=None, description="by how much it is longer when it is sewn first")


class OutlineOut(Out):
    """A piece as it is told, drawn, in its own axes."""

    points: list[PointOut]
    at: list[int] = Field(description="where in the outline each point stands")
    outline: list[Point]
    cut: list[Point]
    seam_line: list[Point]
    arrow: list[Point]
    arrow_told: list[PlaceOut] = Field(description="the two ends of its own arrow; none where none is drawn")
    lean: str
    fold: list[float]
    half: bool
    included: LengthOut
    notches: list[NotchOut]
    marks: list[MarkOut]
    drawn: list[DrawnOut]
    edges: list[PieceEdgeOut]
    size: str
    area: str
    doubts: list[str] = Field(description="what looks like a slip, as questions")
    remarks: list[str] = Field(description="what is worth knowing of how it is told")


class GradeOut(Out):
    """A grade step: from each size to the next a point goes so far up and to the left."""

    key: int
    along: LengthOut
    across: LengthOut


class DraftOut(OutlineOut):
    """A piece that is kept, with its sizes."""

    piece_id: int
    name: str
    sizes: list[str]
    base: str = Field(description="the size the points are told in; empty without sizes")
    grades: list[GradeOut] = Field(description="its grade steps, where all sizes are one step apart")


class SheetPieceOut(Out):
    """One piece on the sheet, to be checked against the paper."""

    piece_id: int
    name: str
    how_cut: str
    long: str
    wide: str
    area: str
    outline: list[Point]
    cut: list[Point]
    seam_line: list[Point]
    arrow: list[Point]
    fold: list[float]
    one_way: bool
    drawn: list[DrawnOut]
    edges: list[PieceEdgeOut]
    fault: str


class SheetOut(Out):
    name: str
    size: str
    pieces: list[SheetPieceOut]


class PageOut(Out):
    name: str
    x: float
    y: float
    width: float
    height: float


class PagesOut(Out):
    """A piece at its true size on sheets of paper, upright: along is up, across is to the left; mm."""

    name: str
    paper_width: float
    paper_height: float
    margin: float
    overlap: float
    check: float = Field(description="the side of a square that is printed to be measured, mm")
    check_told: str
    pages: list[PageOut]
    enlarged: bool
    can_enlarge: bool
    how_cut: str
    size: str
    outline: list[Point]
    cut: list[Point]
    arrow: list[Point]
    one_way: bool
    drawn: list[DrawnOut]
    edges: list[PieceEdgeOut]


class EaseOut(Out):
    ease: FigureOut
    share: FigureOut | None


class NotReadOut(Out):
    code: str
    what: str
    why: str


class PiecePath(BaseModel):
    piece_id: int = Field(ge=1, le=2**31)


class CutPath(PiecePath):
    use_id: int = Field(ge=1, le=2**31)


Grain = Literal["lengthwise", "crosswise", "bias", "any"]


PointKey = Annotated[int, Field(ge=0, le=100_000, strict=True)]


class StationIn(In):
    """At one height, how far the edge lies left and right of the tape; null: not read on that side."""

    along: LengthIn
    left: SidedIn | None
    right: SidedIn | None = 0.0
    corners: Literal["", "left", "right", "both"] = ""


class PlaceIn(In):
    along: SidedIn
    across: SidedIn


class PointIn(PlaceIn):
    smooth: bool = False
    straight: bool = False
    allowance: AllowanceIn | None = None
    ends: Ends = "mitre"
    key: PointKey = 0


class TwoTapesIn(In):
    first: LengthIn
    second: LengthIn
    side: Literal["left", "right"] = "left"
    smooth: bool = False
    straight: bool = False


class TapesIn(In):
    """Points by their distances from two marks, ``apart`` from one another."""

    apart: LengthIn
    points: list[TwoTapesIn] = Field(min_length=1, max_length=400)


class MeasuresIn(In):
    shape: Literal["rectangle", "bias_strip", "circle", "ring"]
    first: LengthIn
    second: LengthIn = 0.0
    share: float = Field(default=1.0, gt=0, le=4)
    panels: int = Field(default=1, ge=1, le=40, strict=True)


class AnotherIn(In):
    """A piece made from another one."""

    piece_id: Number
    change: Literal["same", "mirrored", "lengthened", "facing"] = "same"
    line: SidedIn = 0.0
    by: SidedIn = 0.0
    edge: int = Field(default=0, ge=0, le=1000, strict=True)
    width: LengthIn = 0.0
    upto: LengthIn | None = None


class ArrowIn(In):
    tail: PlaceIn
    head: PlaceIn


class NotchIn(In):
    """A notch so far along from a point, or nearest to a place."""

    double: bool = False
    after: PointKey | None = None
    at: LengthIn = 0.0
    place: Point | None = None


class MarkIn(In):
    kind: MarkKind
    name: Annotated[Text, Field(max_length=40)] = ""
    places: list[PlaceIn] = Field(min_length=1, max_length=3)


class Telling(In):
    """A piece in one of the ways it can be told: by stations, points, two tapes, its measures, or from another."""

    stations: list[StationIn] | None = Field(default=None, min_length=2, max_length=200)
    smooth: bool = True
    points: list[PointIn] | None = Field(default=None, max_length=5000)
    tapes: TapesIn | None = None
    measures: MeasuresIn | None = None
    another: AnotherIn | None = None
    arrow: ArrowIn | None = None
    no_arrow: bool = Field(default=False, description="its grainline is not drawn: it runs along the tape")
    included: AllowanceIn = 0.0
    notches: list[NotchIn] | None = Field(default=None, max_length=200)
    marks: list[MarkIn] | None = Field(default=None, max_length=200)
    on_fold: bool = False


class OutlineIn(Telling):
    name: Text = ""
    seam: AllowanceIn = 0.0
    bare: bool = False


class NewPiece(Telling):
    name: Name
    seam: AllowanceIn = 0.0
    bare: bool = False
    copies: int = Field(default=1, ge=1, le=200, strict=True)
    pair: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    centred: bool = False
    hidden: bool = False
    hem: bool = False


class PieceChange(In):
    """Any of a piece's entries; what is left out stays. ``drawn``: how it is told anew, whole."""

    name: Name | None = None
    drawn: Telling | None = None
    copies: int | None = Field(default=None, ge=1, le=200, strict=True)
    pair: bool | None = None
    on_fold: bool | None = None
    grain: Grain | None = None
    one_way: bool | None = None
    seam: AllowanceIn | None = None
    bare: bool | None = None
    centred: bool | None = None
    hidden: bool | None = None
    hem: bool | None = None


class CutChange(In):
    """Any of the entries of how a piece is cut from one cloth; what is left out stays, or is as from the first
    cloth."""

    copies: int | None = Field(default=None, ge=1, le=200, strict=True)
    pair: bool | None = None
    on_fold: bool | None = None
    grain: Grain | None = None
    one_way: bool | None = None
    seam: AllowanceIn | None = None
    bare: bool | None = None
    shorter: LengthIn | None = None
    hidden: bool | None = None
    border: Literal["", "low", "high"] | None = None
    border_at: LengthIn | None = None


class DrawingIn(In):
    file_name: str = Field(default="drawing.svg", max_length=300)
    svg: str = Field(max_length=4_000_000)
    twice: Literal["ask", "instead", "beside"] = Field(
        default="ask", description="what is done with a piece whose name is there already"
    )


class PagePlaceIn(In):
    """Where a page of a PDF was put: its lower left corner, mm, y upwards."""

    number: int = Field(ge=1, le=1000)
    x: float = Field(ge=-1e5, le=1e5)
    y: float = Field(ge=-1e5, le=1e5)


class TakingIn(In):
    """A file of pieces, and what was chosen of what it leaves open."""

    file_name: str = Field(default="pieces", max_length=300)
    file: str = Field(max_length=27_000_000, description="the file in base64")
    unit: str | None = Field(None, max_length=4, description="what a length of one is, where the file does not say")
    styles: list[Annotated[str, Field(max_length=40)]] = Field(
        default_factory=list, max_length=50, description="the kinds of line that are cut lines"
    )
    columns: int | None = Field(None, ge=1, le=40, description="so many pages of a PDF stand in a row")
    places: list[PagePlaceIn] | None = Field(None, max_length=400, description="where pages were dragged")


class ConfirmedIn(In):
    """A piece of the file that is to be kept, as it was confirmed."""

    number: int = Field(ge=0, le=10_000, description="its number among those that were understood, from 0")
    name: Name
    copies: int = Field(default=1, ge=1, le=200, strict=True)
    pair: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: AllowanceIn = 0.0
    use_id: int | None = Field(None, ge=1, le=2**31)


class KeepTaken(TakingIn):
    pieces: list[ConfirmedIn] = Field(min_length=1, max_length=200)
    twice: Literal["ask", "instead", "beside"] = Field(
        default="ask", description="what is done with a piece whose name is there already"
    )


class TakenPieceOut(Out):
    """A piece that was understood: its cut line, arrow and marks in its own axes, how it is cut, how large it is."""

    number: int
    name: str
    cut: list[Point]
    arrow: list[Point]
    marks: list[DrawnOut]
    on_fold: bool
    half: bool
    copies: int
    pair: bool
    grain: str
    one_way: bool
    seam: LengthOut
    included: LengthOut
    shorter: LengthOut
    edges: int
    notches: int
    sizes: list[str]
    size: str = Field(description="how long and wide it is, as it is cut")


class StyleOut(Out):
    name: str
    outlines: int
    read: bool


class TakenPageOut(Out):
    """A page of a PDF where it lies among the others, mm, y upwards."""

    number: int
    x: float
    y: float
    wide: float
    high: float


class TakenOut(Out):
    """What was understood of a file; nothing of it is kept."""

    format: str
    told: str = Field(description="what the format is called")
    lines: list[list[Point]] = Field(description="the file as it is drawn, mm, y downwards")
    pieces: list[TakenPieceOut]
    unit: str
    units: list[str] = Field(description="what a length of one may be; none where the file says so")
    styles: list[StyleOut]
    nested: bool = Field(description="whether kinds of line lie in one another as sizes do")
    pages: list[TakenPageOut]
    joined: str
    not_read: list[NotReadOut]
    mended: list[NotReadOut]


class PiecesFileQuery(UseQuery):
    kind: Literal["svg", "dxf", "pdf", "csv", "json"]
    paper: Literal["a4", "a3", "letter"] = "a4"


class GradeIn(In):
    key: PointKey
    along: SidedIn
    across: SidedIn


class SizesIn(In):
    """The sizes of a piece, graded by steps from the one it is told in; no sizes: none."""

    sizes: list[Annotated[Text, Field(min_length=1, max_length=20)]] = Field(max_length=30)
    base: Annotated[Text, Field(max_length=20)] = ""
    grades: list[GradeIn] = Field(default=[], max_length=1000)


class PieceEdgeIn(In):
    piece_id: Number
    edge: int = Field(ge=0, le=1000, strict=True)


class EaseIn(In):
    """Edges that are sewn to one another."""

    longer: list[PieceEdgeIn] = Field(min_length=1, max_length=20)
    shorter: list[PieceEdgeIn] = Field(min_length=1, max_length=20)


class PagesQuery(UseQuery):
    paper: Literal["a4", "a3", "letter"] = "a4"
    enlarged: bool = False
