"""What a hand does to a lay: each gesture as a change, or the reason why it cannot be."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..plan.piece import Grain
from ..units import System
from ..wording import Sentence
from .answer import Section
from .engine.folds import axes_across, may_double, ways
from .engine.strips import CannotFold
from .hand import Aside, Change, HandLay, Held, OwnGrain, mirrors_freely, next_key, outline_of, tray
from .layers import ACROSS_TURNS, ALONG_TURNS
from .placing import place_point
from .problem import LayPiece, Problem, turns_of
from .seats import Grip, seats, seats_from_tray
from .sliding import Legal, Near, along, nearest, seat_at

Margins = tuple[float, float]
#: How a stretch may be folded.
STRETCHES = ("open", "lengthwise", "partial", "double")
#: So often everything is pushed, and by so much at least, mm.
MOST_PUSHES = 12
LEAST_PUSH_MM = 0.01
#: What an arrow key moves by: what a tape is read to, mm.
NUDGE_MM: dict[System, float] = {"metric": 1.0, "imperial": 25.4 / 16}
NO_MARGINS: Margins = (0.0, 0.0)


def nudge_step(system: System) -> float:
    """What an arrow key moves by in these units, mm."""
    return NUDGE_MM[system]


class CannotMove(ValueError):
    """What was asked cannot be done; the sentence says why."""


@dataclass(frozen=True)
class Table:
    """A lay in the hand, the problem it answers, and the two selvages, mm."""

    hand: HandLay
    problem: Problem
    margins: Margins = NO_MARGINS

    @property
    def pieces(self) -> dict[str, LayPiece]:
        return {p.id: p for p in self.problem.pieces}

    def __getitem__(self, key: str) -> Held:
        """A placement. Raises :class:`CannotMove`."""
        try:
            return self.hand[key]
        except KeyError:
            raise CannotMove("That piece is not on the lay any more.") from None

    def grounds(self, grip: Grip) -> list[Legal]:
        """Where what is held may lie. Raises :class:`CannotMove`."""
        for key in grip.keys:
            self[key]
        return [Legal(seat) for seat in seats(self.hand, self.problem, grip, self.margins)]

    def grounds_from_tray(self, taken: Sequence[Held], *, loose: bool = False) -> list[Legal]:
        """Where a copy from the tray may lie: on each stretch in the first of the ways it may be taken that fits."""
        found: list[Legal] = []
        for one in taken:
            there = {ground.seat.section for ground in found}
            legal = seats_from_tray(self.hand, self.problem, one, loose=loose, margins=self.margins)
            found += [Legal(seat) for seat in legal if seat.section not in there]
        return found


def moved(table: Table, grip: Grip, x: float, y: float, section: int, grounds: Sequence[Legal] | None = None) -> Change:
    """What is held is left with the origin of the first of it at a place. Raises :class:`CannotMove` where it may not
    lie there."""
    free(table, grip.keys)
    seat = seat_at(grounds if grounds is not None else table.grounds(grip), section, x, y)
    if seat is None:
        raise CannotMove("There is no room for it there: something else was laid there meanwhile. Take it up again.")
    first = table[grip.keys[0]]
    dx, dy = x - first.x, y - first.y
    put = []
    for key in grip.keys:
        one = table[key]
        put.append(replace(one, x=kept(one.x + dx), y=kept(one.y + dy)))
    put[0] = replace(put[0], section=seat.section, turn=seat.turn, mirrored=seat.mirrored, layers=seat.layers)
    return Change("moved", tuple(put))


def nudged(table: Table, keys: tuple[str, ...], dx: float, dy: float, *, loose: bool = False) -> Change:
    """Pushed by so much, or as far as it goes before it touches. Raises :class:`CannotMove` when it does not go."""
    free(table, keys)
    grip = Grip(keys, loose=loose)
    first = table[keys[0]]
    grounds = [g for g in table.grounds(grip) if g.seat.section == first.section]
    x, y = along(grounds, (first.x, first.y), (first.x + dx, first.y + dy))
    x, y = kept(x), kept(y)
    if (x, y) == (first.x, first.y):
        raise CannotMove("It touches something there and goes no further.")
    put = tuple(replace(table[key], x=kept(table[key].x + x - first.x), y=kept(table[key].y + y - first.y))
                for key in keys)  # fmt: skip
    return Change("moved", put)


def posed(table: Table, key: str, *, by: int = 0, over: bool = False, loose: bool = False) -> Change:
    """Turned by so many degrees counter-clockwise, or turned over, about its middle, and laid in the nearest place.
    Raises :class:`CannotMove`."""
    one = free(table, (key,))[0]
    piece = table.pieces[one.piece]
    half = piece.on_fold and one.layers == 2
    if half and (over or by % 180):
        raise CannotMove("On the fold it can be turned end for end only. Lay it in one layer to turn it otherwise.")
    turn = (one.turn + by) % 360
    # turned over about its own grain, wherever that points
    mirrored = one.mirrored != over
    now, then = (outline_of(piece, t, m, half=half) for t, m in ((one.turn, one.mirrored), (turn, mirrored)))
    middle = (now.min(axis=0) + now.max(axis=0) - then.min(axis=0) - then.max(axis=0)) / 2
    grip = Grip((key,), turn, mirrored, loose)
    found = nearest(table.grounds(grip), one.x + float(middle[0]), one.y + (0.0 if half else float(middle[1])))
    if found is None:
        raise CannotMove("There is no room to turn it so anywhere on this lay.")
    return Change("turned over" if over else "turned", (_at(one, found),))


def _at(one: Held, found: Near) -> Held:
    seat = found.seat
    return replace(one, section=seat.section, x=kept(found.x), y=kept(found.y), turn=seat.turn,
                   mirrored=seat.mirrored, layers=seat.layers)  # fmt: skip


def put_aside(table: Table, keys: Sequence[str]) -> Change:
    """Onto the tray. Raises :class:`CannotMove` for what is locked."""
    free(table, keys)
    return Change("put aside", aside=tuple(keys))


def takings(table: Table, piece: str, mirrored: bool = False) -> tuple[Held, ...]:
    """The ways a copy may be taken from the tray: on two layers first where two are there and the cloth is folded.
    Raises :class:`CannotMove` when none is there."""
    there: Aside | None = next((one for one in tray(table.hand, table.problem) if one.piece == piece), None)
    if there is None:
        raise CannotMove("None of that piece is on the tray.")
    asked = table.pieces[piece]
    folded = any(section.fold_at for section in table.hand.sections)
    turn = _first_turn(table, asked)
    key = next_key(table.hand, piece)
    over = mirrored if there.plain and there.mirrored else bool(there.mirrored)
    one = Held(key, piece, 0, 0.0, 0.0, turn, over and not mirrors_freely(asked, table.problem), 1)
    ways = []
    if folded and asked.on_fold and _may_lie_on_fold(table, turn):
        ways.append(replace(one, layers=2))
    elif folded and not asked.on_fold and there.count >= 2 and may_double(asked, table.problem):
        both = there.plain and there.mirrored
        if both or mirrors_freely(asked, table.problem):
            ways.append(replace(one, layers=2))
    return (*ways, one)


def _may_lie_on_fold(table: Table, turn: int) -> bool:
    turns = {t for s in table.hand.sections for t in (ACROSS_TURNS if s.fold == "crosswise" else ALONG_TURNS)}
    return turn in turns or bool(turns & set(ACROSS_TURNS))


def _first_turn(table: Table, piece: LayPiece) -> int:
    asked = table.hand.asked(table.problem)
    return turns_of(next(p for p in asked.pieces if p.id == piece.id), asked)[0]


def taken(table: Table, ways: Sequence[Held], x: float, y: float, section: int, grounds: Sequence[Legal]) -> Change:
    """A copy from the tray is laid. Raises :class:`CannotMove`."""
    seat = seat_at(grounds, section, x, y)
    if seat is None:
        raise CannotMove("There is no room for it there: something else was laid there meanwhile. Take it up again.")
    one = replace(ways[0], section=section, x=kept(x), y=kept(y), turn=seat.turn, mirrored=seat.mirrored,
                  layers=seat.layers)  # fmt: skip
    return Change("taken", (one,))


def taken_anywhere(table: Table, piece: str) -> Change:
    """A copy from the tray is laid in the first place there is. Raises :class:`CannotMove`."""
    ways = takings(table, piece)
    found = nearest(table.grounds_from_tray(ways), 0.0, table.problem.width / 2)
    if found is None:
        raise CannotMove("There is no room for it on this lay.")
    return Change("taken", (_at(ways[0], found),))


def locked(table: Table, keys: Sequence[str], on: bool | None = None) -> Change:
    """Locked, so that nothing moves them; or free again. None: the other way round than all of them are now."""
    if on is None:
        on = not all(table[key].locked for key in keys)
    return Change("locked" if on else "unlocked", tuple(replace(table[key], locked=on) for key in keys))


def pushed(table: Table) -> Change:
    """Everything that is not locked pushed along towards the cut end until it touches, nearest first; across, nothing
    moves. Raises :class:`CannotMove` when nothing gives."""
    if table.hand.sections[0].fold == "crosswise" and not _all_along(table):
        raise CannotMove("The fold would move with it, and bring the flaws under the pieces: move them one by one.")
    now = table
    for _ in range(MOST_PUSHES):
        gained = 0.0
        for one in sorted(now.hand.held, key=lambda h: (h.section, h.x)):
            if one.locked:
                continue
            section = now.hand.sections[one.section]
            start = section.fold_at[0] if section.fold == "crosswise" else section.start
            grounds = [g for g in now.grounds(Grip((one.key,))) if g.seat.section == one.section]
            low = min((g.seat.box.x0 for g in grounds), default=one.x)
            x, _ = along(grounds, (one.x, one.y), (max(low, start - 1e5), one.y))
            x = _met(now, one, kept(x))
            if one.x - x < LEAST_PUSH_MM:
                continue
            gained += one.x - x
            held = tuple(replace(h, x=x) if h.key == one.key else h for h in now.hand.held)
            now = replace(now, hand=replace(now.hand, held=held))
        if gained < LEAST_PUSH_MM:
            break
    before = {one.key: one.x for one in table.hand.held}
    put = tuple(one for one in now.hand.held if one.x != before[one.key])
    if not put:
        raise CannotMove("Nothing gives any more: every piece touches what lies before it, or is locked.")
    return Change("pushed together", put)


def _all_along(table: Table) -> bool:
    """Whether what is kept off runs all along the lay, so that it is all one where a crosswise fold lies."""
    end = table.hand.sections[-1].end
    return all(min(x for x, _ in one) <= 0.0 and max(x for x, _ in one) >= end for one in table.problem.kept_off)


def _met(table: Table, one: Held, x: float) -> float:
    """Where its bars still meet: back by whole repeats from where it lay."""
    piece, repeat = table.pieces[one.piece], table.problem.bars.x_repeat
    if repeat is None or not (any(m.along for m in piece.match) or piece.centre_on_axis):
        return x
    return kept(one.x - math.floor((one.x - x + LEAST_PUSH_MM) / repeat) * repeat)


def in_one_layer(table: Table, key: str) -> Change:
    """Cut through one layer only; its other copy goes onto the tray. Raises :class:`CannotMove`."""
    one = free(table, (key,))[0]
    if one.layers == 1:
        raise CannotMove("It is cut through one layer already.")
    single = replace(one, layers=1)
    if table.pieces[one.piece].on_fold:
        # opened out it needs room of its own
        found = nearest([Legal(s) for s in seats_from_tray(_without(table, key), table.problem, single)], one.x, one.y)
        if found is None:
            raise CannotMove("There is no room for the whole piece in one layer.")
        single = _at(single, found)
    return Change("one layer", (single,))


def on_two_layers(table: Table, key: str) -> Change:
    """Cut through both layers, with a copy that lies on the tray. Raises :class:`CannotMove`."""
    one = free(table, (key,))[0]
    piece = table.pieces[one.piece]
    there = next((a for a in tray(table.hand, table.problem) if a.piece == one.piece), None)
    if one.layers == 2:
        raise CannotMove("It is cut through both layers already.")
    if not any(s.fold_at for s in table.hand.sections):
        raise CannotMove("The cloth lies in one layer.")
    if not piece.on_fold:
        if there is None or not may_double(piece, table.problem):
            raise CannotMove("There is no second copy on the tray that would be its mirror image.")
        wanted = there.plain if one.mirrored else there.mirrored
        if not wanted and not mirrors_freely(piece, table.problem):
            raise CannotMove("There is no second copy on the tray that would be its mirror image.")
    double = replace(one, layers=2)
    legal = [Legal(s) for s in seats_from_tray(_without(table, key), table.problem, double) if s.layers == 2]
    found = nearest(legal, one.x, one.y)
    if found is None:
        raise CannotMove("There is no room for it on two layers.")
    return Change("two layers", (_at(double, found),))


def _without(table: Table, key: str) -> HandLay:
    return replace(table.hand, held=tuple(h for h in table.hand.held if h.key != key))


def with_stretch(table: Table, fold: str, depth: float | None = None) -> Change:
    """Another stretch behind the lay, folded so; of a partial fold ``depth`` mm from its selvage to the fold. Raises
    :class:`CannotMove`."""
    hand = table.hand
    last = hand.sections[-1]
    if fold not in STRETCHES:
        raise CannotMove("A stretch lies open, or is folded along the cloth. End to end the whole cloth is folded.")
    if hand.sections[0].fold == "crosswise":
        raise CannotMove(
            "The cloth is folded end to end; begin from the tray of another lay to lay stretch by stretch."
        )
    if last.end <= last.start and len(hand.sections) > 1:
        raise CannotMove("The last stretch is still empty: lay something on it first, or take it away.")
    if fold == "partial" and depth is None:
        raise CannotMove("Say how deep the selvage is folded up.")
    if fold == "partial" and not 0 < (depth or 0.0) <= table.problem.width / 2:
        raise CannotMove("The selvage is folded up by more than nothing and at most to the middle of the cloth.")
    axes = axes_across(table.problem)
    if fold == "partial" and axes and depth is not None:
        # on bars a fold lies on a mirror axis: the next deeper one
        depth = next((a for a in axes if depth <= a <= table.problem.width / 2), None)
        if depth is None:
            raise CannotMove("There is no bar so deep that the cloth could be folded along it.")
    asked = replace(table.problem, partial_at=depth if fold == "partial" else None)
    try:
        way = ways(asked, fold)[0]
    except CannotFold as why:
        raise CannotMove(str(why)) from None
    new = Section(last.end, last.end, fold, way.fold_at)
    kept = hand.sections if hand.held else ()
    start = 0.0 if not kept else last.end
    return Change("stretch", hand.held, anew=(*kept, replace(new, start=start, end=start)))


def without_stretch(table: Table) -> Change:
    """The last stretch is taken away, while nothing lies on it. Raises :class:`CannotMove`."""
    hand = table.hand
    if len(hand.sections) < 2:
        raise CannotMove("There is only one stretch.")
    if any(one.section == len(hand.sections) - 1 for one in hand.held):
        raise CannotMove("Pieces lie on the last stretch: put them aside first.")
    return Change("no stretch", hand.held, anew=hand.sections[:-1])


def with_grain(table: Table, piece: str, grain: Grain, why: str) -> Change:
    """A grain of its own on this lay, with the reason. Raises :class:`CannotMove`."""
    if piece not in table.pieces:
        raise CannotMove("That piece is not on the lay any more.")
    if table.pieces[piece].border is not None:
        raise CannotMove("It lies with its hem on the border; take that off on Plan first.")
    if not why.strip():
        raise CannotMove("Say why, so that it is understood at the table.")
    return Change("grain", grain=OwnGrain(piece, grain, why.strip()))


def free(table: Table, keys: Sequence[str]) -> list[Held]:
    """What is held, none of it locked. Raises :class:`CannotMove`."""
    if not keys:
        raise CannotMove("Choose a piece first.")
    found = [table[key] for key in keys]
    held_fast = [one for one in found if one.locked]
    if held_fast:
        name = table.pieces[held_fast[0].piece].called
        raise CannotMove(Sentence("{name} is locked. Unlock it first.", name=name))
    return found


def kept(value: float) -> float:
    """A place as it is kept: to a tenth of a micrometre."""
    return round(value, 4)


Meeting = tuple[float | None, float | None]


def meeting_places(table: Table, keys: Sequence[str]) -> tuple[Meeting, ...]:
    """Origins, one in each repeat, at which the bars of the first of what is held meet those of what lies: along, and
    across, None where nothing meets that way."""
    hand, problem = table.hand, table.problem
    bars = problem.bars
    if bars.x_repeat is None and bars.y_repeat is None:
        return ()
    one = table[keys[0]]
    piece = table.pieces[one.piece]
    found: list[Meeting] = []
    for match in piece.match:
        mine = place_point(match.point, x=0.0, y=0.0, turn=one.turn, mirrored=one.mirrored)
        for other in hand.held:
            if other.key in keys:
                continue
            for theirs in table.pieces[other.piece].match:
                if theirs.group == match.group:
                    x, y = place_point(theirs.point, x=other.x, y=other.y, turn=other.turn, mirrored=other.mirrored)
                    if other.mirrored != one.mirrored and bars.y_axes:
                        y = 2 * bars.y_axes[0] - y
                    found.append(
                        (
                            round(float(x - mine[0]), 3) if match.along and bars.x_repeat is not None else None,
                            round(float(y - mine[1]), 3) if match.across and bars.y_repeat is not None else None,
                        )
                    )
                    break
    return tuple(dict.fromkeys(found))
