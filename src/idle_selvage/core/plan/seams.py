"""Seams: an edge of one piece sewn to an edge of another, or a piece laid on another at a place.

Both sides are taken in the direction in which they are sewn, from the end where they begin together. What lies at one
sewn length on both sides comes together: evenly, but for ease, which is spread where it was said to be, and for a key
point, which meets its partner exactly.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate, pairwise
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..wording import Sentence
from ..working import length
from .draft import run_length
from .outline import Outline, Point
from .sides import Side, runs_left

#: Two sides may differ by so much that a tape read it; more is ease, and is to be said. mm.
SAME_LENGTH_MM = 2.0

#: A side is looked at in so many places to tell which way it runs, and one that moves less runs no way, mm².
WAYS = 64
SAME_WAY = 1e-9

Longer = Literal["", "a", "b"]
Kind = Literal["sewn", "laid on"]
KINDS: tuple[Kind, ...] = ("sewn", "laid on")
Reals = npt.NDArray[np.float64]


@dataclass(frozen=True)
class SeamSide:
    """A side of a seam: the piece by its key, and which run of its outline. Of a piece that another is laid on it is
    the ``place`` there instead, in the piece's own axes."""

    piece: str
    side: Side | None = None
    place: Point | None = None


@dataclass(frozen=True)
class Seam:
    """A seam between two sides.

    ``same_way``: both are drawn round in the direction in which they are sewn, as the two halves of a pair are;
    ``longer`` by ``ease`` mm, taken in between ``spread`` as shares of the longer side's length; ``key_a`` mm along
    side a from where sewing begins is the key point, which meets ``key_b`` along side b (None: at the same share);
    ``levels``: bars across the garment shall meet; ``lengthwise``: bars that run along the cloth shall go on over it;
    the lowest ``priority`` comes first. Of a seam of the kind *laid on* the key point of side a lies at side b's place.
    """

    key: str
    a: SeamSide
    b: SeamSide
    name: str = ""
    kind: Kind = "sewn"
    same_way: bool = False
    longer: Longer = ""
    ease: float = 0.0
    spread: tuple[float, float] = (0.0, 1.0)
    key_a: float | None = None
    key_b: float | None = None
    levels: bool = True
    lengthwise: bool = False
    priority: int = 0

    @property
    def asked(self) -> bool:
        """Whether anything shall match at it."""
        return self.levels or self.lengthwise


@dataclass(frozen=True)
class Sewn:
    """A seam with its two sides as they are sewn, each from where sewing begins: on the seam line, and at the cut edge;
    each in its piece's own axes, mm. ``mirrors``: piece a as it is drawn is sewn to a mirror image of piece b."""

    seam: Seam
    a: Outline
    b: Outline
    cut_a: Outline
    cut_b: Outline
    mirrors: bool = False

    # it is looked up by this, again and again
    @cached_property
    def _hash(self) -> int:
        return hash((self.seam, self.a, self.b, self.mirrors))

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def lengths(self) -> tuple[float, float]:
        """How long its sides are, mm."""
        return run_length(self.a), run_length(self.b)

    @cached_property
    def joints(self) -> tuple[tuple[float, float], ...]:
        """Places that come together, as lengths along side a and side b; between two of them, evenly."""
        return joints(self.seam, *self.lengths)

    def meets(self, at: Reals) -> Reals:
        """Lengths along side b that come together with ``at`` along side a."""
        a, b = np.array(self.joints).T
        found: Reals = np.interp(at, a, b)
        return found

    @cached_property
    def _together(self) -> tuple[float, float]:
        """How far both sides move alike along the grain, and across it: below nothing where they move against each
        other."""
        at = np.linspace(0.0, self.lengths[0], WAYS)
        a, b = (np.diff(places_at(run, where), axis=0) for run, where in ((self.a, at), (self.b, self.meets(at))))
        x, y = (a * b).sum(axis=0)
        return float(x), float(y)

    def against(self, k: int) -> bool:
        """Whether its sides run against each other, as both are drawn, along the grain (``k`` 0) or across it (1)."""
        return self._together[k] < -SAME_WAY

    @property
    def slants_across(self) -> bool:
        """Whether its sides lean across the grain at all."""
        return abs(self._together[1]) > SAME_WAY

    @cached_property
    def key(self) -> tuple[Point, Point]:
        """The key point on both sides, in the pieces' own axes."""
        at = self.key_at
        return place_at(self.a, at), place_at(self.b, float(self.meets(np.array([at]))[0]))

    @property
    def key_at(self) -> float:
        """How far along side a the key point lies, mm."""
        return min(self.lengths[0], max(0.0, self.seam.key_a or 0.0))


def joints(seam: Seam, long_a: float, long_b: float) -> tuple[tuple[float, float], ...]:
    """Which lengths come together along two sides: both ends, the key point where it is told on both, and the ends of
    where the ease is spread."""
    knots = [(0.0, 0.0), (long_a, long_b)]
    if seam.kind == "laid on":
        return tuple(knots)
    if seam.key_a is not None and seam.key_b is not None:
        knots.insert(1, (min(long_a, seam.key_a), min(long_b, seam.key_b)))
    out = [knots[0]]
    longer_b = long_b > long_a
    ends = tuple(share * max(long_a, long_b) for share in seam.spread)
    for before, after in pairwise(knots):
        (a0, b0), (a1, b1) = before, after
        low, high = (b0, b1) if longer_b else (a0, a1)
        first, last = max(low, ends[0]), min(high, ends[1])
        take = abs((a1 - a0) - (b1 - b0))
        # where too little of it lies to be eased, all of the stretch is
        if last - first > take + 1e-9 and (first > low + 1e-9 or last < high - 1e-9):
            for end in (first, last):
                gone = end - low - (take if end == last else 0.0)
                out.append((a0 + gone, end) if longer_b else (end, b0 + gone))
        out.append(after)
    return tuple(_rising(out))


def _rising(knots: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Each further along side a than the one before: two places of side b cannot meet one of side a."""
    out = [knots[0]]
    for a, b in knots[1:]:
        if a > out[-1][0] + 1e-9:
            out.append((a, max(b, out[-1][1])))
    return out


def place_at(run: Outline, at: float) -> Point:
    """The place so far along an open run, mm."""
    gone = [0.0, *accumulate(math.dist(a, b) for a, b in pairwise(run))]
    xs, ys = zip(*run, strict=True)
    return float(np.interp(at, gone, xs)), float(np.interp(at, gone, ys))


def places_at(run: Outline, at: Reals) -> Reals:
    """Places so far along an open run, as rows of x and y, mm."""
    gone = np.array([0.0, *accumulate(math.dist(a, b) for a, b in pairwise(run))])
    ring = np.array(run)
    return np.stack([np.interp(at, gone, ring[:, 0]), np.interp(at, gone, ring[:, 1])], axis=1)


def sewn_with(seam: Seam, find: Callable[[SeamSide], tuple[Outline, Outline]], rings: tuple[Outline, Outline]) -> Sewn:
    """A seam with its sides as they are sewn; ``find`` gives a side's run on the seam line and at the cut edge, as it
    is drawn round; ``rings``: the outlines of both pieces. Raises :class:`BadPiece` as ``find`` does.

    Laid side by side with their faces up, both pieces lie on one side of their own edge, taken in the sense in which
    they are drawn round: two that are drawn in one sense are sewn against each other, or one of them is mirrored.
    """
    a, cut_a = find(seam.a)
    if seam.kind == "laid on":
        place = seam.b.place or (0.0, 0.0)
        key = place_at(a, seam.key_a or 0.0)
        return Sewn(seam, a, _moved(a, key, place), cut_a, _moved(cut_a, key, place))
    b, cut_b = find(seam.b)
    if not seam.same_way:
        b, cut_b = b[::-1], cut_b[::-1]
    one_sense = runs_left(rings[0]) == runs_left(rings[1])
    return Sewn(seam, a, b, cut_a, cut_b, seam.same_way == one_sense)


def _moved(run: Outline, start: Point, place: Point) -> Outline:
    return tuple((x - start[0] + place[0], y - start[1] + place[1]) for x, y in run)


def unlike(sewn: Sewn, names: tuple[str, str]) -> Sentence | None:
    """What is said of two sides that differ by more than the ease that was told."""
    seam, (long_a, long_b) = sewn.seam, sewn.lengths
    off = long_a - long_b
    told = {"": 0.0, "a": seam.ease, "b": -seam.ease}[seam.longer]
    if abs(off - told) <= SAME_LENGTH_MM:
        return None
    more, less = names if off >= 0 else names[::-1]
    if abs(told) <= SAME_LENGTH_MM:
        text = "{more} is {by} longer here than {less}: say that it is eased in, or correct the piece."
        return Sentence(text, more=more, less=less, by=length(abs(off)))
    text = "{more} is {by} longer here than {less}, and {ease} of ease were told: correct one of the two."
    if (off >= 0) != (told >= 0):
        text = "{more} is {by} longer here than {less}, and the other was said to be longer, by {ease}."
    return Sentence(text, more=more, less=less, by=length(abs(off)), ease=length(abs(told)))


def sewing_order(pieces: Sequence[str], seams: Sequence[Seam]) -> tuple[str, ...]:
    """Pieces by their keys as they are sewn: what one seam joins stands side by side, the first seams first; what no
    seam joins comes last, as it was given."""
    found: list[str] = []
    for seam in seams:
        for key, other in ((seam.b.piece, seam.a.piece), (seam.a.piece, seam.b.piece)):
            if key in pieces and key not in found:
                found.insert(found.index(other) + 1 if other in found else len(found), key)
    return (*found, *(key for key in pieces if key not in found))
