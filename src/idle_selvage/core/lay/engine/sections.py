"""Combination: sections one after another, each with its own fold; which piece lies in which is searched.

Several divisions are searched side by side, each section of them like a strip of its own, and after each round the
longer half is given up; then some copies of the best are moved from one section to another, and the next race begins.
"""

from __future__ import annotations

import math
from dataclasses import replace

from ..answer import Section
from ..problem import Problem
from .divisions import Division, Shares, divisions
from .draws import below, generator
from .folds import Way, fixed_end, may_double, strip_for, ways
from .lanes import Outcome
from .matching import Matching
from .search import StripSearch
from .strips import CannotFold

#: Divisions that are looked at first, and with more parts than these the fewer the more there are.
FIRST_LOOKS, MANY_PARTS = 6, 60
#: Batches of each division in the first round of a race; twice as many in each that follows.
ROUND = 24
#: What is longer than the best by more than this share when it is begun is not searched.
HOPEFUL = 1.15
#: Divisions made from the best for each race after the first.
MOVED = 3
#: Batches of a section that what lies behind it depends on.
BEFORE_OTHERS = 24


class CombinationLane:
    """The lane of ``combination``: a folded stretch, then an open one (or the other folds allowed)."""

    fold = "combination"

    def __init__(self, problem: Problem, seed: int) -> None:
        self.problem, self.seed = problem, seed
        sliding = next((p for p in problem.pieces if p.sliding), None)
        if sliding is not None:
            why = f"“{sliding.called}” may only slide along, on one fold; a combination of several is chosen anew."
            raise CannotFold(sliding.id, 0.0, 0.0, why)
        self.matching = Matching(problem)
        self.rng = generator(seed * 13 + 5)
        self.phases = self.matching.choose(self.rng, first=True)
        self.kinds: list[Way] = []
        names = ["lengthwise", *(["double"] if "double" in problem.folds else []), "open"]
        for name in names:
            try:
                self.kinds.append(ways(problem, name)[0])
            except CannotFold:
                continue
        # flaws, fixed pieces and bars stay where they are when a section grows shorter
        self.bound_to_cloth = bool(
            problem.kept_off or any(p.fixed or p.match or p.centre_on_axis for p in problem.pieces)
        )
        self.least = fixed_end(problem)
        self.steps = 0
        self.pool: list[Division] = []
        self.best: Division | None = None
        looks = max(2, FIRST_LOOKS * MANY_PARTS // max(MANY_PARTS, sum(self._remaining().values())))
        self.queue = divisions(problem, self.kinds, self._remaining(), looks)
        self.turn = 0
        self.round = ROUND

    def _remaining(self) -> dict[str, int]:
        return {p.id: p.copies - len(p.fixed) for p in self.problem.pieces}

    def _units(self) -> list[tuple[str, int]]:
        """What moves together: two copies where two layers give two, else one."""
        units = []
        for piece in self.problem.pieces:
            step = 2 if may_double(piece, self.problem) and not piece.on_fold and piece.copies >= 2 else 1
            units.append((piece.id, step))
        return units

    @property
    def score(self) -> float:
        return max(self.best.length, self.least) if self.best is not None else math.inf

    def _lay(self, shares: Shares, give_up: float, *, rows_only: bool = False) -> Division | None:
        """The sections laid one after another; None when one cannot be, or it gets too long."""
        at = 0.0
        made: list[StripSearch | None] = []
        last = max((k for k, share in enumerate(shares) if any(share.values())), default=0)
        for k, (way, share) in enumerate(zip(self.kinds, shares, strict=True)):
            if not any(share.values()):
                made.append(None)
                continue
            try:
                strip = strip_for(self.problem, way, self.matching, self.phases, offset=at, copies=share)
                search = StripSearch(strip, self.seed)
            except CannotFold:
                return None
            search.first()
            for _ in range(0 if rows_only else BEFORE_OTHERS if self.bound_to_cloth and k < last else 1):
                search.batch()
            self.steps += search.steps
            assert search.best is not None
            at = round(at + search.best.length, 4)
            made.append(search)
            if at > give_up:
                return None
        return Division(shares, made, self.bound_to_cloth)

    def first(self) -> None:
        remaining = self._remaining()
        none = dict.fromkeys(remaining, 0)
        for k in range(len(self.kinds)):
            self._offer(tuple(dict(remaining) if j == k else dict(none) for j in range(len(self.kinds))), math.inf)
        if self.best is None:
            self._by_force(remaining)
        if self.best is None:
            raise CannotFold("", 0.0, 0.0, "The pieces cannot be divided between a folded and an open stretch.")
        # of one section alone only what has a chance goes into the race
        self.pool = [one for one in self.pool if one.length <= self.best.length * HOPEFUL]

    def _by_force(self, remaining: dict[str, int]) -> None:
        """Each piece in the first section that takes it."""
        shares: Shares = tuple(dict.fromkeys(remaining, 0) for _ in self.kinds)
        for piece, count in remaining.items():
            for share in shares:
                share[piece] = count
                if self._lay(shares, math.inf, rows_only=True) is not None:
                    break
                share[piece] = 0
        if all(sum(s[p] for s in shares) == n for p, n in remaining.items()):
            self._offer(shares, math.inf)

    def _offer(self, shares: Shares, give_up: float) -> None:
        """Into the race with a division, unless it is hopeless or in it already."""
        if any(one.shares == shares for one in self.pool):
            return
        made = self._lay(shares, give_up)
        if made is not None:
            self.pool.append(made)
            self._compare(made)

    def _compare(self, division: Division) -> None:
        if self.best is None or division.length < self.best.length - 1e-6:
            self.best = division

    def batch(self) -> bool:
        before = self.score
        if self.queue:
            self._offer(self.queue.pop(0), before * HOPEFUL)
            return self.score < before - 1e-6
        if self.turn >= self.round * len(self.pool):
            self._next_round()
        division = self.pool[self.turn % len(self.pool)]
        self.turn += 1
        self.steps += division.batch()
        self._compare(division)
        return self.score < before - 1e-6

    def _next_round(self) -> None:
        """The longer half is given up; of two the race is over, and the next one is between the best and what is made
        from it."""
        self.pool.sort(key=lambda one: one.length)
        self.turn = 0
        if len(self.pool) > 2:
            del self.pool[(len(self.pool) + 1) // 2 :]
            self.round *= 2
            return
        del self.pool[1:]
        self.round = ROUND
        self.queue = [shares for shares in (self._moved() for _ in range(MOVED)) if shares is not None]

    def _moved(self) -> Shares | None:
        """The best division with one or two units moved from a section to another."""
        assert self.best is not None
        units = self._units()
        shares = tuple(dict(s) for s in self.best.shares)
        for _ in range(1 + int(below(self.rng, 2))):
            piece, step = units[int(below(self.rng, len(units)))]
            holders = [k for k, s in enumerate(shares) if s[piece] > 0]
            if not holders:
                continue
            a = holders[int(below(self.rng, len(holders)))]
            b = int(below(self.rng, len(shares)))
            if a == b:
                continue
            number = shares[a][piece] if below(self.rng, 2) == 0 else min(step, shares[a][piece])
            shares[a][piece] -= number
            shares[b][piece] += number
        return None if shares == self.best.shares else shares

    def outcome(self) -> Outcome:
        assert self.best is not None
        made = self.best.outcome(self.fold, self.least)
        sections = made.sections or (Section(0.0, self.least, "open"),)
        last = sections[-1]
        reaches = Section(last.start, max(last.end, round(self.score, 4)), last.fold, last.fold_at)
        return replace(made, sections=(*sections[:-1], reaches))

    def adopt(self, outcome: Outcome) -> None:
        """Sections of another process cannot be taken over; its lay is kept by the solver all the same."""
