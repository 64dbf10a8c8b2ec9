"""How a person measures, buys and lives, brought along from another home."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.shrink.shrinkage import TAPES_MM
from ..store import models
from ..store.settings import settings
from .cut.left import change_scrap
from .project import SettingsGiven, change_settings
from .refused import Refused
from .washday import change_house


def is_unused(session: Session) -> bool:
    """Whether there is no garment and no cloth in this home, but for what was put away."""
    rows = (select(model.id).where(model.deleted_at.is_(None)).limit(1) for model in (models.Project, models.Cloth))
    return all(session.scalar(row) is None for row in rows)


def bring_settings(session: Session, row: Mapping[str, Any]) -> None:
    """Make the settings of this home those of another one, by the row they had there. Each is held to what it would be
    held to if it was typed here; when one is refused, all stay as they were. Raises :class:`Refused`."""
    here = settings(session)
    before = {column.name: getattr(here, column.name) for column in models.Settings.__table__.columns}
    try:
        if row["system"] not in TAPES_MM:
            raise Refused(f"Units are metric or imperial, not “{row['system']}”.", path="system")
        names = ("system", "graduation", "shop_step", "currency", "asked")
        change_settings(session, SettingsGiven(**{name: row.get(name) for name in names}))
        # none is what is usual in these units, and not what stood here
        here.shop_step = row.get("shop_step")
        change_scrap(session, row["scrap"])
        change_house(session, row["washer_kg"], _time(row["rise"]), _time(row["sleep"]))
    except Refused:
        for name, value in before.items():
            setattr(here, name, value)
        session.flush()
        raise


def _time(minutes: int) -> str:
    """Minutes of the day as they are typed."""
    return f"{minutes // 60}:{minutes % 60:02d}"
