"""What Plan sends and is asked."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..shared.entries import AllowanceIn, LengthIn, Name, Text
from ..shared.schemas import FigureOut, In, LengthOut, Out, Point


class StationOut(Out):
    along: LengthOut
    left: LengthOut
    right: LengthOut


class CutOut(Out):
    """How a piece is cut from one of the garment's cloths."""

    use_id: int
    copies: int
    pair: bool
    on_fold: bool
    grain: str
    one_way: bool
    seam: LengthOut
    shorter: LengthOut
    hidden: bool
    border: str
    border_at: LengthOut
    how_cut: str
    fault: str = ""


class PieceOut(Out):
    """A piece as it is cut from the first of its cloths; ``cuts``: from each; ``cut_here``: from the one the page
    shows."""

    id: int
    name: str
    cuts: list[CutOut]
    cut_here: bool
    half: bool = Field(description="half of a symmetrical piece, its straight edge the fold")
    outline: list[Point]
    cut: list[Point] = Field(description="the cut line, seam allowance added")
    arrow: list[Point]
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
    meets: str
    meets_at: LengthOut
    centred: bool
    hidden: bool
    hem: bool
    stations: list[StationOut]
    smooth: bool
    fault: str = ""
    enlarged: list[Point] = Field(default=[], description="the cut line for raw cloth, when it is shrunk to fit")


class OutlineOut(Out):
    outline: list[Point]
    cut: list[Point]
    arrow: list[Point]
    fold: list[float]
    size: str


class NotReadOut(Out):
    code: str
    what: str
    why: str


class PiecePath(BaseModel):
    piece_id: int = Field(ge=1, le=2**31)


class CutPath(PiecePath):
    use_id: int = Field(ge=1, le=2**31)


#: The name of a group of pieces that meet on the bars.
Meets = Annotated[Text, Field(max_length=40)]
Grain = Literal["lengthwise", "crosswise", "bias", "any"]


class StationIn(In):
    along: LengthIn
    left: LengthIn
    right: LengthIn = 0.0


class OutlineIn(In):
    stations: list[StationIn] = Field(min_length=2, max_length=200)
    smooth: bool = True
    on_fold: bool = False
    seam: AllowanceIn = 0.0


class NewPiece(OutlineIn):
    name: Name
    copies: int = Field(default=1, ge=1, le=200, strict=True)
    pair: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    meets: Meets = ""
    meets_at: LengthIn = 0.0
    centred: bool = False
    hidden: bool = False
    hem: bool = False


class PieceChange(In):
    """Any of a piece's entries; what is left out stays. A piece read from a drawing has no stations: none are sent."""

    name: Name | None = None
    stations: list[StationIn] | None = Field(default=None, max_length=200)
    smooth: bool | None = None
    copies: int | None = Field(default=None, ge=1, le=200, strict=True)
    pair: bool | None = None
    on_fold: bool | None = None
    grain: Grain | None = None
    one_way: bool | None = None
    seam: AllowanceIn | None = None
    meets: Meets | None = None
    meets_at: LengthIn | None = None
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
    shorter: LengthIn | None = None
    hidden: bool | None = None
    border: Literal["", "low", "high"] | None = None
    border_at: LengthIn | None = None


class DrawingIn(In):
    file_name: str = Field(default="drawing.svg", max_length=300)
    svg: str = Field(max_length=4_000_000)
