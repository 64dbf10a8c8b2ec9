"""Solving a problem: a lane per allowed fold, searched by turns; what comes out has passed the checker.

Every fold gets a first lay; then most of the time goes to the fold that leads. A :class:`Partner` does the same from
another seed at the same time, and the better lay wins; who it is and where it runs, the solver does not know.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Protocol

from ..answer import Cut, Lay, Placement, Section, to_json
from ..check import check_lay
from ..problem import BadProblem, Problem, piece_area
from ..problem import to_json as problem_json
from .bounds import bound_of
from .folds import fixed_end, number
from .jigsaw import FEW_LOOKS, LOOKS, try_jigsaw
from .lanes import FoldLane, Lane, Outcome, also
from .sections import CombinationLane
from .strips import CannotFold

#: Batches between two looks at the clock and the cancel flag.
SLICE = 2
#: What a row of pieces may save by overlapping less than can be seen, millimetres.
HAIR_MM = 0.5
#: How much shorter a lay of the other process must be to be taken over.
WORTH_ADOPTING = 0.004


class NoFold(BadProblem):
    """No fold that was asked for can take the pieces. ``refused`` says why, fold by fold."""

    def __init__(self, refused: list[tuple[str, CannotFold]]) -> None:
        super().__init__(list(dict.fromkeys(str(why) for _, why in refused)))
        self.refused = tuple(refused)


class EngineFault(RuntimeError):
    """The engine made a lay its own checker refuses. That is a bug, and this says which rule."""


@dataclass(frozen=True)
class Progress:
    """How far a search has come: seconds, best length, bound, fold of the best, steps, and the best length of
    every fold that could be laid."""

    seconds: float
    length: float
    bound: float
    fold: str
    steps: int
    alternatives: tuple[tuple[str, float], ...] = ()


@dataclass(frozen=True)
class Answer:
    """The best lay, and the best of each fold that could be laid, shortest first.

    ``refused`` says for every other allowed fold why not. ``cancelled`` when it was stopped early.
    """

    lay: Lay
    alternatives: tuple[tuple[str, Lay], ...]
    refused: tuple[tuple[str, CannotFold], ...]
    progress: tuple[Progress, ...]
    cancelled: bool = False


@dataclass(frozen=True)
class Budget:
    """What a partner may spend, and from which seed it begins."""

    seed: int
    seconds: float | None
    steps: int | None


class Partner(Protocol):
    """Another search of the same problem that goes on at the same time."""

    def news(self) -> list[Outcome]:
        """What it has found since it was last asked."""
        ...

    def proved(self) -> dict[str, float]:
        """The bounds it had proved when it was last asked for news, by fold."""
        ...

    def tell(self, best: dict[str, Outcome]) -> None:
        """Tell it what was found here."""
        ...

    def last(self) -> tuple[list[Outcome], int]:
        """Wait for it to end; its best outcomes and how many steps it took."""
        ...

    def stop(self) -> None:
        """End it, whatever it is doing."""
        ...


PartnerMaker = Callable[[Problem, Budget], Partner]
#: How far the partner's seed lies from this one's, so that no two searches of one garment begin alike.
PARTNER_SEED = 1_000_003


class Lanes:
    """All lanes of a problem and the turns they take. Raises :class:`BadProblem` when there is no lane."""

    def __init__(self, problem: Problem, seed: int) -> None:
        self.problem, self.seed = problem, seed
        self.lanes: list[Lane] = []
        #: with a fixed length: the lanes that keep to it, parts left out if need be
        self.short: list[Lane] = []
        self.refused: list[tuple[str, CannotFold]] = []
        for fold in problem.folds:
            try:
                lane: Lane = CombinationLane(problem, seed) if fold == "combination" else FoldLane(problem, fold, seed)
                lane.first()
                self.lanes.append(lane)
            except CannotFold as why:
                self.refused.append((fold, why))
        if not self.lanes:
            raise NoFold(self.refused)
        #: the best of each fold, and the best its own lane has found
        self.best: dict[str, Outcome] = {}
        self.own: dict[str, Outcome] = {}
        self.turn = 0
        #: slices in which no lane had anything to do; they count as steps, so that a budget of steps ends
        self.idle = 0
        self.folds = {lane.fold for lane in self.lanes}
        for lane in self.lanes:
            self.take(lane.outcome())
        self.update_short()

    def take(self, outcome: Outcome, *, own: bool = True) -> bool:
        """Keep an outcome when it is better than the best of its fold, and for the folds it is a lay of as well.
        ``own``: the fold's lane searches on from it."""
        known = self.own.get(outcome.fold)
        if own and (known is None or outcome.rank < known.rank):
            self.own[outcome.fold] = outcome
        return any([self._keep(one) for one in (outcome, *also(outcome)) if one.fold in self.folds])

    def _keep(self, outcome: Outcome) -> bool:
        known = self.best.get(outcome.fold)
        if known is not None and outcome.rank >= known.rank:
            return False
        self.best[outcome.fold] = outcome
        return True

    def update_short(self) -> None:
        """With a fixed length nothing complete fits yet: search for what can be left out."""
        limit = self.problem.length
        if limit is None or self.short or min(o.score for o in self.best.values()) <= limit + 1e-6:
            return
        for fold in self.problem.folds:
            if fold == "combination":
                if len(self.problem.folds) > 1:
                    continue
                fold = "open"
            try:
                lane = FoldLane(self.problem, fold, self.seed, limit)
                lane.first()
                self.short.append(lane)
            except CannotFold:
                continue

    def try_jigsaw(self, looks: int = LOOKS) -> bool:
        """Look for a lay without waste. True when there is one."""
        found = False
        for lane in self.lanes:
            if isinstance(lane, FoldLane) and try_jigsaw(lane, looks):
                found = self.take(lane.outcome()) or found
        return found

    @property
    def steps(self) -> int:
        return self.idle + sum(lane.steps for lane in (*self.lanes, *self.short))

    def slice(self) -> bool:
        """A few batches of the lane whose turn it is. True when something got better."""
        before = self.steps
        better = self._slice()
        self.idle += self.steps <= before
        return better

    def _slice(self) -> bool:
        self.turn += 1
        ranked = sorted(range(len(self.lanes)), key=lambda k: (self.own[self.lanes[k].fold].rank, k))
        if self.short and self.turn % 3 == 0:
            lane = self.short[self.turn // 3 % len(self.short)]
            return any([lane.batch() for _ in range(SLICE)])
        lane = self.lanes[ranked[0]]
        if len(ranked) > 1 and self.turn % 2 == 0:
            lane = self.lanes[ranked[1 + self.turn // 2 % (len(ranked) - 1)]]
        better = any([lane.batch() for _ in range(SLICE)])
        return better and self.take(lane.outcome())

    def adopt(self, outcome: Outcome) -> bool:
        """Take a lay of another process: into the answer, and into the search when it is much shorter."""
        known = self.own.get(outcome.fold)
        # what has no placements is a lay of another fold: no lane can go on from it
        if known is None or not self.take(outcome, own=bool(outcome.placed)):
            return False
        if outcome.score < known.score * (1 - WORTH_ADOPTING):
            for lane in self.lanes:
                if lane.fold == outcome.fold:
                    lane.adopt(outcome)
        return True


def solve(
    problem: Problem,
    *,
    seed: int = 1,
    seconds: float | None = None,
    steps: int | None = None,
    clock: Callable[[], float],
    on_progress: Callable[[Progress, Answer], None] | None = None,
    cancelled: Callable[[], bool] = lambda: False,
    partner: PartnerMaker | None = None,
) -> Answer:
    """Lay a problem. Ends after ``seconds`` by ``clock``, or after ``steps`` (then the same seed gives the
    same lay, whatever else runs), when ``cancelled()``, or when the bound is met; the first answer is always
    given. A ``partner`` begins another search that goes on at the same time; with ``steps`` each takes that many on its
    own.

    Raises :class:`BadProblem` when no allowed fold can take the pieces, :class:`EngineFault` when the
    checker refuses what was made.
    """
    begun = clock()
    other = partner(problem, Budget(seed + PARTNER_SEED, seconds, steps)) if partner is not None else None
    try:
        return _solve(problem, seed, seconds, steps, clock, on_progress, cancelled, other, begun)
    finally:
        if other is not None:
            other.stop()


def _solve(
    problem: Problem,
    seed: int,
    seconds: float | None,
    steps: int | None,
    clock: Callable[[], float],
    on_progress: Callable[[Progress, Answer], None] | None,
    cancelled: Callable[[], bool],
    partner: Partner | None,
    begun: float,
) -> Answer:
    lanes = Lanes(problem, seed)
    bounds = {lane.fold: bound_of(problem, lane.fold) for lane in lanes.lanes}
    told: list[Progress] = []
    answer: Answer | None = None
    other_steps = 0

    def tell() -> None:
        nonlocal answer
        made = _answer(problem, lanes, bounds, seed, lanes.steps + other_steps, clock() - begun)
        best = made.lay
        told.append(
            Progress(
                clock() - begun,
                best.length,
                best.bound,
                made.alternatives[0][0],
                lanes.steps + other_steps,
                tuple((fold, lay.length) for fold, lay in made.alternatives),
            )
        )
        answer = replace(made, progress=tuple(told))
        if on_progress is not None:
            on_progress(told[-1], answer)

    tell()
    # the other process looks for it while this one searches
    if partner is None and (seconds or steps or 0) > 1 and not cancelled() and lanes.try_jigsaw(FEW_LOOKS):
        tell()
    stopped = False
    while True:
        if cancelled():
            stopped = True
            break
        if seconds is not None and clock() - begun >= seconds:
            break
        if steps is not None and lanes.steps >= steps:
            break
        if seconds is None and steps is None:
            break
        if _met(lanes, bounds, problem):
            break
        better = lanes.slice()
        if partner is not None and steps is None:
            for outcome in partner.news():
                better = lanes.adopt(outcome) or better
            if better:
                partner.tell(lanes.best)
            better = _raise(bounds, partner.proved()) or better
        if better:
            lanes.update_short()
            tell()
    if partner is not None and steps is not None and not stopped:
        last, other_steps = partner.last()
        for outcome in last:
            lanes.adopt(outcome)
    tell()
    assert answer is not None
    final: Answer = answer
    return replace(final, cancelled=stopped)


def _raise(bounds: dict[str, float], proved: dict[str, float]) -> bool:
    """Take over what was proved elsewhere. True when a bound is higher by it."""
    higher = {fold: bound for fold, bound in proved.items() if bound > bounds.get(fold, math.inf)}
    bounds.update(higher)
    return bool(higher)


def _met(lanes: Lanes, bounds: dict[str, float], problem: Problem) -> bool:
    """Whether nothing is left to gain: the best lay of every fold is as short as its bound."""
    if problem.length is not None and lanes.short:
        return False
    return all(o.left == 0 and o.score <= bounds[fold] + 0.15 for fold, o in lanes.best.items())


def _answer(problem: Problem, lanes: Lanes, bounds: dict[str, float], seed: int, steps: int, seconds: float) -> Answer:
    complete = [o for o in lanes.best.values() if o.left == 0]
    # of two that are as long, the one with less to pin, and a fold by its own name
    ranked = sorted(complete, key=lambda o: (round(o.score, 3), len(o.laid), o.fold == "combination"))
    needed = ranked[0].score if ranked else None
    if problem.length is not None:
        ranked = [o for o in ranked if o.score <= problem.length + 1e-6]
        ranked += sorted((lane.outcome() for lane in lanes.short), key=lambda o: o.rank) if not ranked else []
    overall = min(bounds.values())
    out: list[tuple[str, Lay]] = []
    for outcome in ranked:
        if any(fold == outcome.fold for fold, _ in out):
            continue
        lay = _lay(problem, outcome, overall, seed, steps, seconds, needed)
        faults = check_lay(problem_json(problem), to_json(lay))
        if faults:
            raise EngineFault("The engine made a lay that its checker refuses: " + " ".join(faults[:3]))
        out.append((outcome.fold, lay))
    if not out:
        raise BadProblem(
            [f"No allowed fold leaves a lay on {problem.length:g} mm; the shortest found is {needed:.0f} mm."]
        )
    return Answer(out[0][1], tuple(out), tuple(lanes.refused), ())


def _lay(
    problem: Problem, outcome: Outcome, bound: float, seed: int, steps: int, seconds: float, needed: float | None
) -> Lay:
    laid, cut = with_fixed(problem, outcome)
    wanted = {p.id: p.copies for p in problem.pieces}
    for entry in cut:
        wanted[entry.piece] -= 1
    left = tuple((piece, n) for piece, n in wanted.items() if n > 0)
    area = {p.id: piece_area(p) for p in problem.pieces}
    length = round(max(outcome.score, fixed_end(problem)), 4)
    used = sum(area[entry.piece] for entry in cut)
    return Lay(
        length,
        # a lay that fits to a hair may use up the tolerance of a tenth at its seams and fall under a bound for exact
        # shapes: then the bound is met. Further above the lay it is a false theorem, and the checker must see it
        round(min(bound, length) if bound <= length + HAIR_MM else bound, 4),
        round(used / (length * problem.width), 4) if length > 0 else 0.0,
        not left,
        round(seconds, 3),
        seed,
        steps,
        outcome.sections,
        tuple(laid),
        number(cut),
        left,
        None if not left else (needed if needed is None or math.isfinite(needed) else None),
    )


def with_fixed(problem: Problem, outcome: Outcome) -> tuple[list[Placement], list[Cut]]:
    """The placements with those the maker has fixed. Two that are images of each other in a fold are one
    placement on two layers."""
    laid, cut = list(outcome.laid), list(outcome.cut)
    for piece in problem.pieces:
        left = list(piece.held)
        while left:
            f = left.pop(0)
            cut.append(Cut(piece.id, 0, f.x, f.y, f.turn, f.mirrored))
            section = _section_at(outcome.sections, f.x)
            layers = 1
            where = outcome.sections[section]
            for other in left:
                if (
                    not piece.on_fold
                    and where.fold != "crosswise"
                    and any(
                        abs(f.y + other.y - 2 * y) < 0.1 and abs(f.x - other.x) < 0.1 and f.mirrored != other.mirrored
                        for y in where.fold_at
                    )
                ):
                    left.remove(other)
                    cut.append(Cut(piece.id, 0, other.x, other.y, other.turn, other.mirrored))
                    layers = 2
                    break
            if piece.on_fold and any(abs(f.y - y) < 0.1 for y in where.fold_at):
                layers = 2
            laid.append(Placement(piece.id, section, f.x, f.y, f.turn, f.mirrored, layers))
    return laid, cut


def _section_at(sections: tuple[Section, ...], x: float) -> int:
    for k, section in enumerate(sections):
        if x < section.end:
            return k
    return len(sections) - 1
