"""One lane per fold: the search for the best lay of a problem folded in one way.

A fold may leave things to choose: how deep a partial fold is, where a crosswise fold lies when flaws or
fixed pieces do not move with it, which phases the matching groups take. Then two searches run by turns, the
best so far and a rival with another choice; a rival that gets ahead takes over.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Protocol

from ..answer import Cut, Placement, Section
from ..problem import Problem
from .draws import below, generator
from .folds import Way, fixed_end, section_of, strip_for, unfold, ways
from .matching import Matching, Phases
from .search import Found, StripSearch
from .strips import CannotFold, Placed, Strip

#: Batches a rival gets to show what it can.
TRIAL = 60
#: Choices looked at, by their first lay only, before the first answer.
LOOKS = 6
#: How much longer a crosswise strip is made when its flaws leave too little room, and how often.
STRETCH, STRETCHES = 1.03, 24


@dataclass(frozen=True)
class Outcome:
    """The best of a lane: the lay without its figures. ``score``: length; ``left``: parts left out.

    ``key`` names the choices made and ``placed`` the placements, for another process to take over.
    """

    fold: str
    score: float
    left: int
    sections: tuple[Section, ...]
    laid: tuple[Placement, ...]
    cut: tuple[Cut, ...]
    key: tuple[object, ...] = ()
    placed: tuple[Placed, ...] = ()

    @property
    def rank(self) -> tuple[int, float]:
        return self.left, self.score


def also(outcome: Outcome) -> tuple[Outcome, ...]:
    """The same lay as one of other folds: what is cut folded is cut on the open cloth just as well, each copy by
    itself, and one section alone is a combination. So open cloth is never longer than a fold, nor a combination than
    what it is made of."""
    if outcome.left:
        return ()
    found = []
    if outcome.fold != "open":
        laid = tuple(Placement(c.piece, 0, c.x, c.y, c.turn, c.mirrored, 1) for c in outcome.cut)
        opened = (Section(0.0, outcome.sections[-1].end, "open", ()),)
        found.append(Outcome("open", outcome.score, 0, opened, laid, outcome.cut))
    if outcome.fold in ("open", "lengthwise", "partial", "double"):
        found.append(Outcome("combination", outcome.score, 0, outcome.sections, outcome.laid, outcome.cut))
    return tuple(found)


class Lane(Protocol):
    """What the solver asks of a lane."""

    fold: str

    @property
    def steps(self) -> int: ...
    def first(self) -> None: ...
    def batch(self) -> bool: ...
    def outcome(self) -> Outcome: ...
    def adopt(self, outcome: Outcome) -> None: ...


def _as_it_lies(search: StripSearch) -> None:
    """Where every part may only slide, the search begins with how they lie, if that is allowed: pushed together, they
    are never longer than they were."""
    parts = search.strip.parts
    free = all(len(part.variants) == 1 and not part.variants[0].x_step for part in parts)
    # a fixed length is kept to by what may be left out, not by pushing
    if free and search.limit == math.inf and all(part.now is not None for part in parts):
        search.offer(tuple(Placed(i, p.variants[0], p.now or 0.0, p.variants[0].low) for i, p in enumerate(parts)))


class FoldLane:
    """The lane of one simple fold. Raises :class:`CannotFold` when no way of folding takes the pieces."""

    def __init__(self, problem: Problem, fold: str, seed: int, limit: float = math.inf) -> None:
        self.problem, self.fold, self.seed = problem, fold, seed
        self.matching = Matching(problem)
        self.rng = generator(seed * 7 + 3)
        self.limit = limit
        self.ways: list[Way] = []
        refused: CannotFold | None = None
        self.phases = self.matching.choose(self.rng, first=True)
        for way in ways(problem, fold):
            try:
                self._strip(way, self.phases, 0.0)
                self.ways.append(way)
            except CannotFold as why:
                refused = refused or why
                if self.matching.free and why.across == 0:
                    self.ways.append(way)
        if not self.ways:
            raise refused or CannotFold("", 0.0, 0.0, f"The cloth cannot be folded {fold}.")
        self.least = fixed_end(problem)
        # a crosswise fold that flaws or fixed pieces do not follow must be put somewhere
        self.placed_fold = self.ways[0].crosswise and bool(problem.kept_off or any(p.fixed for p in problem.pieces))
        self.many = len(self.ways) > 1 or self.matching.free or self.placed_fold
        self.main: StripSearch | None = None
        self.main_key: tuple[object, ...] = ()
        self.rival: StripSearch | None = None
        self.rival_key: tuple[object, ...] = ()
        self.turns = 0
        self.spent = 0
        self.left_to_rival = 0
        self.why: CannotFold | None = None

    def _strip(self, way: Way, phases: Phases, folded_at: float) -> Strip:
        return strip_for(self.problem, way, self.matching, phases, folded_at=folded_at)

    @property
    def steps(self) -> int:
        return self.spent + sum(s.steps for s in (self.main, self.rival) if s is not None)

    def _limit(self, way: Way) -> float:
        return self.limit / 2 if way.crosswise else self.limit

    def _search(self, number: int, phases: Phases, folded_at: float) -> StripSearch | None:
        way = self.ways[number]
        limit = min(self._limit(way), folded_at or math.inf)
        try:
            strip = self._strip(way, phases, folded_at)
            if not strip.parts:
                return None
            search = StripSearch(strip, self.seed + 101 * self.turns, limit, self.main)
        except CannotFold as why:
            self.why = why
            return None
        search.first()
        _as_it_lies(search)
        return search

    def _score(self, search: StripSearch) -> tuple[int, float]:
        assert search.best is not None
        long = search.strip.folded_at or search.best.length
        return len(search.best.left), max(long * search.strip.lengths, self.least)

    def first(self) -> None:
        if not any(p.copies > len(p.held) for p in self.problem.pieces):
            return
        tries: list[tuple[int, Phases]] = [(k, self.phases) for k in range(len(self.ways))]
        if self.matching.free:
            edges = (self.ways[0].regions[0].low, self.ways[0].regions[-1].high)
            tries += [(k % len(self.ways), self.matching.choose(self.rng, edges)) for k in range(LOOKS)]
        for number, phases in tries:
            if self.placed_fold:
                self._stretch(number, phases)
                continue
            self._offer(self._search(number, phases, 0.0), (number, phases, 0.0))
        if self.main is None:
            # whatever the votes said, some phase may do: look further before giving up
            for _ in range(60 if self.matching.free else 0):
                phases = self.matching.choose(self.rng)
                self._offer(self._search(int(below(self.rng, len(self.ways))), phases, 0.0), (0, phases, 0.0))
                if self.main is not None:
                    break
        if self.main is None:
            why = f"The pieces and the flaws leave no lay with the fold “{self.fold}”."
            raise self.why or CannotFold("", 0.0, 0.0, why)

    def _offer(self, search: StripSearch | None, key: tuple[object, ...]) -> bool:
        if search is None or search.best is None:
            return False
        if search.strip.folded_at and search.best.left and self.limit == math.inf:
            return False
        if self.main is not None and self._score(search) >= self._score(self.main):
            return False
        if self.main is not None:
            self.spent += self.main.steps
        self.main, self.main_key = search, key
        return True

    def _stretch(self, number: int, phases: Phases) -> None:
        """Find a place for a crosswise fold by making the cloth longer until all lies."""
        try:
            bare = StripSearch(self._strip(self.ways[number], phases, 1e7), self.seed)
        except CannotFold as why:
            self.why = why
            return
        bare.first()
        assert bare.best is not None
        at = min(max(bare.best.length, self.least / 2), self._limit(self.ways[number]))
        for _ in range(STRETCHES):
            if self._offer(self._search(number, phases, round(at, 2)), (number, phases, round(at, 2))):
                return
            at *= STRETCH

    def batch(self) -> bool:
        if self.main is None:
            return False
        self.turns += 1
        if not self.many or self.turns % 2 == 0:
            if self.placed_fold:
                return False
            return self.main.batch()
        if self.rival is None:
            self._new_rival()
            self.left_to_rival = TRIAL
            return False
        better = False
        self.rival.batch()
        self.left_to_rival -= 1
        if self._score(self.rival) < self._score(self.main) and not (
            self.placed_fold and self.rival.best is not None and self.rival.best.left
        ):
            self.spent += self.main.steps
            self.main, self.main_key, self.rival = self.rival, self.rival_key, None
            better = True
        elif self.left_to_rival <= 0:
            self.spent += self.rival.steps
            self.rival = None
        return better

    def _new_rival(self) -> None:
        assert self.main is not None
        number = int(below(self.rng, len(self.ways)))
        way = self.ways[number]
        phases = self.matching.choose(self.rng, (way.regions[0].low, way.regions[-1].high))
        folded_at = 0.0
        if self.placed_fold:
            shorter = self.main.strip.folded_at * (1 - 0.002 * (1 + int(below(self.rng, 12))))
            folded_at = round(max(shorter, self.least / 2), 2)
        self.rival = self._search(number, phases, folded_at)
        self.rival_key = (number, phases, folded_at)

    def outcome(self) -> Outcome:
        if self.main is None or self.main.best is None:
            sections = (Section(0.0, self.least, self.fold, self.ways[0].fold_at),)
            return Outcome(self.fold, self.least, 0, sections, (), ())
        strip, found = self.main.strip, self.main.best
        left, score = self._score(self.main)
        laid, cut = unfold(strip, found.placed, strip.folded_at or found.length, 0.0, 0)
        section = section_of(strip, 0.0, score / strip.lengths)
        return Outcome(self.fold, score, left, (section,), tuple(laid), tuple(cut), self.main_key, found.placed)

    def adopt(self, outcome: Outcome) -> None:
        """Take over a lay of another process, when it was made with the same choices."""
        if self.main is None or not outcome.placed or outcome.key != self.main_key or self.placed_fold:
            return
        length = outcome.score / self.main.strip.lengths
        self.main.adopt(Found(outcome.placed, length, (0,) * outcome.left))
