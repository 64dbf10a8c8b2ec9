"""Seams as usual garments have them, proposed from what the pieces are called, their edges, notches and lengths.

Nothing is kept of a proposal before the maker has said so; what it misses she makes by touching two edges. Names are
the trade's usual ones; the order of priority is how plainly a seam is seen (common practice, no source).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry import LineString
from shapely.geometry import Point as Place

from .draft import Draft, run_length
from .outline import TOLERANCE_MM, BadPiece, Outline, Point
from .piece import Piece
from .seams import SAME_LENGTH_MM, Longer, Seam, SeamSide
from .sewn_level import level_sides
from .sides import Side, Spot, seam_run, sewn_edges

#: Edges that differ by more than this share are not sewn together.
UNLIKE_SHARE = 0.12
#: An edge is straight whose ends lie apart by so much of its length.
STRAIGHT = 0.96
#: What lies nearly as far from the side seam as this share of the furthest edge may be the middle.
FAR_SHARE = 0.6
#: A sleeve head may be so much longer than its armhole, mm. Common practice: 25 to 40 mm on a set-in sleeve.
SLEEVE_EASE_MM = 45.0


@dataclass(frozen=True)
class Proposable:
    """A piece as proposals see it."""

    key: str
    name: str
    draft: Draft
    piece: Piece
    hidden: bool = False

    def called(self, *words: str) -> bool:
        """Whether one of these words is in its name."""
        return any(word in self.name.lower() for word in words)


def proposals(pieces: Sequence[Proposable], there: Sequence[Seam] = ()) -> tuple[Seam, ...]:
    """Seams that are likely, the most visible first; none between edges that are sewn already. ``key`` is empty."""
    taken = {side_of(side) for seam in there for side in (seam.a, seam.b)}
    out: list[Seam] = []
    for seam in _likely(tuple(one for one in pieces if not one.hidden)):
        sides = {side_of(seam.a), side_of(seam.b)}
        if sides & taken:
            continue
        taken |= sides if seam.kind == "sewn" else {side_of(seam.a)}
        out.append(seam)
    return tuple(out)


@lru_cache(maxsize=64)
def _likely(pieces: tuple[Proposable, ...]) -> tuple[Seam, ...]:
    found: list[Seam] = []
    for rule in RULES:
        try:
            found += rule(pieces)
        except BadPiece:
            continue
    return tuple(found)


def side_of(side: SeamSide) -> tuple[str, object]:
    """By what a side is known: its piece, and its run."""
    return side.piece, side.side or side.place


def _of(pieces: Sequence[Proposable], *words: str) -> list[Proposable]:
    return [one for one in pieces if one.called(*words)]


def _gores(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    """Panels that are sewn to one another round the body: the right edge of one to the left edge of the next."""
    for one in pieces:
        if one.piece.pair or one.piece.on_fold or one.piece.copies < 3 or not one.called("gore", "panel", "skirt"):
            continue
        sides = level_sides(one.draft, one.piece, 0.0)
        if len(sides) != 2 or abs(sides[0].long - sides[1].long) > SAME_LENGTH_MM or sides[0].long < 200.0:
            continue
        a, b = sides
        yield Seam("", SeamSide(one.key, a.side), SeamSide(one.key, b.side), f"{one.name} to the next",
                   same_way=a.upwards == b.upwards)  # fmt: skip


def _centres(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    """Centre front and back: the edge of a pair that lies at the middle, sewn or buttoned to its own mirror image."""
    for word in ("front", "back"):
        for one in _of(pieces, word):
            if not one.piece.pair:
                continue
            middle = _middle_side(one)
            if middle is None:
                continue
            yield Seam("", SeamSide(one.key, middle), SeamSide(one.key, middle), f"Centre {word}", same_way=True)


def _straight(one: Proposable) -> list[Side]:
    """The edges that run up a piece and are straight, as no armhole is."""
    found = [side.side for side in level_sides(one.draft, one.piece, 0.0)]
    return [side for side in found if _straightness(_run(one, side)) >= STRAIGHT]


def _straightness(run: Outline) -> float:
    return math.dist(run[0], run[-1]) / (run_length(run) or 1.0)


def _outer(one: Proposable) -> Side | None:
    """The side seam's edge: of those that run up a piece, the one above which the armhole is; above that of the middle
    is the neck, which is shorter."""
    return max(_straight(one), key=lambda side: _above(one, side), default=None)


def _above(one: Proposable, side: Side) -> float:
    """The length of the edge that goes on at the upper end of one, mm."""
    run = _run(one, side)
    high = run[-1] if run[-1][0] > run[0][0] else run[0]
    others = [_run(one, edge.side) for edge in sewn_edges(one.draft) if edge.whole and edge.side != side]
    meeting = [run_length(line) for line in others if min(math.dist(line[0], high), math.dist(line[-1], high)) < 1.0]
    return max(meeting, default=0.0)


def _middle_side(one: Proposable) -> Side | None:
    """Of a front or back that is no half, the edge at the middle: the one furthest across from the side seam."""
    outer = _outer(one)
    if outer is None:
        return None
    there = _middle_of(_run(one, outer))
    away = {side: abs(_middle_of(_run(one, side)) - there) for side in _straight(one) if side != outer}
    # a lapel may reach out further than the front edge, and is shorter
    far = [side for side, by in away.items() if by >= max(away.values()) * FAR_SHARE]
    return max(far, key=lambda side: run_length(_run(one, side)), default=None)


def _middle_of(run: Outline) -> float:
    return sum(y for _, y in run) / len(run)


def _side_seams(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    for back in _of(pieces, "back"):
        for front in _of(pieces, "front"):
            for a, b, name in _sides_of(front, back):
                seam = _alike(front, a, back, b, name)
                if seam is not None:
                    yield _keyed(seam, front, back, top=True)


def _sides_of(front: Proposable, back: Proposable) -> list[tuple[Side, Side, str]]:
    """The side seams of a front and a back. Two whole pieces, seen from their face, are sewn right to left and left to
    right."""
    if not any(one.piece.pair or one.draft.half for one in (front, back)):
        ours, theirs = ([side.side for side in level_sides(one.draft, one.piece, 0.0)] for one in (front, back))
        if len(ours) > 1 and len(theirs) > 1:
            return [(ours[0], theirs[-1], "Side seam, one side"), (ours[-1], theirs[0], "Side seam, other side")]
    a, b = _outer(front), _outer(back)
    return [] if a is None or b is None else [(a, b, "Side seam")]


def _run(one: Proposable, side: Side) -> Outline:
    return seam_run(one.piece, one.draft, side)


def _alike(one: Proposable, a: Side, other: Proposable, b: Side, name: str) -> Seam | None:
    """A seam between two edges of about one length; what is left of a difference is ease."""
    run_a, run_b = _run(one, a), _run(other, b)
    long_a, long_b = run_length(run_a), run_length(run_b)
    if abs(long_a - long_b) > UNLIKE_SHARE * max(long_a, long_b):
        return None
    off = long_a - long_b
    longer: Longer = "" if abs(off) <= SAME_LENGTH_MM else "a" if off > 0 else "b"
    ease = 0.0 if not longer else round(abs(off), 1)
    up_a, up_b = run_a[-1][0] > run_a[0][0], run_b[-1][0] > run_b[0][0]
    return Seam("", SeamSide(one.key, a), SeamSide(other.key, b), name, same_way=up_a == up_b, longer=longer, ease=ease)


def _keyed(seam: Seam, one: Proposable, other: Proposable, *, top: bool) -> Seam:
    """With its key point: a notch of both sides, else the upper or the lower end."""
    if seam.a.side is None or seam.b.side is None:
        return seam
    run_a = _run(one, seam.a.side)
    long_a, long_b = run_length(run_a), run_length(_run(other, seam.b.side))
    at_a, at_b = notches_on(one, seam.a.side), notches_on(other, seam.b.side)
    if at_a and at_b:
        from_b = at_b[0] if seam.same_way else long_b - at_b[-1]
        return _with_key(seam, at_a[0], from_b)
    upwards = run_a[-1][0] > run_a[0][0]
    return _with_key(seam, long_a, long_b) if upwards == top else _with_key(seam, 0.0, 0.0)


def _with_key(seam: Seam, a: float, b: float) -> Seam:
    return Seam(seam.key, seam.a, seam.b, seam.name, seam.kind, seam.same_way, seam.longer, seam.ease, seam.spread,
                round(a, 1), round(b, 1), seam.levels, seam.lengthwise, seam.priority)  # fmt: skip


def notches_on(one: Proposable, side: Side) -> list[float]:
    """How far along a side its notches lie, mm, in the direction in which it is drawn."""
    whole = next((edge for edge in sewn_edges(one.draft) if edge.whole and edge.side == side), None)
    if whole is None:
        return []
    parts = [e for e in sewn_edges(one.draft) if not e.whole and _within(whole.line, e.line)]
    gone, found = 0.0, []
    for part in parts[:-1]:
        gone += part.length
        found.append(gone)
    return found


def _within(line: Outline, part: Outline) -> bool:
    return all(LineString(line).distance(Place(place)) < 1e-6 for place in part)


def _sleeves(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    """The sleeve head to the armhole of the front, met at the notch or else at the underarm."""
    for sleeve in _of(pieces, "sleeve"):
        head = _head(sleeve)
        if head is None:
            continue
        for word, half in (("front", head[0]), ("back", head[1])):
            for body in _of(pieces, word):
                hole = _armhole(body)
                if hole is None:
                    continue
                run_s, run_h = _run(sleeve, half), _run(body, hole)
                ease = run_length(run_s) - run_length(run_h)
                if not -SAME_LENGTH_MM <= ease <= SLEEVE_EASE_MM + UNLIKE_SHARE * run_length(run_h):
                    continue
                same = (run_s[-1][0] > run_s[0][0]) == (run_h[-1][0] > run_h[0][0])
                seam = Seam(
                    "", SeamSide(sleeve.key, half), SeamSide(body.key, hole), f"Sleeve to {word}", same_way=same,
                    longer="a" if ease > SAME_LENGTH_MM else "", ease=round(max(0.0, ease), 1), spread=(0.3, 1.0)
                )  # fmt: skip
                yield _keyed(seam, sleeve, body, top=False)


def _head(sleeve: Proposable) -> tuple[Side, Side] | None:
    """The two halves of a sleeve head, parted at its highest place: the one drawn first, and the other."""
    edges = [edge for edge in sewn_edges(sleeve.draft) if edge.whole]
    if not edges or sleeve.piece.on_fold:
        return None
    top = max(edges, key=lambda edge: max(x for x, _ in edge.line))
    run = top.line
    highest = max(range(len(run)), key=lambda i: run[i][0])
    if not 0 < highest < len(run) - 1:
        return None
    gone = run_length(run[: highest + 1])
    crown = Spot(top.side.begin.after, round(top.side.begin.at + gone, 3))
    halves = Side(top.side.begin, crown), Side(crown, top.side.end)
    # the back has the double notch
    return halves if not _double(sleeve, gone, top.side) else (halves[1], halves[0])


def _double(sleeve: Proposable, upto: float, head: Side) -> bool:
    """Whether a double notch lies on the part of the head that is drawn first."""
    double = [n for n in sleeve.draft.notches if n.double and n.after == head.begin.after]
    return any(n.at < upto for n in double)


def _armhole(body: Proposable) -> Side | None:
    """The armhole: from the upper end of the side seam on, curved in."""
    outer = _outer(body)
    if outer is None:
        return None
    run = _run(body, outer)
    high = run[-1] if run[-1][0] > run[0][0] else run[0]
    best = None
    for edge in (one for one in sewn_edges(body.draft) if one.whole and one.side != outer):
        line = _run(body, edge.side)
        if min(math.dist(line[0], high), math.dist(line[-1], high)) < 1.0 and max(x for x, _ in line) > high[0] + 50.0:
            best = edge.side
    return best


def _laid_on(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    """Pockets and flaps where a point of the body says so: with the middle of their top edge there."""
    for one in _of(pieces, "pocket", "flap"):
        if one.called("bag", "welt", "facing", "lining"):
            continue
        for body in _of(pieces, "front", "back"):
            mark = next((m for m in body.draft.marks if m.kind == "point" and _names(one.name, m.name)), None)
            if mark is None:
                continue
            yield _at_middle(one, _top(one), body, mark.places[0], f"{one.name} on {body.name}", levels=True)


def _names(name: str, mark: str) -> bool:
    return bool(mark) and (mark.lower() in name.lower() or name.lower() in mark.lower())


def _top(one: Proposable) -> Side:
    edges = [edge for edge in sewn_edges(one.draft) if edge.whole]
    return max(edges, key=lambda edge: sum(x for x, _ in edge.line) / len(edge.line)).side


def _collars(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    """A collar at the centre of the back: the middle of its lower edge on the middle of the neck."""
    for collar in _of(pieces, "collar"):
        if collar.called("stand", "under", "facing"):
            continue
        low = _neck_edge(collar)
        for back in _of(pieces, "back"):
            if low is None or not back.draft.half:
                continue
            neck = max(x for x, y in back.piece.outline if abs(y) < TOLERANCE_MM)
            name = f"{collar.name} at centre back"
            yield _at_middle(collar, low, back, (neck, 0.0), name, levels=False)


def _at_middle(one: Proposable, side: Side, body: Proposable, place: Point, name: str, *, levels: bool) -> Seam:
    """A piece laid on another with the middle of one of its edges at a place."""
    run = _run(one, side)
    middle = run_length(run) / 2
    if one.draft.half:
        # the middle of a half is where its edge ends on the fold
        middle = 0.0 if abs(run[0][1]) < abs(run[-1][1]) else run_length(run)
    middle = round(middle, 1)
    return Seam("", SeamSide(one.key, side), SeamSide(body.key, None, place), name, "laid on", key_a=middle,
                levels=levels, lengthwise=True)  # fmt: skip


def _neck_edge(collar: Proposable) -> Side | None:
    """Of its two long edges the shorter one: what falls over the shoulders is longer."""
    edges = sorted((edge for edge in sewn_edges(collar.draft) if edge.whole), key=lambda edge: edge.length)
    return edges[-2].side if len(edges) > 1 else None


def _yokes(pieces: Sequence[Proposable]) -> Iterator[Seam]:
    for yoke in _of(pieces, "yoke"):
        for body in _of(pieces, "back", "front", "skirt"):
            if body is yoke:
                continue
            low, high = _low(yoke), _top(body)
            if low is None:
                continue
            run_a, run_b = _run(yoke, low), _run(body, high)
            if abs(run_length(run_a) - run_length(run_b)) > UNLIKE_SHARE * run_length(run_b):
                continue
            same = (run_a[-1][1] > run_a[0][1]) == (run_b[-1][1] > run_b[0][1])
            yield Seam("", SeamSide(yoke.key, low), SeamSide(body.key, high), f"Yoke to {body.name.lower()}",
                       same_way=same, levels=False, lengthwise=True)  # fmt: skip


def _low(one: Proposable) -> Side | None:
    edges = [edge for edge in sewn_edges(one.draft) if edge.whole]
    return min(edges, key=lambda edge: sum(x for x, _ in edge.line) / len(edge.line)).side if edges else None


#: The rules in the order in which what they find is seen.
RULES: tuple[Callable[[Sequence[Proposable]], Iterator[Seam]], ...] = (
    _centres, _gores, _side_seams, _laid_on, _sleeves, _collars, _yokes,
)  # fmt: skip
