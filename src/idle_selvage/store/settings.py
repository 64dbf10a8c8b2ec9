"""The one row of settings."""

from __future__ import annotations

from sqlalchemy.orm import Session

from .models import Settings


def settings(session: Session) -> Settings:
    """The one settings row; the first migration made it."""
    return session.get_one(Settings, 1)
