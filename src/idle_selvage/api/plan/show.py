"""Pieces as they are sent."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import accumulate
from operator import attrgetter
from typing import Any

from ...core.plan.draft import Draft, levels, place_on, runs
from ...core.plan.drawn import marks_of
from ...core.plan.outline import BadPiece, Outline, fold_edge
from ...core.plan.piece import DrawnMark, how_cut
from ...core.plan.sheet import EdgeMeasure, area_of
from ...core.plan.size import size_of
from ...core.plan.tiles import CHECK_MM, MARGIN_MM, OVERLAP_MM, PAPERS
from ...core.working import Quantity
from ...operations.pages import PiecePages
from ...operations.plan import LinesOfPiece, Sketch, lines_of
from ...operations.sizes import PieceSizes
from ...operations.standing import Standing
from ...store import models
from ...store.piece import as_draft, as_piece, as_sizes
from ..shared.figures import Presenter
from . import schemas as out


def outline_out(show: Presenter, sketch: Sketch, remarks: Sequence[str] = ()) -> out.OutlineOut:
    """A piece being told."""
    return out.OutlineOut(**_drawn(show, sketch), remarks=list(remarks))


def draft_out(show: Presenter, row: models.Piece, sketch: Sketch, sizes: PieceSizes) -> out.DraftOut:
    """A piece that is kept."""
    return out.DraftOut(
        **_drawn(show, sketch),
        remarks=[],
        piece_id=row.id,
        name=row.name,
        sizes=list(sizes.sizes),
        base=sizes.base,
        grades=[
            out.GradeOut(key=key, along=show.along(x), across=show.sided(y)) for key, (x, y) in sizes.steps.items()
        ],
    )


def _drawn(show: Presenter, sketch: Sketch) -> dict[str, Any]:
    draft = sketch.draft
    return {
        "points": [
            out.PointOut(
                key=p.key,
                along=show.along(p.along),
                across=show.sided(p.across),
                smooth=p.smooth,
                straight=p.straight,
                allowance=show.maybe(p.allowance),
                ends=p.ends,
            )
            for p in draft.points
        ],
        "at": list(accumulate((len(run) for run in runs(draft)[:-1]), initial=0)),
        "outline": list(sketch.outline),
        "cut": list(sketch.cut),
        "seam_line": _seam_line(sketch.outline, sketch.cut, sketch.seam),
        "arrow": list(sketch.arrow),
        "arrow_told": [
            out.PlaceOut(along=show.along(x), across=show.sided(y)) for x, y in (draft.arrow or ())
        ],
        "lean": _lean(sketch.piece.slant),
        "fold": _fold(sketch.cut, sketch.on_fold),
        "half": draft.half,
        "included": show.length(draft.included),
        "notches": _notches(show, draft),
        "marks": [
            out.MarkOut(
                kind=m.kind,
                name=m.name,
                places=[out.PlaceOut(along=show.along(x), across=show.sided(y)) for x, y in m.places],
            )
            for m in draft.marks
        ],
        "drawn": drawn_out(marks_of(draft, sketch.piece.seam)),
        "edges": edges_out(show, draft, sketch.edges),
        "size": show.size(sketch.cut, sketch.on_fold),
        "area": show.quantity(Quantity(area_of(sketch.cut, sketch.on_fold), "area")),
        "doubts": list(sketch.doubts),
    }  # fmt: skip


def _lean(slant: float) -> str:
    return f"{abs(slant):.1f}°" if abs(slant) > 0.05 else ""


def _seam_line(outline: Outline, cut: Outline, seam: Outline) -> list[tuple[float, float]]:
    """Where it is sewn, where no other line says so."""
    return [] if seam in (outline, cut) else list(seam)


def _notches(show: Presenter, draft: Draft) -> list[out.NotchOut]:
    found = []
    for notch in draft.notches:
        try:
            place, _ = place_on(draft, notch.after, notch.at)
        except BadPiece:
            continue
        found.append(out.NotchOut(after=notch.after, at=show.length(notch.at), double=notch.double, place=place))
    return found


def drawn_out(marks: Sequence[DrawnMark]) -> list[out.DrawnOut]:
    """Marks as they are drawn."""
    return [out.DrawnOut(kind=m.kind, line=list(m.line), name=m.name) for m in marks]


def edges_out(
    show: Presenter, draft: Draft, edges: Sequence[EdgeMeasure], grown: Sequence[float] = ()
) -> list[out.PieceEdgeOut]:
    """The edges of a piece, known by the numbers of their first and last point."""
    number = {p.key: i for i, p in enumerate(draft.points, start=1)}
    firsts = [number[e.edge.first.key] for e in edges]
    found = []
    for i, one in enumerate(edges):
        following = firsts[(i + 1) % len(firsts)]
        found.append(
            out.PieceEdgeOut(
                number=one.edge.number,
                name=f"{firsts[i]}–{following}",
                first=one.edge.first.key,
                begins=one.edge.first.at,
                begins_at=firsts[i],
                seam=show.length(one.seam),
                drawn=show.length(one.drawn),
                allowance=show.length(one.allowance),
                on_fold=one.edge.on_fold,
                grown=show.length(grown[i]) if grown else None,
            )
        )
    return found


def piece_out(show: Presenter, row: models.Piece, now: Standing) -> out.PieceOut:
    """A piece as it is cut from the first of its cloths, enlarged when it is sewn first; ``now``: the cloth the page
    shows."""
    fits = tuple((one.use.id, one.fit) for one in now.whole.uses)
    asked = (as_draft(row), as_sizes(row), _of_piece(row), *map(_of_cut, row.cuts))
    key = (asked, now.size, fits, now.use.id, show.system)
    made = _MADE.get(key)
    if made is None:
        # several threads come here: what another one clears meanwhile is still in hand
        if len(_MADE) >= MOST_MADE:
            _MADE.clear()
        made = _MADE[key] = _piece_out(show, row, now)
    return made


#: Pieces as they were sent, by all they are made of: of a garment's many pieces a change touches one.
_MADE: dict[Any, out.PieceOut] = {}
MOST_MADE = 2000


#: What a row of each holds beside the draft and the sizes.
_of_piece = attrgetter("id", "name", "half", "centred", "hem")
_of_cut = attrgetter(*(column.key for column in models.Cut.__table__.columns))


def _piece_out(show: Presenter, row: models.Piece, now: Standing) -> out.PieceOut:
    lines = lines_of(row, now)
    of, shape, size = lines.how, lines.piece, size_of(lines.cut, lines.how.on_fold)
    return out.PieceOut(
        id=row.id,
        name=row.name,
        cuts=[_cut_out(show, row, one, now) for one in lines.cuts],
        cut_here=any(cut.use_id == now.use.id for cut in lines.cuts),
        half=row.half,
        outline=list(lines.outline),
        cut=list(lines.cut),
        seam_line=_seam_line(lines.outline, lines.cut, lines.seam),
        arrow=list(lines.arrow),
        own_arrow=shape.arrow is not None,
        lean=_lean(shape.slant),
        drawn=drawn_out(lines.marks),
        sizes=[one["size"] for one in row.sizes],
        levels=list(levels(as_draft(row))),
        fold=_fold(lines.cut, of.on_fold),
        size=show.size(lines.cut, of.on_fold),
        long=show.figure(size[0] if size else None),
        wide=show.figure(size[1] if size else None),
        how_cut=how_cut(shape),
        copies=of.copies,
        pair=of.pair,
        on_fold=of.on_fold,
        grain=of.grain,
        one_way=of.one_way,
        seam=show.length(of.seam),
        centred=row.centred,
        hidden=of.hidden,
        hem=row.hem,
        fault=lines.fault,
        enlarged=list(lines.enlarged),
    )


def _cut_out(show: Presenter, row: models.Piece, cut: models.Cut, now: Standing) -> out.CutOut:
    shape = as_piece(row, cut, now.size)
    return out.CutOut(
        use_id=cut.use_id,
        copies=cut.copies,
        pair=cut.pair,
        on_fold=cut.on_fold,
        grain=cut.grain,
        one_way=cut.one_way,
        seam=show.length(cut.seam),
        bare=cut.bare,
        shorter=show.length(cut.shorter),
        hidden=cut.hidden,
        border=cut.border,
        border_at=show.length(cut.border_at),
        how_cut=how_cut(shape),
        fault=LinesOfPiece.fault_of(shape, cut.shorter),
    )


def _fold(cut: Outline, on_fold: bool) -> list[float]:
    return list(fold_edge(cut) or ()) if on_fold else []


def sheet_piece_out(show: Presenter, row: models.Piece, now: Standing) -> out.SheetPieceOut:
    """A piece on the sheet of all pieces."""
    lines = lines_of(row, now)
    size = size_of(lines.cut, lines.how.on_fold)
    return out.SheetPieceOut(
        piece_id=row.id,
        name=row.name,
        how_cut=how_cut(lines.piece),
        long=show.figure_text(size[0]) if size else "",
        wide=show.figure_text(size[1]) if size else "",
        area="" if lines.fault else show.quantity(Quantity(area_of(lines.cut, lines.how.on_fold), "area")),
        outline=list(lines.outline),
        cut=list(lines.cut),
        seam_line=_seam_line(lines.outline, lines.cut, lines.seam),
        arrow=list(lines.arrow),
        fold=_fold(lines.cut, lines.how.on_fold),
        one_way=lines.how.one_way,
        drawn=drawn_out(lines.marks),
        edges=edges_out(show, lines.draft, lines.edges),
        fault=lines.fault,
    )


def pages_out(show: Presenter, found: PiecePages, paper: str) -> out.PagesOut:
    """A piece at its true size on sheets of paper."""
    lines = found.lines
    wide, high = PAPERS[paper]
    return out.PagesOut(
        name=found.name,
        paper_width=wide,
        paper_height=high,
        margin=MARGIN_MM,
        overlap=OVERLAP_MM,
        check=CHECK_MM,
        check_told=show.length(CHECK_MM).text,
        pages=[out.PageOut(name=p.name, x=p.x, y=p.y, width=p.width, height=p.height) for p in found.pages],
        enlarged=found.enlarged,
        can_enlarge=bool(lines.enlarged),
        how_cut=how_cut(lines.piece),
        size=show.size(found.cut, lines.how.on_fold),
        outline=list(found.outline),
        cut=list(found.cut),
        arrow=list(found.arrow),
        one_way=lines.how.one_way,
        drawn=drawn_out(found.marks),
        edges=edges_out(show, lines.draft, lines.edges, found.grown),
    )
