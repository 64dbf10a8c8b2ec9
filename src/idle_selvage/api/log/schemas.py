"""What the log sends."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import Field

from ..shared.schemas import In, Out


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
