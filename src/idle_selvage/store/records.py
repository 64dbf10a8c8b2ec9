"""From rows to the core's records, and the reads and writes that several callers share."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal, cast

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from ..core.cloth import width as core_cloth
from ..core.cloth.bars import Bar, BarPattern, read_bars
from ..core.cloth.direction import is_one_way
from ..core.cloth.dye import CLEAN, Dye
from ..core.cloth.make import Make, deciding_kinds
from ..core.lay.answer import Lay, from_json
from ..core.lay.asking import Area, Meeting, blocked, centred_on, faded_fold, matches, washed_bars
from ..core.lay.problem import Bars as LayBars
from ..core.lay.problem import LayPiece, Problem
from ..core.plan import piece as core_pieces
from ..core.plan.allowance import cut_line
from ..core.plan.piece import Grain
from ..core.project.tally import ClothFacts, Wishes
from ..core.shrink.history import Past
from ..core.shrink.shrinkage import BadReadings, divide_not_add
from ..core.shrink.swatch import Swatch as CoreSwatch
from ..core.shrink.swatch import in_all
from ..core.shrink.to_fit import TURN, enlarge, on_cloth
from ..core.shrink.treatment import Advice, School, TreatmentFacts, advise
from ..core.true.edge import EdgeFacts
from ..core.units import MM_PER_YARD
from .database import remember
from .models.base import now
from .models.buy_sheet import BuySheet
from .models.cloth import Cloth
from .models.job import Job
from .models.lay import LayRecord
from .models.log_entry import LogEntry
from .models.photo import Photo
from .models.piece import Piece
from .models.project import Project
from .models.set_cloth import SetCloth
from .models.settings import Settings
from .models.swatch import Swatch
from .models.true_sheet import TrueSheet
from .models.true_test import TrueTest
from .models.wash import Wash


class NotFound(LookupError):
    """Something asked for by number is not there; the message is a sentence."""


def settings(session: Session) -> Settings:
    """The one settings row; the first migration made it."""
    return session.get_one(Settings, 1)


def projects(session: Session) -> list[Project]:
    """Every project that is not deleted, the newest first."""
    return list(
        session.scalars(
            select(Project).where(Project.deleted_at.is_(None)).order_by(Project.created_at.desc(), Project.id.desc())
        )
    )


def project(session: Session, number: int, *, deleted: bool = False) -> Project:
    """A project by its number. Raises :class:`NotFound`."""
    row = session.get(Project, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such project; it may have been deleted.")
    return row


def piece(session: Session, number: int, *, deleted: bool = False) -> Piece:
    """A piece by its number. Raises :class:`NotFound`."""
    row = session.get(Piece, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such piece; it may have been deleted.")
    return row


def job(session: Session, number: int) -> Job:
    """A job by its number. Raises :class:`NotFound`."""
    row = session.get(Job, number)
    if row is None:
        raise NotFound("There is no such work under way.")
    return row


def pieces(session: Session, project_id: int) -> list[Piece]:
    """The pieces of a project in the order they came."""
    return remember(
        session,
        ("pieces", project_id),
        lambda: list(
            session.scalars(
                select(Piece).where(Piece.project_id == project_id, Piece.deleted_at.is_(None)).order_by(Piece.id)
            )
        ),
    )


def cloth(session: Session, number: int, *, deleted: bool = False) -> Cloth:
    """A cloth by its number. Raises :class:`NotFound`."""
    row = session.get(Cloth, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such cloth; it may have been put away.")
    return row


def cupboard(session: Session) -> list[Cloth]:
    """Every cloth that is not put away, the newest first."""
    return list(session.scalars(select(Cloth).where(Cloth.deleted_at.is_(None)).order_by(Cloth.id.desc())))


def projects_of_cloth(session: Session, cloth_id: int) -> list[Project]:
    """The open projects that use a cloth, as main cloth or beside it."""
    beside = select(SetCloth.project_id).where(SetCloth.cloth_id == cloth_id)
    return list(
        session.scalars(
            select(Project)
            .where(Project.deleted_at.is_(None), (Project.cloth_id == cloth_id) | Project.id.in_(beside))
            .order_by(Project.id)
        )
    )


def set_cloths(session: Session, project_id: int) -> list[SetCloth]:
    """The other cloths of a project, in the order they came."""
    return list(session.scalars(select(SetCloth).where(SetCloth.project_id == project_id).order_by(SetCloth.cloth_id)))


def cloth_of(session: Session, project_row: Project, cloth_id: int | None) -> Cloth:
    """A project's own cloth by its number, the main one when None. Raises :class:`NotFound`."""
    if cloth_id is None or cloth_id == project_row.cloth_id:
        return project_row.cloth
    beside = session.get(SetCloth, (project_row.id, cloth_id))
    if beside is None:
        raise NotFound("That cloth does not belong to this project.")
    return beside.cloth


def swatches(session: Session, cloth_id: int) -> list[Swatch]:
    """A cloth's swatches, the newest first."""
    return list(session.scalars(select(Swatch).where(Swatch.cloth_id == cloth_id).order_by(Swatch.id.desc())))


def swatch(session: Session, cloth_id: int) -> Swatch | None:
    """The swatch a cloth is gone by, or None before one was marked."""
    return remember(
        session,
        ("swatch", cloth_id),
        lambda: session.scalars(
            select(Swatch).where(Swatch.cloth_id == cloth_id, Swatch.used).order_by(Swatch.id.desc())
        ).first(),
    )


def washes(session: Session, cloth_id: int) -> list[Wash]:
    """Every wash of the length, the first one first."""
    return remember(
        session,
        ("washes", cloth_id),
        lambda: list(
            session.scalars(select(Wash).where(Wash.cloth_id == cloth_id, Wash.deleted_at.is_(None)).order_by(Wash.id))
        ),
    )


def wash(session: Session, cloth_id: int, number: int) -> Wash:
    """One wash of a cloth, struck out or not. Raises :class:`NotFound`."""
    row = session.get(Wash, number)
    if row is None or row.cloth_id != cloth_id:
        raise NotFound("There is no such wash of this cloth.")
    return row


def photo(session: Session, cloth_id: int) -> Photo | None:
    """The cloth's photo, unless it was taken away."""
    row = session.get(Photo, cloth_id)
    return row if row is not None and row.deleted_at is None else None


def past_tests(session: Session, like: str, but: int) -> tuple[Past, ...]:
    """Finished tests of like cloth, the newest first, without the cloth ``but`` and without stand-in readings."""
    if not like:
        return ()
    return remember(session, ("past", like, but), lambda: _past_tests(session, like, but))


def _past_tests(session: Session, like: str, but: int) -> tuple[Past, ...]:
    rows = session.execute(
        select(Swatch, Cloth.name)
        .join(Cloth, Cloth.id == Swatch.cloth_id)
        .where(Cloth.like == like, Cloth.id != but, Swatch.used, ~Swatch.simulated)
        .order_by(Swatch.id.desc())
        .limit(50)
    ).all()
    found = []
    for row, name in rows:
        test = as_swatch(row)
        try:
            warp, weft = in_all(test, "warp"), in_all(test, "weft")
        except BadReadings:
            continue
        if warp is not None and weft is not None:
            found.append(Past(name or "a cloth without a name", warp.value, weft.value))
    return tuple(found)


def chosen_lay(session: Session, project_id: int) -> LayRecord | None:
    """The lay the project goes by."""
    return remember(
        session,
        ("chosen", project_id),
        lambda: session.scalars(
            select(LayRecord).where(LayRecord.project_id == project_id, LayRecord.chosen).order_by(LayRecord.id.desc())
        ).first(),
    )


def running_job(session: Session, project_id: int) -> Job | None:
    """The laying that is waiting or under way for a project."""
    return session.scalars(
        select(Job)
        .where(Job.project_id == project_id, Job.kind == "lay", Job.state.in_(("waiting", "running")))
        .order_by(Job.id.desc())
    ).first()


def last_job(session: Session, project_id: int) -> Job | None:
    """The newest laying of a project, whatever became of it."""
    return remember(
        session,
        ("job", project_id),
        lambda: session.scalars(
            select(Job).where(Job.project_id == project_id, Job.kind == "lay").order_by(Job.id.desc())
        ).first(),
    )


def sheet_of(session: Session, project_id: int) -> BuySheet:
    """What was typed on the sheets of Buy; an empty one, not yet kept, before anything was."""
    row = session.get(BuySheet, project_id)
    return row or BuySheet(project_id=project_id, envelope={}, strips={}, together=[], items=[], have=[])


def kept_sheet(session: Session, project_id: int) -> BuySheet:
    """The sheet to write on."""
    row = sheet_of(session, project_id)
    session.add(row)
    return row


def true_sheet(session: Session, project_id: int) -> TrueSheet:
    """What was read at the table; an empty one, not yet kept, before anything was."""
    return remember(
        session,
        ("true", project_id),
        lambda: (
            session.get(TrueSheet, project_id)
            or TrueSheet(
                project_id=project_id,
                now={},
                edge=[],
                fold=[],
                ripple="",
                checks={},
                bars=[],
                bands=[],
                school="",
                accepted=False,
            )
        ),
    )


def true_tests(session: Session, project_row: Project) -> list[TrueTest]:
    """The fold tests of a project's present cloth, the first one first."""
    return remember(
        session,
        ("true tests", project_row.id),
        lambda: list(
            session.scalars(
                select(TrueTest)
                .where(
                    TrueTest.project_id == project_row.id,
                    TrueTest.cloth_id == project_row.cloth_id,
                    TrueTest.deleted_at.is_(None),
                )
                .order_by(TrueTest.id)
            )
        ),
    )


def log(session: Session, project_id: int | None, stage: str, what: str, **detail: Any) -> None:
    """Write one line into the log. Nothing is ever changed or removed there."""
    session.add(LogEntry(project_id=project_id, stage=stage, what=what, detail=detail))


def log_cloth(session: Session, row: Cloth, stage: str, what: str, **detail: Any) -> None:
    """Write a line about a cloth into the log of every project that uses it, or into the cupboard's own."""
    numbers: list[int | None] = [p.id for p in projects_of_cloth(session, row.id)]
    for number in numbers or [None]:
        log(session, number, stage, what, cloth=row.id, **detail)


def log_entries(session: Session, project_id: int) -> list[LogEntry]:
    """A project's log, the newest first."""
    return list(session.scalars(select(LogEntry).where(LogEntry.project_id == project_id).order_by(LogEntry.id.desc())))


def log_count(session: Session, project_id: int) -> int:
    """How many lines a project's log has."""
    return session.scalar(select(func.count()).select_from(LogEntry).where(LogEntry.project_id == project_id)) or 0


def per_metre(price: float | None, unit: str) -> float | None:
    """The price of a metre, whatever the shop says."""
    return None if price is None else price * (1.0 if unit == "m" else 1000.0 / MM_PER_YARD)


def as_cloth(row: Cloth) -> core_cloth.Cloth:
    """The core's cloth; its price is per metre whatever the shop says."""
    price = per_metre(row.price, row.price_unit)
    return core_cloth.Cloth(
        tuple(row.width_readings),
        row.margin_low,
        row.margin_high,
        is_one_way(row.direction),
        row.in_hand,
        row.mass,
        price,
    )


def as_make(row: Cloth) -> Make:
    """What the cloth is made of."""
    return Make(tuple((fibre, share) for fibre, share in row.blend), row.weave, row.finish, row.colouring)


def as_dye(session: Session, row: Cloth) -> Dye:
    """What is known of its dye."""
    grades = tuple(w.grade for w in washes(session, row.id) if w.grade is not None)
    return Dye(row.depth, row.rub_grade, grades)


def edge_facts(row: Cloth) -> EdgeFacts:
    """What decides how its first edge is made."""
    along, _ = as_bars(row)
    return EdgeFacts(
        row.weave,
        row.finish,
        row.colouring,
        bars_across=along.repeat is not None,
        sheer=row.answers.get("sheer") in ("shadow", "yes"),
        slips=row.answers.get("hand") == "slips",
        linen=any(fibre == "linen" for fibre, _ in row.blend),
    )


def as_bars(row: Cloth) -> tuple[BarPattern, BarPattern]:
    """The bars that follow one another along the cloth, and across it."""

    return read_bars(bar_sequence(row, "along")), read_bars(bar_sequence(row, "across"))


def bar_sequence(row: Cloth, direction: Literal["along", "across"]) -> list[Bar]:
    """The bars of one direction as they were typed."""
    return [Bar(b["width"], b["colour"]) for b in row.bars.get(direction, [])]


def as_swatch(row: Swatch | None) -> CoreSwatch:
    """The core's swatch; an empty one before any was marked."""
    if row is None:
        return CoreSwatch()
    return CoreSwatch(
        tuple(tuple(r) for r in row.warp),
        tuple(tuple(r) for r in row.weft),
        row.graduation,
        tuple((d[0], d[1]) if d and None not in d else None for d in row.diagonals),
    )


def treat_facts(session: Session, row: Cloth) -> TreatmentFacts:
    """What decides how a cloth is treated."""
    metres = row.in_hand / 1000.0 if row.in_hand else None
    return TreatmentFacts(deciding_kinds(as_make(row)), as_dye(session, row), row.weave == "sequin", metres)


def school_of(project_row: Project) -> School | None:
    """The school the maker chose, or None for the default."""
    return cast(School, project_row.school) if project_row.school else None


def advice(session: Session, project_row: Project, row: Cloth) -> Advice:
    """The treatment of one cloth of a project."""
    return advise(project_row.wash, project_row.dry, treat_facts(session, row), school_of(project_row))


def needs_treatment(session: Session, row: Cloth) -> bool:
    """Whether the length still has to be treated: never was, or its dye still came off the last time."""
    if row.treated:
        return False
    done = [w for w in washes(session, row.id) if not w.simulated]
    return not done or (done[-1].grade is not None and done[-1].grade < CLEAN)


def given(session: Session, project_row: Project) -> ClothFacts:
    """What a project's tally rests on."""
    row = project_row.cloth
    return ClothFacts(
        as_make(row),
        as_swatch(swatch(session, row.id)),
        past_tests(session, row.like, row.id),
        raw=project_row.school == "fit",
        treated=row.treated,
    )


def as_piece(row: Piece) -> core_pieces.Piece:
    """The core's piece."""
    return core_pieces.Piece(
        row.name,
        tuple((x, y) for x, y in row.outline),
        row.copies,
        row.pair,
        row.on_fold,
        cast(Grain, row.grain),
        row.one_way,
        row.seam,
    )


def as_wishes(row: Project) -> Wishes:
    """What the maker set for laying and buying."""
    return Wishes(row.gap, tuple(row.folds), row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)


def lay_problem(
    project_row: Project,
    rows: list[Piece],
    width: float,
    taken: tuple[float, float] = (0.0, 0.0),
    fit: tuple[float, float] | None = None,
    *,
    cloth_row: Cloth | None = None,
    flaws: bool = True,
) -> Problem:
    """The lay problem of a project on a usable width. Raises BadPiece for a piece that cannot be cut.

    ``taken`` are the shrinkages along and across still to come before cutting, in per cent, by which bars and flaws
    move; ``fit`` those by which pieces are enlarged to shrink to fit; ``cloth_row`` another cloth than the project's
    own, and its ``flaws`` are left out for a length that is still to be bought.
    """
    cloth_row = cloth_row or project_row.cloth
    trim = project_row.ends / 2 if project_row.first_end is None else project_row.first_end
    along, across = as_bars(cloth_row)
    bars = washed_bars(along, across, *taken, cloth_row.margin_low)
    one_way = is_one_way(cloth_row.direction) or (bars.x_repeat is not None and not bars.x_axes)
    names: dict[str, int] = {}
    laid = []
    for row in rows:
        names[row.name] = names.get(row.name, 0) + 1
        name = row.name if names[row.name] == 1 else f"{row.name} ({names[row.name]})"
        shape = as_piece(row)
        grain: Grain = shape.grain
        if fit is not None:
            shape = enlarged(shape, fit)
        outline = cut_line(shape)
        if fit is not None and grain in ("bias", "any") and abs(fit[0] - fit[1]) > 0.05:
            # enlarged for one slant only, so it is given turned, and may only be turned end for end
            outline, grain = on_cloth(outline, grain), "lengthwise"
        # bars meet on pieces cut along the cloth; one that was turned, or is on the bias, has none to meet
        meeting = as_meeting(row, fit) if row.grain == "lengthwise" else Meeting()
        laid.append(
            LayPiece(
                name,
                outline,
                row.copies,
                row.pair,
                row.on_fold,
                grain,
                row.one_way,
                match=matches(meeting, name, shape.outline, row.pair, bars),
                centre_on_axis="x" if centred_on(meeting, row.pair, bars) else None,
            )
        )
    if not any(piece.match or piece.centre_on_axis for piece in laid):
        bars = LayBars()
    off = _kept_off(cloth_row, taken, trim, width, laid, one_way) if flaws else ()
    return Problem(
        round(width, 3),
        tuple(laid),
        None,
        one_way,
        cloth_row.reversible,
        project_row.gap,
        tuple(project_row.folds),
        off,
        bars,
    )


def _kept_off(
    cloth_row: Cloth, taken: tuple[float, float], trim: float, width: float, laid: list[LayPiece], one_way: bool
) -> tuple[Area, ...]:
    """What no piece may touch on this cloth: its flaws, and its faded fold where that can be kept off."""
    margin = cloth_row.margin_low
    places = [(f["x"], f["y"], f["w"], f["h"]) for f in cloth_row.flaws]
    off = blocked(places, *taken, margin, trim, width)
    if cloth_row.shop_fold is None:
        return off
    fold = faded_fold(cloth_row.shop_fold, taken[1], margin, width, laid, one_way)
    return off if fold is None else (*off, fold)


def as_meeting(row: Piece, fit: tuple[float, float] | None = None) -> Meeting:
    """What a piece is to meet; enlarged pieces meet as far up as the cloth will shrink to."""
    at = row.meets_at if fit is None else divide_not_add(row.meets_at, fit[0])
    return Meeting(row.meets, at, row.centred)


def leans(problem: dict[str, Any], rows: list[Piece]) -> dict[str, int]:
    """Pieces that a stored problem holds turned already (bias pieces enlarged to shrink to fit), and their turn."""
    grains = {p["id"]: p["grain"] for p in problem["pieces"]}
    return {
        row.name: TURN[cast(Grain, row.grain)]
        for row in rows
        if row.grain == "bias" and grains.get(row.name) == "lengthwise"
    }


def enlarged(piece_: core_pieces.Piece, fit: tuple[float, float]) -> core_pieces.Piece:
    """A piece for raw cloth; an allowance still to be added keeps its width."""
    return replace(piece_, outline=enlarge(piece_.outline, piece_.grain, *fit))


def lay_of(row: LayRecord) -> Lay:
    """The stored lay."""
    return from_json(row.lay)


def keep_lays(
    session: Session, job_row: Job, lays: list[tuple[str, dict[str, Any]]], problem: dict[str, Any], fingerprint: str
) -> None:
    """Store the best lay of each fold of one job, in place of what the job stored before; choose the shortest."""
    known = {row.fold: row for row in session.scalars(select(LayRecord).where(LayRecord.job_id == job_row.id)).all()}
    for fold, data in lays:
        row = known.get(fold)
        if row is None:
            row = LayRecord(
                project_id=job_row.project_id,
                job_id=job_row.id,
                fold=fold,
                fingerprint=fingerprint,
                problem=problem,
                lay=data,
                basis=job_row.params.get("basis", {}),
            )
            session.add(row)
            known[fold] = row
        elif data["length"] < row.lay["length"] - 1e-6:
            row.lay = data
    session.flush()
    if not any(row.picked for row in known.values()):
        choose_lay(session, min(known.values(), key=lambda row: float(row.lay["length"])))


def choose_lay(session: Session, row: LayRecord, *, picked: bool = False) -> None:
    """Make this the lay the project goes by; ``picked`` when the maker did."""
    session.execute(update(LayRecord).where(LayRecord.project_id == row.project_id).values(chosen=False, picked=False))
    row.chosen, row.picked = True, picked
    session.flush()


def lays_of_job(session: Session, job_id: int) -> list[LayRecord]:
    """The alternatives one job found, shortest first."""
    rows = session.scalars(select(LayRecord).where(LayRecord.job_id == job_id)).all()
    return sorted(rows, key=lambda row: float(row.lay["length"]))


def finish_job(row: Job, state: str, error: str = "") -> None:
    """Close a job."""
    row.state = state
    row.error = error
    row.finished_at = now()
