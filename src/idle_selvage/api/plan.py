"""Plan: pattern pieces, from typed stations or from a drawing."""

from __future__ import annotations

from typing import Annotated, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.plan.allowance import cut_line
from ..core.plan.arrow import grainline
from ..core.plan.outline import BadPiece
from ..core.plan.piece import Piece
from ..core.plan.stations import Station, outline_from_stations
from ..core.written import length_text
from ..formats.svg_pieces import BadDrawing, read_svg
from ..store import models, records
from . import present
from . import schemas as out
from .context import Refused, begin, send, system
from .entries import LengthIn, Name, Text
from .presenter import Presenter

blueprint = APIBlueprint("plan", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

MOST_PIECES = 200


#: The name of a group of pieces that meet on the bars.
Meets = Annotated[Text, Field(max_length=40)]


class StationIn(out.In):
    along: LengthIn
    left: LengthIn
    right: LengthIn = 0.0


class OutlineIn(out.In):
    stations: list[StationIn] = Field(min_length=2, max_length=200)
    smooth: bool = True
    on_fold: bool = False
    seam: LengthIn = 0.0


class NewPiece(OutlineIn):
    name: Name
    copies: int = Field(default=1, ge=1, le=200, strict=True)
    pair: bool = False
    grain: Literal["lengthwise", "crosswise", "bias", "any"] = "lengthwise"
    one_way: bool = False
    meets: Meets = ""
    meets_at: LengthIn = 0.0
    centred: bool = False
    hidden: bool = False
    hem: bool = False


class PieceChange(out.In):
    """Any of a piece's entries; what is left out stays."""

    name: Name | None = None
    stations: list[StationIn] | None = Field(default=None, min_length=2, max_length=200)
    smooth: bool | None = None
    copies: int | None = Field(default=None, ge=1, le=200, strict=True)
    pair: bool | None = None
    on_fold: bool | None = None
    grain: Literal["lengthwise", "crosswise", "bias", "any"] | None = None
    one_way: bool | None = None
    seam: LengthIn | None = None
    meets: Meets | None = None
    meets_at: LengthIn | None = None
    centred: bool | None = None
    hidden: bool | None = None
    hem: bool | None = None


class DrawingIn(out.In):
    file_name: str = Field(default="drawing.svg", max_length=300)
    svg: str = Field(max_length=4_000_000)


def _outline(body: OutlineIn) -> tuple[tuple[float, float], ...]:
    try:
        return outline_from_stations(
            [Station(s.along, s.left, s.right) for s in body.stations], smooth=body.smooth, on_fold=body.on_fold
        )
    except BadPiece as fault:
        raise Refused(str(fault), path="stations") from None


def _checked(piece: Piece) -> Piece:
    try:
        cut_line(piece)
    except BadPiece as fault:
        raise Refused(str(fault), path="") from None
    return piece


def _meets_on(row: models.Piece) -> None:
    """Refuse a match point past the top of the piece."""
    xs = [x for x, _ in row.outline]
    if row.meets_at > max(xs) - min(xs):
        told = f"That lies past the top: {row.name} is {length_text(max(xs) - min(xs), system())} long."
        raise Refused(told, path="meets_at")


@blueprint.post("/plan/outline", operation_id="drawOutline", responses={200: out.OutlineOut})
def draw_outline(body: OutlineIn) -> Response:
    """The outline through stations being typed, before anything is kept."""
    outline = _outline(body)
    piece = _checked(Piece("The piece", outline, on_fold=body.on_fold, seam=body.seam))
    cut = cut_line(piece)
    return send(
        out.OutlineOut(
            outline=list(outline),
            cut=list(cut),
            arrow=list(grainline(cut, on_fold=body.on_fold)),
            size=Presenter(system()).size(cut, body.on_fold),
        )
    )


@blueprint.post("/projects/<int:project_id>/pieces", operation_id="addPiece", responses={201: out.ProjectOut})
def add_piece(path: out.ProjectPath, body: NewPiece) -> Response:
    """Keep a piece typed from stations."""
    outline = _outline(body)
    _checked(Piece(body.name, outline, body.copies, body.pair, body.on_fold, body.grain, body.one_way, body.seam))
    with begin() as session:
        row = records.project(session, path.project_id)
        _room(session, row, 1)
        piece = models.Piece(
            project_id=row.id,
            name=body.name,
            outline=[list(p) for p in outline],
            stations=[[s.along, s.left, s.right] for s in body.stations],
            smooth=body.smooth,
            copies=body.copies,
            pair=body.pair,
            on_fold=body.on_fold,
            grain=body.grain,
            one_way=body.one_way,
            seam=body.seam,
            meets=body.meets,
            meets_at=body.meets_at,
            centred=body.centred,
            hidden=body.hidden,
            hem=body.hem,
        )
        _meets_on(piece)
        session.add(piece)
        session.flush()
        records.log(session, row.id, "plan", f"Added the piece “{body.name}”, {body.copies} to cut.")
        return send(present.project_out(session, row, system()), 201)


@blueprint.post("/projects/<int:project_id>/pieces/svg", operation_id="importPieces", responses={201: out.ImportOut})
def import_pieces(path: out.ProjectPath, body: DrawingIn) -> Response:
    """Take the pieces out of an SVG drawing; what could not be read is listed."""
    try:
        drawing = read_svg(body.svg.encode("utf-8", "surrogatepass"))
    except BadDrawing as fault:
        raise Refused(str(fault), path="svg") from None
    with begin() as session:
        row = records.project(session, path.project_id)
        _room(session, row, len(drawing.pieces))
        for piece in drawing.pieces:
            session.add(
                models.Piece(
                    project_id=row.id,
                    name=piece.name,
                    outline=[list(p) for p in piece.outline],
                    copies=piece.copies,
                    pair=piece.pair,
                    on_fold=piece.on_fold,
                    grain=piece.grain,
                    one_way=piece.one_way,
                    seam=piece.seam,
                )
            )
        session.flush()
        not_read = [out.NotReadOut(what=n.what, why=n.why) for n in drawing.not_read]
        if drawing.pieces:
            records.log(
                session,
                row.id,
                "plan",
                f"Read {len(drawing.pieces)} pieces from “{body.file_name[:80]}”.",
                not_read=[f"{n.what}: {n.why}" for n in not_read],
            )
        return send(
            out.ImportOut(
                added=[p.name for p in drawing.pieces],
                not_read=not_read,
                project=present.project_out(session, row, system()),
            ),
            201,
        )


@blueprint.patch("/pieces/<int:piece_id>", operation_id="changePiece", responses={200: out.ProjectOut})
def change_piece(path: out.PiecePath, body: PieceChange) -> Response:
    """Change a piece."""
    given = body.model_dump(exclude_unset=True, exclude_none=True)
    with begin() as session:
        row = records.piece(session, path.piece_id)
        for key, value in given.items():
            if key != "stations":
                setattr(row, key, value)
        if body.stations is not None:
            row.stations = [[s.along, s.left, s.right] for s in body.stations]
        if row.stations and given.keys() & {"stations", "smooth", "on_fold"}:
            try:
                outline = outline_from_stations(
                    [Station(*s) for s in row.stations], smooth=row.smooth, on_fold=row.on_fold
                )
            except BadPiece as fault:
                raise Refused(str(fault), path="stations") from None
            row.outline = [list(p) for p in outline]
        _checked(records.as_piece(row))
        _meets_on(row)
        session.flush()
        project = records.project(session, row.project_id)
        if given:
            records.log(session, project.id, "plan", f"Changed the piece “{row.name}”.")
        return send(present.project_out(session, project, system()))


@blueprint.delete("/pieces/<int:piece_id>", operation_id="deletePiece", responses={200: out.ProjectOut})
def delete_piece(path: out.PiecePath) -> Response:
    """Take a piece out of the plan. It can be brought back."""
    return _set_deleted(path.piece_id, gone=True)


@blueprint.post("/pieces/<int:piece_id>/restore", operation_id="restorePiece", responses={200: out.ProjectOut})
def restore_piece(path: out.PiecePath) -> Response:
    """Bring a piece back into the plan."""
    return _set_deleted(path.piece_id, gone=False)


def _set_deleted(number: int, *, gone: bool) -> Response:
    with begin() as session:
        row = records.piece(session, number, deleted=not gone)
        project = records.project(session, row.project_id)
        if gone != (row.deleted_at is not None):
            row.deleted_at = models.now() if gone else None
            records.log(
                session, project.id, "plan", f"{'Took out' if gone else 'Brought back'} the piece “{row.name}”."
            )
        session.flush()
        return send(present.project_out(session, project, system()))


def _room(session: Session, row: models.Project, more: int) -> None:
    if len(records.pieces(session, row.id)) + more > MOST_PIECES:
        raise Refused(f"A project can have at most {MOST_PIECES} pieces.")
