"""Who is asking: the units of the person, and what was read with, set at the start of every request."""

from __future__ import annotations

from contextvars import ContextVar

from ...core.units import System
from ...store.models import By

#: A page says so when a digital tape typed what it sends.
READ_WITH = "X-Read-With"

current_system: ContextVar[System] = ContextVar("current_system", default="metric")


def system() -> System:
    """The units of the person asking."""
    return current_system.get()


#: A page says so when the person insists on what was asked back.
INSIST = "X-Insist"

insisted: ContextVar[bool] = ContextVar("insisted", default=False)


_current_by: ContextVar[By] = ContextVar("current_by", default="tape")


def read_with(header: str | None) -> None:
    """What the page says of what was read with."""
    _current_by.set("device" if header == "device" else "tape")


def by() -> By:
    """By what that which is sent was read."""
    return _current_by.get()
