"""What is sent of a garment as a whole, and asked about it."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from ..buy.schemas import EdgeOut, PurchaseOut
from ..cloth.schemas import BarOut, ClothOut
from ..lay.schemas import JobOut
from ..plan.schemas import NotReadOut, PieceOut
from ..shared.entries import Key, LengthIn, LengthOrYardageIn, Name, Number, Text
from ..shared.schemas import ChoiceOut, FigureOut, In, LengthOut, Out, ProjectPath
from ..shrink.schemas import SetOut, ShrinkOut


class StageOut(Out):
    name: str
    state: Literal["empty", "begun", "done", "look-again"]
    why: str


class WaitOut(Out):
    """A stage that waits for another one."""

    stage: str
    on: str = Field(description="the stage where something is to be done first")
    why: str


class WarningOut(Out):
    stage: str
    level: Literal["look", "spoil"]
    text: str
    key: str = Field(description="by which it is set aside")
    aside: str = Field(description="why the maker set it aside; empty: it is to be looked at")


class RunOut(Out):
    """One edge a trim goes on, and how many times."""

    what: str
    length: LengthOut
    times: int


class TallyEntryOut(Out):
    key: str
    label: str
    figure: FigureOut | None
    missing: str
    goes: str = Field(description="the stage where what is missing is done")


class WishesOut(Out):
    gap: LengthOut
    folds: list[str]
    sides: Literal["together", "out"] = Field(description="which side of folded cloth looks out")
    turn_on_bars: bool = Field(description="pieces may be turned end for end on bars that are not balanced")
    lay_seconds: float
    ends: LengthOut
    spare: LengthOut
    shop_step: LengthOut
    edge_way: str
    way: str = Field(description="the way gone by: as chosen, or as the cloth wants it")
    edge: EdgeOut
    bought_extra: LengthOut
    extra_why: str


class UseOut(Out):
    """One cloth of a garment in the switch of cloths."""

    id: int
    role: str
    role_label: str
    cloth_id: int
    name: str
    ground: str
    bars_along: list[BarOut]
    bars_across: list[BarOut]
    copies: int = Field(description="how many outlines are cut from it")
    state: str = Field(description="as bought, or after which treatment")
    buying: str = Field(description="what is to be bought beside what is in hand; empty: not known")
    look_again: bool = Field(description="something of this cloth needs another look")
    trim: bool
    runs: list[RunOut] = Field(description="the edges a trim goes on")


class SizeAtOut(Out):
    place: str
    size: str


class ProjectOut(Out):
    """A garment, seen through one of its cloths (``use_id``): cloth, wishes, tally, purchase and job are that one's."""

    id: int
    use_id: int
    uses: list[UseOut]
    name: str
    note: str
    wash: str
    dry: str
    size: str = Field(description="the size its pieces are cut in; empty: as they were told")
    size_at: list[SizeAtOut]
    sizes: list[str] = Field(description="all sizes its pieces have")
    levels: list[str] = Field(description="all heights its pieces have names for")
    school: str
    cloth: ClothOut
    set: SetOut
    washed_width: FigureOut | None = Field(description="selvage to selvage as it is cut, measured or predicted")
    wishes: WishesOut
    pieces: list[PieceOut]
    copies: int = Field(description="how many outlines are cut in all")
    can_lay: bool = Field(description="nothing is missing before the pieces can be laid")
    stages: list[StageOut]
    waits: list[WaitOut]
    tally: list[TallyEntryOut]
    warnings: list[WarningOut]
    purchase: PurchaseOut | None
    job: JobOut | None
    next_step: str

    @property
    def written(self) -> str:
        """As JSON; its pieces, which are many and stay the same from answer to answer, are written once each."""
        whole = self.model_dump_json(exclude={"pieces"})
        return f'{whole[:-1]},"pieces":[{",".join(piece.written for piece in self.pieces)}]}}'


class SwatchKeptOut(Out):
    """After a change of a swatch: the project whole, and the cloth's swatch."""

    project: ProjectOut
    shrink: ShrinkOut


class AsideIn(In):
    """A warning set aside, by its key, and why; without a reason it is to be looked at again."""

    key: str = Field(max_length=2000)
    why: Text = ""


class ProjectLineOut(Out):
    id: int
    name: str
    note: str
    cloth: ClothOut
    beside: list[ClothOut] = Field(description="its other cloths")
    stages: list[StageOut]
    pieces: int
    buying: str = Field(description="what is to be bought beside what is in hand; empty: not known")
    next_step: str


class ProjectsOut(Out):
    headline: str = Field(description="what to do next, over all of them")
    projects: list[ProjectLineOut]


class LengthQuery(In):
    mm: float = Field(ge=0, le=1e6, allow_inf_nan=False)


class SettingsOut(Out):
    system: Literal["metric", "imperial"]
    graduation: LengthOut
    shop_step: LengthOut = Field(description="what this person's shop cuts in")
    currency: str = Field(description="written behind money; empty: nothing is")
    asked: bool = Field(description="whether these were asked for on the first day")


class QuestionOut(Out):
    key: str
    asks: str
    how: str
    answers: list[ChoiceOut]


class WordOut(Out):
    word: str
    means: str
    also: list[str] = Field(description="what else people call it")


class ChoicesOut(Out):
    glossary: list[WordOut]
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
    stretches: list[str] = Field(description="the folds a stretch of a lay may have")
    borders: list[ChoiceOut]
    border_sides: list[ChoiceOut]
    sides: list[ChoiceOut] = Field(description="which side of folded cloth looks out, each with its reason")
    steps: list[ChoiceOut]


class ImportOut(Out):
    added: list[str]
    not_read: list[NotReadOut]
    mended: list[NotReadOut]
    project: ProjectOut


class ArchiveIn(In):
    """An archive to be taken in."""

    file: str = Field(max_length=27_000_000, description="the archive in base64")
    cloths: Literal["ask", "same", "another"] = Field(
        default="ask", description="whether a cloth that is here already is the same one, or another"
    )
    what_can_be: bool = Field(default=False, description="of a broken archive, take in what can be read")


class NamedOut(Out):
    id: int
    name: str


class ArchiveOut(Out):
    """What came of an archive."""

    garments: list[NamedOut]
    cloths: list[NamedOut]
    left_out: list[str] = Field(description="what was not taken in, a sentence each")
    settings: bool = Field(description="whether units and the like came along: where nothing was begun yet")


class DailyCopyOut(Out):
    name: str
    day: date
    why: str = Field(description="why it was made; empty: as every day")
    size: int = Field(description="bytes")


class DailyCopiesOut(Out):
    copies: list[DailyCopyOut]


class GoBackIn(In):
    name: str = Field(max_length=120, description="the name of a copy")


class HealthOut(Out):
    name: str
    version: str


class NewProject(In):
    name: Name
    note: Text = ""


SizeName = Annotated[Text, Field(max_length=20)]


class SizeAtIn(In):
    """Which size is cut at a named height."""

    place: SizeName
    size: SizeName


class ProjectChange(In):
    """Any of a project's own entries; what is left out stays."""

    name: Name | None = None
    note: Text | None = None
    wash: Key | None = None
    dry: Key | None = None
    size: SizeName | None = None
    size_at: list[SizeAtIn] | None = Field(default=None, max_length=10)


class NewUse(In):
    """Another cloth of a garment: one of the cupboard by its number, or a new one by its name."""

    cloth_id: Number | None = None
    name: Text = ""
    role: Key


class UseChange(In):
    role: Key


class RunIn(In):
    what: Text = ""
    length: LengthIn
    times: int = Field(default=1, ge=1, le=200, strict=True)


class RunsIn(In):
    runs: list[RunIn] = Field(max_length=60)


class UsePath(ProjectPath):
    use_id: int = Field(ge=1, le=2**31)


class TypedIn(In):
    """A length while it is typed. ``yardage``: cloth by the yard, where a plain number is yards in inches."""

    yardage: bool = False
    text: LengthOrYardageIn


class SettingsChange(In):
    system: Literal["metric", "imperial"] | None = None
    graduation: LengthIn | None = None
    shop_step: LengthIn | None = None
    currency: Text | None = None
    asked: bool | None = Field(default=None, strict=True)
