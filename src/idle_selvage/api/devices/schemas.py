"""What devices send and are asked."""

from __future__ import annotations

from pydantic import Field

from ..shared.entries import LengthIn
from ..shared.schemas import In, LengthOut, Out


class TapeReadingOut(Out):
    id: int
    length: LengthOut


class TapeOut(Out):
    readings: list[TapeReadingOut]
    last: int


class ReadingIn(In):
    """A reading: a number is millimetres, as a device sends it; a text may have a unit."""

    value: LengthIn


class SinceQuery(In):
    after: int = Field(default=0, ge=0, le=2**53)
