"""Paired devices."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from .models import PairedDevice


def devices(session: Session) -> list[PairedDevice]:
    """Those whose pairing stands, the newest first."""
    query = select(PairedDevice).where(PairedDevice.revoked_at.is_(None)).order_by(PairedDevice.id.desc())
    return list(session.scalars(query))


def by_token(session: Session, digest: str) -> PairedDevice | None:
    """The one that has a token, by its digest."""
    query = select(PairedDevice).where(PairedDevice.token == digest, PairedDevice.revoked_at.is_(None))
    return session.scalar(query)
