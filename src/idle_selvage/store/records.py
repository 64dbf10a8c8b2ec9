"""From rows to the core's records, and the reads and writes that several callers share."""

from __future__ import annotations

from typing import Any, cast

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from ..core import cloth as core_cloth
from ..core import pieces as core_pieces
from ..core.lay.answer import Lay, from_json
from ..core.lay.problem import LayPiece, Problem
from ..core.pieces import Grain
from ..core.tally import Swatch as CoreSwatch
from ..core.tally import Wishes
from ..core.units import MM_PER_YARD
from .models import Cloth, Job, LayRecord, LogEntry, Piece, Project, Settings, Swatch, now


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
    return list(
        session.scalars(
            select(Piece).where(Piece.project_id == project_id, Piece.deleted_at.is_(None)).order_by(Piece.id)
        )
    )


def swatch(session: Session, cloth_id: int) -> Swatch | None:
    """The cloth's swatch, or None before one was marked."""
    return session.scalars(select(Swatch).where(Swatch.cloth_id == cloth_id).order_by(Swatch.id.desc())).first()


def chosen_lay(session: Session, project_id: int) -> LayRecord | None:
    """The lay the project goes by."""
    return session.scalars(
        select(LayRecord).where(LayRecord.project_id == project_id, LayRecord.chosen).order_by(LayRecord.id.desc())
    ).first()


def running_job(session: Session, project_id: int) -> Job | None:
    """The laying that is waiting or under way for a project."""
    return session.scalars(
        select(Job).where(Job.project_id == project_id, Job.state.in_(("waiting", "running"))).order_by(Job.id.desc())
    ).first()


def last_job(session: Session, project_id: int) -> Job | None:
    """The newest laying of a project, whatever became of it."""
    return session.scalars(select(Job).where(Job.project_id == project_id).order_by(Job.id.desc())).first()


def log(session: Session, project_id: int | None, stage: str, what: str, **detail: Any) -> None:
    """Write one line into the log. Nothing is ever changed or removed there."""
    session.add(LogEntry(project_id=project_id, stage=stage, what=what, detail=detail))


def log_entries(session: Session, project_id: int) -> list[LogEntry]:
    """A project's log, the newest first."""
    return list(session.scalars(select(LogEntry).where(LogEntry.project_id == project_id).order_by(LogEntry.id.desc())))


def log_count(session: Session, project_id: int) -> int:
    """How many lines a project's log has."""
    return session.scalar(select(func.count()).select_from(LogEntry).where(LogEntry.project_id == project_id)) or 0


def as_cloth(row: Cloth) -> core_cloth.Cloth:
    """The core's cloth; its price is per metre whatever the shop says."""
    price = None if row.price is None else row.price * (1.0 if row.price_unit == "m" else 1000.0 / MM_PER_YARD)
    return core_cloth.Cloth(
        tuple(row.width_readings), row.margin_low, row.margin_high, row.one_way, row.in_hand, row.mass, price
    )


def as_swatch(row: Swatch | None) -> CoreSwatch:
    """The core's swatch; an empty one before any was marked."""
    if row is None:
        return CoreSwatch()
    return CoreSwatch(tuple((b, a) for b, a in row.warp), tuple((b, a) for b, a in row.weft), row.graduation)


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
    return Wishes(row.gap, tuple(row.folds), row.ends, row.spare, row.shop_step)


def lay_problem(project_row: Project, rows: list[Piece], width: float) -> Problem:
    """The lay problem of a project on a usable width. Raises BadPiece for a piece that cannot be cut."""
    names: dict[str, int] = {}
    laid = []
    for row in rows:
        names[row.name] = names.get(row.name, 0) + 1
        name = row.name if names[row.name] == 1 else f"{row.name} ({names[row.name]})"
        shape = as_piece(row)
        laid.append(
            LayPiece(name, core_pieces.cut_line(shape), row.copies, row.pair, row.on_fold, shape.grain, row.one_way)
        )
    return Problem(
        round(width, 3), tuple(laid), None, project_row.cloth.one_way, False, project_row.gap, tuple(project_row.folds)
    )


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
