"""Laying the rest again on what is really left: cut cloth is gone, in its true shape."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import shapely
from shapely import Polygon
from shapely.geometry import MultiPolygon
from shapely.ops import unary_union

from ..lay.answer import Cut
from ..lay.hand import mirrors_freely, outline_of
from ..lay.in_two import PARTS, in_two
from ..lay.outlined import without_holes
from ..lay.placing import place_point
from ..lay.problem import LayPiece, Match, Problem
from ..lay.stale import same_outline
from ..plan.outline import Outline, Point

#: What a piece cut turned over is known by, behind its own id; and what of it is said.
OVER = ",turned over"
#: Cuts nearer to one another than this are one hole, mm: nothing lies between.
ONE_HOLE_MM = 0.5
#: Holes are told to this much, mm, outwards: never more cloth than there is.
TOLD_MM = 0.02
#: So many points an outline in a lay problem may have; holes with more are told coarser, still outwards.
MOST_POINTS = 4000
COARSE_MM = 0.25

Counts = tuple[int, int]


def shape_of(piece: LayPiece, cut: Cut) -> Outline:
    """A copy as it lies, or lay, on the open cloth; the whole of one that is cut on a fold."""
    ring = outline_of(piece, cut.turn, cut.mirrored, half=False).tolist()
    return tuple((x + cut.x, y + cut.y) for x, y in ring)


def holes(shapes: Sequence[Outline]) -> tuple[Outline, ...]:
    """Cut cloth as outlines that a lay problem can be told: what touches is one, nothing of it is left out."""
    if not shapes:
        return ()
    # closed first, so that slivers between two cuts are no ground; grown by a hair, so that rounding leaves nothing out
    closed = unary_union([Polygon(one).buffer(ONE_HOLE_MM / 2, join_style="mitre") for one in shapes])
    closed = unary_union([closed.buffer(-ONE_HOLE_MM / 2, join_style="mitre"), *(Polygon(one) for one in shapes)])
    parts = list(closed.geoms) if isinstance(closed, MultiPolygon) else [closed]
    out: list[Outline] = []
    for part in parts:
        for simple in without_holes(part):
            ring = simple.buffer(TOLD_MM, join_style="mitre").exterior
            if len(ring.coords) > MOST_POINTS:
                ring = simple.buffer(2 * COARSE_MM, join_style="mitre").simplify(COARSE_MM).exterior
            out.append(tuple((round(x, 3), round(y, 3)) for x, y in ring.coords[:-1]))
    return tuple(out)


def asked_of(problem: Problem) -> dict[str, Counts]:
    """How many copies of each piece are asked for: as drawn, and turned over. Where it is all one, all as drawn."""
    out = {}
    for piece in problem.pieces:
        half = piece.copies // 2 if piece.pair and not mirrors_freely(piece, problem) else 0
        out[piece.id] = (piece.copies - half, half)
    return out


def over_of(piece: LayPiece, copies: int) -> LayPiece:
    """A piece of its own that is another turned over: its outline reflected in its grain."""
    arrow = None if piece.arrow is None else _flipped(piece.arrow)
    return replace(
        piece,
        id=piece.id + OVER,
        name=f"{piece.called} (turned over)",
        outline=_flipped(piece.outline),
        copies=copies,
        pair=False,
        fixed=(),
        arrow=None if arrow is None else (arrow[0], arrow[1]),
        marks=tuple(replace(mark, line=_flipped(mark.line)) for mark in piece.marks),
        match=tuple(replace(one, point=(one.point[0], -one.point[1])) for one in piece.match),
    )


def _flipped(points: Sequence[Point]) -> Outline:
    return tuple((x, -y) for x, y in points)


def rest_pieces(problem: Problem, owed: Mapping[str, Counts]) -> tuple[LayPiece, ...]:
    """The pieces still to be cut: ``owed`` copies as drawn and turned over of each. What is owed in pairs stays a pair;
    what is owed one way round only is told as it lies."""
    out = []
    for piece in problem.pieces:
        plain, over = owed.get(piece.id, (0, 0))
        both = min(plain, over)
        if both:
            out.append(replace(piece, copies=2 * both, pair=True, fixed=()))
        if plain > both:
            # a second one beside the pair needs a name of its own
            one = replace(piece, copies=plain - both, pair=False, fixed=())
            out.append(replace(one, id=f"{piece.id},single", name=f"{piece.called} (one more)") if both else one)
        if over > both:
            out.append(over_of(piece, over - both))
    return tuple(out)


def whole_id(piece: str) -> str:
    """The piece of the garment that a piece of a lay again is a copy of."""
    return piece.partition(",")[0]


def is_over(piece: str) -> bool:
    """Whether a piece of a lay again is another turned over, or a part of one."""
    return OVER in piece


def part_of(piece: str) -> str:
    """Which part of a joined piece it is; nothing for a whole one."""
    return next((part for part in PARTS if piece.endswith(part)), "")


def dressed(problem: Problem, today: Problem) -> Problem:
    """A problem of the rest with arrows and marks on its copies turned over and on its parts, as they are on the pieces
    today; a file holds none."""
    base = {piece.id: piece for piece in today.pieces}
    pieces = []
    for piece in problem.pieces:
        whole = base.get(whole_id(piece.id))
        if whole is not None and piece.id != whole.id:
            over = over_of(whole, 1)
            alike = [whole, over, *(in_two(whole) or ()), *(in_two(over) or ())]
            one = next((each for each in alike if same_outline(each.outline, piece.outline)), None)
            if one is not None:
                piece = replace(piece, arrow=one.arrow, marks=one.marks)
        pieces.append(piece)
    return replace(problem, pieces=tuple(pieces))


def phases(problem: Problem, cuts: Sequence[Cut]) -> dict[str, tuple[float | None, float | None]]:
    """Where on the bars the points of each group came to lie on cut copies: along and across, mm within the repeat."""
    pieces = {piece.id: piece for piece in problem.pieces}
    bars = problem.bars
    out: dict[str, tuple[float | None, float | None]] = {}
    for cut in cuts:
        for match in pieces[cut.piece].match:
            x, y = place_point(match.point, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)
            was = out.get(match.group, (None, None))
            along, across = was
            if along is None and match.along and bars.x_repeat:
                along = x % bars.x_repeat
            if across is None and match.across and bars.y_repeat:
                if cut.mirrored and bars.y_axes:
                    y = 2 * bars.y_axes[0] - y
                across = y % bars.y_repeat
            out[match.group] = (along, across)
    return out


def _met(
    match: Match, found: Mapping[str, tuple[float | None, float | None]], problem: Problem, *, over: bool
) -> Match:
    along, across = found.get(match.group, (None, None))
    axes, repeat = problem.bars.y_axes, problem.bars.y_repeat
    if over and across is not None and axes and repeat:
        # told as it lies: its point is where that of a mirrored copy comes to lie
        across = (2 * axes[0] - across) % repeat
    group = match.group + OVER if over and match.across else match.group
    return replace(
        match,
        group=group,
        phase_x=match.phase_x if along is None or not match.along else round(along, 4),
        phase_y=match.phase_y if across is None or not match.across else round(across, 4),
    )


def rest_problem(
    problem: Problem,
    owed: Mapping[str, Counts],
    cut: Sequence[Cut],
    gone: Sequence[Outline],
    *,
    folds: Sequence[str] = ("open",),
) -> Problem:
    """What is still owed, to be laid on what is left of the cloth of ``problem``.

    ``cut``: copies that were cut from it or wait on it, which say where on the bars the rest must lie; ``gone``: the
    shapes of all ground that is taken.
    """
    known = phases(problem, cut)
    pieces = []
    for piece in rest_pieces(problem, owed):
        over = is_over(piece.id)
        met = tuple(_met(match, known, problem, over=over) for match in piece.match)
        pieces.append(replace(piece, match=met))
    return replace(
        problem,
        pieces=tuple(pieces),
        length=None,
        folds=tuple(folds),
        blocked_shapes=(*problem.blocked_shapes, *holes(gone)),
        partial_at=None,
    )


def really_there(
    width: float, length: float, gone: Sequence[Outline], frame: Sequence[Outline] = ()
) -> Polygon | MultiPolygon:
    """The cloth that is left, mm: of ``length`` by ``width``, or of a remnant's own outline
    with its holes, without what was cut."""
    whole = Polygon(frame[0], frame[1:]) if frame else shapely.box(0.0, 0.0, length, width)
    left = whole.difference(unary_union([Polygon(one) for one in gone])) if gone else whole
    return left if isinstance(left, Polygon | MultiPolygon) else MultiPolygon()
