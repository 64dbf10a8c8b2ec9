"""What the washing day sends and is asked."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import BaseModel, Field, model_validator

from ..shared.entries import Key, LoadWeightIn, Number, Text
from ..shared.schemas import FigureOut, In, LengthOut, Out


class LoadTaskOut(Out):
    id: int
    load_id: int
    what: str
    machine: str
    machine_label: str
    minutes: int
    time: FigureOut = Field(description="how long it was planned to take, with its working")
    start_at: datetime
    end_at: datetime
    started_at: datetime | None
    finished_at: datetime | None
    late: bool
    rings: bool = Field(description="somebody must come when the time is up; drying can wait for the morning")
    ready: bool = Field(description="what comes before it is done")


class LoadOut(Out):
    id: int
    name: str
    why: str
    kilograms: float
    weight: FigureOut | None = Field(description="the same with its working; its note says what was not given")
    too_heavy: bool
    cloths: list[str]
    tasks: list[LoadTaskOut]


class ToMeasureOut(Out):
    """A cloth that was treated and not measured since: what it is about now, where that can be told."""

    cloth_id: int
    name: str
    project: str
    state: int
    how: str
    width: LengthOut | None = Field(description="as measured since, if it was")
    length: LengthOut | None
    width_about: LengthOut | None
    length_about: LengthOut | None


class WaitingOut(Out):
    """A cloth that is to be treated, or that cannot be planned yet and why."""

    cloth_id: int
    name: str
    project: str
    programme: str
    kilograms: float | None
    weight: FigureOut | None
    missing: str


class LearnedOut(Out):
    what: str
    minutes: float
    times: int


class WashdayOut(Out):
    """What waits to be washed, the loads planned and under way, and what the plan rests on."""

    now: datetime
    waiting: list[WaitingOut]
    to_measure: list[ToMeasureOut]
    loads: list[LoadOut]
    finish_at: datetime | None
    out_of_date: str
    washer_kg: float
    washer: str = Field(description="the same in the person's unit, ready to be typed again")
    washer_unit: str
    rise: str
    sleep: str
    learned: list[LearnedOut]


class TaskPath(BaseModel):
    task_id: int = Field(ge=1, le=2**31)


class DayQuery(In):
    brief: bool = Field(default=False, description="only the loads: what waits is left out, and whether it is planned")


class PlanIn(In):
    """What is wished of the plan."""

    cloths: list[Number] | None = Field(default=None, max_length=200, description="only these; null: all that wait")
    start: Text = Field(default="", description="not before this time of day, as 14:30 or 2:30 pm")
    taken: dict[Key, Text] = Field(default={}, max_length=8, description="machines, and until when each is not free")

    @model_validator(mode="before")
    @classmethod
    def _nothing_wished(cls, data: Any) -> Any:
        return {} if data is None else data


class HouseChange(In):
    """What the washer takes, and when the person is up (as 7:00)."""

    washer_kg: LoadWeightIn | None = None
    rise: str | None = Field(default=None, max_length=10)
    sleep: str | None = Field(default=None, max_length=10)
