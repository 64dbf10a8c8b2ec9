"""Shrink: swatches before and after, and how the cloth is treated."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.shrink.shrinkage import BadReadings, Direction, check_readings
from ..core.shrink.swatch import BOTH_WAYS, MOST_WASHES, row_fault
from ..core.shrink.treatment import SCHOOLS
from ..core.written import length_text
from ..standins.washer import Specimen
from ..store import models, records
from . import present
from . import schemas as out
from .changes import change
from .context import Refused, begin, look, send, system, washer
from .entries import LengthIn
from .presenter import Presenter
from .show_cloth import shrink_out

blueprint = APIBlueprint("shrink", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class WhichCloth(out.In):
    """Which of a project's cloths; the main one when left out."""

    cloth_id: int | None = Field(default=None, ge=1, le=2**31)


class SwatchIn(out.In):
    """A swatch's readings: a row per marked distance, before and then after each wash; null where not measured.

    ``diagonals``: the two diagonals of the marked square, before and after each wash. What is left out stays.
    """

    cloth_id: int | None = Field(default=None, ge=1, le=2**31, strict=True)
    warp: list[list[LengthIn | None]] | None = Field(default=None, max_length=30)
    weft: list[list[LengthIn | None]] | None = Field(default=None, max_length=30)
    diagonals: list[list[LengthIn | None] | None] | None = Field(default=None, max_length=MOST_WASHES + 1)
    graduation: LengthIn | None = None


class TreatIn(out.In):
    school: str


@blueprint.get("/projects/<int:project_id>/shrink", operation_id="readShrink", responses={200: out.ShrinkOut})
def read_shrink(path: out.ProjectPath, query: WhichCloth) -> Response:
    """One cloth's swatch, its verdict, and how to treat the cloth."""
    with look() as session:
        project = records.project(session, path.project_id)
        row = records.cloth_of(session, project, query.cloth_id)
        return send(shrink_out(session, Presenter(system()), project, row))


@blueprint.put("/projects/<int:project_id>/swatch", operation_id="keepSwatch", responses={200: out.SwatchKeptOut})
def keep_swatch(path: out.ProjectPath, body: SwatchIn) -> Response:
    """Keep a swatch's readings."""
    if body.graduation is not None and not 0.1 <= body.graduation <= 20:
        raise Refused("A tape's graduation lies between 0.1 mm and 2 cm; 1 mm or 1/16 in are usual.", path="graduation")
    with begin() as session:
        project = records.project(session, path.project_id)
        cloth = records.cloth_of(session, project, body.cloth_id)
        row = _swatch(session, cloth)
        said = []
        for direction in BOTH_WAYS:
            rows: list[list[float | None]] | None = getattr(body, direction)
            if rows is None:
                continue
            kept = [_trimmed(r) for r in rows]
            _check(kept, direction)
            setattr(row, direction, kept)
            washed = max((len(r) for r in kept), default=1) - 1
            said.append(f"{direction} {len(kept)} marked, {washed} {'wash' if washed == 1 else 'washes'}")
        if body.diagonals is not None:
            row.diagonals = _diagonals(body.diagonals)
            said.append("diagonals")
        if body.graduation is not None:
            row.graduation = body.graduation
            said.append(f"tape read to {length_text(body.graduation, system())}")
        return _kept(session, project, cloth, row, f"Swatch readings: {'; '.join(said)}." if said else "")


def _swatch(session: Session, cloth: models.Cloth) -> models.Swatch:
    row = records.swatch(session, cloth.id)
    if row is None:
        row = models.Swatch(
            cloth_id=cloth.id, warp=[], weft=[], diagonals=[], graduation=records.settings(session).graduation
        )
        session.add(row)
    return row


def _kept(session: Session, project: models.Project, cloth: models.Cloth, row: models.Swatch, said: str) -> Response:
    row.updated_at = models.now()
    session.flush()
    if said:
        records.log(session, project.id, "shrink", said, cloth=cloth.id, warp=row.warp, weft=row.weft)
    return send(
        out.SwatchKeptOut(
            project=present.project_out(session, project, system()),
            shrink=shrink_out(session, Presenter(system()), project, cloth),
        )
    )


def _trimmed(row: list[float | None]) -> list[float | None]:
    """Without the nulls at the end: what was not measured yet."""
    kept = list(row)
    while kept and kept[-1] is None:
        kept.pop()
    return kept


def _check(rows: list[list[float | None]], direction: Direction) -> None:
    """Refuse single readings that cannot be, at their own place."""
    for place, row in enumerate(rows):
        fault = row_fault(row)
        if fault:
            raise Refused(fault, path=f"{direction}.{place}.0")
        before = row[0]
        assert before is not None
        for wash, after in enumerate(row[1:], start=1):
            if after is None:
                continue
            try:
                check_readings([before], [after], direction)
            except BadReadings as wrong:
                raise Refused(
                    str(wrong).replace("Reading 1", f"Reading {place + 1}"), path=f"{direction}.{place}.{wash}"
                ) from None


def _diagonals(given: list[list[float | None] | None]) -> list[list[float | None] | None]:
    """Pairs of diagonals; one of a pair may still be missing, and is kept until the other is measured."""
    for place, pair in enumerate(given):
        if pair is None:
            continue
        if len(pair) != 2 or min((d for d in pair if d is not None), default=1.0) <= 0:
            raise Refused("Give both diagonals of the square, corner to corner.", path=f"diagonals.{place}")
        ac, bd = pair
        if ac is not None and bd is not None and abs(ac - bd) > 0.3 * (ac + bd) / 2:
            raise Refused(
                "These two diagonals differ by more than 30 %: look at both numbers again.", path=f"diagonals.{place}"
            )
    kept = [pair if pair is not None and any(d is not None for d in pair) else None for pair in given]
    while kept and kept[-1] is None:
        kept.pop()
    return kept


@blueprint.post("/projects/<int:project_id>/swatches", operation_id="addSwatch", responses={201: out.SwatchKeptOut})
def add_swatch(path: out.ProjectPath, body: WhichCloth) -> Response:
    """Begin another swatch of a cloth; earlier ones are kept, and one can go back to them."""
    with begin() as session:
        project = records.project(session, path.project_id)
        cloth = records.cloth_of(session, project, body.cloth_id)
        for old in records.swatches(session, cloth.id):
            old.used = False
        row = models.Swatch(
            cloth_id=cloth.id, warp=[], weft=[], diagonals=[], graduation=records.settings(session).graduation
        )
        session.add(row)
        answer = _kept(session, project, cloth, row, "Began another swatch.")
        answer.status_code = 201
        return answer


class UseSwatch(out.In):
    swatch_id: int = Field(ge=1, le=2**31, strict=True)


@blueprint.put("/projects/<int:project_id>/swatch/use", operation_id="useSwatch", responses={200: out.SwatchKeptOut})
def use_swatch(path: out.ProjectPath, body: UseSwatch) -> Response:
    """Go by another of a cloth's swatches."""
    with begin() as session:
        project = records.project(session, path.project_id)
        row = session.get(models.Swatch, body.swatch_id)
        if row is None:
            raise records.NotFound("There is no such swatch.")
        cloth = records.cloth_of(session, project, row.cloth_id)
        for other in records.swatches(session, cloth.id):
            other.used = other.id == row.id
        return _kept(session, project, cloth, row, "Went by another swatch.")


@blueprint.post("/projects/<int:project_id>/swatch/wash", operation_id="washSwatch", responses={200: out.SwatchKeptOut})
def wash_swatch(path: out.ProjectPath, body: WhichCloth) -> Response:
    """Wash the swatch in the stand-in washer: its readings are made up, and marked so."""
    with begin() as session:
        project = records.project(session, path.project_id)
        cloth = records.cloth_of(session, project, body.cloth_id)
        row = records.swatch(session, cloth.id)
        if row is None or not row.warp or not row.weft:
            raise Refused("Mark the swatch both ways first, then wash it.", code="not_ready")
        test = records.as_swatch(row)
        done = max(test.washes("warp"), test.washes("weft"))
        if done >= MOST_WASHES:
            raise Refused(f"At most {MOST_WASHES} washes of one swatch can be kept.", code="not_ready")
        columns: dict[str, list[float]] = {}
        for direction in BOTH_WAYS:
            values = [r[done] if len(r) > done else None for r in test.rows(direction)]
            if any(v is None for v in values):
                raise Refused("Some reading after the last wash is missing; give it first.", code="not_ready")
            columns[direction] = [v for v in values if v is not None]
        pair = test.diagonals[done] if len(test.diagonals) > done else None
        report = washer().wash(
            Specimen(
                kinds=records.treat_facts(session, cloth).kinds,
                warp=tuple(columns["warp"]),
                weft=tuple(columns["weft"]),
                washed=done,
                number=cloth.id,
                depth=cloth.depth,
                finish=cloth.finish,
                graduation=row.graduation,
                diagonals=pair,
            ),
            records.advice(session, project, cloth).programme,
        )
        row.warp = [[*r, v] for r, v in zip(row.warp, report.warp, strict=True)]
        row.weft = [[*r, v] for r, v in zip(row.weft, report.weft, strict=True)]
        if report.diagonals is not None:
            row.diagonals = [*row.diagonals, list(report.diagonals)]
        row.simulated = True
        return _kept(session, project, cloth, row, "Washed the swatch in the stand-in washer (made-up readings).")


@blueprint.patch("/projects/<int:project_id>/treatment", operation_id="chooseSchool", responses={200: out.ProjectOut})
def choose_school(path: out.ProjectPath, body: TreatIn) -> Response:
    """Choose how the cloth is treated before cutting; an empty text goes back to the default."""
    if body.school and body.school not in SCHOOLS:
        raise Refused(f"It must be one of: {', '.join(SCHOOLS)}.", path="school")
    with begin() as session:
        row = records.project(session, path.project_id)
        return send(change(session, row, {"school": body.school}, "shrink", {"school": "the treatment"}))
