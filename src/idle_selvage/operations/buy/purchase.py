"""What is wished for the purchase."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy.orm import Session

from ...store import models
from ..project import change
from ..refused import Refused, within
from ..true import settle_ends

_LIMITS = {"ends": (0.0, 5000.0), "spare": (0.0, 50_000.0), "shop_step": (1.0, 5000.0), "bought_extra": (0.0, 50_000.0)}


def change_purchase(session: Session, use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Change the ends to straighten, the spare, what is bought on purpose and why, or what the shop cuts in.

    Choosing ``edge_way`` sets the ends it takes. Raises :class:`Refused`.
    """
    within(given, _LIMITS)
    entries = dict(given)
    if "ends" in entries:
        # said to be so much in all: what was read at one end no longer counts
        use.first_end = None
    elif "edge_way" in entries:
        use.edge_way = entries["edge_way"]
        settle_ends(use)
        entries["ends"] = use.ends
    extra = entries.get("bought_extra", use.bought_extra)
    if extra > 0 and not entries.get("extra_why", use.extra_why):
        told = "Say why more is bought on purpose, such as “clearance” or “unsure of the border”."
        raise Refused(told, path="extra_why")
    change(session, use, entries, "buy")
