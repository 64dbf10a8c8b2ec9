"""What several stages send and are asked."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ...core.units import System
from ...core.wording import Sentence, say
from ...core.working import SourceKind
from .person import current_system

Point = tuple[float, float]


class Out(BaseModel):
    """Whatever is sent. The quantities of a sentence are written here, in the units of the person asking."""

    @model_validator(mode="before")
    @classmethod
    def _said(cls, data: Any) -> Any:
        system = current_system.get()
        return {key: _said(value, system) for key, value in data.items()} if isinstance(data, dict) else data


def _said(value: Any, system: System) -> Any:
    if isinstance(value, Sentence):
        return say(value, system)
    if isinstance(value, list | tuple) and any(isinstance(text, Sentence) for text in value):
        return [_said(text, system) for text in value]
    return value


class In(BaseModel):
    """Whatever is asked: an unknown key is a mistake, said so."""

    model_config = ConfigDict(extra="forbid")


class FieldFault(Out):
    path: str = Field(description="which entry, such as width_readings.1; empty for the whole")
    message: str


class Both(Out):
    path: str
    name: str
    theirs: str
    mine: str


class ErrorOut(Out):
    """The one shape of every error."""

    code: str
    message: str = Field(description="a sentence for the person at the screen")
    fields: list[FieldFault] = []
    both: list[Both] = Field(default=[], description="what another window changed meanwhile, with what was sent for it")


class LengthOut(Out):
    mm: float
    text: str = Field(description="in the person's units, ready to be typed again")


class InputOut(Out):
    name: str
    text: str


class StepOut(Out):
    label: str
    formula: str
    inputs: list[InputOut]
    result: str
    why: str = Field(description="a word on the formula, or nothing")


class SourceOut(Out):
    kind: SourceKind
    name: str
    note: str


class FigureOut(Out):
    """A figure whole: number and unit for reading, range, working, sources."""

    value: float
    number: str
    unit: str
    text: str
    low: str | None
    high: str | None
    low_value: float | None
    high_value: float | None
    sure: str | None = Field(description="half the range, such as “± 0.4 %”, or both ends in brackets")
    note: str
    steps: list[StepOut]
    sources: list[SourceOut]


class ChoiceOut(Out):
    value: str
    label: str


class ProjectPath(BaseModel):
    project_id: int = Field(ge=1, le=2**31)


class UseQuery(In):
    """Which of a garment's cloths it is seen through, by the number of its use; the main one when left out."""

    use: int | None = Field(default=None, ge=1, le=2**31)


class ClothPath(BaseModel):
    cloth_id: int = Field(ge=1, le=2**31)
