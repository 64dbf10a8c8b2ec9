"""Matching: where bars let a piece lie. Phases of groups, and what they leave of each piece's positions.

Along, every point of a group has the same x modulo the repeat: its *phase*. Across likewise with y, and a
mirrored copy lies mirrored about an axis of the bars, its point at ``2a − phase``. A piece that belongs to
two groups ties their phases together; a piece centred on an axis, a fixed one, or a phase given in the
problem leaves only certain ones; the rest is free, and the engine chooses.

A piece turned end for end sees the bars run the other way, along and across: they meet all along its seams only when
the phase of each of its groups lies on a mirror axis of its own direction. So a restart either pins such phases to
axes, and pieces may be turned, or leaves them free, and tops stay towards +x. Where the maker allows it
(``turn_on_bars``) pieces may be turned at any phase: then only their points meet.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ..problem import (
    Axis,
    BadProblem,
    LayPiece,
    Problem,
    allowed_turns,
    balanced_for,
    turns_of,
    turns_over_bars,
)
from .draws import below, unit
from .orientations import pose

#: Residues nearer than this are one.
SAME_PHASE_MM = 0.05
#: Share of the restarts that take a phase at which many pieces lie flush with an edge.
VOTED = 0.7
#: Share of the restarts that pin a phase to an axis, where that lets pieces be turned.
PINNED = 0.6


@dataclass(frozen=True)
class Bound:
    """Where a pose's origin may lie: ``base`` modulo the repeat, or None for anywhere. ``root`` −1: not free."""

    base: float | None = None
    root: int = -1
    sign: int = 1


@dataclass
class _Root:
    axis: Axis
    repeat: float
    #: phases it may have; None: any
    choices: list[float] | None = None


class Phase(NamedTuple):
    """The phase of a root; ``pinned`` to a mirror axis, so that its pieces may be turned end for end."""

    value: float
    pinned: bool = False


Phases = tuple[Phase, ...]


class Matching:
    """The matching rules of a problem. Raises :class:`BadProblem` when they contradict one another."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.roots: list[_Root] = []
        #: (axis, group) → (root, how much its phase is beyond the root's)
        self.group: dict[tuple[Axis, str], tuple[int, float]] = {}
        faults: list[str] = []
        axes: tuple[Axis, Axis] = ("x", "y")
        for axis in axes:
            repeat = problem.bars.x_repeat if axis == "x" else problem.bars.y_repeat
            if repeat is not None:
                faults += self._tie(axis, repeat)
        if faults:
            raise BadProblem(list(dict.fromkeys(faults)))
        #: of each root, the phases at which its pieces may be turned end for end
        self.turning = [self._turning(index, root) for index, root in enumerate(self.roots)]

    @property
    def free(self) -> bool:
        """Whether anything is left to choose."""
        return any(root.choices is None or len(root.choices) > 1 for root in self.roots)

    def _turning(self, index: int, root: _Root) -> list[float]:
        """Phases at which every group of a root that has pieces to turn lies on an axis; none: nothing turns."""
        beyond = {
            self.group[root.axis, group][1]
            for piece in self.problem.pieces
            if may_turn(piece, self.problem)
            for group, _, _ in self._entries(piece, root.axis)
            if self.group[root.axis, group][0] == index
        }
        if self.problem.turn_on_bars:
            return []
        axes = self.problem.bars.x_axes if root.axis == "x" else self.problem.bars.y_axes
        found = [
            (a - b) % root.repeat
            for b in list(beyond)[:1]
            for a in axes
            if all(any(_apart(a - b + c, x, root.repeat) <= SAME_PHASE_MM for x in axes) for c in beyond)
        ]
        if root.choices is not None:
            found = [c for c in root.choices if any(_apart(c, f, root.repeat) <= SAME_PHASE_MM for f in found)]
        return _distinct(found, root.repeat)

    def _entries(self, piece: LayPiece, axis: Axis) -> list[tuple[str, tuple[float, float], float | None]]:
        if axis == "x":
            return [(m.group, m.point, m.phase_x) for m in piece.match if m.along]
        return [(m.group, m.point, m.phase_y) for m in piece.match if m.across]

    def _tie(self, axis: Axis, repeat: float) -> list[str]:
        parent: dict[str, tuple[str, float]] = {}

        def find(name: str) -> tuple[str, float]:
            above, beyond = parent.setdefault(name, (name, 0.0))
            if above == name:
                return name, 0.0
            top, more = find(above)
            parent[name] = (top, beyond + more)
            return parent[name]

        faults = []
        for piece in self.problem.pieces:
            entries = self._entries(piece, axis)
            turn = turns_for(piece, self.problem)[0]
            for (one, p, _), (two, q, _) in pairwise(entries):
                step = _turned(q, turn, False, axis) - _turned(p, turn, False, axis)
                (a, a_beyond), (b, b_beyond) = find(one), find(two)
                if a != b:
                    parent[b] = (a, a_beyond + step - b_beyond)
                elif _apart(b_beyond - a_beyond, step, repeat) > SAME_PHASE_MM:
                    faults.append(
                        f"Piece “{piece.called[:60]}” ties the groups “{one[:40]}” and “{two[:40]}” together by its "
                        f"points, and another piece ties them otherwise; they cannot both match. Leave a point out."
                    )
            for group, _, _ in entries:
                find(group)
        number: dict[str, int] = {}
        for name in list(parent):
            top, beyond = find(name)
            if top not in number:
                number[top] = len(self.roots)
                self.roots.append(_Root(axis, repeat))
            self.group[axis, name] = (number[top], beyond)
        for piece in self.problem.pieces:
            faults += self._limit(piece, axis, repeat)
        return faults

    def _limit(self, piece: LayPiece, axis: Axis, repeat: float) -> list[str]:
        """What this piece leaves of the phases of its groups."""
        faults = []
        turn = turns_for(piece, self.problem)[0]
        for group, point, phase in self._entries(piece, axis):
            index, beyond = self.group[axis, group]
            root = self.roots[index]
            given: list[list[float]] = []
            if phase is not None:
                given.append([phase - beyond])
            axes = self._centre_axes(piece, turn, axis)
            if axes is not None:
                given.append([a + _turned(point, turn, False, axis) - beyond for a in axes])
            for f in piece.held if axis == "x" else piece.fixed:
                at = _turned(point, f.turn, f.mirrored, axis) + (f.x if axis == "x" else f.y)
                if axis == "y" and f.mirrored:
                    given.append([2 * a - at - beyond for a in self.problem.bars.y_axes])
                else:
                    given.append([at - beyond])
            for choices in given:
                kept = [c % repeat for c in choices]
                if root.choices is not None:
                    kept = [c for c in root.choices if any(_apart(c, k, repeat) <= SAME_PHASE_MM for k in kept)]
                root.choices = _distinct(kept, repeat)
                if not root.choices:
                    faults.append(
                        f"The group “{group[:40]}” cannot match: its phase, its fixed pieces and the pieces centred on "
                        f"an axis ask for different places on the bars. Change “{piece.called[:60]}” or its phase."
                    )
                    root.choices = [0.0]
        return faults

    def _centre_axes(self, piece: LayPiece, turn: int, axis: Axis) -> tuple[float, ...] | None:
        """The axes a piece's own line must lie on, seen along ``axis``; None when it need not."""
        if piece.centre_on_axis is None:
            return None
        # its line y = 0 runs along the cloth unless it is turned to the cross grain, and x = 0 the other way
        runs_along = (piece.centre_on_axis == "x") == (turn in (0, 180))
        if axis == "y":
            return self.problem.bars.y_axes if runs_along else None
        return None if runs_along else self.problem.bars.x_axes

    def bounds(self, piece: LayPiece, turn: int, mirrored: bool, phases: Phases) -> list[tuple[Bound, Bound]]:
        """What the bars leave of a pose's positions, as choices of (along, across); empty: it may not be."""
        along = self._axis_bounds(piece, turn, mirrored, phases, "x")
        across = self._axis_bounds(piece, turn, mirrored, phases, "y")
        return [(a, b) for a in along for b in across]

    def _axis_bounds(self, piece: LayPiece, turn: int, mirrored: bool, phases: Phases, axis: Axis) -> list[Bound]:
        bars = self.problem.bars
        repeat = bars.x_repeat if axis == "x" else bars.y_repeat
        if piece.centre_on_axis is not None and turn % 90:
            return []
        axes = self._centre_axes(piece, turn, axis)
        if repeat is None:
            return [Bound()] if axes is None else []
        kept: list[Bound] | None = None
        for group, point, _ in self._entries(piece, axis):
            index, beyond = self.group[axis, group]
            value, pinned = phases[index]
            if turn == 180 and not (pinned or self.problem.turn_on_bars) and may_turn(piece, self.problem):
                return []
            root = index if self.roots[index].choices is None and not pinned else -1
            at = _turned(point, turn, mirrored, axis)
            phase = value + beyond
            if axis == "y" and mirrored:
                found = [Bound((2 * a - phase - at) % repeat, root, -1) for a in bars.y_axes]
            else:
                found = [Bound((phase - at) % repeat, root, 1)]
            kept = found if kept is None else [k for k in kept if _meets(k, found, repeat)]
        if axes is not None:
            found = [Bound(a % repeat) for a in axes]
            kept = found if kept is None else [k for k in kept if _meets(k, found, repeat)]
        if kept is None:
            return [Bound()]
        distinct: list[Bound] = []
        for k in kept:
            if not _meets(k, distinct, repeat):
                distinct.append(k)
        return distinct

    def choose(
        self, rng: NDArray[np.uint64], edges: tuple[float, float] = (0.0, 0.0), *, first: bool = False
    ) -> Phases:
        """Phases for one restart: mostly such that many pieces lie flush with the cut end or an edge.

        ``edges`` are the low and the high edge of the strip, y. ``first`` takes the one with most votes.
        """
        chosen: list[Phase] = []
        # of a piece that is matched both ways both phases must be pinned before it may turn
        pinned = any(self.turning) and (first or unit(rng) < PINNED)
        for index, root in enumerate(self.roots):
            votes = self._votes(index, root, edges)
            turning = self.turning[index]
            if turning and pinned:
                chosen.append(Phase(turning[0 if first else int(below(rng, len(turning)))], True))
            elif root.choices is not None:
                pick = 0 if first else int(below(rng, len(root.choices)))
                chosen.append(Phase(root.choices[pick]))
            elif votes and (first or unit(rng) < VOTED):
                weights = np.cumsum([weight for _, weight in votes])
                at = 0 if first else int(np.searchsorted(weights, unit(rng) * weights[-1], side="right"))
                chosen.append(Phase(votes[min(at, len(votes) - 1)][0]))
            else:
                chosen.append(Phase(float(unit(rng)) * root.repeat))
        return tuple(chosen)

    def _votes(self, index: int, root: _Root, edges: tuple[float, float]) -> list[tuple[float, float]]:
        """Phases at which pieces lie flush, with how many, most first."""
        votes: list[tuple[float, float]] = []
        for piece in self.problem.pieces:
            for group, point, _ in self._entries(piece, root.axis):
                of, beyond = self.group[root.axis, group]
                if of != index:
                    continue
                turn = turns_for(piece, self.problem)[0]
                ring = pose(whole_ring(piece), turn, False).ring
                at = _turned(point, turn, False, root.axis)
                low = ring.min(axis=0)
                flush = [-low[0]] if root.axis == "x" else [edges[0] - low[1], edges[1] - float(ring[:, 1].max())]
                for origin in flush:
                    phase = float(origin + at - beyond) % root.repeat
                    for k, (known, weight) in enumerate(votes):
                        if _apart(known, phase, root.repeat) <= SAME_PHASE_MM:
                            votes[k] = (known, weight + piece.copies)
                            break
                    else:
                        votes.append((phase, float(piece.copies)))
        return sorted(votes, key=lambda v: (-v[1], v[0]))


def may_turn(piece: LayPiece, problem: Problem) -> bool:
    """Whether a matched piece may lie turned end for end at all: without a direction, and on bars that are balanced in
    each direction in which it is matched, unless the maker allows it on any."""
    return turns_over_bars(piece, problem) and (problem.turn_on_bars or balanced_for(piece, problem.bars))


def turns_for(piece: LayPiece, problem: Problem) -> tuple[int, ...]:
    """The turns the engine gives a piece: a matched one keeps its top towards +x, unless it may be turned."""
    if piece.match and piece.border is None and not may_turn(piece, problem):
        return allowed_turns(piece.grain, True)
    return turns_of(piece, problem)


def whole_ring(piece: LayPiece) -> NDArray[np.float64]:
    """The outline of a finished piece, (n, 2)."""
    points = np.array(piece.outline, dtype=np.float64)
    if not piece.on_fold:
        return points
    return np.concatenate([points, points * np.array([1.0, -1.0])])


def _turned(point: tuple[float, float], turn: int, mirrored: bool, axis: Axis) -> float:
    moved = pose(np.array([point]), turn, mirrored).ring[0]
    return float(moved[0] if axis == "x" else moved[1])


def _apart(a: float, b: float, repeat: float) -> float:
    gone = abs(a - b) % repeat
    return min(gone, repeat - gone)


def _distinct(values: Iterable[float], repeat: float) -> list[float]:
    kept: list[float] = []
    for value in values:
        if all(_apart(value, k, repeat) > SAME_PHASE_MM for k in kept):
            kept.append(value)
    return kept


def _meets(bound: Bound, others: list[Bound], repeat: float) -> bool:
    return any(_apart(bound.base or 0.0, o.base or 0.0, repeat) <= SAME_PHASE_MM for o in others)
