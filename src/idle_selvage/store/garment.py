"""Everything stored of garments and cloths, fetched at once: a fixed number of queries however many there are."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import and_, or_, select
from sqlalchemy.orm import Session

from ..core.shrink.history import Past
from ..core.shrink.ranges import alike
from . import cloth, job, lay, seam, swatch, true_sheet, true_test, use
from .models import (
    Aside,
    BarRow,
    BarWishRow,
    Cloth,
    ClothUse,
    Cut,
    CutDeed,
    Cutting,
    Flaw,
    Job,
    LayRecord,
    LogEntry,
    Photo,
    Piece,
    Project,
    Reading,
    SeamRow,
    Swatch,
    TrimRun,
    TrueSheet,
    TrueTest,
    Wash,
)
from .together import Together, hand_out, values


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
    wishes: tuple[BarWishRow, ...]
    rounds: tuple[Cutting, ...]
    deeds: tuple[CutDeed, ...]


@dataclass(frozen=True)
class GarmentRows:
    """What is stored of one garment, the main cloth first. ``logged``: whether its log has a line."""

    project: Project
    uses: tuple[UseRows, ...]
    pieces: tuple[Piece, ...]
    seams: tuple[SeamRow, ...]
    logged: bool


_CLOTHS, _USES, _PROJECTS = values("cloths"), values("uses"), values("projects")
_LIKE = select(Cloth.id).where(Cloth.like.in_(values("likes")))
_TESTED = or_(Swatch.cloth_id.in_(_CLOTHS), and_(Swatch.cloth_id.in_(_LIKE), Swatch.used, ~Swatch.simulated))
#: What hangs on cloths, and the tests of cloths like them.
_PARTS = Together(
    {
        Cloth: Cloth.id.in_(select(Swatch.cloth_id).where(_TESTED)),
        Swatch: _TESTED,
        Reading: or_(
            Reading.cloth_id.in_(_CLOTHS),
            Reading.use_id.in_(_USES),
            Reading.swatch_id.in_(select(Swatch.id).where(_TESTED)),
        ),
        Flaw: Flaw.cloth_id.in_(_CLOTHS),
        BarRow: BarRow.cloth_id.in_(_CLOTHS),
        Wash: Wash.cloth_id.in_(_CLOTHS),
        Photo: and_(Photo.cloth_id.in_(_CLOTHS), Photo.deleted_at.is_(None)),
    }
)
_HERE = and_(Piece.project_id.in_(_PROJECTS), Piece.deleted_at.is_(None))
_FIRST_LINE = select(LogEntry.id).where(LogEntry.project_id == Project.id).limit(1).scalar_subquery()
#: Pieces by themselves: they are many, and wide.
_PIECES = Together({Piece: _HERE, Cut: Cut.piece_id.in_(select(Piece.id).where(_HERE))})
#: What hangs on garments and on their cloths' uses; of the log a line, to know that there is one.
_GARMENTS = Together(
    {
        Aside: Aside.project_id.in_(_PROJECTS),
        LayRecord: lay.is_chosen(_USES),
        Job: job.is_last_lay(_USES),
        TrueSheet: TrueSheet.use_id.in_(_USES),
        TrueTest: true_test.is_there(_USES),
        TrimRun: TrimRun.use_id.in_(_USES),
        BarWishRow: BarWishRow.use_id.in_(_USES),
        Cutting: Cutting.use_id.in_(_USES),
        CutDeed: CutDeed.cutting_id.in_(select(Cutting.id).where(Cutting.use_id.in_(_USES))),
        SeamRow: and_(SeamRow.project_id.in_(_PROJECTS), SeamRow.deleted_at.is_(None)),
        LogEntry: LogEntry.id.in_(select(_FIRST_LINE).where(Project.id.in_(_PROJECTS))),
    },
    LayRecord.asked,
    Cutting.asked,
)


def cloth_rows(session: Session, cloths: Sequence[Cloth], uses: Sequence[ClothUse] = ()) -> dict[int, ClothRows]:
    """What is stored of each cloth, by its number; and of ``uses`` what was read at the table."""
    ours = [row.id for row in cloths]
    found = _PARTS.fetch(
        session, cloths=ours, uses=[one.id for one in uses], likes=list({row.like for row in cloths if row.like})
    )
    swatches, readings = found.of(Swatch), found.of(Reading)
    hand_out(cloths, "readings", readings, "cloth_id")
    hand_out(uses, "readings", readings, "use_id")
    hand_out(swatches, "readings", readings, "swatch_id")
    hand_out(cloths, "flaws", sorted(found.of(Flaw), key=lambda row: (row.position, row.id)), "cloth_id")
    hand_out(cloths, "bars", sorted(found.of(BarRow), key=lambda row: (row.way, row.position)), "cloth_id")
    hand_out(cloths, "washes", found.of(Wash), "cloth_id")
    used, measured = swatch.used_and_measured([row for row in swatches if row.cloth_id in set(ours)])
    photos = {row.cloth_id: row.at for row in found.of(Photo)}
    past = swatch.past_tests(swatches, found.of(Cloth))
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
    rows = {one.id: one for row in projects for one in row.uses}
    uses = list(rows)
    stored = cloth_rows(session, list({one.cloth_id: one.cloth for one in rows.values()}.values()), list(rows.values()))
    numbers = [row.id for row in projects]
    found, on_paper = _GARMENTS.fetch(session, projects=numbers, uses=uses), _PIECES.fetch(session, projects=numbers)
    hand_out(on_paper.of(Piece), "cuts", on_paper.of(Cut), "piece_id")
    hand_out(projects, "asides", found.of(Aside), "project_id")
    pieces: dict[int, list[Piece]] = {}
    for piece in on_paper.of(Piece):
        pieces.setdefault(piece.project_id, []).append(piece)
    chosen = {row.use_id: row for row in found.of(LayRecord)}
    jobs = {row.use_id: row for row in found.of(Job)}
    sheets = true_sheet.sheets(found.of(TrueSheet), uses)
    tests = true_test.tests(found.of(TrueTest), rows)
    runs = use.by_use(found.of(TrimRun))
    sewn: dict[int, list[SeamRow]] = {}
    for one in sorted(found.of(SeamRow), key=seam.in_order):
        sewn.setdefault(one.project_id, []).append(one)
    wishes, rounds = found.of(BarWishRow), found.of(Cutting)
    round_of = {row.id: row.use_id for row in rounds}
    logged = {row.project_id for row in found.of(LogEntry)}

    def whole(one: ClothUse) -> UseRows:
        there = pieces.get(one.project_id, ())
        tested = tests.get(one.id, [])
        now = true_test.of_state(one.cloth, tested)
        return UseRows(
            one,
            stored[one.cloth_id],
            tuple((piece, cut) for piece in there if (cut := piece.cut_from(one.id)) is not None),
            chosen.get(one.id),
            jobs.get(one.id),
            sheets[one.id],
            now,
            next((test for test in reversed(tested) if test not in now), None),
            runs.get(one.id, ()),
            tuple(row for row in wishes if row.use_id == one.id),
            tuple(row for row in rounds if row.use_id == one.id),
            tuple(row for row in found.of(CutDeed) if round_of[row.cutting_id] == one.id),
        )

    return [
        GarmentRows(
            row,
            tuple(whole(one) for one in row.uses),
            tuple(pieces.get(row.id, ())),
            tuple(sewn.get(row.id, ())),
            row.id in logged,
        )
        for row in projects
    ]
