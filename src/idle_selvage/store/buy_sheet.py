"""What was typed on the sheets of Buy."""

from __future__ import annotations

from sqlalchemy.orm import Session

from .models import BuySheet


def sheet(session: Session, project_id: int) -> BuySheet:
    """A project's sheet; an empty one, not yet kept, before anything was typed."""
    row = session.get(BuySheet, project_id)
    return row or BuySheet(project_id=project_id, envelope={}, strips={}, together=[], items=[], have=[])


def kept_sheet(session: Session, project_id: int) -> BuySheet:
    """The sheet to write on."""
    row = sheet(session, project_id)
    session.add(row)
    return row
