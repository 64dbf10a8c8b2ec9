"""From the seams that shall match to what the lay engine is asked of each piece: match points, phases, mirror axes.

Everything in the axes of the pieces as they are laid: turned to their grain, and enlarged where they are sewn first.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..plan.outline import Point, is_mirror_symmetric
from ..plan.piece import Piece
from ..plan.seams import Sewn
from .lengthwise import Across, AcrossTie, lengthwise
from .levels import Levels, Tie, levels
from .problem import Bars, Match

Way = Literal["levels", "lengthwise"]
#: How a place of a piece is carried from its own axes to those it is laid in.
Carry = Callable[[Point], Point]


@dataclass(frozen=True)
class Joining:
    """A piece that can meet bars, and whether its middle shall lie on a mirror axis of those along the cloth."""

    piece: Piece
    centred: bool = False


@dataclass(frozen=True)
class BarWish:
    """Which place of the bars shall fall where on a piece: ``at`` mm along its grain (*levels*) or across it
    (*lengthwise*), in its own axes; ``bar`` the place on the washed bars as they are laid, mm."""

    piece: str
    way: Way
    at: float
    bar: float


@dataclass(frozen=True)
class Met:
    """What is asked of one piece."""

    matches: tuple[Match, ...] = ()
    centred: bool = False
    paired: bool = False


#: How the groups of a match point begin that is there for a wish alone: as nothing does that anybody typed.
WISHED = ("\u00a0level of ", "\u00a0middle of ")
NO_LEVELS = Levels({}, {}, {}, {})
NO_ACROSS = Across({}, {}, frozenset(), {}, {})


@dataclass(frozen=True)
class Joined:
    """What each piece meets, by its key; ``axes``: those whose middle line lies on an axis; ``paired``: those that are
    their own mirror image and meet a mirrored pair, so that half of them meet the mirrored bars; and the two graphs
    with what can be met of the seams."""

    matches: Mapping[str, tuple[Match, ...]] = field(default_factory=dict)
    axes: frozenset[str] = frozenset()
    levels: Levels = NO_LEVELS
    across: Across = NO_ACROSS
    paired: frozenset[str] = frozenset()

    def of(self, piece: str) -> Met:
        """What is asked of one piece."""
        return Met(self.matches.get(piece, ()), piece in self.axes, piece in self.paired)


def joined(
    pieces: Mapping[str, Joining],
    seams: Sequence[Sewn],
    bars: Bars,
    carry: Callable[[str], Carry],
    wishes: Sequence[BarWish] = (),
) -> Joined:
    """What the seams come to on these bars; ``seams`` between other pieces than these are left out."""
    there = sorted(
        (one for one in seams if one.seam.a.piece in pieces and one.seam.b.piece in pieces),
        key=lambda one: one.seam.priority,
    )
    found: dict[str, list[Match]] = {}
    level, across = NO_LEVELS, NO_ACROSS
    if bars.x_repeat is not None:
        # where the sides run against each other up and down, no one level is met by both
        ties = [_tie(one, carry) for one in there if one.seam.levels and not one.against(0)]
        level = levels(ties, bars.x_repeat)
        _put_levels(found, level, wishes, bars.x_repeat, carry)
    centred = {key for key, one in pieces.items() if one.centred and not one.piece.pair} if bars.y_axes else set()
    if bars.y_repeat is not None:
        across = _across(pieces, [one for one in there if one.seam.lengthwise], bars, centred, wishes, carry)
        _put_across(found, across)
        if bars.y_axes:
            _put_pairs(found, pieces, across)
            _put_centre(found, pieces, across, centred, wishes, bars, carry)
    paired = _paired(pieces, there, across) if bars.y_axes else frozenset()
    return Joined({key: tuple(ones) for key, ones in found.items()}, frozenset(centred), level, across, paired)


def _paired(pieces: Mapping[str, Joining], seams: Sequence[Sewn], across: Across) -> frozenset[str]:
    """Pockets and the like: one of each two lies on the mirrored front, where the bars are mirrored."""
    found = set()
    for one in (one for one in seams if one.seam.lengthwise):
        keys = (one.seam.a.piece, one.seam.b.piece)
        for key, other in (keys, keys[::-1]):
            piece = pieces[key].piece
            alone = not (piece.pair or piece.on_fold) and piece.copies % 2 == 0
            if key in across.shift and alone and pieces[other].piece.pair and is_mirror_symmetric(piece.outline):
                found.add(key)
    return frozenset(found)


def _key(one: Sewn, carry: Callable[[str], Carry]) -> tuple[Point, Point]:
    a, b = one.key
    return carry(one.seam.a.piece)(a), carry(one.seam.b.piece)(b)


def _tie(one: Sewn, carry: Callable[[str], Carry]) -> Tie:
    a, b = _key(one, carry)
    return Tie(one.seam.key, one.seam.a.piece, one.seam.b.piece, a[0], b[0])


def _put_levels(
    found: dict[str, list[Match]],
    level: Levels,
    wishes: Sequence[BarWish],
    repeat: float,
    carry: Callable[[str], Carry],
) -> None:
    phases: dict[str, float] = {}
    for wish in (one for one in wishes if one.way == "levels"):
        at = carry(wish.piece)((wish.at, 0.0))[0]
        group = level.group.get(wish.piece)
        if group is None:
            found.setdefault(wish.piece, []).append(
                Match(WISHED[0] + wish.piece, (_r(at), 0.0), along=True, phase_x=_r(wish.bar % repeat))
            )
        else:
            # the first wish of a group says where all of it lies
            phases.setdefault(group, _r((wish.bar - at + level.zero[wish.piece]) % repeat))
    for piece, zero in level.zero.items():
        group = level.group[piece]
        found.setdefault(piece, []).append(
            Match(f"seam {group}", (_r(zero), 0.0), along=True, phase_x=phases.get(group))
        )


def _across(
    pieces: Mapping[str, Joining],
    seams: Sequence[Sewn],
    bars: Bars,
    centred: set[str],
    wishes: Sequence[BarWish],
    carry: Callable[[str], Carry],
) -> Across:
    ties = []
    for one in seams:
        a, b = _key(one, carry)
        # sides that slant against each other make chevrons; mirrored about an axis, what was mirrored is not
        mirrored = one.against(1) if one.slants_across else one.mirrors
        if mirrored and not bars.y_axes:
            # bars that never mirror: what is asked of this seam cannot be
            continue
        ties.append(AcrossTie(one.seam.key, one.seam.a.piece, one.seam.b.piece, a[1], b[1], mirrored))
    if not ties:
        return NO_ACROSS
    axis = axis_wished(wishes, bars)
    # a piece that is its own mirror image can only go on at both its sides where its middle is a mirror line
    both = {key for key, one in pieces.items() if one.piece.on_fold} if bars.y_axes else set()
    return lengthwise(ties, centred | both, axis, bars.y_repeat or 1.0)


def axis_wished(wishes: Sequence[BarWish], bars: Bars) -> float:
    """The mirror axis nearest to the first wish across, or the first one; 0 where there is none."""
    if not bars.y_axes:
        return 0.0
    wish = next((one for one in wishes if one.way == "lengthwise"), None)
    return bars.y_axes[0] if wish is None else _nearest(wish.bar, bars)


def _nearest(bar: float, bars: Bars) -> float:
    repeat = bars.y_repeat or 1.0
    return min(bars.y_axes, key=lambda axis: abs((axis - bar + repeat / 2) % repeat - repeat / 2))


def _put_across(found: dict[str, list[Match]], across: Across) -> None:
    for piece, shift in across.shift.items():
        if piece in across.fixed:
            one = Match(f"lengthwise {piece}", (0.0, 0.0), across=True, phase_y=_r(shift))
        else:
            one = Match(f"lengthwise {across.group[piece]}", (0.0, _r(-shift)), across=True)
        found.setdefault(piece, []).append(one)


def _put_pairs(found: dict[str, list[Match]], pieces: Mapping[str, Joining], across: Across) -> None:
    for key, one in pieces.items():
        if one.centred and one.piece.pair and key not in across.shift:
            low = min(x for x, _ in one.piece.outline)
            found.setdefault(key, []).append(Match(f"pair of {key}", (_r(low), 0.0), across=True))


def _put_centre(
    found: dict[str, list[Match]],
    pieces: Mapping[str, Joining],
    across: Across,
    centred: set[str],
    wishes: Sequence[BarWish],
    bars: Bars,
    carry: Callable[[str], Carry],
) -> None:
    """The axis that was wished for the middle of a piece."""
    for wish in wishes:
        if wish.way == "lengthwise" and wish.piece in pieces and wish.piece not in across.shift:
            phase = (
                _nearest(wish.bar, bars) if wish.piece in centred else wish.bar - carry(wish.piece)((0.0, wish.at))[1]
            )
            found.setdefault(wish.piece, []).append(
                Match(WISHED[1] + wish.piece, (0.0, 0.0), across=True, phase_y=_r(phase % (bars.y_repeat or 1.0)))
            )


def _r(value: float) -> float:
    return round(value, 3)
