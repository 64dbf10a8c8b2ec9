"""Seams and bars as they are sent."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...core.cloth.bars import MATCHED_MM, MISMATCH_MM, Bar, BarPattern
from ...core.match import told
from ...core.match.helps import Way
from ...core.match.judged import Judged, Met
from ...core.match.strip import Strip
from ...core.plan.draft import Draft
from ...core.plan.outline import Outline
from ...core.plan.piece import Piece, how_cut
from ...core.plan.seams import Seam, Sewn, sewing_order
from ...core.plan.sides import SewnEdge, Spot, corners, sewn_edges
from ...core.working import gap
from ...operations.match import Matching, SeamStanding, drafted, proposed
from ...operations.plan import LinesOfPiece, lines_of
from ...store import models
from ...store.seam import as_seam
from ..shared.figures import Presenter, rounded
from ..shared.schemas import LengthOut
from . import schemas as out

_WAYS: dict[str, out.Way] = {"x": "levels", "y": "lengthwise"}


def match_out(show: Presenter, found: Matching) -> out.MatchOut:
    """All of it."""
    seams = [_seam_out(show, found, one) for one in found.seams]
    order = {one.row.id: one.judged.rank if one.judged else (9, 0.0, one.row.priority) for one in found.seams}
    now = found.now
    return out.MatchOut(
        pieces=[_piece_out(show, found, row, draft, piece) for row, draft, piece in _sewn_order(found)],
        seams=seams,
        worst_first=sorted(order, key=lambda number: order[number]),
        proposed=[_proposed_out(now.names, n, seam) for n, seam in enumerate(proposed(now))],
        consequences=list(found.consequences),
        limits=told.limits_text(),
        limit_good=MATCHED_MM,
        limit_bad=MISMATCH_MM,
        bars=_bars_out(found),
        wishes=[
            out.WishOut(piece_id=int(one.piece), way=one.way, at=one.at, bar=one.bar) for one in now.wished
        ],
        named_bars=_named_bars(found),
        steps=[
            out.CutStepOut(told=one.told, why=one.why, piece_ids=[int(key) for key in one.pieces])
            for one in found.steps
        ],
        laid=found.lay is not None,
        out_of_date=found.out_of_date,
        lay_id=None if found.lay is None else found.lay.row.id,
        how_sure=told.how_sure(found.doubt),
    )  # fmt: skip


def _sewn_order(found: Matching) -> list[tuple[models.Piece, Draft, Piece]]:
    of = {str(row.id): (row, draft, piece) for row, draft, piece in drafted(found.now)}
    return [of[key] for key in sewing_order([*of], [as_seam(row) for row in found.now.whole.rows.seams])]


def _piece_out(show: Presenter, found: Matching, row: models.Piece, draft: Draft, piece: Piece) -> out.SeamPieceOut:
    lines = lines_of(row, found.now)
    number = {point.key: i for i, point in enumerate(draft.points, start=1)}
    here = set(() if piece.fault else corners(draft))
    said = {key for key, _ in draft.corners}
    return out.SeamPieceOut(
        id=row.id,
        name=found.now.names[str(row.id)],
        outline=rounded(_seam_outline(lines)),
        cut=rounded(lines.cut),
        mirror=piece.on_fold,
        how_cut=how_cut(piece),
        edges=_edges_out(show, () if piece.fault else sewn_edges(draft), number),
        corners=[
            out.CornerOut(key=p.key, number=number[p.key], place=p.at, corner=p.key in here, said=p.key in said)
            for p in draft.points
        ],
        spots=[out.WishSpotOut(way=one.way, at=one.at, name=one.name) for one in found.spots(row, draft, piece)],
        level=found.joined.levels.zero.get(str(row.id)),
        fault=lines.fault,
    )


def _seam_outline(lines: LinesOfPiece) -> Outline:
    return lines.outline if lines.fault else lines.seam


def _edges_out(show: Presenter, edges: Sequence[SewnEdge], number: Mapping[int, int]) -> list[out.SewnEdgeOut]:
    following = [*edges[1:], None][: len(edges)]
    return [
        _edge_out(show, edge, number, edge.whole and after is not None and not after.whole)
        for edge, after in zip(edges, following, strict=True)
    ]


def _edge_out(show: Presenter, edge: SewnEdge, number: Mapping[int, int], has_parts: bool) -> out.SewnEdgeOut:
    def spot(one: Spot) -> str:
        return f"{number[one.after]}" if one.at == 0 else f"{number[one.after]} and {show.length(one.at).text}"

    return out.SewnEdgeOut(
        begin=_spot(edge.side.begin),
        end=_spot(edge.side.end),
        name=f"{spot(edge.side.begin)} to {spot(edge.side.end)}",
        whole=edge.whole,
        has_parts=has_parts,
        long=show.length(edge.length),
        line=rounded(edge.line),
    )


def _spot(one: Spot) -> out.SpotOut:
    return out.SpotOut(after=one.after, at=one.at)


def _seam_out(show: Presenter, found: Matching, one: SeamStanding) -> out.SeamOut:
    row, judged = one.row, one.judged
    seam = as_seam(row)
    sewn = next((s for s in found.now.sewn if s.seam.key == seam.key), None)
    names = found.now.names
    return out.SeamOut(
        id=row.id,
        name=row.name,
        kind=seam.kind,
        a=_side_out(show, seam, sewn, "a", names),
        b=_side_out(show, seam, sewn, "b", names),
        at_along=None if row.b_along is None else show.along(row.b_along),
        at_across=None if row.b_across is None else show.sided(row.b_across),
        same_way=row.same_way,
        longer=row.longer,
        ease=show.length(row.ease),
        spread=(row.spread_from, row.spread_to),
        key_a=show.maybe(row.key_a),
        key_b=show.maybe(row.key_b),
        levels=row.levels,
        lengthwise=row.lengthwise,
        priority=row.priority,
        unlike=one.unlike or "",
        standing=found.joined.levels.standing.get(seam.key, "") if seam.levels else "",
        graph=one.graph or "",
        verdict="unknown" if judged is None else judged.verdict,
        told=one.gone or "" if judged is None else told.verdict_told(judged),
        worst=_gap(show, None if judged is None else judged.worst),
        mean=_gap(show, None if judged is None else judged.mean),
        chance=one.chance,
        couples=[] if judged is None else _couples_out(judged),
        gone=one.gone or "",
    )  # fmt: skip


def _gap(show: Presenter, mm: float | None) -> LengthOut | None:
    return None if mm is None else LengthOut(mm=mm, text=show.quantity(gap(mm)))


def _side_out(show: Presenter, seam: Seam, sewn: Sewn | None, letter: str, names: Mapping[str, str]) -> out.SideOut:
    side = seam.a if letter == "a" else seam.b
    run = () if sewn is None else sewn.a if letter == "a" else sewn.b
    long = None if sewn is None else show.length(sewn.lengths[0 if letter == "a" else 1])
    key = None if sewn is None else sewn.key[0 if letter == "a" else 1]
    return out.SideOut(
        piece_id=int(side.piece),
        piece=names.get(side.piece, ""),
        begin=None if side.side is None else _spot(side.side.begin),
        end=None if side.side is None else _spot(side.side.end),
        place=side.place,
        run=rounded(run),
        long=long,
        key=key,
    )


def _couples_out(judged: Judged) -> list[out.SewnCoupleOut]:
    return [
        out.SewnCoupleOut(name=told.couple_told(judged, n), strips=strips_out(met, thin=True))
        for n, met in enumerate(judged.mets)
    ]


#: So many places of a strip are enough for a line in a list.
THIN = 40


def strips_out(met: Met, *, thin: bool = False) -> list[out.StripOut]:
    """The mismatch along a seam."""
    return [_strip_out(one, thin) for one in met.strips]


def _strip_out(one: Strip, thin: bool) -> out.StripOut:
    step = max(1, len(one.at) // THIN) if thin else 1
    places = [(round(float(s), 1), round(float(m), 2)) for s, m in zip(one.at[::step], one.off[::step], strict=True)]
    return out.StripOut(
        way=_WAYS[one.axis],
        kind=one.kind,
        kind_told=told.KINDS[one.kind],
        places=places,
        worst=round(one.worst, 2),
        mean=round(one.mean, 2),
    )


def _proposed_out(names: Mapping[str, str], number: int, seam: Seam) -> out.ProposedOut:
    a, b = names[seam.a.piece], names[seam.b.piece]
    said = f"{a}, laid on {b}" if seam.kind == "laid on" else f"{a} to its own mirror image" if (
        a == b and seam.a.side == seam.b.side
    ) else f"{a} to {b}"  # fmt: skip
    return out.ProposedOut(number=number, name=seam.name, told=said, levels=seam.levels, lengthwise=seam.lengthwise)


def _bars_out(found: Matching) -> out.LaidBarsOut:
    x, y = found.bars_drawn
    along, across = found.now.cloth.bars
    return out.LaidBarsOut(
        x_repeat=_repeat(x, along),
        y_repeat=_repeat(y, across),
        x=[out.LaidBarOut(begins=at, width=bar.width, colour=bar.colour) for at, bar in x],
        y=[out.LaidBarOut(begins=at, width=bar.width, colour=bar.colour) for at, bar in y],
        left=found.bars_left,
        x_seen=along.seen,
        y_seen=across.seen,
        ground=found.now.cloth.row.ground,
    )


def _repeat(drawn: Sequence[tuple[float, Bar]], pattern: BarPattern) -> float | None:
    return None if pattern.repeat is None else sum(bar.width for _, bar in drawn)


def _named_bars(found: Matching) -> list[out.NamedBarOut]:
    return [
        out.NamedBarOut(way=way, bar=one.bar, name=one.name, colour=one.colour)
        for way, places in found.named_bars.items()
        for one in places
    ]


def ways_out(found: Sequence[Way]) -> out.SeamWaysOut:
    """What can be done about a seam."""
    return out.SeamWaysOut(ways=[out.SeamWayOut(what=w.what, told=w.told, worst=w.worst, key_a=w.key_a) for w in found])


def preview_out(show: Presenter, found: Matching, number: int, couple: int, at_cut: bool) -> out.PreviewOut:
    """A seam as one will see it."""
    judged, drawn = found.preview(number, couple, at_cut=at_cut)
    names = found.now.names
    a, b = judged.sewn.seam.a.piece, judged.sewn.seam.b.piece
    return out.PreviewOut(
        a=out.HalfOut(shown=rounded(drawn.a.shown, 2), seam=rounded(drawn.a.seam, 2), matrix=list(drawn.a.matrix),
                      name=names[a]),
        b=out.HalfOut(shown=rounded(drawn.b.shown, 2), seam=rounded(drawn.b.seam, 2), matrix=list(drawn.b.matrix),
                      name=names[b]),
        along=rounded(drawn.along, 2),
        gap=LengthOut(mm=drawn.gap, text=show.quantity(gap(drawn.gap))),
        couples=[told.couple_told(judged, n) for n in range(len(judged.mets))],
        strips=strips_out(judged.mets[couple]),
        bars=_bars_out(found),
        told=told.verdict_told(judged),
    )  # fmt: skip
