"""Who is asking: the units of the person, and what was read with, set at the start of every request."""

from __future__ import annotations

from contextvars import ContextVar

from ...core.units import System
from ...store.journal import NOBODY, Asked
from ...store.models import By

#: A page says so when a digital tape typed what it sends.
READ_WITH = "X-Read-With"

current_system: ContextVar[System] = ContextVar("current_system", default="metric")


#: What this person writes behind money.
currency: ContextVar[str] = ContextVar("currency", default="")


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


#: A page says which one it is, and the newest change it shows.
WINDOW, SEEN = "X-Window", "X-Seen"
#: Every answer says the newest change that another page or a job had made before it.
NEWS = "X-News"

#: A page says which list of undo it shows: a garment's number, or that of the house, with a change; the answer brings
#: what can be taken back then, so that it need not be asked for.
LIST, HOUSE, UNDO = "X-List", "house", "X-Undo"

_current_asked: ContextVar[Asked] = ContextVar("current_asked", default=NOBODY)
#: What the answer says of it.
news: ContextVar[int] = ContextVar("news", default=0)


def asks(window: str | None, seen: str | None) -> None:
    """Which page asks, by its headers."""
    number = int(seen) if seen is not None and seen.isascii() and seen.isdigit() and len(seen) < 16 else None
    _current_asked.set(Asked((window or "")[:40], number))


def asked() -> Asked:
    """Which page asks for a change, and what it shows."""
    return _current_asked.get()
