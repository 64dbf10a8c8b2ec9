"""A division of the pieces between sections that follow one another, and which divisions are worth a look.

What a division may come to is judged by the area that has to lie on each layer; how good it is shows only when each of
its sections is searched. A lay of rows alone misjudges it: what is best in rows is often not what is best in the end.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..answer import Cut, Placement, Section
from ..problem import LayPiece, Problem, piece_area
from .folds import Way, may_double, section_of, unfold
from .lanes import Outcome
from .search import StripSearch

#: How many copies of each piece lie in each section.
Shares = tuple[dict[str, int], ...]
#: How much of a section's cloth the pieces may be expected to fill.
FILLED = 0.85


@dataclass
class Division:
    """The pieces divided in one way, and the search of each section; None where nothing lies in it."""

    shares: Shares
    searches: list[StripSearch | None]
    #: sections behind one that gets shorter cannot follow: flaws, fixed pieces and bars stay where they are
    bound: bool = False
    turn: int = 0

    @property
    def length(self) -> float:
        """The sections one after another, mm."""
        return round(sum(s.best.length for s in self.searches if s is not None and s.best is not None), 4)

    def batch(self) -> int:
        """Search one section further, each in its turn. How many steps it took."""
        used = [s for s in self.searches if s is not None]
        if not used:
            return 0
        self.turn += 1
        search = used[-1] if self.bound else used[self.turn % len(used)]
        before = search.steps
        search.batch()
        return search.steps - before

    def outcome(self, fold: str, least: float) -> Outcome:
        """The lay of it; ``least``: how far it must reach, mm."""
        sections: list[Section] = []
        laid: list[Placement] = []
        cut: list[Cut] = []
        at = 0.0
        for search in self.searches:
            if search is None or search.best is None:
                continue
            some_laid, some_cut = unfold(search.strip, search.best.placed, search.best.length, at, len(sections))
            laid += some_laid
            cut += some_cut
            sections.append(section_of(search.strip, at, search.best.length))
            at = round(at + search.best.length, 4)
        return Outcome(fold, max(at, least), 0, tuple(sections), tuple(laid), tuple(cut))


def _long(piece: LayPiece) -> float:
    xs = [x for x, _ in piece.outline]
    return max(xs) - min(xs)


def expected(problem: Problem, kinds: list[Way], shares: Shares) -> float:
    """The length a division may come to, mm: each section as long as the area on its layers asks for, and at least as
    long as the longest piece in it."""
    total = 0.0
    for way, share in zip(kinds, shares, strict=True):
        area, longest = 0.0, 0.0
        layers = max(region.layers for region in way.regions)
        for piece in problem.pieces:
            count = share.get(piece.id, 0)
            if not count:
                continue
            if layers == 1:
                whole: float = count
            elif piece.on_fold:
                # its half lies on the fold
                whole = count / 2
            else:
                whole = (count + 1) // 2 if may_double(piece, problem) else count
            area += whole * piece_area(piece)
            longest = max(longest, _long(piece))
        wide = sum(region.high - region.low for region in way.regions)
        total += max(area / (wide * FILLED), longest)
    return total


def divisions(problem: Problem, kinds: list[Way], copies: dict[str, int], most: int) -> list[Shares]:
    """Divisions between a folded and an open section that the areas speak for, the likeliest first.

    What gains nothing by two layers lies open; of what does, the smallest or the largest pieces beside it.
    """
    open_at = next((k for k, way in enumerate(kinds) if all(region.layers == 1 for region in way.regions)), None)
    if open_at is None:
        return []
    pieces = [p for p in problem.pieces if copies[p.id]]
    doubled = [p for p in pieces if p.on_fold or (may_double(p, problem) and copies[p.id] > 1)]
    doubled.sort(key=lambda p: (piece_area(p) / (2 if p.on_fold else 1), p.id))
    found: list[Shares] = []
    for folded_at in range(len(kinds)):
        if folded_at == open_at:
            continue
        for k in range(len(doubled) + 1):
            for folded in (doubled[k:], doubled[:k]):
                names = {p.id for p in folded}
                if not names or len(names) == len(pieces):
                    continue
                shares: Shares = tuple(
                    {p: n if (j == folded_at if p in names else j == open_at) else 0 for p, n in copies.items()}
                    for j in range(len(kinds))
                )
                if shares not in found:
                    found.append(shares)
    worth = sorted(range(len(found)), key=lambda i: (expected(problem, kinds, found[i]), i))
    return [found[i] for i in worth[:most]]
