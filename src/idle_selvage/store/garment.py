"""Everything stored of garments and cloths, fetched at once: a fixed number of queries however many there are."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.shrink.history import Past
from ..core.shrink.ranges import alike
from . import cloth, job, lay, log_entry, photo, swatch, true_sheet, true_test, use
from .models import Cloth, ClothUse, Cut, Job, LayRecord, Piece, Project, Swatch, TrimRun, TrueSheet, TrueTest, Wash


@dataclass(frozen=True)
class ClothRows:
    """What is stored of one cloth: its row, the swatch at hand and the one measured last (the same, unless that was
    only begun), its washes, past tests of like cloth (without its
    own), and when its photo was taken."""

    cloth: Cloth
    swatch: Swatch | None
    measured: Swatch | None
    washes: tuple[Wash, ...]
    past: tuple[Past, ...]
    photo_at: datetime | None


@dataclass(frozen=True)
class UseRows:
    """What is stored of one cloth of a garment. ``cuts``: the pieces cut from it, each with how;
    ``true_tests``: in the state it is in; ``true_before``: the last one before that."""

    use: ClothUse
    cloth: ClothRows
    cuts: tuple[tuple[Piece, Cut], ...]
    chosen: LayRecord | None
    job: Job | None
    true_sheet: TrueSheet
    true_tests: tuple[TrueTest, ...]
    true_before: TrueTest | None
    runs: tuple[TrimRun, ...]


@dataclass(frozen=True)
class GarmentRows:
    """What is stored of one garment, the main cloth first. ``logged``: lines in its log."""

    project: Project
    uses: tuple[UseRows, ...]
    pieces: tuple[Piece, ...]
    logged: int


def cloth_rows(session: Session, cloths: Sequence[Cloth]) -> dict[int, ClothRows]:
    """What is stored of each cloth, by its number."""
    numbers = [row.id for row in cloths]
    used, measured = swatch.used_and_measured(session, numbers)
    photos = photo.taken(session, numbers)
    past = swatch.past_tests(session, {row.like for row in cloths})
    return {
        row.id: ClothRows(
            row,
            used.get(row.id),
            measured.get(row.id),
            tuple(wash for wash in row.washes if wash.deleted_at is None),
            tuple(
                one.test
                for one in past.get(row.like, ())
                if one.cloth_id != row.id and alike(one.make, cloth.as_make(row))
            ),
            photos.get(row.id),
        )
        for row in cloths
    }


def garments(session: Session, projects: Sequence[Project]) -> list[GarmentRows]:
    """What is stored of each garment, in the same order."""
    numbers = [row.id for row in projects]
    pieces: dict[int, list[Piece]] = {}
    for piece in session.scalars(
        select(Piece).where(Piece.project_id.in_(numbers), Piece.deleted_at.is_(None)).order_by(Piece.id)
    ):
        pieces.setdefault(piece.project_id, []).append(piece)
    rows = {one.id: one for row in projects for one in row.uses}
    stored = cloth_rows(session, list({one.cloth_id: one.cloth for one in rows.values()}.values()))
    uses = list(rows)
    chosen = lay.chosen_lays(session, uses)
    jobs = job.last_lays(session, uses)
    sheets = true_sheet.sheets(session, uses)
    tests = true_test.tests(session, rows.values())
    runs = use.runs(session, uses)
    logged = log_entry.counts(session, numbers)

    def whole(one: ClothUse) -> UseRows:
        there = pieces.get(one.project_id, ())
        tested = tests.get(one.id, [])
        here = true_test.of_state(one.cloth, tested)
        return UseRows(
            one,
            stored[one.cloth_id],
            tuple((piece, cut) for piece in there if (cut := piece.cut_from(one.id)) is not None),
            chosen.get(one.id),
            jobs.get(one.id),
            sheets[one.id],
            here,
            next((test for test in reversed(tested) if test not in here), None),
            runs.get(one.id, ()),
        )

    return [
        GarmentRows(row, tuple(whole(one) for one in row.uses), tuple(pieces.get(row.id, ())), logged.get(row.id, 0))
        for row in projects
    ]
