"""What the log sends."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from ..shared.schemas import Out


class LogLineOut(Out):
    id: int
    at: datetime
    stage: str
    what: str
    detail: dict[str, Any]


class LogOut(Out):
    entries: list[LogLineOut]
