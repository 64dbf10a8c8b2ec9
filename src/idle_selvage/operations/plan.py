"""Pieces: typed from stations, read from a drawing, changed, taken out and brought back; and how each is cut from the
garment's cloths."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from ..core.plan.allowance import cut_line
from ..core.plan.arrow import grainline
from ..core.plan.outline import BadPiece, Outline, Point
from ..core.plan.piece import Piece, how_cut
from ..core.plan.shorter import shortened
from ..core.plan.stations import Station, outline_from_stations
from ..core.wording import Sentence, sentence_of
from ..core.working import length
from ..formats.audit import Mended, NotRead
from ..formats.svg_pieces import BadDrawing, read_svg
from ..store import models
from ..store import piece as pieces
from .cloth import name_of
from .log import note
from .refused import Refused

MOST_PIECES = 200

#: What is said of a piece, and of how it is cut from one cloth, when nothing else is.
_USUAL: dict[str, Any] = {"smooth": True, "half": False, "meets": "", "meets_at": 0.0, "centred": False, "hem": False}
_USUALLY_CUT: dict[str, Any] = {
    "copies": 1,
    "pair": False,
    "on_fold": False,
    "grain": "lengthwise",
    "one_way": False,
    "seam": 0.0,
    "shorter": 0.0,
    "hidden": False,
    "border": "",
    "border_at": 0.0,
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
    cut = _cut_line(Piece("The piece", outline, on_fold=on_fold, seam=seam))
    return Sketch(outline, cut, grainline(cut, on_fold=on_fold), on_fold)


def add_piece(
    session: Session, cloth_use: models.ClothUse, stations: Sequence[Station], given: Mapping[str, Any]
) -> models.Piece:
    """Keep a piece typed from stations, cut from one cloth of the garment; ``given`` are its other entries. Raises
    :class:`Refused`."""
    piece, cut = _parted(given)
    if "on_fold" in cut:
        piece.setdefault("half", cut["on_fold"])
    row = models.Piece(project_id=cloth_use.project_id, **{**_USUAL, **piece})
    row.stations = [[s.along, s.left, s.right] for s in stations]
    row.outline = [list(p) for p in _outline(stations, row.smooth, row.half)]
    row.cuts.append(models.Cut(use_id=cloth_use.id, **{**_USUALLY_CUT, **cut}))
    _check(row)
    _room(session, cloth_use.project_id, 1)
    session.add(row)
    session.flush()
    note(session, cloth_use, "plan", "piece-added", name=row.name, copies=row.cuts[0].copies, piece=row.id)
    return row


@dataclass(frozen=True)
class DrawingRead:
    """What came out of a drawing: the pieces' names, and what could not be read, and what was assumed."""

    added: tuple[str, ...]
    not_read: tuple[NotRead, ...]
    mended: tuple[Mended, ...]


def read_drawing(session: Session, cloth_use: models.ClothUse, svg: bytes, file_name: str) -> DrawingRead:
    """Take the pieces out of an SVG drawing; they are cut from one cloth of the garment. Raises :class:`Refused`."""
    try:
        drawing = read_svg(svg)
    except BadDrawing as fault:
        raise Refused(str(fault), path="svg") from None
    _room(session, cloth_use.project_id, len(drawing.what))
    for piece in drawing.what:
        cut = {
            "copies": piece.copies,
            "pair": piece.pair,
            "on_fold": piece.on_fold,
            "grain": piece.grain,
            "one_way": piece.one_way,
            "seam": piece.seam,
        }
        row = models.Piece(
            project_id=cloth_use.project_id,
            name=piece.name,
            outline=[list(p) for p in piece.outline],
            **{**_USUAL, "half": piece.on_fold},
        )
        row.cuts.append(models.Cut(use_id=cloth_use.id, **{**_USUALLY_CUT, **cut}))
        session.add(row)
    session.flush()
    if drawing.what:
        not_read = [f"{n.place}: {n.why}" for n in drawing.not_read]
        note(session, cloth_use, "plan", "pieces-read", count=len(drawing.what), file=file_name[:80], not_read=not_read)
    return DrawingRead(tuple(p.name for p in drawing.what), drawing.not_read, drawing.mended)


def change_piece(
    session: Session,
    row: models.Piece,
    stations: Sequence[Station] | None,
    given: Mapping[str, Any],
    cloth_use: models.ClothUse | None = None,
) -> models.Project:
    """Change a piece: ``given`` are its entries besides the stations, those of how it is cut meant for one cloth (None:
    the main one). Its garment. Raises :class:`Refused`."""
    garment = session.get_one(models.Project, row.project_id)
    use = cloth_use or garment.main
    piece, cut = _parted(given)
    of = row.cut_from(use.id)
    if "on_fold" in cut and (not row.cuts or of is row.cuts[0]):
        _redraw(row, piece, cut["on_fold"])
    before = {key: getattr(row, key) for key in piece}
    before |= {key: getattr(of, key) for key in cut} if of is not None else {}
    for key, value in piece.items():
        setattr(row, key, value)
    if cut:
        if of is None:
            of = models.Cut(use_id=use.id, **_USUALLY_CUT)
            row.cuts.append(of)
        for key, value in cut.items():
            setattr(of, key, value)
    if stations is not None:
        before["stations"] = row.stations
        row.stations = [[s.along, s.left, s.right] for s in stations]
    if row.stations and (stations is not None or piece.keys() & {"smooth", "half"}):
        typed = [Station(*s) for s in row.stations]
        row.outline = [list(p) for p in _outline(typed, row.smooth, row.half)]
    _check(row)
    session.flush()
    if given or stations is not None:
        after = {**given, **({"stations": row.stations} if stations is not None else {})}
        note(session, use, "plan", "piece-changed", before=before, after=after, name=row.name, piece=row.id)
    return garment


def _redraw(row: models.Piece, piece: dict[str, Any], half: bool) -> None:
    """A piece is drawn as it is cut from its first cloth; where it was cut like its paper it still is."""
    for cut in row.cuts[1:]:
        if cut.on_fold == row.half:
            cut.on_fold, cut.pair = half, cut.pair and not half
    piece.setdefault("half", half)


def _parted(given: Mapping[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    """Entries of the piece on the paper, and of how it is cut."""
    cut = {key: value for key, value in given.items() if key in _USUALLY_CUT}
    return {key: value for key, value in given.items() if key not in cut}, cut


def change_cut(session: Session, row: models.Piece, cloth_use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Change how a piece is cut from one of the garment's cloths; from one it is not cut from yet, as it is cut from
    the first. Raises :class:`Refused`."""
    of = row.cut_from(cloth_use.id)
    before: dict[str, Any] = {} if of is None else {key: getattr(of, key) for key in _USUALLY_CUT}
    if of is None:
        like = row.cuts[0] if row.cuts else pieces.UNCUT
        facts = {key: getattr(like, key) for key in _USUALLY_CUT}
        # what is one cloth's own: where its hem lies on a border, and whether it shows
        facts |= {"border": "", "border_at": 0.0, "hidden": cloth_use.role not in ("main", "contrast")}
        of = models.Cut(use_id=cloth_use.id, **facts)
        row.cuts.append(of)
    for key, value in given.items():
        setattr(of, key, value)
    _check(row)
    session.flush()
    how = how_cut(pieces.as_piece(row, of))
    after = {key: getattr(of, key) for key in _USUALLY_CUT}
    told = {"name": row.name, "cloth": name_of(cloth_use), "how": how, "piece": row.id}
    note(session, cloth_use, "plan", "cut-changed", before=before, after=after, values=told)


def remove_cut(session: Session, row: models.Piece, cloth_use: models.ClothUse) -> None:
    """Cut a piece from one of the cloths no longer; what it was is in the log."""
    of = row.cut_from(cloth_use.id)
    if of is None:
        return
    before = {key: getattr(of, key) for key in _USUALLY_CUT}
    row.cuts.remove(of)
    session.flush()
    told = {"name": row.name, "cloth": name_of(cloth_use), "piece": row.id}
    note(session, cloth_use, "plan", "cut-out", before=before, values=told)


def take_out(session: Session, number: int, *, gone: bool) -> models.Project:
    """Take a piece out of the plan, or bring it back. Its garment. Raises NotFound."""
    row = pieces.piece(session, number, deleted=not gone)
    garment = session.get_one(models.Project, row.project_id)
    if gone != (row.deleted_at is not None):
        row.deleted_at = models.now() if gone else None
        note(session, garment, "plan", "piece-out" if gone else "piece-back", name=row.name, piece=row.id)
    session.flush()
    return garment


def _outline(stations: Sequence[Station], smooth: bool, on_fold: bool) -> Outline:
    try:
        return outline_from_stations(stations, smooth=smooth, on_fold=on_fold)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="stations") from None


def _cut_line(piece: Piece, shorter: float = 0.0) -> Outline:
    try:
        return cut_line(shortened(piece, shorter) if shorter else piece)
    except BadPiece as fault:
        raise Refused(sentence_of(fault)) from None


def _check(row: models.Piece) -> None:
    """Refuse a piece that cannot be cut so, or a match point past its top."""
    for cut in row.cuts:
        if cut.on_fold and not row.half:
            told = f"“{row.name}” is drawn whole, so it has no edge to lie on a fold. Draw half of it, or cut it whole."
            raise Refused(told, path="on_fold")
        _cut_line(pieces.as_piece(row, cut), cut.shorter)
        if cut.border and cut.grain != "crosswise":
            told = "A hem lies on the border of a piece that is cut on the cross grain; choose that grain."
            raise Refused(told, path="border")
    if not row.cuts:
        _cut_line(pieces.as_piece(row, pieces.UNCUT))
    xs = [x for x, _ in row.outline]
    long = max(xs) - min(xs)
    if (row.meets_at or 0.0) > long:
        told = Sentence("That lies past the top: {name} is {long} long.", name=row.name, long=length(long))
        raise Refused(told, path="meets_at")


def _room(session: Session, garment_id: int, more: int) -> None:
    if len(pieces.pieces(session, garment_id)) + more > MOST_PIECES:
        raise Refused(f"A project can have at most {MOST_PIECES} pieces.")
