"""What nap, matching and flaws cost: the same lay asked for without them, one rule after another."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from ..lay.joined import WISHED
from ..lay.problem import Bars, LayPiece, Problem, balanced_for, turns_over_bars
from .order import Extra, Rule


def rules_of(problem: Problem) -> tuple[Rule, ...]:
    """The rules that bind this lay, in the order they are put on."""
    out: list[Rule] = []
    if problem.directed:
        out.append("nap")
    if any(piece.match or piece.centre_on_axis for piece in problem.pieces):
        out.append("matching")
    if not problem.turn_on_bars and any(
        turns_over_bars(piece, problem) and not balanced_for(piece, problem.bars) for piece in problem.pieces
    ):
        out.append("tops")
    if free_of_wishes(problem) != problem:
        out.append("phase")
    if problem.kept_off:
        out.append("flaws")
    return tuple(out)


def free_of_wishes(problem: Problem) -> Problem:
    """The problem with it left open which bar falls where; that the bars meet stays."""

    def freed(piece: LayPiece) -> LayPiece:
        kept = (m for m in piece.match if not m.group.startswith(WISHED))
        return replace(piece, match=tuple(replace(m, phase_x=None) for m in kept))

    return replace(problem, pieces=tuple(freed(piece) for piece in problem.pieces))


def without(problem: Problem, rules: Sequence[Rule]) -> Problem:
    """The problem with some of the cloth's rules taken away.

    Bars that read differently up and down make the cloth one-way, so they go with the nap; what remains of them
    for matching then reads the same both ways.
    """
    if "flaws" in rules:
        problem = replace(problem, blocked=(), blocked_shapes=())
    if "phase" in rules:
        problem = free_of_wishes(problem)
    if "tops" in rules:
        problem = replace(problem, turn_on_bars=True)
    if "matching" in rules:
        free = tuple(replace(piece, match=(), centre_on_axis=None) for piece in problem.pieces)
        # without matching the bars only say whether tops must lie one way
        problem = replace(problem, pieces=free, one_way=problem.directed, bars=Bars(), turn_on_bars=False)
    if "nap" in rules:
        bars = problem.bars
        if bars.directed:
            bars = replace(bars, x_axes=(0.0,))
        problem = replace(problem, one_way=False, bars=bars)
    return problem


def ladder(problem: Problem) -> tuple[tuple[Rule, Problem], ...]:
    """For each rule that binds, the problem that lacks it and all that are put on after it."""
    rules = rules_of(problem)
    return tuple((rule, without(problem, rules[k:])) for k, rule in enumerate(rules))


def extras(problem: Problem, lay: float, lengths: Mapping[Rule, float]) -> tuple[Extra, ...]:
    """What each rule adds to ``lay``, from the ``lengths`` of the ladder's lays, mm. Empty until all are known.

    A lay that keeps more rules also keeps fewer, so no step of the ladder may be longer than the one above it:
    where a search came out so, the shorter lay holds for both and the rule costs nothing.
    """
    rules = rules_of(problem)
    if any(rule not in lengths for rule in rules):
        return ()
    above = lay
    found: list[Extra] = []
    for rule in reversed(rules):
        below = min(lengths[rule], above)
        found.append(Extra(rule, below, above))
        above = below
    return tuple(reversed(found))
