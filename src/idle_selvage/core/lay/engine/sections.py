"""Combination: sections one after another, each with its own fold; which piece lies in which is searched.

Starts from everything folded and everything open; a few copies at a time move from one section to another
while the sum of the lengths falls. Then each section is searched like a strip of its own.
"""

from __future__ import annotations

import math

from ..answer import Cut, Placement, Section
from ..problem import Problem
from .draws import below, generator
from .folds import Way, fixed_end, may_double, section_of, strip_for, unfold, ways
from .lanes import Outcome
from .matching import Matching
from .search import StripSearch
from .strips import CannotFold

Shares = tuple[dict[str, int], ...]


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
        self.steps = 0
        self.best: list[StripSearch | None] = []
        self.shares: Shares = ()
        self.score = math.inf
        self.idle = 0
        self.turn = 0
        self.tried = 0

    def _remaining(self) -> dict[str, int]:
        return {p.id: p.copies - len(p.fixed) for p in self.problem.pieces}

    def _units(self) -> list[tuple[str, int]]:
        """What moves together: two copies where two layers give two, else one."""
        units = []
        for piece in self.problem.pieces:
            step = 2 if may_double(piece, self.problem) and not piece.on_fold and piece.copies >= 2 else 1
            units.append((piece.id, step))
        return units

    def _lay(self, shares: Shares, give_up: float, effort: int) -> tuple[float, list[StripSearch | None]] | None:
        """The sections laid one after another; None when one cannot be, or it gets too long."""
        at = 0.0
        made: list[StripSearch | None] = []
        for way, share in zip(self.kinds, shares, strict=True):
            if not any(share.values()):
                made.append(None)
                continue
            try:
                strip = strip_for(self.problem, way, self.matching, self.phases, offset=at, copies=share)
                search = StripSearch(strip, self.seed)
            except CannotFold:
                return None
            search.first()
            for _ in range(effort):
                search.batch()
            self.steps += search.steps
            assert search.best is not None
            at = round(at + search.best.length, 4)
            made.append(search)
            if at > give_up:
                return None
        return at, made

    def first(self) -> None:
        remaining = self._remaining()
        none = dict.fromkeys(remaining, 0)
        for k in range(len(self.kinds)):
            shares = tuple(dict(remaining) if j == k else dict(none) for j in range(len(self.kinds)))
            self._offer(shares, 1)
        if self.score == math.inf:
            self._by_force(remaining)
        if self.score == math.inf:
            raise CannotFold("", 0.0, 0.0, "The pieces cannot be divided between a folded and an open stretch.")

    def _by_force(self, remaining: dict[str, int]) -> None:
        """Each piece in the first section that takes it."""
        shares: Shares = tuple(dict.fromkeys(remaining, 0) for _ in self.kinds)
        for piece, count in remaining.items():
            for share in shares:
                share[piece] = count
                if self._lay(shares, math.inf, 0) is not None:
                    break
                share[piece] = 0
        if all(sum(s[p] for s in shares) == n for p, n in remaining.items()):
            self._offer(shares, 1)

    def _offer(self, shares: Shares, effort: int) -> bool:
        laid = self._lay(shares, self.score, effort)
        if laid is None or max(laid[0], fixed_end(self.problem)) >= self.score - 1e-6:
            return False
        self.score = max(laid[0], fixed_end(self.problem))
        self.best, self.shares = laid[1], shares
        return True

    def batch(self) -> bool:
        self.turn += 1
        if self.turn % 3 == 0 or len(self.kinds) < 2:
            return self._polish()
        return self._move()

    def _move(self) -> bool:
        """Move one or two units from a section to another; keep it when the whole gets shorter."""
        units = self._units()
        shares = tuple(dict(s) for s in self.shares)
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
        if shares == self.shares:
            return False
        return self._offer(shares, 1)

    def _polish(self) -> bool:
        """Search one section further; the sections behind it follow where they may."""
        used = [k for k, s in enumerate(self.best) if s is not None]
        if not used:
            return False
        # what is bound to the cloth cannot follow when a section before it gets shorter
        k = used[-1] if self.bound_to_cloth else used[self.turn // 3 % len(used)]
        search = self.best[k]
        assert search is not None
        before = search.steps
        better = search.batch()
        self.steps += search.steps - before
        if not better:
            return False
        total = sum(s.best.length for s in self.best if s is not None and s.best is not None)
        if total >= self.score:
            return False
        self.score = max(round(total, 4), fixed_end(self.problem))
        return True

    def outcome(self) -> Outcome:
        sections: list[Section] = []
        laid: list[Placement] = []
        cut: list[Cut] = []
        at = 0.0
        for search in self.best:
            if search is None or search.best is None:
                continue
            strip, found = search.strip, search.best
            some_laid, some_cut = unfold(strip, found.placed, found.length, at, len(sections))
            laid += some_laid
            cut += some_cut
            sections.append(section_of(strip, at, found.length))
            at = round(at + found.length, 4)
        if not sections:
            sections.append(Section(0.0, fixed_end(self.problem), "open"))
        last = sections[-1]
        sections[-1] = Section(last.start, max(last.end, round(self.score, 4)), last.fold, last.fold_at)
        return Outcome(self.fold, max(at, fixed_end(self.problem)), 0, tuple(sections), tuple(laid), tuple(cut))

    def adopt(self, outcome: Outcome) -> None:
        """Sections of another process cannot be taken over; its lay is kept by the solver all the same."""
