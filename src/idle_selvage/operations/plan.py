"""Pieces: typed from stations, read from a drawing, changed, taken out and brought back; and how each is cut from the
garment's cloths."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from sqlalchemy.orm import Session

from ..core.lay.asking import ON_BORDER
from ..core.plan.allowance import cut_line, seam_line
from ..core.plan.arrow import grainline
from ..core.plan.draft import Draft
from ..core.plan.drawn import HowCut, piece_of, spun
from ..core.plan.outline import BadPiece, Outline, Point
from ..core.plan.piece import DrawnMark, Piece, how_cut
from ..core.plan.sheet import EdgeMeasure, edge_measures
from ..core.plan.shorter import shortened
from ..core.plan.sizes import followed
from ..core.shrink.to_fit import enlarged
from ..core.wording import Sentence, listed, sentence_of
from ..formats.audit import Mended, NotRead
from ..formats.drawn_pieces import PieceRead
from ..formats.svg_pieces import BadDrawing, read_svg
from ..store import models
from ..store import piece as pieces
from ..store import seam as seams
from .cloth import name_of
from .log import note
from .refused import Refused
from .standing import Standing
from .telling import NotchTold, Told, ask_back, doubted, draft_of

MOST_PIECES = 200
#: In the size its points are told in.
AS_DRAFTED = pieces.AS_DRAFTED

#: What is said of a piece, and of how it is cut from one cloth, when nothing else is.
_USUAL: dict[str, Any] = {"half": False, "centred": False, "hem": False}
_USUALLY_CUT: dict[str, Any] = {
    "copies": 1,
    "pair": False,
    "on_fold": False,
    "grain": "lengthwise",
    "one_way": False,
    "seam": 0.0,
    "bare": False,
    "shorter": 0.0,
    "hidden": False,
    "border": "",
    "border_at": 0.0,
}
#: The columns of a piece that hold its draft.
_DRAFT = ("points", "arrow", "included", "notches", "marks", "half", "corners")


@dataclass(frozen=True)
class Sketch:
    """A piece as it is being told, in its own axes: its outline, its cut and seam lines, its arrow, its edges, and what
    looks like a slip."""

    draft: Draft
    piece: Piece
    outline: Outline
    cut: Outline
    seam: Outline
    arrow: tuple[Point, Point]
    edges: tuple[EdgeMeasure, ...]
    doubts: tuple[Sentence, ...]

    @property
    def on_fold(self) -> bool:
        return self.piece.on_fold


def sketch_of(name: str, draft: Draft, how: HowCut) -> Sketch:
    """A draft, drawn as it is cut. Raises :class:`Refused`."""
    piece = piece_of(name, draft, how)
    cut = _cut_line(piece, how.shorter)
    try:
        seam, edges = seam_line(piece), edge_measures(draft, how)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="included") from None
    arrow = piece.arrow or grainline(cut, on_fold=how.on_fold)
    tail, head = spun(arrow, piece.slant)
    return Sketch(
        draft,
        piece,
        spun(piece.outline, piece.slant),
        spun(cut, piece.slant),
        spun(seam, piece.slant),
        (tail, head),
        edges,
        doubted(draft, name),
    )


@dataclass(frozen=True)
class LinesOfPiece:
    """A piece of a garment as it is cut from the first of its cloths, in the size that is cut, in its own axes.

    ``enlarged``: its cut line for raw cloth that is sewn first, with the piece that has it; ``fault``: why it cannot be
    cut so.
    """

    draft: Draft
    piece: Piece
    how: models.Cut
    cuts: tuple[models.Cut, ...]
    outline: Outline
    cut: Outline
    seam: Outline
    arrow: Outline
    enlarged: Outline
    larger: Piece | None
    fault: str

    @property
    def marks(self) -> tuple[DrawnMark, ...]:
        """What is drawn on it."""
        return tuple(replace(m, line=spun(m.line, self.piece.slant)) for m in self.piece.marks)

    @property
    def edges(self) -> tuple[EdgeMeasure, ...]:
        """Its edges; none while it cannot be cut."""
        return () if self.fault else edge_measures(self.draft, pieces.as_how(self.how))

    @staticmethod
    def fault_of(piece: Piece, shorter: float) -> str:
        """Why a piece cannot be cut so, or nothing."""
        return _cut_or_fault(piece, shorter)[1]


def lines_of(row: models.Piece, now: Standing) -> LinesOfPiece:
    """A piece, drawn for the page that shows one of the garment's cloths."""
    uses = {one.use.id: one for one in now.whole.uses}
    cuts = tuple(cut for cut in row.cuts if cut.use_id in uses)
    of = cuts[0] if cuts else pieces.UNCUT
    fit = uses[of.use_id].fit if cuts else None
    shape = pieces.as_piece(row, of, now.size)
    return LinesOfPiece(pieces.sized_draft(row, now.size)[0], shape, of, cuts, *_lines(shape, of.shorter, fit))


@lru_cache(maxsize=512)
def _lines(
    shape: Piece, shorter: float, fit: tuple[float, float] | None
) -> tuple[Outline, Outline, Outline, Outline, Outline, Piece | None, str]:
    """The lines of a piece in its own axes: outline, cut line, seam line, arrow, and cut line for raw cloth with the
    piece that has it; what is wrong."""
    cut, fault = _cut_or_fault(shape, shorter)
    larger: Piece | None = None
    larger_cut: Outline = ()
    if fit is not None and not fault:
        larger = enlarged(shape, fit)
        larger_cut, fault = _cut_or_fault(larger)
    slant = shape.slant
    return (
        spun(shape.outline, slant),
        spun(cut, slant),
        spun(shape.outline if fault else seam_line(shape), slant),
        () if fault else spun(shape.arrow or grainline(cut, on_fold=shape.on_fold), slant),
        () if fault else spun(larger_cut, slant),
        larger,
        fault,
    )


def _cut_or_fault(piece: Piece, shorter: float = 0.0) -> tuple[Outline, str]:
    """The cut line, or the outline as it is with what is wrong with it."""
    try:
        seam_line(piece)
        return cut_line(shortened(piece, shorter)), ""
    except BadPiece as fault:
        return piece.outline, sentence_of(fault)


def draw_piece(session: Session, told: Told, how: HowCut, name: str = "") -> Sketch:
    """A piece as it is told, before anything is kept. Raises :class:`Refused`."""
    draft = draft_of(session, told)
    # the half of another piece is a half
    return sketch_of(name or "The piece", draft, replace(how, on_fold=how.on_fold or draft.half))


def add_piece(
    session: Session, cloth_use: models.ClothUse, told: Told, given: Mapping[str, Any], *, sure: bool = True
) -> models.Piece:
    """Keep a piece as it is told, cut from one cloth of the garment; ``given`` are its other entries. What looks like a
    slip is asked back unless it is ``sure``. Raises :class:`Refused`."""
    piece, cut = _parted(given)
    if cut.get("on_fold"):
        told = replace(told, half=True)
    draft = draft_of(session, told)
    ask_back(draft, piece.get("name", ""), sure=sure)
    if told.way == "another" and draft.half:
        # made from a half, it is one, and lies on the fold as that does
        cut = {**cut, "on_fold": True, "pair": False}
    row = models.Piece(project_id=cloth_use.project_id, **{**_USUAL, **piece})
    row.sizes = []
    pieces.keep_draft(row, draft)
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


Twice = Literal["ask", "instead", "beside"]


def read_drawing(
    session: Session, cloth_use: models.ClothUse, svg: bytes, file_name: str, twice: Twice = "beside"
) -> DrawingRead:
    """Take the pieces out of an SVG drawing; they are cut from one cloth of the garment.

    ``twice``: what is done with a piece whose name is there already: it is asked back, drawn anew with all else kept,
    or put beside it. Raises :class:`Refused`.
    """
    try:
        drawing = read_svg(svg)
    except BadDrawing as fault:
        raise Refused(str(fault), path="svg") from None
    added = keep_read(session, [(read, cloth_use) for read in drawing.what], file_name, drawing.not_read, twice)
    return DrawingRead(added, drawing.not_read, drawing.mended)


def keep_read(
    session: Session,
    found: Sequence[tuple[PieceRead, models.ClothUse]],
    file_name: str,
    not_read: Sequence[NotRead],
    twice: Twice,
) -> tuple[str, ...]:
    """Keep pieces that were read from a file, each cut from a cloth of one garment; their names. Raises
    :class:`Refused`."""
    if not found:
        return ()
    main = found[0][1]
    _room(session, main.project_id, len(found))
    there = {row.name: row for row in pieces.pieces(session, main.project_id)}
    again = [read.name for read, _ in found if read.name in there]
    if again and twice == "ask":
        names = listed([f"“{name}”" for name in dict.fromkeys(again)])
        there_already = "is here already" if len(set(again)) == 1 else "are here already"
        told = f"{names} {there_already}. Read the drawing instead, or beside what is there?"
        raise Refused(told, code="again", path="svg")
    for read, use in found:
        old = there.pop(read.name, None) if twice == "instead" else None
        if old is not None:
            _drawn_anew(session, old, read, use)
            continue
        row = models.Piece(project_id=use.project_id, name=read.name, **_USUAL)
        _keep_read(row, read)
        row.cuts.append(models.Cut(use_id=use.id, **{**_USUALLY_CUT, **asdict(read.how)}))
        session.add(row)
    session.flush()
    lost = [f"{n.place}: {n.why}" for n in not_read]
    note(session, main, "plan", "pieces-read", count=len(found), file=file_name[:80], not_read=lost)
    return tuple(read.name for read, _ in found)


def _keep_read(row: models.Piece, read: PieceRead) -> None:
    pieces.keep_draft(row, read.draft)
    pieces.keep_sizes(row, read.sizes)


def _drawn_anew(session: Session, row: models.Piece, read: PieceRead, cloth_use: models.ClothUse) -> None:
    """A piece takes the outline of a drawing; how it is cut, and its name, stay."""
    before = {key: getattr(row, key) for key in (*_DRAFT, "sizes")}
    was = row.half
    _keep_read(row, read)
    _follow_paper(row.cuts, was, row.half)
    _check(row)
    session.flush()
    after = {key: getattr(row, key) for key in (*_DRAFT, "sizes")}
    note(session, cloth_use, "plan", "piece-changed", before=before, after=after, name=row.name, piece=row.id)


def _follow_paper(cuts: Iterable[models.Cut], was: bool, half: bool) -> None:
    """Where a piece was cut like its paper, whole or as a half on the fold, it still is; a whole never on the fold."""
    for cut in cuts:
        if cut.on_fold == was and was != half:
            cut.on_fold, cut.pair = half, cut.pair and not half


def change_piece(
    session: Session,
    row: models.Piece,
    told: Told | None,
    given: Mapping[str, Any],
    cloth_use: models.ClothUse | None = None,
    *,
    sure: bool = True,
) -> models.Project:
    """Change a piece: how it is ``told`` (None: as it was), and ``given`` its other entries, those of how it is cut
    meant for one cloth (None: the main one). Its garment. Raises :class:`Refused`."""
    garment = session.get_one(models.Project, row.project_id)
    use = cloth_use or garment.main
    piece, cut = _parted(given)
    of = row.cut_from(use.id)
    before = {key: getattr(row, key) for key in piece}
    before |= {key: getattr(of, key) for key in cut} if of is not None else {}
    halves = cut.get("on_fold") if "on_fold" in cut and (not row.cuts or of is row.cuts[0]) else None
    drawn = _change_draft(session, row, told, halves, sure=sure)
    for key, value in piece.items():
        setattr(row, key, value)
    if cut:
        if of is None:
            of = models.Cut(use_id=use.id, **_USUALLY_CUT)
            row.cuts.append(of)
        for key, value in cut.items():
            setattr(of, key, value)
    _check(row)
    if of is not None and cut.keys() & {"border", "border_at"}:
        _same_distance(session, row, of)
    session.flush()
    if given or drawn:
        after = {**given, **{key: getattr(row, key) for key in drawn}}
        note(
            session, use, "plan", "piece-changed", before={**before, **drawn}, after=after, name=row.name, piece=row.id
        )
    return garment


def _change_draft(
    session: Session, row: models.Piece, told: Told | None, halves: bool | None, *, sure: bool
) -> dict[str, Any]:
    """Draw a piece as it is told, whole or half as it is cut from its first cloth; which entries it had before."""
    before = {key: getattr(row, key) for key in (*_DRAFT, "sizes")}
    if halves is not None:
        _follow_paper(row.cuts[1:], row.half, halves)
    if told is None and (halves is None or halves == row.half):
        return {}
    if told is None:
        kept = pieces.as_draft(row)
        marks = [NotchTold(n.double, n.after, n.at) for n in kept.notches]
        told = Told("points", points=kept.points, arrow=kept.arrow, included=kept.included, marks=kept.marks,
                    notches=marks)  # fmt: skip
    draft = draft_of(session, replace(told, half=row.half if halves is None else halves))
    ask_back(draft, row.name, sure=sure)
    there = {point.key for point in draft.points}
    draft = replace(draft, corners=tuple(one for one in pieces.as_draft(row).corners if one[0] in there))
    sizes = followed(pieces.as_sizes(row), pieces.as_draft(row).points, draft.points)
    pieces.keep_draft(row, draft)
    pieces.keep_sizes(row, sizes)
    return {key: value for key, value in before.items() if value != getattr(row, key)}


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
    if given.keys() & {"border", "border_at"}:
        _same_distance(session, row, of)
    session.flush()
    how = how_cut(pieces.as_piece(row, of))
    after = {key: getattr(of, key) for key in _USUALLY_CUT}
    told = {"name": row.name, "cloth": name_of(cloth_use), "how": how, "piece": row.id}
    note(session, cloth_use, "plan", "cut-changed", before=before, after=after, values=told)


def _same_distance(session: Session, row: models.Piece, of: models.Cut) -> None:
    """What meets this piece at a seam lies as far from the border as it does: both ends of a side seam at one place."""
    if not of.border:
        return
    joined = [(one.a_piece_id, one.b_piece_id) for one in seams.seams(session, row.project_id) if one.levels]
    met, grown = {row.id}, True
    while grown:
        more = {number for pair in joined if met & {*pair} for number in pair}
        grown, met = not more <= met, met | more
    for other in pieces.pieces(session, row.project_id):
        cut = other.cut_from(of.use_id)
        if cut is not None and other is not row and other.id in met and cut.border == of.border:
            cut.border_at = of.border_at


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


def _cut_line(piece: Piece, shorter: float = 0.0) -> Outline:
    found, fault = _cut_or_fault(piece, shorter)
    if fault:
        raise Refused(fault)
    return found


def _check(row: models.Piece) -> None:
    """Refuse a piece that cannot be cut so."""
    for cut in row.cuts:
        if cut.on_fold and not row.half:
            told = f"“{row.name}” is drawn whole, so it has no edge to lie on a fold. Draw half of it, or cut it whole."
            raise Refused(told, path="on_fold")
        _cut_line(pieces.as_piece(row, cut), cut.shorter)
        if cut.border and cut.grain not in ON_BORDER:
            told = (
                "A hem lies on the border of a piece on the cross grain, a strip along it; choose one of these grains."
            )
            raise Refused(told, path="border")
    if not row.cuts:
        _cut_line(pieces.as_piece(row, pieces.UNCUT))


def _room(session: Session, garment_id: int, more: int) -> None:
    if len(pieces.pieces(session, garment_id)) + more > MOST_PIECES:
        raise Refused(f"A project can have at most {MOST_PIECES} pieces.")
