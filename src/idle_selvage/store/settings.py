"""The one row of settings."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from .journal import newest_change
from .models import Settings


def settings(session: Session) -> Settings:
    """The one settings row; the first migration made it."""
    return session.get_one(Settings, 1)


def settings_and_news(session: Session, besides: str) -> tuple[Settings, int]:
    """The settings, and the newest change of any page but one, in one query: every request asks for both."""
    query = select(Settings, newest_change(besides).scalar_subquery()).where(Settings.id == 1)
    row, news = session.execute(query).one()
    return row, news or 0
