"""The plan of a washing day as iCalendar (RFC 5545), written with the ``icalendar`` package."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta


@dataclass(frozen=True)
class Entry:
    """One step to be written: a number that stays its own, what, with which cloths, and when (UTC)."""

    number: int
    what: str
    cloths: str
    note: str
    start: datetime
    end: datetime


def write_ics(entries: Sequence[Entry], made: datetime, *, name: str = "Washing day", of: str = "step") -> bytes:
    """A calendar with one event per step, and an alarm at each step's end."""
    # a fifth of a second to import, and only this needs it
    from icalendar import Alarm, Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", "-//Idle Selvage//washing day//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", f"{of}-{entry.number}@idle-selvage.invalid")
        event.add("dtstamp", made)
        event.add("dtstart", entry.start)
        event.add("dtend", entry.end)
        event.add("summary", f"{entry.what}: {entry.cloths}")
        event.add("description", entry.note)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", f"Done: {entry.what}, {entry.cloths}")
        alarm.add("trigger", timedelta(0), parameters={"RELATED": "END"})
        event.add_component(alarm)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
