"""The tape: readings sent by a digital tape, taken by the field in focus."""

from __future__ import annotations

from flask import Response

from ..services import send, services
from ..shared.figures import presenter
from . import schemas as out


def send_reading(body: out.ReadingIn) -> Response:
    """Send one reading; the field in focus takes it."""
    reading = services().tape.push(body.value)
    services().database.bell.ring()
    return send(out.TapeReadingOut(id=reading.number, length=presenter().length(reading.mm)), 201)


def take_readings(query: out.SinceQuery) -> Response:
    """Readings that came after a number."""
    readings, last = services().tape.since(query.after)
    show = presenter()
    return send(
        out.TapeOut(readings=[out.TapeReadingOut(id=r.number, length=show.length(r.mm)) for r in readings], last=last)
    )
