"""Which rules a lay made by hand breaks, and what each will cost; a maker may mean it.

Overlap is not among them: no move makes one. Written without the checker, which is its judge in the tests.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import shapely
from shapely import Polygon

from ..plan.outline import whole_polygon
from ..wording import Sentence
from ..working import length
from .answer import Cut
from .hand import HandLay, cuts_by_key, mirrors_freely
from .placing import place, place_point
from .problem import TOLERANCE_MM, LayPiece, Problem, allowed_turns, is_reserved, turns_of

#: ``outside``: what no hand can break, only a change of the cloth or the pieces.
Kind = Literal["turn", "flaw", "selvage", "count", "sides", "border", "match", "centre", "outside"]
#: What a placement breaks by itself, wherever the others lie.
BY_ITSELF: tuple[Kind, ...] = ("turn", "flaw", "selvage", "border")
#: What of a broken rule cannot be worn: it spoils the cloth.
SPOILS: tuple[Kind, ...] = ("sides",)


@dataclass(frozen=True)
class Broken:
    """A rule that is broken, by which placements (``keys``), in words, and what it will cost. ``sign`` stays the same
    while nothing of it changes."""

    kind: Kind
    sign: str
    told: Sentence
    cost: Sentence
    keys: tuple[str, ...] = ()
    piece: str = ""
    #: of bars: the group, and along which axis
    what: tuple[str, str] = ("", "")
    #: degrees off the grain
    off: int = 0

    @property
    def spoils(self) -> bool:
        return self.kind in SPOILS


@dataclass(frozen=True)
class _Copy:
    """A copy on the open cloth, of a placement."""

    key: str
    piece: LayPiece
    cut: Cut
    shape: Polygon

    @property
    def name(self) -> str:
        return f"{self.piece.called} {self.cut.copy}"


def broken(hand: HandLay, problem: Problem) -> tuple[Broken, ...]:
    """Every rule that a lay breaks on this problem, of the pieces that are laid first."""
    asked = hand.asked(problem)
    pieces = {p.id: p for p in asked.pieces}
    copies = [
        _Copy(key, pieces[cut.piece], cut, _shape(pieces[cut.piece], cut)) for key, cut in cuts_by_key(hand, pieces)
    ]
    found: dict[str, Broken] = {}
    for rule in (_turns, _flaws, _selvages, _borders, _centred):
        for one in rule(copies, asked):
            # the two layers of one placement break a rule as one
            found.setdefault(one.sign, one)
    found.update((one.sign, one) for one in (*_counts(copies, asked), *_meetings(copies, asked)))
    return tuple(found.values())


def _shape(piece: LayPiece, cut: Cut) -> Polygon:
    outline = (
        tuple((float(a), float(b)) for a, b in whole_polygon(piece.outline).exterior.coords[:-1])
        if piece.on_fold
        else piece.outline
    )
    return Polygon(place(outline, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored))


def off_grain(piece: LayPiece, problem: Problem, turn: int) -> int:
    """By how many degrees a turn is off every grain the piece may have, whichever way its top points."""
    lines = {line % 180 for line in allowed_turns(piece.grain, one_way=False)}
    if piece.border is not None:
        lines = {piece.border.turn % 180}
    return min(min((turn - line) % 180, (line - turn) % 180) for line in lines)


def _turns(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    for one in copies:
        if one.cut.turn in turns_of(one.piece, problem):
            continue
        off = off_grain(one.piece, problem, one.cut.turn)
        sign = f"turn {one.key} {off or 'against'}"
        if off:
            told = Sentence("{name} lies {off}° off its grain.", name=one.name, off=off)
            cost = Sentence("It will twist as it hangs.")
        else:
            told = Sentence("{name} lies against the direction of the cloth.", name=one.name)
            cost = Sentence("Nap and pile shade: it will look lighter or darker than what is sewn beside it.")
        found.append(Broken("turn", sign, told, cost, (one.key,), one.piece.id, off=off))
    return found


def _flaws(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    for k, outline in enumerate(problem.kept_off):
        area = Polygon(outline)
        reserved = k < len(problem.blocked) and is_reserved(problem, problem.blocked[k])
        for one in copies:
            if reserved and one.piece.border is not None:
                continue
            over = one.shape.buffer(-TOLERANCE_MM / 2).intersects(area.buffer(-TOLERANCE_MM / 2))
            near = bool(problem.gap) and shapely.distance(one.shape, area) < problem.gap - TOLERANCE_MM
            if not over and not near:
                continue
            if over:
                told = Sentence("{name} lies over a flaw or what is to be kept free.", name=one.name)
                cost = Sentence("What is there will be in the piece: place it where it does not show.")
            else:
                told = Sentence("{name} lies nearer to a flaw than the room to cut.", name=one.name)
                cost = Sentence("Cut there with care.")
            found.append(Broken("flaw", f"flaw {one.key} {k}", told, cost, (one.key,), one.piece.id))
    return found


def _selvages(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    for one in copies:
        _, low, _, high = one.shape.bounds
        by = max(-low, high - problem.width)
        if by > TOLERANCE_MM:
            told = Sentence("{name} reaches {by} into a selvage.", name=one.name, by=length(by))
            cost = Sentence("A selvage is woven tighter and shrinks otherwise: that edge may pucker.")
            found.append(Broken("selvage", f"selvage {one.key}", told, cost, (one.key,), one.piece.id))
    return found


def _borders(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    for one in copies:
        border = one.piece.border
        if border is None:
            continue
        _, low, _, high = one.shape.bounds
        lies = low if border.selvage == "low" else problem.width - high
        if abs(lies - border.distance) > TOLERANCE_MM:
            told = Sentence("{name} has its {edge} {lies} from the selvage and not {wanted}.", name=one.name,
                            edge="hem" if border.edge == "hem" else "long edge",
                            lies=length(lies), wanted=length(border.distance))  # fmt: skip
            cost = Sentence("Its hem will not lie on the border as its neighbours’ do.")
            found.append(Broken("border", f"border {one.key}", told, cost, (one.key,), one.piece.id))
    return found


def _counts(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    for piece in problem.pieces:
        there = [one for one in copies if one.piece.id == piece.id]
        over = sum(one.cut.mirrored for one in there)
        free = mirrors_freely(piece, problem)
        missing = piece.copies - len(there)
        if missing:
            told = Sentence("{name}: {there} of {wanted} are laid.", name=piece.called, there=len(there),
                            wanted=piece.copies)  # fmt: skip
            cost = Sentence("What lies on the tray is not cut from this cloth.")
            found.append(Broken("count", f"count {piece.id} {missing}", told, cost, (), piece.id))
        keys = tuple(dict.fromkeys(one.key for one in there))
        # what is missing of a pair may still make it one
        if piece.pair and not free and not missing and over * 2 != len(there):
            told = Sentence("{name}: {over} of {there} are turned over, and half of a pair must be.", name=piece.called,
                            over=over, there=len(there))  # fmt: skip
            cost = Sentence("They would all be for the same side.")
            found.append(Broken("sides", f"sides {piece.id}", told, cost, keys, piece.id))
        if not piece.pair and not free and over:
            told = Sentence("{name}: {over} turned over, and it is cut as drawn.", name=piece.called, over=over)
            cost = Sentence("It would be for the other side, or have the back of the cloth outside.")
            found.append(Broken("sides", f"sides {piece.id}", told, cost, keys, piece.id))
    return found


def _apart(a: float, b: float, repeat: float) -> float:
    gone = abs(a - b) % repeat
    return min(gone, repeat - gone)


def _centred(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    found = []
    bars = problem.bars
    for one in copies:
        centre = one.piece.centre_on_axis
        if centre is None:
            continue
        along = (centre == "x") == (one.cut.turn in (0, 180))
        repeat, axes = (bars.y_repeat, bars.y_axes) if along else (bars.x_repeat, bars.x_axes)
        at = one.cut.y if along else one.cut.x
        off = repeat is None or all(_apart(at, axis, repeat) > TOLERANCE_MM for axis in axes)
        if off or one.cut.turn % 90:
            told = Sentence("{name} is not centred on a bar.", name=one.name)
            cost = Sentence("The bars will not be alike on its two sides.")
            found.append(Broken("centre", f"centre {one.key}", told, cost, (one.key,), one.piece.id))
    return found


def _meetings(copies: Sequence[_Copy], problem: Problem) -> list[Broken]:
    """Points of a group that do not have the same place on the bars."""
    found = []
    names: Mapping[str, str] = {p.id: p.called for p in problem.pieces}
    for axis, repeat in (("x", problem.bars.x_repeat), ("y", problem.bars.y_repeat)):
        if repeat is None:
            continue
        for group, places in _places(copies, problem, axis).items():
            given = _given(problem, group, axis)
            candidates = given or places[0][1]
            off = min(
                ([one for one, there in places if all(_apart(c, p, repeat) > TOLERANCE_MM for c in there)]
                 for p in candidates),
                key=len, default=[one for one, _ in places],
            )  # fmt: skip
            if any(_apart(a, b, repeat) > TOLERANCE_MM for a in given for b in given):
                off = off or [places[0][0]]
            if not off:
                continue
            met = " and ".join(dict.fromkeys(names[one.piece.id] for one, _ in places))
            told = Sentence("{met} do not meet on the bars {way} the cloth.", met=met,
                            way="along" if axis == "x" else "across")  # fmt: skip
            cost = Sentence("The bars will miss each other at the seam.")
            keys = tuple(dict.fromkeys(one.key for one in off))
            found.append(Broken("match", f"match {group} {axis}", told, cost, keys, "", (group, axis)))
    return found


def _given(problem: Problem, group: str, axis: str) -> list[float]:
    phases = [
        m.phase_x if axis == "x" else m.phase_y
        for piece in problem.pieces
        for m in piece.match
        if m.group == group and (m.along if axis == "x" else m.across)
    ]
    return [phase for phase in phases if phase is not None]


def _places(copies: Sequence[_Copy], problem: Problem, axis: str) -> dict[str, list[tuple[_Copy, list[float]]]]:
    """Of each group its copies with the places on the bars at which their points may be said to lie."""
    found: dict[str, list[tuple[_Copy, list[float]]]] = {}
    # piece by piece as they are asked for: the first one says where the group lies
    for piece in problem.pieces:
        for match in piece.match:
            if not (match.along if axis == "x" else match.across):
                continue
            for one in copies:
                if one.piece.id != piece.id:
                    continue
                cut = one.cut
                x, y = place_point(match.point, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)
                there = [x if axis == "x" else y]
                if axis == "y" and cut.mirrored:
                    there = [2 * a - y for a in problem.bars.y_axes]
                found.setdefault(match.group, []).append((one, there))
    return found
