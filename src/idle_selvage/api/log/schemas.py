"""What the log sends."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import Field

from ..shared.schemas import Out


class LogLineOut(Out):
    id: int
    at: datetime
    stage: str
    kind: str = Field(description="what kind of thing was done")
    what: str
    values: dict[str, Any]
    before: dict[str, Any] = Field(description="the entries it changed, as they were")
    after: dict[str, Any]


class LogOut(Out):
    entries: list[LogLineOut]
