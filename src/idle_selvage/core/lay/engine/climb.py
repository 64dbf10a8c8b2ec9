"""Raising the bound of a problem, one decision at a time: longer and longer lengths are refuted."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from ...plan.outline import is_mirror_symmetric
from ..problem import Problem
from .folds import SIMPLE, strip_for, ways
from .matching import Matching, Phase
from .relaxed import Relaxed
from .strips import CannotFold, Strip

#: What is decided one after another, each from where the one before came to: bars along, bars across, and how many
#: cells the first bound has.
MODES = ((False, True, 60), (True, False, 60), (True, True, 40), (True, True, 60))
#: Deterministic time of a decision, round after round; after so many that it did not do for, the next mode is tried.
EFFORTS = (0.02, 0.1, 0.3)
UNDECIDED = 2
#: How much longer the next length is: it grows with a proof and is halved without one.
STEP_FIRST, STEP_LEAST, STEP_GROWS = 0.02, 0.002, 1.6


@dataclass
class _Strip:
    """One way of folding, relaxed: the folds its bound holds for, what is proved of it, and by mode the least length
    for which there is a relaxed lay."""

    folds: tuple[str, ...]
    relaxed: Relaxed
    lengths: int
    proved: float
    first: float
    possible: dict[tuple[bool, bool, int], float] = field(default_factory=dict)


def climb(problem: Problem, bounds: dict[str, float]) -> Iterator[dict[str, float]]:
    """From these bounds of some folds to higher ones. Yields after every decision, with all that is proved by then.

    Every lay opens out to one on the open cloth, so what holds there holds for every fold. A fold's own strip says more
    only where no other fold is allowed than the plain ones: what is told is the least of all.
    """
    proved = dict(bounds)
    strips = list(_strips(problem, bounds))
    for effort in EFFORTS:
        for strip in strips:
            for mode in MODES:
                for _ in _refute(strip, mode, effort):
                    for fold in strip.folds:
                        proved[fold] = max(proved[fold], strip.proved)
                    yield proved


def _strips(problem: Problem, bounds: dict[str, float]) -> Iterator[_Strip]:
    asked: list[tuple[str, tuple[str, ...]]] = [("open", tuple(bounds))]
    plain = all(fold in SIMPLE and fold not in ("open", "partial") for fold in bounds)
    # what is fixed may lie on either layer, and bars may keep a piece off its fold
    free = not any(p.fixed or p.match or p.centre_on_axis for p in problem.pieces) and not problem.kept_off
    if plain and free:
        asked += [(fold, (fold,)) for fold in bounds]
    for fold, holds in asked:
        try:
            strip = open_strip(problem) if fold == "open" else _without_bars(problem, fold)
        except CannotFold:
            continue
        if strip.parts:
            relaxed = Relaxed(strip)
            least = max(min(bounds[f] for f in holds), relaxed.area_bound() * strip.lengths)
            yield _Strip(holds, relaxed, strip.lengths, least, least)


def _without_bars(problem: Problem, fold: str) -> Strip:
    """A rule left out only lets more lays in."""
    bare = replace(problem, pieces=tuple(replace(p, match=(), centre_on_axis=None) for p in problem.pieces))
    return strip_for(bare, ways(bare, fold)[0], Matching(bare), ())


def open_strip(problem: Problem) -> Strip:
    """The open cloth; with its bars, at phases of 0, where every lay has the same places on them: where no phase is one
    of several, nor lets pieces be turned. Raises :class:`CannotFold`."""
    matching = Matching(problem)
    if any(matching.turning) or not all(r.choices is None or len(r.choices) == 1 for r in matching.roots):
        return _without_bars(problem, "open")
    phases = tuple(Phase(0.0 if root.choices is None else root.choices[0]) for root in matching.roots)
    # what equals its mirror image may be cut as one, and meets the bars elsewhere then: any copy may be mirrored here
    either = [p for p in problem.pieces if p.on_fold or is_mirror_symmetric(p.outline)]
    if any(m.across for p in either for m in p.match):
        problem = replace(problem, reversible=True)
    return strip_for(problem, ways(problem, "open")[0], matching, phases)


def _refute(strip: _Strip, mode: tuple[bool, bool, int], effort: float) -> Iterator[None]:
    along, across, cells = mode
    # the same cells in every round, so that what was possible stays possible
    g = max(1.0, strip.first / strip.lengths / cells)
    step, undecided = STEP_FIRST, 0
    while step > STEP_LEAST and undecided < UNDECIDED:
        asked = strip.proved * (1 + step)
        if asked >= strip.possible.get(mode, float("inf")):
            step /= 2
            continue
        refuted = strip.relaxed.refuted(asked / strip.lengths, g, along, across, effort)
        if refuted:
            strip.proved = asked
            step *= STEP_GROWS
        else:
            if refuted is False:
                strip.possible[mode] = asked
            undecided += refuted is None
            step /= 2
        yield
