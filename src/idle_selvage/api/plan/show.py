"""Pieces as they are sent."""

from __future__ import annotations

from ...core.plan.allowance import cut_line
from ...core.plan.arrow import grainline
from ...core.plan.outline import BadPiece, Outline, fold_edge
from ...core.plan.piece import Piece, how_cut
from ...core.shrink.to_fit import enlarged
from ...core.wording import sentence_of
from ...operations.plan import Sketch
from ...store import models
from ...store.piece import as_piece
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


def piece_out(show: Presenter, row: models.Piece, fit: tuple[float, float] | None = None) -> out.PieceOut:
    """A piece; ``fit`` are the shrinkages by which it is enlarged when it is sewn first."""
    shape = as_piece(row)
    cut, fault = _cut(shape)
    larger: Outline = ()
    if fit is not None and not fault:
        larger, fault = _cut(enlarged(shape, fit))
    return out.PieceOut(
        id=row.id,
        name=row.name,
        outline=list(shape.outline),
        cut=list(cut),
        arrow=[] if fault else list(grainline(cut, on_fold=row.on_fold)),
        fold=_fold(cut, row.on_fold),
        size=show.size(cut, row.on_fold),
        how_cut=how_cut(shape),
        copies=row.copies,
        pair=row.pair,
        on_fold=row.on_fold,
        grain=row.grain,
        one_way=row.one_way,
        seam=show.length(row.seam),
        meets=row.meets,
        meets_at=show.length(row.meets_at),
        centred=row.centred,
        hidden=row.hidden,
        hem=row.hem,
        smooth=row.smooth,
        fault=fault,
        enlarged=[] if fault else list(larger),
        stations=[
            out.StationOut(along=show.length(a), left=show.length(b), right=show.length(c)) for a, b, c in row.stations
        ],
    )


def _fold(cut: Outline, on_fold: bool) -> list[float]:
    return list(fold_edge(cut) or ()) if on_fold else []


def _cut(piece: Piece) -> tuple[Outline, str]:
    """The cut line, or the outline as it is with what is wrong with it."""
    try:
        return cut_line(piece), ""
    except BadPiece as fault:
        return piece.outline, sentence_of(fault)
