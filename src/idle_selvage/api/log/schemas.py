"""What the log sends."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from pydantic import BaseModel, Field

from ..shared.schemas import In, Out

#: A day that is asked for: wide enough for any record, and a day with a neighbour on either side.
FIRST_DAY, LAST_DAY = date(1900, 1, 1), date(2200, 12, 31)


class LogLineOut(Out):
    id: int
    at: datetime
    stage: str
    kind: str = Field(description="what kind of thing was done")
    what: str
    values: dict[str, Any]
    before: dict[str, Any] = Field(description="the entries it changed, as they were")
    after: dict[str, Any]
    change: int | None = Field(description="the change it tells of, where that can be taken back")
    stands: bool = Field(description="whether it was not taken back")


class LogQuery(In):
    before: int | None = Field(None, ge=1, le=2**31, description="only what was done before this line")
    lines: int = Field(default=200, ge=1, le=1000, description="at most so many")


class LogOut(Out):
    entries: list[LogLineOut]
    total: int = Field(description="how many there are, sent or not")
    earlier: int | None = Field(description="ask for what came before this line; null when there is nothing more")


class ToldOut(LogLineOut):
    """A line of a timeline, with the garment and the cloth it is about."""

    project_id: int | None
    project: str
    cloth_id: int | None
    cloth: str
    photo: bool


class TimelineQuery(In):
    """Which lines are wanted."""

    project: int | None = Field(None, ge=1, le=2**31, description="of a garment")
    cloth: int | None = Field(None, ge=1, le=2**31, description="of a cloth, whichever garment it is in")
    stage: str | None = Field(None, max_length=10)
    since: date | None = Field(None, ge=FIRST_DAY, le=LAST_DAY, description="from this day on")
    until: date | None = Field(None, ge=FIRST_DAY, le=LAST_DAY, description="up to this day")
    text: str = Field(default="", max_length=200, description="words that are in the line")
    before: int | None = Field(None, ge=1, le=2**31, description="only what was done before this line")
    lines: int = Field(default=200, ge=1, le=1000, description="at most so many")
    minutes: int = Field(
        default=0, ge=-15 * 60, le=15 * 60, description="by how much the reader's clock is ahead of UTC"
    )


class TimelineOut(Out):
    groups: list[list[ToldOut]] = Field(description="lines of one kind that follow each other closely, as one group")
    earlier: int | None = Field(description="ask for what came before this line; null when there is nothing more")


class NoteIn(In):
    text: str = Field(default="", max_length=4000)
    project: int | None = Field(None, ge=1, le=2**31)
    cloth: int | None = Field(None, ge=1, le=2**31)
    photo: str | None = Field(None, max_length=8_500_000, description="a JPEG, PNG or WebP picture in base64")


class LinePath(BaseModel):
    line_id: int = Field(ge=1, le=2**31)


class NewsQuery(In):
    since: int = Field(default=0, ge=0, le=2**53, description="how far it had rung, as last told")
    wait: int = Field(default=0, ge=0, le=30, description="at most so many seconds")


class NewsOut(Out):
    newest: int = Field(description="the newest change that another window or a job has made")
    rung: int = Field(description="how far it has rung: it rings whenever something was written")
    tape: int = Field(description="the number of the newest reading of the tape")


class DeedOut(Out):
    change: int
    at: datetime
    what: str


class UndoOut(Out):
    back: DeedOut | None = Field(description="what is taken back next")
    again: DeedOut | None = Field(description="what is done again next")
    done: DeedOut | None = Field(None, description="what was taken back, or done again, just now")


class UndoQuery(In):
    project: int | None = Field(
        None, ge=1, le=2**31, description="a garment's list; without it the list of bench and cupboard"
    )


class ChangePath(In):
    change_id: int = Field(ge=1, le=2**31)
