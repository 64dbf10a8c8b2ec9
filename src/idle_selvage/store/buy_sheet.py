"""What was typed on the sheets of Buy."""

from __future__ import annotations

from sqlalchemy.orm import Session

from .models import BuySheet


def sheet(session: Session, use_id: int) -> BuySheet:
    """The sheet of a cloth of a garment; an empty one, not yet kept, before anything was typed."""
    return session.get(BuySheet, use_id) or BuySheet(use_id=use_id, envelope={}, strips={})


def kept_sheet(session: Session, use_id: int) -> BuySheet:
    """The sheet to write on."""
    row = sheet(session, use_id)
    session.add(row)
    return row
