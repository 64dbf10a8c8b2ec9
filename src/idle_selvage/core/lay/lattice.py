"""The places at which the bars of a piece in the hand agree with those it is to meet: a lattice of whole repeats."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import Point as Place

from ..plan.outline import Point
from .hand import Change, Held
from .moves import CannotMove, Table, free, kept, meeting_places
from .problem import TOLERANCE_MM
from .seats import Grip
from .sliding import SAME_MM, Legal

#: So many repeats are looked at to either side of a piece, and so many places are shown at most.
REPEATS = 40
MOST_PLACES = 40
#: The furthest step that is tried, in repeats.
FURTHEST = 200


@dataclass(frozen=True)
class Lattice:
    """Where a piece may lie so that its bars agree: origins that are legal, how far apart they lie along and across, mm
    (None: nothing meets that way), and every placement that meets the same bars."""

    places: tuple[Point, ...]
    along: float | None
    across: float | None
    group: tuple[str, ...]


def spacing(table: Table, piece: str) -> tuple[float | None, float | None]:
    """How far apart the agreeing places of a piece lie along and across, mm; None where nothing of it meets."""
    asked, bars = table.pieces[piece], table.problem.bars
    along = bars.x_repeat if any(m.along for m in asked.match) else None
    across = bars.y_repeat if any(m.across for m in asked.match) or asked.centre_on_axis == "x" else None
    return along, across


def _begin(table: Table, one: Held, keys: Sequence[str]) -> Point:
    """The agreeing place nearest to where a piece lies now: there, unless others say otherwise."""
    along, across = spacing(table, one.piece)
    x, y = one.x, one.y
    met = meeting_places(table, keys)
    mx = next((found for found, _ in met if found is not None), None)
    my = next((found for _, found in met if found is not None), None)
    if along is not None and mx is not None:
        x = mx + round((one.x - mx) / along) * along
    if across is not None and my is not None:
        y = my + round((one.y - my) / across) * across
    # a lay is exact to a tenth of a millimetre: where it agrees so, it stays
    return (one.x if abs(x - one.x) <= TOLERANCE_MM else x), (one.y if abs(y - one.y) <= TOLERANCE_MM else y)


def lattice(table: Table, keys: tuple[str, ...], *, loose: bool = False) -> Lattice:
    """The agreeing places around what is held. Raises :class:`CannotMove` where it is not on the lay."""
    one = table[keys[0]]
    along, across = spacing(table, one.piece)
    group = group_of(table, keys[0])
    if along is None and across is None:
        return Lattice((), None, None, group)
    x, y = _begin(table, one, keys)
    grounds = _grounds(table, keys, one, loose)
    steps = range(-REPEATS, REPEATS + 1)
    found = [
        (x + i * (along or 0.0), y + k * (across or 0.0))
        for i in (steps if along is not None else (0,))
        for k in (steps if across is not None else (0,))
    ]
    found.sort(key=lambda place: (place[0] - one.x) ** 2 + (place[1] - one.y) ** 2)
    whole = shapely.union_all([ground.whole for ground in grounds]) if grounds else Place()
    off = shapely.distance(whole, shapely.points(found))
    near = [place for place, by in zip(found, off.tolist(), strict=True) if by <= 2 * SAME_MM]
    return Lattice(tuple(near[:MOST_PLACES]), along, across, group)


def _grounds(table: Table, keys: tuple[str, ...], one: Held, loose: bool) -> list[Legal]:
    found = table.grounds(Grip(keys, loose=loose))
    # it steps as it lies: turned otherwise, or on more layers, it would be another piece
    return [
        ground
        for ground in found
        if ground.seat.section == one.section
        and (ground.seat.turn, ground.seat.mirrored, ground.seat.layers) == (one.turn, one.mirrored, one.layers)
    ]


def group_of(table: Table, key: str) -> tuple[str, ...]:
    """Every placement whose bars are to agree with those of one, that one first."""
    groups = {m.group for m in table.pieces[table[key].piece].match}
    others = [
        other.key
        for other in table.hand.held
        if other.key != key and groups & {m.group for m in table.pieces[other.piece].match}
    ]
    return (key, *others)


def stepped(table: Table, keys: tuple[str, ...], along: int, across: int, *, loose: bool = False) -> Change:
    """To the next place that way at which its bars agree and nothing lies. Raises :class:`CannotMove`."""
    free(table, keys)
    one = table[keys[0]]
    step_x, step_y = spacing(table, one.piece)
    if (along and step_x is None) or (across and step_y is None) or not (along or across):
        raise CannotMove("Nothing of it meets bars that way: it has no steps to take.")
    x, y = _begin(table, one, keys)
    grounds = _grounds(table, keys, one, loose)
    # where it does not lie on an agreeing place, the first step is onto one, if that is the way
    onward = along * (x - one.x) + across * (y - one.y) > TOLERANCE_MM
    for n in range(0 if onward else 1, FURTHEST):
        place = (x + n * along * (step_x or 0.0), y + n * across * (step_y or 0.0))
        if any(shapely.distance(g.around(*place, 1.0), Place(place)) <= 2 * SAME_MM for g in grounds):
            by = (place[0] - one.x, place[1] - one.y)
            put = tuple(replace(table[k], x=kept(table[k].x + by[0]), y=kept(table[k].y + by[1])) for k in keys)
            return Change("moved", put)
    raise CannotMove("There is no further place that way at which its bars agree and nothing lies.")
