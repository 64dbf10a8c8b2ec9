"""Swatches: finding them, the core's swatch of a row, and past tests of like cloth."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.cloth.make import Make
from ..core.shrink.history import Past
from ..core.shrink.programme import Programme
from ..core.shrink.shrinkage import BadReadings
from ..core.shrink.swatch import Swatch as MarkedSwatch
from ..core.shrink.swatch import in_all, verdict
from ..core.shrink.treatment import swatch_programme
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


def used_and_measured(rows: Iterable[Swatch]) -> tuple[dict[int, Swatch], dict[int, Swatch]]:
    """The swatch at hand of each cloth, and the one it is planned by: that one, or, while it was never measured after a
    wash, the newest that was. ``rows``: all of theirs, the first one first."""
    used: dict[int, Swatch] = {}
    measured: dict[int, Swatch] = {}
    for row in rows:
        washed = any(len(marks) > 1 for marks in (*row.warp, *row.weft))
        if row.used:
            used[row.cloth_id] = row
        if washed and not (row.cloth_id in measured and measured[row.cloth_id].used):
            measured[row.cloth_id] = row
    for cloth_id, row in used.items():
        measured.setdefault(cloth_id, row)
    return used, measured


def as_swatch(row: Swatch | None) -> MarkedSwatch:
    """The core's swatch; an empty one before any was marked."""
    if row is None:
        return MarkedSwatch()
    return MarkedSwatch(
        tuple(tuple(r) for r in row.warp),
        tuple(tuple(r) for r in row.weft),
        row.graduation,
        tuple(_pair(d) for d in row.diagonals),
        how_washed(row),
    )


def how_washed(row: Swatch) -> Programme | None:
    """How it was washed and dried; None where that is not written down."""
    if not row.wash:
        return None
    found = swatch_programme(row.wash, row.dry)
    return found if row.temperature is None else replace(found, temperature=row.temperature)


def keep_how(row: Swatch, how: Programme) -> None:
    """Write down how it was washed."""
    row.wash = "steam" if how.cycle == "steam" else how.wash
    row.dry = how.dry
    row.temperature = how.temperature if how.cycle == "soak" else None


def _pair(diagonals: list[float | None] | None) -> tuple[float, float] | None:
    """Both diagonals, or None while one is missing."""
    ac, bd = diagonals or (None, None)
    return None if ac is None or bd is None else (ac, bd)


@dataclass(frozen=True)
class PastTest:
    """A finished test: of which cloth, what that is made of, and what the test came to."""

    cloth_id: int
    make: Make
    test: Past


def past_tests(swatches: Iterable[Swatch], cloths: Iterable[Cloth]) -> dict[str, list[PastTest]]:
    """Tests that came to rest by the fibre group of their cloth, the newest first; none made up. ``cloths``: all theirs
    are of."""
    of = {row.id: row for row in cloths}
    found: dict[str, list[PastTest]] = {}
    for row in sorted(swatches, key=lambda row: -row.id):
        cloth = of[row.cloth_id]
        if not cloth.like or not row.used or row.simulated:
            continue
        test = as_swatch(row)
        try:
            warp, weft = in_all(test, "warp"), in_all(test, "weft")
            at_rest = verdict(test, cloth.like)[0] == "stable"
        except BadReadings:
            continue
        if warp is not None and weft is not None and at_rest and len(found.setdefault(cloth.like, [])) < MOST_PAST:
            make = Make(tuple((fibre, share) for fibre, share in cloth.blend), cloth.weave, cloth.finish)
            past = Past(cloth.name or "a cloth without a name", warp.value, weft.value, test.how)
            found[cloth.like].append(PastTest(cloth.id, make, past))
    return found
