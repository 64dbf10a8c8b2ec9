"""Swatches: finding them, the core's swatch of a row, and past tests of like cloth."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.shrink.history import Past
from ..core.shrink.shrinkage import BadReadings
from ..core.shrink.swatch import Swatch as MarkedSwatch
from ..core.shrink.swatch import in_all
from .errors import NotFound
from .models import Cloth, Swatch

#: Of like cloths, so many tests are looked at, the newest.
MOST_PAST = 50


def swatches(session: Session, cloth_id: int) -> list[Swatch]:
    """A cloth's swatches, the newest first."""
    return list(session.scalars(select(Swatch).where(Swatch.cloth_id == cloth_id).order_by(Swatch.id.desc())))


def swatch(session: Session, number: int) -> Swatch:
    """A swatch by its number. Raises :class:`NotFound`."""
    row = session.get(Swatch, number)
    if row is None:
        raise NotFound("There is no such swatch.")
    return row


def used_swatch(session: Session, cloth_id: int) -> Swatch | None:
    """The swatch a cloth is gone by, or None before one was marked."""
    return used_swatches(session, [cloth_id]).get(cloth_id)


def used_swatches(session: Session, cloth_ids: Iterable[int]) -> dict[int, Swatch]:
    """The swatch each cloth is gone by, by the cloth's number."""
    query = select(Swatch).where(Swatch.cloth_id.in_(list(cloth_ids)), Swatch.used).order_by(Swatch.id)
    return {row.cloth_id: row for row in session.scalars(query)}


def as_swatch(row: Swatch | None) -> MarkedSwatch:
    """The core's swatch; an empty one before any was marked."""
    if row is None:
        return MarkedSwatch()
    return MarkedSwatch(
        tuple(tuple(r) for r in row.warp),
        tuple(tuple(r) for r in row.weft),
        row.graduation,
        tuple(_pair(d) for d in row.diagonals),
    )


def _pair(diagonals: list[float | None] | None) -> tuple[float, float] | None:
    """Both diagonals, or None while one is missing."""
    ac, bd = diagonals or (None, None)
    return None if ac is None or bd is None else (ac, bd)


def past_tests(session: Session, likes: Iterable[str]) -> dict[str, list[tuple[int, Past]]]:
    """Finished tests by the key of like cloth, the newest first, each with its cloth's number; none made up."""
    query = (
        select(Swatch, Cloth.id, Cloth.name, Cloth.like)
        .join(Cloth, Cloth.id == Swatch.cloth_id)
        .where(Cloth.like.in_([like for like in likes if like]), Swatch.used, ~Swatch.simulated)
        .order_by(Swatch.id.desc())
    )
    found: dict[str, list[tuple[int, Past]]] = {}
    for row, number, name, like in session.execute(query):
        test = as_swatch(row)
        try:
            warp, weft = in_all(test, "warp"), in_all(test, "weft")
        except BadReadings:
            continue
        if warp is not None and weft is not None and len(found.setdefault(like, [])) < MOST_PAST:
            found[like].append((number, Past(name or "a cloth without a name", warp.value, weft.value)))
    return found
