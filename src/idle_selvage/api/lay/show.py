"""Lays, drawings and layings as they are sent."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import accumulate

from ...core.lay.beside import beside
from ...core.lay.broken import Broken
from ...core.lay.drawing import Drawing, PlacedShape
from ...core.lay.folding import Folding
from ...core.lay.hand import Aside, outline_of, tray
from ...core.lay.lit import Band
from ...core.lay.long import lay_bound, lay_length, lay_used
from ...core.lay.moves import nudge_step
from ...core.lay.named import fold_name
from ...core.lay.on_border import HemOnCloth, border_left, hem_on_cloth
from ...core.lay.table import Stretch
from ...operations.by_hand import HandStanding, NearFound
from ...operations.lay import Compared, LayFound, LayStanding
from ...operations.standing import Standing
from ...store import job as jobs
from ...store import models
from ..plan.schemas import DrawnOut
from ..shared.figures import Presenter, rounded
from . import schemas as out


def job_out(show: Presenter, row: models.Job) -> out.JobOut:
    """How far a laying is; its progress never gets longer."""
    last = row.progress[-1] if row.progress else None
    best = list(accumulate((p[1] for p in row.progress), min))
    return out.JobOut.model_validate(
        {
            "id": row.id,
            "use_id": row.use_id,
            "state": row.state,
            "ahead": jobs.ahead(row),
            "seconds": round(row.spent, 1),
            "asked_seconds": row.params["seconds"],
            "progress": [(p[0], shortest) for p, shortest in zip(row.progress, best, strict=True)],
            "length": show.maybe(best[-1] if best else None),
            "bound": show.maybe(last[2] if last else None),
            "steps": last[4] if last else 0,
            "error": row.error,
        }
    )


def drawing_out(show: Presenter, drawing: Drawing, hand: HandStanding, again: Sequence[Broken] = ()) -> out.DrawingOut:
    """A lay as shapes on the cloth, with what is known of each in the hand."""
    near = beside([shape.outline for shape in drawing.shapes])
    offs = {one.section: one.offset for one in drawing.stretches}
    pieces = {p.id: p for p in hand.stored.problem.pieces}
    fast = {one.key: one.locked for one in hand.hand.held}
    return out.DrawingOut.model_validate(
        {
            "view": drawing.view,
            "length": drawing.length,
            "low": drawing.low,
            "high": drawing.high,
            "folded": drawing.folded,
            "stretches": [stretch_out(one) for one in drawing.stretches],
            "shapes": [
                shape_out(
                    show,
                    shape,
                    hem=hem_on_cloth(shape, pieces[shape.piece_id], offs.get(shape.section, 0.0)),
                    locked=fast.get(shape.pinned, False),
                    near=[drawing.shapes[j].name for j in near[k]],
                    broken=[one.sign for one in (*hand.broken, *again) if shape.pinned in one.keys],
                )
                for k, shape in enumerate(drawing.shapes)
            ],
            "kept_off": [
                out.KeptOffOut(outline=rounded(area.outline, 2), under=area.under) for area in drawing.kept_off
            ],
        }
    )


def stretch_out(one: Stretch) -> out.StretchOut:
    """One stretch of the table."""
    return out.StretchOut(
        section=one.section,
        fold=one.fold,
        label=fold_name(one.fold),
        start=one.start,
        end=one.end,
        low=one.low,
        high=one.high,
        margins=one.margins,
        offset=one.offset,
        grounds=[out.GroundOut(low=g.low, high=g.high, layers=g.layers, under=g.under) for g in one.grounds],
        lines=[out.ClothLineOut(kind=line.kind, start=line.start, end=line.end) for line in one.lines],
    )


def folding_out(show: Presenter, one: Folding) -> out.FoldingOut:
    """How one stretch is folded."""
    return out.FoldingOut(
        section=one.section,
        fold=one.fold,
        label=one.name,
        start=show.length(one.start),
        end=show.length(one.end),
        steps=[show.told(step) for step in one.steps],
    )


def shape_out(
    show: Presenter,
    shape: PlacedShape,
    *,
    hem: HemOnCloth | None,
    locked: bool,
    near: Sequence[str],
    broken: Sequence[str],
) -> out.ShapeOut:
    """One shape on the picture."""
    tail, head = shape.measured
    return out.ShapeOut(
        key=shape.key,
        piece_id=shape.piece_id,
        piece=shape.piece,
        copy_number=shape.copy,
        name=shape.name,
        layers=shape.layers,
        turn=shape.turn,
        mirrored=shape.mirrored,
        outline=rounded(shape.outline, 2),
        tail=shape.tail,
        head=shape.head,
        edge=shape.edge,
        tail_distance=show.length(shape.tail_distance),
        head_distance=show.length(shape.head_distance),
        tail_figure=show.surely(tail),
        head_figure=show.surely(head),
        from_end=f"{show.length(shape.from_end[0]).text} to {show.length(shape.from_end[1]).text}",
        from_what="fold" if shape.from_fold else "cut end",
        pinned=shape.pinned,
        section=shape.section,
        origin=shape.origin,
        hem=None if hem is None else out.HemOut(edge=rounded(hem.edge, 2), at=hem.at, lost=show.length(hem.lost)),
        locked=locked,
        beside=list(near),
        broken=list(broken),
        lies=shape.lies,
        lies_told=shape.lies_told,
        marks=[DrawnOut(kind=m.kind, line=rounded(m.line, 2), name=m.name) for m in shape.marks],
    )


def lay_out(show: Presenter, now: Standing, found: LayFound) -> out.LayOut:
    """The chosen lay, drawn both ways, with its alternatives."""
    chosen = found.chosen
    mine = {one.sign for one in chosen.hand.broken}
    again = [one for one in found.again if one.sign not in mine]
    pinned, opened = chosen.drawn("pinned"), chosen.drawn("opened")
    return out.LayOut(
        lay_id=chosen.row.id,
        own=chosen.row.name,
        tray=[_aside(one, chosen) for one in tray(chosen.hand.hand, chosen.problem)],
        broken=[
            *(_broken(show, one, chosen.hand) for one in chosen.hand.broken),
            *(_broken(show, one, chosen.hand) for one in again),
        ],
        grains={one.piece: one.grain for one in chosen.hand.hand.grains},
        shorter=None
        if found.offer is None
        else out.ShorterOut(
            lay_id=found.offer.row.id,
            would_do=show.figure_text(found.offer.would_do),
            instead_of=show.figure_text(found.offer.instead_of),
        ),
        border_left=[
            out.BorderLeftOut(side=b.side, left=show.length(b.left), longest=show.length(b.longest))
            for b in border_left(opened.shapes, {p.id: p for p in chosen.problem.pieces}, chosen.lay.length)
        ],
        nudge=show.length(nudge_step(show.system)),
        step=now.use.shop_step,
        fold=chosen.fold,
        fold_label=fold_name(chosen.fold),
        length=show.length(chosen.lay.length),
        bound=show.length(chosen.lay.bound),
        utilisation=chosen.lay.utilisation,
        stale=list(now.stale),
        margins=chosen.margins,
        length_figure=show.surely(lay_length(chosen.lay, opened.shapes)),
        bound_figure=show.surely(lay_bound(chosen.lay, chosen.problem)),
        used_figure=show.surely(lay_used(chosen.lay, chosen.problem)),
        pinned=drawing_out(show, pinned, chosen.hand, again),
        opened=drawing_out(show, opened, chosen.hand, again),
        foldings=[folding_out(show, one) for one in chosen.foldings],
        alternatives=[_alternative(show, one, one.row.id == chosen.row.id) for one in found.others],
        seed=chosen.lay.seed,
        steps=chosen.lay.steps,
        refused=[out.RefusedOut(fold=fold, label=fold_name(fold), why=why) for fold, why in found.refused],
    )


def _aside(one: Aside, chosen: LayStanding) -> out.AsideOut:
    piece = next(p for p in chosen.problem.pieces if p.id == one.piece)
    whole = outline_of(piece, 0, bool(one.mirrored and not one.plain), half=False)
    return out.AsideOut(
        piece=one.piece,
        name=piece.called,
        count=one.count,
        mirrored=one.mirrored,
        outline=rounded([(float(x), float(y)) for x, y in whole], 2),
        grain=piece.grain,
    )


def _broken(show: Presenter, one: Broken, hand: HandStanding) -> out.BrokenOut:
    return out.BrokenOut(
        sign=one.sign,
        kind=one.kind,
        told=show.told(one.told),
        cost=show.told(hand.costs.get(one.sign, one.cost)),
        keys=list(one.keys),
        spoils=one.spoils,
        meant=hand.meant(one),
    )


def compare_out(show: Presenter, found: Sequence[Compared]) -> out.CompareOut:
    """Every lay beside the others."""
    return out.CompareOut(
        lays=[
            out.ComparedOut(
                lay_id=each.one.row.id,
                label=each.one.row.name or fold_name(each.one.fold),
                own=bool(each.one.row.name),
                chosen=each.one.row.chosen,
                length=show.length(each.one.lay.length),
                to_buy=show.figure(each.bought.to_buy if each.bought else None),
                cost=show.figure(each.bought.cost if each.bought else None),
                cuts=each.one.lay.cuts,
                unfoldings=each.one.lay.unfoldings,
                broken=[show.told(b.told) for b in each.broken],
                left=[out.LeftOut(along=show.length(r.along), across=show.length(r.across)) for r in each.left],
            )
            for each in found
        ]
    )


def near_out(found: NearFound | None) -> out.NearOut:
    """Where what is held comes to lie."""
    if found is None:
        return out.NearOut(there=False, x=0.0, y=0.0, section=0, caught=[], outline=None)
    near = found.near
    ring = None if found.outline is None else rounded([(float(x), float(y)) for x, y in found.outline], 2)
    return out.NearOut(
        there=True, x=near.x, y=near.y, section=near.seat.section, caught=list(near.caught), outline=ring
    )


def light_out(bands: Sequence[Band]) -> out.LightOut:
    """The ground that is lit."""
    return out.LightOut(bands=[out.BandOut(low=b.low, high=b.high, runs=list(b.runs)) for b in bands])


def _alternative(show: Presenter, one: LayStanding, chosen: bool) -> out.AlternativeOut:
    picture = one.drawn("pinned")
    return out.AlternativeOut(
        lay_id=one.row.id,
        own=bool(one.row.name),
        fold=one.fold,
        label=one.row.name or fold_name(one.fold),
        length=show.length(one.lay.length),
        cuts=one.lay.cuts,
        unfoldings=one.lay.unfoldings,
        chosen=chosen,
        stretches=[stretch_out(s) for s in picture.stretches],
        long=picture.length,
        low=picture.low,
        high=picture.high,
        outlines=[rounded(s.outline) for s in picture.shapes],
    )
