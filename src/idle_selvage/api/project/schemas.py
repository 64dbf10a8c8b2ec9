"""What is sent of a garment as a whole, and asked about it."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..buy.schemas import EdgeOut, PurchaseOut
from ..cloth.schemas import ClothOut
from ..lay.schemas import JobOut
from ..plan.schemas import NotReadOut, PieceOut
from ..shared.entries import Key, LengthIn, Name, Text
from ..shared.schemas import ChoiceOut, FigureOut, In, LengthOut, Out
from ..shrink.schemas import SetOut, ShrinkOut


class StageOut(Out):
    name: str
    state: Literal["empty", "begun", "done", "look-again", "not-built"]
    why: str


class WarningOut(Out):
    stage: str
    level: Literal["look", "spoil"]
    text: str


class TallyEntryOut(Out):
    key: str
    label: str
    figure: FigureOut | None
    missing: str


class WishesOut(Out):
    gap: LengthOut
    folds: list[str]
    lay_seconds: float
    ends: LengthOut
    spare: LengthOut
    shop_step: LengthOut
    edge_way: str
    way: str = Field(description="the way gone by: as chosen, or as the cloth wants it")
    edge: EdgeOut
    bought_extra: LengthOut
    extra_why: str


class ProjectOut(Out):
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
    copies: int = Field(description="how many outlines are cut in all")
    can_lay: bool = Field(description="nothing is missing before the pieces can be laid")
    stages: list[StageOut]
    tally: list[TallyEntryOut]
    warnings: list[WarningOut]
    purchase: PurchaseOut | None
    job: JobOut | None
    next_step: str


class SwatchKeptOut(Out):
    """After a change of a swatch: the project whole, and the cloth's swatch."""

    project: ProjectOut
    shrink: ShrinkOut


class ProjectLineOut(Out):
    id: int
    name: str
    note: str
    cloth: ClothOut
    stages: list[StageOut]
    pieces: int
    to_buy: str
    next_step: str


class ProjectsOut(Out):
    headline: str = Field(description="what to do next, over all of them")
    projects: list[ProjectLineOut]


class SettingsOut(Out):
    system: Literal["metric", "imperial"]
    graduation: LengthOut


class QuestionOut(Out):
    key: str
    asks: str
    how: str
    answers: list[ChoiceOut]


class ChoicesOut(Out):
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


class ImportOut(Out):
    added: list[str]
    not_read: list[NotReadOut]
    mended: list[NotReadOut]
    project: ProjectOut


class HealthOut(Out):
    name: str
    version: str


class NewProject(In):
    name: Name
    note: Text = ""


class ProjectChange(In):
    """Any of a project's own entries; what is left out stays."""

    name: Name | None = None
    note: Text | None = None
    wash: Key | None = None
    dry: Key | None = None


class TypedIn(In):
    text: LengthIn


class SettingsChange(In):
    system: Literal["metric", "imperial"] | None = None
    graduation: LengthIn | None = None
