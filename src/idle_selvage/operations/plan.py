"""Pieces: typed from stations, read from a drawing, changed, taken out and brought back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from ..core.plan.allowance import cut_line
from ..core.plan.arrow import grainline
from ..core.plan.outline import BadPiece, Outline, Point
from ..core.plan.piece import Piece
from ..core.plan.stations import Station, outline_from_stations
from ..core.wording import Sentence, sentence_of
from ..core.working import length
from ..formats.audit import Mended, NotRead
from ..formats.svg_pieces import BadDrawing, read_svg
from ..store import models
from ..store import piece as pieces
from .log import note
from .refused import Refused

MOST_PIECES = 200


#: How a piece is cut when nothing else is said.
_USUAL: dict[str, Any] = {
    "smooth": True,
    "copies": 1,
    "pair": False,
    "on_fold": False,
    "grain": "lengthwise",
    "one_way": False,
    "seam": 0.0,
    "meets": "",
    "meets_at": 0.0,
    "centred": False,
    "hidden": False,
    "hem": False,
}


@dataclass(frozen=True)
class Sketch:
    """A piece as it is being typed: its outline, its cut line, and its arrow."""

    outline: Outline
    cut: Outline
    arrow: tuple[Point, Point]
    on_fold: bool


def draw_outline(stations: Sequence[Station], *, smooth: bool, on_fold: bool, seam: float) -> Sketch:
    """The outline through stations, before anything is kept. Raises :class:`Refused`."""
    outline = _outline(stations, smooth, on_fold)
    cut = _cut(Piece("The piece", outline, on_fold=on_fold, seam=seam))
    return Sketch(outline, cut, grainline(cut, on_fold=on_fold), on_fold)


def add_piece(
    session: Session, garment: models.Project, stations: Sequence[Station], given: Mapping[str, Any]
) -> models.Piece:
    """Keep a piece typed from stations; ``given`` are its other entries. Raises :class:`Refused`."""
    row = models.Piece(project_id=garment.id, **{**_USUAL, **given})
    row.stations = [[s.along, s.left, s.right] for s in stations]
    row.outline = [list(p) for p in _outline(stations, row.smooth, row.on_fold)]
    _cut(pieces.as_piece(row))
    _meets_on(row)
    _room(session, garment, 1)
    session.add(row)
    session.flush()
    note(session, garment, "plan", f"Added the piece “{row.name}”, {row.copies} to cut.")
    return row


@dataclass(frozen=True)
class DrawingRead:
    """What came out of a drawing: the pieces' names, and what could not be read, and what was assumed."""

    added: tuple[str, ...]
    not_read: tuple[NotRead, ...]
    mended: tuple[Mended, ...]


def read_drawing(session: Session, garment: models.Project, svg: bytes, file_name: str) -> DrawingRead:
    """Take the pieces out of an SVG drawing. Raises :class:`Refused`."""
    try:
        drawing = read_svg(svg)
    except BadDrawing as fault:
        raise Refused(str(fault), path="svg") from None
    _room(session, garment, len(drawing.what))
    for piece in drawing.what:
        session.add(
            models.Piece(
                project_id=garment.id,
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
    if drawing.what:
        not_read = [f"{n.place}: {n.why}" for n in drawing.not_read]
        told = f"Read {len(drawing.what)} pieces from “{file_name[:80]}”."
        note(session, garment, "plan", told, not_read=not_read)
    return DrawingRead(tuple(p.name for p in drawing.what), drawing.not_read, drawing.mended)


def change_piece(
    session: Session, row: models.Piece, stations: Sequence[Station] | None, given: Mapping[str, Any]
) -> models.Project:
    """Change a piece: ``given`` are its entries besides the stations. Its garment. Raises :class:`Refused`."""
    for key, value in given.items():
        setattr(row, key, value)
    if stations is not None:
        row.stations = [[s.along, s.left, s.right] for s in stations]
    if row.stations and (stations is not None or given.keys() & {"smooth", "on_fold"}):
        typed = [Station(*s) for s in row.stations]
        row.outline = [list(p) for p in _outline(typed, row.smooth, row.on_fold)]
    _cut(pieces.as_piece(row))
    _meets_on(row)
    session.flush()
    garment = session.get_one(models.Project, row.project_id)
    if given or stations is not None:
        note(session, garment, "plan", f"Changed the piece “{row.name}”.")
    return garment


def take_out(session: Session, number: int, *, gone: bool) -> models.Project:
    """Take a piece out of the plan, or bring it back. Its garment. Raises NotFound."""
    row = pieces.piece(session, number, deleted=not gone)
    garment = session.get_one(models.Project, row.project_id)
    if gone != (row.deleted_at is not None):
        row.deleted_at = models.now() if gone else None
        note(session, garment, "plan", f"{'Took out' if gone else 'Brought back'} the piece “{row.name}”.")
    session.flush()
    return garment


def _outline(stations: Sequence[Station], smooth: bool, on_fold: bool) -> Outline:
    try:
        return outline_from_stations(stations, smooth=smooth, on_fold=on_fold)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="stations") from None


def _cut(piece: Piece) -> Outline:
    try:
        return cut_line(piece)
    except BadPiece as fault:
        raise Refused(sentence_of(fault)) from None


def _meets_on(row: models.Piece) -> None:
    """Refuse a match point past the top of the piece."""
    xs = [x for x, _ in row.outline]
    long = max(xs) - min(xs)
    if (row.meets_at or 0.0) > long:
        told = Sentence("That lies past the top: {name} is {long} long.", name=row.name, long=length(long))
        raise Refused(told, path="meets_at")


def _room(session: Session, garment: models.Project, more: int) -> None:
    if len(pieces.pieces(session, garment.id)) + more > MOST_PIECES:
        raise Refused(f"A project can have at most {MOST_PIECES} pieces.")
