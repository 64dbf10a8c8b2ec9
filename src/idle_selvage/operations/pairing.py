"""Devices that were paired: a tablet on the cutting table, known by a token that only it has."""

from __future__ import annotations

import hashlib
import secrets

from sqlalchemy.orm import Session

from ..store import device, models
from ..store.errors import NotFound
from .log import note
from .refused import Refused

#: So many devices are paired at most.
MOST_DEVICES = 20


def pair(session: Session, name: str) -> tuple[models.PairedDevice, str]:
    """A new device, and the token by which it will be known: it is told once and kept only as its SHA-256. Raises
    :class:`Refused`."""
    if len(device.devices(session)) >= MOST_DEVICES:
        raise Refused(f"{MOST_DEVICES} devices are paired already. Take one back first.")
    token = secrets.token_urlsafe(32)
    row = models.PairedDevice(name=name[:60], token=digest(token))
    session.add(row)
    session.flush()
    note(session, None, "cut", "device-paired", name=row.name)
    return row, token


def digest(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode("utf-8", "replace")).hexdigest()


def known(session: Session, token: str) -> models.PairedDevice | None:
    """The device that has a token; None where its pairing was taken back, or there never was one."""
    return device.by_token(session, digest(token)) if token else None


def devices(session: Session) -> list[models.PairedDevice]:
    """Every device that is paired, the newest first."""
    return device.devices(session)


def revoke(session: Session, number: int) -> None:
    """Take the pairing of a device back. Raises NotFound."""
    row = session.get(models.PairedDevice, number)
    if row is None or row.revoked_at is not None:
        raise NotFound("There is no such device; it may have been taken back already.")
    row.revoked_at = models.now()
    session.flush()
    note(session, None, "cut", "device-revoked", name=row.name)
