"""Who is asking: the units of the person, set at the start of every request."""

from __future__ import annotations

from contextvars import ContextVar

from ...core.units import System

current_system: ContextVar[System] = ContextVar("current_system", default="metric")


def system() -> System:
    """The units of the person asking."""
    return current_system.get()
