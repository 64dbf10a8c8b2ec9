"""What stands on a garment's list by hand, and what of the list is in the house."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from .errors import NotFound
from .models import ListItem, ListTick

OWN = "own-"


def items(session: Session, project_id: int) -> list[ListItem]:
    """What the maker put on the list, in the order it came."""
    query = select(ListItem).where(ListItem.project_id == project_id, ListItem.deleted_at.is_(None))
    return list(session.scalars(query.order_by(ListItem.id)))


def item(session: Session, project_id: int, line: str) -> ListItem:
    """One of them by its line. Raises :class:`NotFound`."""
    number = line.removeprefix(OWN)
    known = number.isascii() and number.isdigit() and len(number) < 10 and line.startswith(OWN)
    row = session.get(ListItem, int(number)) if known else None
    if row is None or row.project_id != project_id or row.deleted_at is not None:
        raise NotFound("That does not stand on the list, or cannot be taken off it.")
    return row


def line_of(row: ListItem) -> str:
    """Its line on the list."""
    return f"{OWN}{row.id}"


def ticked(session: Session, project_id: int) -> set[str]:
    """The lines that are in the house."""
    return set(session.scalars(select(ListTick.line).where(ListTick.project_id == project_id)))


def tick(session: Session, project_id: int, line: str, *, have: bool) -> None:
    """Tick a line off, or not."""
    row = session.get(ListTick, (project_id, line))
    if have and row is None:
        session.add(ListTick(project_id=project_id, line=line))
    elif not have and row is not None:
        session.delete(row)
    session.flush()
