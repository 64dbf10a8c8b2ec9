"""Pieces as they are sent."""

from __future__ import annotations

from ...core.plan.allowance import cut_line
from ...core.plan.arrow import grainline
from ...core.plan.outline import BadPiece, Outline, fold_edge
from ...core.plan.piece import Piece, how_cut
from ...core.plan.shorter import shortened
from ...core.plan.size import size_of
from ...core.shrink.to_fit import enlarged
from ...core.wording import sentence_of
from ...operations.plan import Sketch
from ...operations.standing import Standing
from ...store import models
from ...store.piece import UNCUT, as_piece
from ..shared.figures import Presenter
from . import schemas as out


def outline_out(show: Presenter, sketch: Sketch) -> out.OutlineOut:
    """An outline being typed."""
    return out.OutlineOut(
        outline=list(sketch.outline),
        cut=list(sketch.cut),
        arrow=list(sketch.arrow),
        fold=_fold(sketch.cut, sketch.on_fold),
        size=show.size(sketch.cut, sketch.on_fold),
    )


def piece_out(show: Presenter, row: models.Piece, now: Standing) -> out.PieceOut:
    """A piece as it is cut from the first of its cloths, enlarged when it is sewn first; ``now``: the cloth the page
    shows."""
    uses = {one.use.id: one for one in now.whole.uses}
    cuts = [cut for cut in row.cuts if cut.use_id in uses]
    of = cuts[0] if cuts else UNCUT
    fit = uses[of.use_id].fit if cuts else None
    shape = as_piece(row, of)
    cut, fault = _cut(shape, of.shorter)
    larger: Outline = ()
    if fit is not None and not fault:
        larger, fault = _cut(enlarged(shape, fit))
    size = size_of(cut, of.on_fold)
    return out.PieceOut(
        id=row.id,
        name=row.name,
        cuts=[_cut_out(show, row, one) for one in cuts],
        cut_here=any(cut.use_id == now.use.id for cut in cuts),
        half=row.half,
        outline=list(shape.outline),
        cut=list(cut),
        arrow=[] if fault else list(grainline(cut, on_fold=of.on_fold)),
        fold=_fold(cut, of.on_fold),
        size=show.size(cut, of.on_fold),
        long=show.figure(size[0] if size else None),
        wide=show.figure(size[1] if size else None),
        how_cut=how_cut(shape),
        copies=of.copies,
        pair=of.pair,
        on_fold=of.on_fold,
        grain=of.grain,
        one_way=of.one_way,
        seam=show.length(of.seam),
        meets=row.meets,
        meets_at=show.length(row.meets_at),
        centred=row.centred,
        hidden=of.hidden,
        hem=row.hem,
        smooth=row.smooth,
        fault=fault,
        enlarged=[] if fault else list(larger),
        stations=[
            out.StationOut(along=show.length(a), left=show.length(b), right=show.length(c)) for a, b, c in row.stations
        ],
    )


def _cut_out(show: Presenter, row: models.Piece, cut: models.Cut) -> out.CutOut:
    shape = as_piece(row, cut)
    return out.CutOut(
        use_id=cut.use_id,
        copies=cut.copies,
        pair=cut.pair,
        on_fold=cut.on_fold,
        grain=cut.grain,
        one_way=cut.one_way,
        seam=show.length(cut.seam),
        shorter=show.length(cut.shorter),
        hidden=cut.hidden,
        border=cut.border,
        border_at=show.length(cut.border_at),
        how_cut=how_cut(shape),
        fault=_cut(shape, cut.shorter)[1],
    )


def _fold(cut: Outline, on_fold: bool) -> list[float]:
    return list(fold_edge(cut) or ()) if on_fold else []


def _cut(piece: Piece, shorter: float = 0.0) -> tuple[Outline, str]:
    """The cut line, or the outline as it is with what is wrong with it."""
    try:
        return cut_line(shortened(piece, shorter) if shorter else piece), ""
    except BadPiece as fault:
        return piece.outline, sentence_of(fault)
