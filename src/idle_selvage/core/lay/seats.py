"""Where what is held may lie: on each stretch of the cloth the ground it fits, in one way, and what is in its way.

All is seen on the layer that shows (see :mod:`.table`): a piece on two layers keeps off what lies behind it too, by its
reflection in the fold.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from ..plan.turning import Ring
from .answer import Section
from .hand import HandLay, Held, cuts_by_key, outline_of, visible
from .layers import ACROSS_TURNS, ALONG_TURNS
from .problem import TOLERANCE_MM, LayPiece, Problem, is_reserved

#: How far behind the lay a piece may be carried at once, mm.
BEYOND_MM = 3000.0


@dataclass(frozen=True)
class Box:
    """Where an origin may lie, mm; a line where both ends of one way are the same."""

    x0: float
    y0: float
    x1: float
    y1: float


@dataclass(frozen=True)
class Obstacle:
    """An outline in the way, and how far to keep from it; ``name``: of the placement, or nothing."""

    ring: Ring = field(repr=False)
    gap: float
    name: str = ""


@dataclass(frozen=True)
class Seat:
    """One way for what is held to lie on one stretch. ``box`` bounds the origin of the first of it; ``rings`` are the
    outlines of all of it about that origin."""

    section: int
    turn: int
    mirrored: bool
    layers: int
    box: Box
    rings: tuple[Ring, ...] = field(repr=False)
    obstacles: tuple[Obstacle, ...] = field(repr=False)


@dataclass(frozen=True)
class Grip:
    """What is held: placements of one lay, moved as one. ``turn`` and ``mirrored`` of a single one may be new.
    ``loose``: over flaws and into selvages too, on purpose."""

    keys: tuple[str, ...]
    turn: int | None = None
    mirrored: bool | None = None
    loose: bool = False


def seats(hand: HandLay, problem: Problem, grip: Grip, margins: tuple[float, float] = (0.0, 0.0)) -> tuple[Seat, ...]:
    """Every way for what is held to lie. Raises KeyError for what is not on the lay."""
    asked = hand.asked(problem)
    pieces = {p.id: p for p in asked.pieces}
    moved = [hand[key] for key in grip.keys]
    if not moved:
        return ()
    if len(moved) == 1:
        return tuple(_of_one(hand, asked, pieces, moved[0], grip, margins))
    return _of_several(hand, asked, pieces, moved, grip, margins)


def seats_from_tray(
    hand: HandLay, problem: Problem, one: Held, *, loose: bool = False, margins: tuple[float, float] = (0.0, 0.0)
) -> tuple[Seat, ...]:
    """Every way for a placement that is not on the lay yet."""
    asked = hand.asked(problem)
    grip = Grip((one.key,), one.turn, one.mirrored, loose)
    return tuple(_of_one(hand, asked, {p.id: p for p in asked.pieces}, one, grip, margins))


def _of_one(
    hand: HandLay,
    problem: Problem,
    pieces: Mapping[str, LayPiece],
    one: Held,
    grip: Grip,
    margins: tuple[float, float],
) -> Iterator[Seat]:
    piece = pieces[one.piece]
    turn = one.turn if grip.turn is None else grip.turn
    mirrored = one.mirrored if grip.mirrored is None else grip.mirrored
    for k, section in enumerate(hand.sections):
        # where the cloth lies in one layer only one copy is cut, and the other goes onto the tray
        layers = one.layers if section.fold_at else 1
        in_way = _in_the_way(hand, problem, pieces, k, {one.key}, piece, layers, grip.loose)
        if piece.on_fold and layers == 2:
            for y, pose_turn, pose_over in _on_folds(section, turn, mirrored):
                ring = outline_of(piece, pose_turn, pose_over, half=True)
                box = _on_line(hand, problem, k, ring, y)
                if box is not None:
                    yield Seat(k, pose_turn, pose_over, 2, box, (ring,), in_way)
            continue
        ring = outline_of(piece, turn, mirrored, half=False)
        for low, high in _grounds(problem, section, layers, margins if grip.loose else (0.0, 0.0)):
            found = _box(hand, problem, k, ring, low, high, layers)
            if found is not None and piece.border is not None and not grip.loose:
                found = _at_border(found, piece, problem, ring)
            if found is not None:
                yield Seat(k, turn, mirrored, layers, found, (ring,), in_way)


def _of_several(
    hand: HandLay,
    problem: Problem,
    pieces: Mapping[str, LayPiece],
    moved: Sequence[Held],
    grip: Grip,
    margins: tuple[float, float],
) -> tuple[Seat, ...]:
    """Several keep their places to one another, each on the stretch and the ground it lies on."""
    first = moved[0]
    held = set(grip.keys)
    x0, y0, x1, y1 = -np.inf, -np.inf, np.inf, np.inf
    rings: list[Ring] = []
    in_way: dict[int, Obstacle] = {}
    for one in moved:
        piece = pieces[one.piece]
        section = hand.sections[one.section]
        ring = visible(hand, one, pieces) - np.array([one.x, one.y])
        half = piece.on_fold and one.layers == 2
        boxes: list[Box | None]
        if half:
            at = one.y if section.fold != "crosswise" else one.x
            boxes = [_on_line(hand, problem, one.section, ring, at)]
        else:
            loose = margins if grip.loose else (0.0, 0.0)
            boxes = [
                _box(hand, problem, one.section, ring, low, high, one.layers)
                for low, high in _grounds(problem, section, one.layers, loose)
            ]
        here = [b for b in boxes if b is not None]
        # the ground it lies on now
        box = min(here, key=lambda b: max(b.y0 - one.y, one.y - b.y1, 0.0), default=None)
        if box is None:
            return ()
        dx, dy = one.x - first.x, one.y - first.y
        x0, x1 = max(x0, box.x0 - dx), min(x1, box.x1 - dx)
        y0, y1 = max(y0, box.y0 - dy), min(y1, box.y1 - dy)
        rings.append(ring + np.array([dx, dy]))
        for obstacle in _in_the_way(hand, problem, pieces, one.section, held, piece, one.layers, grip.loose):
            in_way.setdefault(hash((obstacle.ring.tobytes(), obstacle.gap)), obstacle)
    if x1 < x0 - TOLERANCE_MM or y1 < y0 - TOLERANCE_MM:
        return ()
    box = Box(x0, y0, max(x0, x1), max(y0, y1))
    obstacles = tuple(in_way.values())
    return (Seat(first.section, first.turn, first.mirrored, first.layers, box, tuple(rings), obstacles),)


def _on_folds(section: Section, turn: int, mirrored: bool) -> list[tuple[float, int, bool]]:
    """Each fold of a stretch on which half a piece may lie, and how it is turned there."""
    if section.fold == "crosswise":
        return [(at, *_half_pose(turn, mirrored, across=True)) for at in section.fold_at]
    found = []
    for at in section.fold_at:
        # of two folds the upper one has its piece below it
        below = len(section.fold_at) > 1 and at == max(section.fold_at)
        end = turn in ALONG_TURNS and turn == 180
        found.append((at, 180 if end else 0, end != below))
    return found


def _half_pose(turn: int, mirrored: bool, *, across: bool) -> tuple[int, bool]:
    """The pose of half a piece on a crosswise fold: away from the fold."""
    assert across
    return (turn, turn == 90) if turn in ACROSS_TURNS else (90, True)


def _start_of(section: Section) -> float:
    return section.fold_at[0] if section.fold == "crosswise" and section.fold_at else section.start


def _end_of(hand: HandLay, k: int) -> float:
    """How far along a stretch goes; only the last one goes on."""
    return hand.sections[k].end + (BEYOND_MM if k == len(hand.sections) - 1 else 0.0)


def _box(hand: HandLay, problem: Problem, k: int, ring: Ring, low: float, high: float, layers: int) -> Box | None:
    section = hand.sections[k]
    half = problem.gap / 2 if layers == 2 else 0.0
    # two layers keep the gap to their own image behind the fold
    folds = () if section.fold == "crosswise" else section.fold_at
    low += half if any(abs(low - y) <= TOLERANCE_MM for y in folds) else 0.0
    high -= half if any(abs(high - y) <= TOLERANCE_MM for y in folds) else 0.0
    start = _start_of(section) + (half if section.fold == "crosswise" else 0.0)
    (rx0, ry0), (rx1, ry1) = ring.min(axis=0).tolist(), ring.max(axis=0).tolist()
    x0, x1, y0, y1 = start - rx0, _end_of(hand, k) - rx1, low - ry0, high - ry1
    if x1 < x0 - TOLERANCE_MM / 2 or y1 < y0 - TOLERANCE_MM / 2:
        return None
    if y1 < y0:
        y0 = y1 = (y0 + y1) / 2
    if x1 < x0:
        x0 = x1 = (x0 + x1) / 2
    return Box(x0, y0, x1, y1)


def _on_line(hand: HandLay, problem: Problem, k: int, ring: Ring, at: float) -> Box | None:
    """Half a piece slides along its fold, which lies at y ``at`` or, crosswise, at x ``at``."""
    section = hand.sections[k]
    (rx0, ry0), (rx1, ry1) = ring.min(axis=0).tolist(), ring.max(axis=0).tolist()
    if section.fold == "crosswise":
        low, high = -ry0, problem.width - ry1
        return Box(at, low, at, high) if high >= low else None
    low, high = _grounds(problem, section, 2, (0.0, 0.0))[0]
    if ry1 - ry0 > high - low + TOLERANCE_MM / 2:
        return None
    x0, x1 = section.start - rx0, _end_of(hand, k) - rx1
    return Box(x0, at, x1, at) if x1 >= x0 else None


def _at_border(box: Box, piece: LayPiece, problem: Problem, ring: Ring) -> Box | None:
    border = piece.border
    assert border is not None
    low, high = float(ring[:, 1].min()), float(ring[:, 1].max())
    y = border.distance - low if border.selvage == "low" else problem.width - border.distance - high
    return Box(box.x0, y, box.x1, y)


def _grounds(problem: Problem, section: Section, layers: int, loose: tuple[float, float]) -> list[tuple[float, float]]:
    """The stretches across on which a placement may lie whole; ``loose``: with so much of the two selvages."""
    width, at = problem.width, section.fold_at
    near, far = loose
    if section.fold == "lengthwise" and at:
        top = at[0] + min(at[0], width - at[0])
        return [(at[0], top + (min(near, far) if layers == 2 else far if abs(top - width) < TOLERANCE_MM else 0.0))]
    if section.fold == "partial" and at:
        return [(at[0], 2 * at[0] + near)] if layers == 2 else [(at[0], width + far)]
    if section.fold == "double" and len(at) == 2:
        return [(at[0], 2 * at[0]), (2 * at[1] - width, at[1])]
    return [(-near, width + far)]


def _in_the_way(
    hand: HandLay,
    problem: Problem,
    pieces: Mapping[str, LayPiece],
    k: int,
    held: set[str],
    piece: LayPiece,
    layers: int,
    loose: bool,
) -> tuple[Obstacle, ...]:
    section, gap = hand.sections[k], problem.gap
    found = [
        Obstacle(visible(hand, one, pieces), gap, one.key)
        for one in hand.held
        if one.section == k and one.key not in held
    ]
    # what lies on the next stretch is no further away than its cut
    if gap:
        near = {one.key for one in hand.held if one.section != k and one.key not in held}
        for key, cut in cuts_by_key(hand, pieces):
            if key not in near:
                continue
            whole = outline_of(pieces[cut.piece], cut.turn, cut.mirrored, half=False) + np.array([cut.x, cut.y])
            if section.start - gap <= whole[:, 0].max() and whole[:, 0].min() <= section.end + gap:
                found += [Obstacle(ring, gap, key) for ring in _through(whole, section, layers)]
    if loose:
        return tuple(found)
    for number, outline in enumerate(problem.kept_off):
        reserved = number < len(problem.blocked) and is_reserved(problem, problem.blocked[number])
        if reserved and piece.border is not None:
            continue
        ring = np.array(outline, dtype=np.float64)
        found += [Obstacle(one, gap) for one in _through(ring, section, layers)]
    return tuple(found)


def _through(ring: Ring, section: Section, layers: int) -> Iterator[Ring]:
    """An outline of the open cloth as it is in the way on the layer that shows, and of two layers on the hidden one."""
    yield ring
    if layers != 2:
        return
    for at in section.fold_at:
        if section.fold == "crosswise":
            yield ring * np.array([-1.0, 1.0]) + np.array([2 * at, 0.0])
        else:
            yield ring * np.array([1.0, -1.0]) + np.array([0.0, 2 * at])
