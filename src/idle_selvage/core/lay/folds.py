"""Folding: a problem becomes one strip of items, and a laid strip is opened out again.

``open``: the strip is the cloth. ``lengthwise``: selvage to selvage; the strip is the upper half, the
fold at its lower edge, and whatever lies on it on two layers is cut twice, once mirrored.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..pieces import is_mirror_symmetric, whole_polygon
from .answer import Cut, Laid, Section
from .orientations import Pose, Ring, poses
from .problem import TOLERANCE_MM, LayPiece, Problem, allowed_turns, piece_area


class CannotFold(ValueError):
    """This fold cannot take a piece: it is ``across`` mm in every turn, and the strip only ``width`` mm."""

    def __init__(self, piece: str, across: float, width: float) -> None:
        super().__init__(f"Piece “{piece}” is {across:.1f} mm across, and the cloth folded so is {width:.1f} mm wide.")
        self.piece, self.across, self.width = piece, across, width


@dataclass(frozen=True)
class Item:
    """Something placed once on the strip: ``layers`` copies of ``piece`` come off it (1 on the fold)."""

    piece: str
    layers: int
    on_fold: bool
    poses: tuple[Pose, ...]
    area: float
    copies: int


@dataclass(frozen=True)
class Strip:
    """What the solver lays: items on a strip of ``width`` millimetres, for one fold."""

    fold: str
    width: float
    gap: float
    items: tuple[Item, ...]


@dataclass(frozen=True)
class Placed:
    """An item's pose with its origin at (x, y) on the strip."""

    item: int
    pose: Pose
    x: float
    y: float


def strip_for(problem: Problem, fold: str) -> Strip:
    """The strip of one fold. Raises :class:`CannotFold` when a piece cannot lie on it."""
    folded = fold == "lengthwise"
    width = problem.width / 2 if folded else problem.width
    items: list[Item] = []
    for piece in problem.pieces:
        items += _folded_items(piece, problem) if folded else _open_items(piece, problem)
    fitting: list[Item] = []
    kept: dict[int, Item] = {}
    for item in items:
        if id(item) in kept:
            fitting.append(kept[id(item)])
            continue
        usable = tuple(p for p in item.poses if p.size[1] <= width + TOLERANCE_MM / 2)
        if not usable:
            raise CannotFold(item.piece, min(p.size[1] for p in item.poses), width)
        kept[id(item)] = Item(item.piece, item.layers, item.on_fold, usable, item.area, item.copies)
        fitting.append(kept[id(item)])
    return Strip(fold, width, problem.gap, tuple(fitting))


def _turns(piece: LayPiece, problem: Problem) -> tuple[int, ...]:
    return allowed_turns(piece.grain, piece.one_way or problem.one_way)


def _whole(piece: LayPiece) -> Ring:
    if piece.on_fold:
        return np.array(whole_polygon(piece.outline).exterior.coords[:-1])
    return np.array(piece.outline)


def _open_items(piece: LayPiece, problem: Problem) -> list[Item]:
    ring, turns, area = _whole(piece), _turns(piece, problem), piece_area(piece)

    def item(mirrors: tuple[bool, ...]) -> Item:
        return Item(piece.id, 1, False, poses(ring, [(t, m) for m in mirrors for t in turns]), area, 1)

    if piece.pair and not problem.reversible:
        half = piece.copies // 2
        return [item((False,))] * half + [item((True,))] * half
    mirrors = (False, True) if problem.reversible and not piece.on_fold else (False,)
    return [item(mirrors)] * piece.copies


def _folded_items(piece: LayPiece, problem: Problem) -> list[Item]:
    turns, area = _turns(piece, problem), piece_area(piece)
    if piece.on_fold and piece.grain == "lengthwise":
        # the half lies above the fold; turned end for end it must also be mirrored to stay there
        choices = [(0, False)] + ([(180, True)] if 180 in turns else [])
        return [Item(piece.id, 2, True, poses(np.array(piece.outline), choices), area, 1)] * piece.copies
    ring = _whole(piece)
    # the copy on the other layer is turned the other way round, and must be allowed to be
    paired = [t for t in turns if -t % 360 in turns]
    twice = piece.pair or problem.reversible or piece.on_fold or is_mirror_symmetric(piece.outline)
    doubles, singles = divmod(piece.copies, 2) if twice and paired else (0, piece.copies)
    both = poses(ring, [(t, m) for m in (False, True) for t in paired])
    items = [Item(piece.id, 2, False, both, area, 2)] * doubles
    if piece.pair and not paired:
        for mirrored in (False, True):
            one = poses(ring, [(t, mirrored) for t in turns])
            items += [Item(piece.id, 1, False, one, area, 1)] * (piece.copies // 2)
        return items
    one = poses(ring, [(t, False) for t in turns])
    return items + [Item(piece.id, 1, False, one, area, 1)] * singles


def unfold(
    problem: Problem, strip: Strip, placed: list[Placed], length: float
) -> tuple[tuple[Section, ...], tuple[Laid, ...], tuple[Cut, ...]]:
    """What is pinned and what is cut, in the coordinates of the open cloth."""
    folded = strip.fold == "lengthwise"
    lift = problem.width / 2 if folded else 0.0
    section = Section(0.0, length, strip.fold, (problem.width / 2,) if folded else ())
    laid: list[Laid] = []
    cut: list[Cut] = []
    made: dict[str, int] = {}

    def add(piece: str, x: float, y: float, turn: int, mirrored: bool) -> None:
        made[piece] = made.get(piece, 0) + 1
        cut.append(Cut(piece, made[piece], x, y, turn, mirrored))

    for place in placed:
        item = strip.items[place.item]
        x, y, turn, mirrored = place.x, place.y + lift, place.pose.turn, place.pose.mirrored
        laid.append(Laid(item.piece, 0, x, y, turn, mirrored, item.layers))
        add(item.piece, x, y, turn, mirrored)
        if item.copies == 2:
            add(item.piece, x, problem.width - y, -turn % 360, not mirrored)
    return (section,), tuple(laid), tuple(cut)
