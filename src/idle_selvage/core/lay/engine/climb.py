"""Raising the bound of a problem, one decision at a time: longer and longer lengths are refuted."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from ...plan.outline import is_mirror_symmetric
from ..problem import Problem
from .folds import SIMPLE, strip_for, ways
from .matching import Matching, Phase
from .relaxed import Relaxed
from .strips import CannotFold, Strip

#: What is decided one after another, each from where the one before came to: whether with bars along, whether with bars
#: across, and how many cells the first bound has.
MODES = ((False, True, 60), (True, False, 60), (True, True, 40), (True, True, 60))
#: Deterministic time of a decision, round after round; after so many that it did not do for, the next mode is tried.
EFFORTS = (0.02, 0.1, 0.3)
UNDECIDED = 2
#: More ways than this to lie on the bars, and the bars are left out.
MOST_CASES = 9
#: How much longer the next length is: it grows with a proof and is halved without one.
STEP_FIRST, STEP_LEAST, STEP_GROWS = 0.02, 0.002, 1.6


@dataclass
class _Case:
    """One way a lay may keep the rules, relaxed: what is proved of it, and by mode the least length for which there is
    a relaxed lay."""

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
    claims = list(_claims(problem, bounds))
    for effort in EFFORTS:
        for folds, cases in claims:
            for mode in MODES:
                for case in cases:
                    case.proved = max(case.proved, min(proved[fold] for fold in folds))
                ladders = [_refute(case, mode, effort) for case in cases]
                while True:
                    # a lay is one of the cases: what is proved is the least of what is proved of each
                    lowest = min(range(len(cases)), key=lambda k: cases[k].proved)
                    if next(ladders[lowest], True):
                        break
                    least = min(case.proved for case in cases)
                    for fold in folds:
                        proved[fold] = max(proved[fold], least)
                    yield proved


def _claims(problem: Problem, bounds: dict[str, float]) -> Iterator[tuple[tuple[str, ...], list[_Case]]]:
    """What is to be proved: the folds it holds for, and the cases of which every such lay is one."""
    asked: list[tuple[str, tuple[str, ...]]] = [("open", tuple(bounds))]
    plain = all(fold in SIMPLE and fold not in ("open", "partial") for fold in bounds)
    # what is fixed may lie on either layer, and bars may keep a piece off its fold
    free = not any(p.fixed or p.match or p.centre_on_axis for p in problem.pieces) and not problem.kept_off
    if plain and free:
        asked += [(fold, (fold,)) for fold in bounds]
    for fold, holds in asked:
        try:
            ways_on_bars = open_strips(problem) if fold == "open" else [_without_bars(problem, fold)]
            # of several ways the least counts: without the bars it is one, and quicker
            tries = [ways_on_bars, *([[_without_bars(problem, fold)]] if len(ways_on_bars) > 1 else [])]
        except CannotFold:
            continue
        for strips in reversed(tries):
            cases = []
            for strip in strips:
                relaxed = Relaxed(strip)
                least = max(min(bounds[f] for f in holds), relaxed.area_bound() * strip.lengths)
                cases.append(_Case(relaxed, strip.lengths, least, least))
            if all(case.relaxed.parts for case in cases):
                yield holds, cases


def _without_bars(problem: Problem, fold: str) -> Strip:
    """A rule left out only lets more lays in."""
    bare = replace(problem, pieces=tuple(replace(p, match=(), centre_on_axis=None) for p in problem.pieces))
    return strip_for(bare, ways(bare, fold)[0], Matching(bare), ())


def open_strips(problem: Problem) -> list[Strip]:
    """The open cloth: one strip, or where the bars leave several ways a strip for each, of which every lay keeps one. A
    group's phase is free, and is taken to be 0, or it is one of a few, or it lies on an axis on which its pieces may be
    turned. Where that makes too many, one strip without the bars. Raises :class:`CannotFold` where no way is left."""
    matching = Matching(problem)
    choices: list[list[Phase]] = []
    for root, turning in zip(matching.roots, matching.turning, strict=True):
        plain = [Phase(value) for value in ([0.0] if root.choices is None else root.choices)]
        choices.append([*plain, *(Phase(value, True) for value in turning)])
    if math.prod(len(one) for one in choices) > MOST_CASES:
        return [_without_bars(problem, "open")]
    # what equals its mirror image may be cut as one, and meets the bars elsewhere then: any copy may be mirrored here
    either = [p for p in problem.pieces if p.on_fold or is_mirror_symmetric(p.outline)]
    if any(m.across for p in either for m in p.match):
        problem = replace(problem, reversible=True)
    found: list[Strip] = []
    refused: CannotFold | None = None
    for phases in itertools.product(*choices):
        try:
            found.append(strip_for(problem, ways(problem, "open")[0], matching, phases))
        except CannotFold as why:
            # no lay is of this case
            refused = why
    if not found and refused is not None:
        raise refused
    return found


def _refute(case: _Case, mode: tuple[bool, bool, int], effort: float) -> Iterator[bool]:
    """One decision after another; each is told as False, for there may be more."""
    along, across, cells = mode
    # the same cells in every round, so that what was possible stays possible
    g = max(1.0, case.first / case.lengths / cells)
    step, undecided = STEP_FIRST, 0
    while step > STEP_LEAST and undecided < UNDECIDED:
        asked = case.proved * (1 + step)
        if asked >= case.possible.get(mode, float("inf")):
            step /= 2
            continue
        refuted = case.relaxed.refuted(asked / case.lengths, g, along, across, effort)
        if refuted:
            case.proved = asked
            step *= STEP_GROWS
        else:
            if refuted is False:
                case.possible[mode] = asked
            undecided += refuted is None
            step /= 2
        yield False
