"""Everything stored of garments and cloths, fetched at once: a fixed number of queries however many there are."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from ..core.shrink.history import Past
from . import job, lay, log_entry, photo, swatch, true_sheet, true_test, wash
from .models import Cloth, Job, LayRecord, Piece, Project, SetCloth, Swatch, TrueSheet, TrueTest, Wash


@dataclass(frozen=True)
class ClothRows:
    """What is stored of one cloth: its row, the swatch it is gone by, its washes, past tests of like cloth (without its
    own), and when its photo was taken."""

    cloth: Cloth
    swatch: Swatch | None
    washes: tuple[Wash, ...]
    past: tuple[Past, ...]
    photo_at: datetime | None


@dataclass(frozen=True)
class GarmentRows:
    """What is stored of one garment. ``beside``: its other cloths with their roles; ``logged``: lines in its log."""

    project: Project
    main: ClothRows
    beside: tuple[tuple[str, ClothRows], ...]
    pieces: tuple[Piece, ...]
    chosen: LayRecord | None
    job: Job | None
    true_sheet: TrueSheet
    true_tests: tuple[TrueTest, ...]
    logged: int


def cloth_rows(session: Session, cloths: Sequence[Cloth]) -> dict[int, ClothRows]:
    """What is stored of each cloth, by its number."""
    numbers = [row.id for row in cloths]
    used = swatch.used_swatches(session, numbers)
    washed = wash.washes(session, numbers)
    photos = photo.taken(session, numbers)
    past = swatch.past_tests(session, {row.like for row in cloths})
    return {
        row.id: ClothRows(
            row,
            used.get(row.id),
            tuple(washed.get(row.id, ())),
            tuple(test for number, test in past.get(row.like, ()) if number != row.id),
            photos.get(row.id),
        )
        for row in cloths
    }


def garments(session: Session, projects: Sequence[Project]) -> list[GarmentRows]:
    """What is stored of each garment, in the same order."""
    numbers = [row.id for row in projects]
    beside: dict[int, list[SetCloth]] = {}
    query = (
        select(SetCloth)
        .where(SetCloth.project_id.in_(numbers))
        .options(joinedload(SetCloth.cloth))
        .order_by(SetCloth.cloth_id)
    )
    for one in session.scalars(query):
        beside.setdefault(one.project_id, []).append(one)
    pieces: dict[int, list[Piece]] = {}
    for piece in session.scalars(
        select(Piece).where(Piece.project_id.in_(numbers), Piece.deleted_at.is_(None)).order_by(Piece.id)
    ):
        pieces.setdefault(piece.project_id, []).append(piece)
    cloths = {row.cloth.id: row.cloth for row in projects}
    cloths.update({one.cloth_id: one.cloth for rows in beside.values() for one in rows})
    stored = cloth_rows(session, list(cloths.values()))
    chosen = lay.chosen_lays(session, numbers)
    jobs = job.last_lays(session, numbers)
    sheets = true_sheet.sheets(session, numbers)
    tests = true_test.tests(session, numbers)
    logged = log_entry.counts(session, numbers)
    return [
        GarmentRows(
            row,
            stored[row.cloth.id],
            tuple((one.role, stored[one.cloth_id]) for one in beside.get(row.id, ())),
            tuple(pieces.get(row.id, ())),
            chosen.get(row.id),
            jobs.get(row.id),
            sheets[row.id],
            tuple(tests.get(row.id, ())),
            logged.get(row.id, 0),
        )
        for row in projects
    ]
