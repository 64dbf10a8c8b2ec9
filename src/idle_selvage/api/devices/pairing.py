"""Pairing: the code on the first screen, devices that gave it, and taking a pairing back."""

from __future__ import annotations

import math
from datetime import datetime

import segno
from flask import Response, request
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from ...operations import pairing
from ...store import models
from ..cut import schemas as out
from ..door import shown
from ..errors import error
from ..services import begin, look, send, services

#: Under which name a device keeps its token, and for how long, seconds.
COOKIE, YEAR = "idle_selvage_device", 365 * 24 * 3600


class DevicePath(BaseModel):
    device_id: int = Field(ge=1, le=2**31)


def read_pairing() -> Response:
    """The code, the address as a QR code, and every device. Only on this machine itself."""
    with look() as session:
        return send(_out(session))


def _out(session: Session) -> out.PairingOut:
    door = services().door
    first = door.addresses[0] if door.addresses else ""
    qr = ""
    if door.open and first:
        code = segno.make(f"{first}pair?code={door.code}", error="m")
        qr = code.svg_data_uri(scale=4, border=4, omitsize=True, dark="#1d2027", light="#ffffff")
    return out.PairingOut(
        open=door.open,
        code=shown(door.code) if door.open else "",
        addresses=list(door.addresses),
        qr=qr,
        devices=[_device(row, door.seen.get(row.id)) for row in pairing.devices(session)],
    )


def _device(row: models.PairedDevice, seen: datetime | None) -> out.DeviceOut:
    return out.DeviceOut(id=row.id, name=row.name, paired=_time(row.paired_at), seen=_time(seen or row.seen_at))


def _time(at: datetime) -> str:
    return at.isoformat()


def pair_device(body: out.PairIn) -> Response:
    """Pair the device that asks, by the code on the first screen. Wrong codes are slowed."""
    door = services().door
    wait = door.wait()
    if wait > 0:
        seconds = math.ceil(wait)
        answer = error("slowed", f"Too many wrong codes. Wait {seconds} seconds, and read the code again.", 429)
        answer.headers["Retry-After"] = str(seconds)
        return answer
    if not door.tries(body.code):
        told = "That is not the code on the first screen. Read it there again: it may be another by now."
        return error("wrong_code", told, 403)
    with begin() as session:
        row, token = pairing.pair(session, body.name)
        answer = send(out.PairedOut(name=row.name), 201)
    # no Secure: at home it goes over plain HTTP, which the README says
    answer.set_cookie(COOKIE, token, max_age=YEAR, httponly=True, samesite="Strict", path="/")
    return answer


def revoke_device(path: DevicePath) -> Response:
    """Take the pairing of a device back. Only on this machine itself."""
    with begin() as session:
        pairing.revoke(session, path.device_id)
        session.flush()
        return send(_out(session))


def token_sent() -> str:
    """The token that came with the request."""
    return request.cookies.get(COOKIE, "")
