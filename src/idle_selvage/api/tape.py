"""The tape: readings sent by a digital tape, taken by the field in focus."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..standins.tape import Tape
from . import schemas as out
from .context import send, system
from .entries import LengthIn
from .presenter import Presenter

blueprint = APIBlueprint("tape", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class ReadingIn(out.In):
    """A reading: a number is millimetres, as a device sends it; a text may have a unit."""

    value: LengthIn


class SinceQuery(out.In):
    after: int = Field(default=0, ge=0, le=2**53)


def _tape() -> Tape:
    return cast(Tape, current_app.config["TAPE"])


@blueprint.post("/tape/readings", operation_id="sendReading", responses={201: out.TapeReadingOut})
def send_reading(body: ReadingIn) -> Response:
    """Send one reading; the field in focus takes it."""
    reading = _tape().push(body.value)
    return send(out.TapeReadingOut(id=reading.number, length=Presenter(system()).length(reading.mm)), 201)


@blueprint.get("/tape/readings", operation_id="takeReadings", responses={200: out.TapeOut})
def take_readings(query: SinceQuery) -> Response:
    """Readings that came after a number."""
    readings, last = _tape().since(query.after)
    show = Presenter(system())
    return send(
        out.TapeOut(readings=[out.TapeReadingOut(id=r.number, length=show.length(r.mm)) for r in readings], last=last)
    )
