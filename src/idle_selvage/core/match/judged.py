"""What a lay comes to at each seam: how far the bars miss, and the verdict."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from ..cloth.bars import MATCHED_MM, MISMATCH_MM
from ..lay.answer import Cut
from ..lay.joined import Joined
from ..lay.problem import Axis, Bars, LayPiece
from ..plan.outline import Outline
from ..plan.seams import Reals, Sewn, places_at
from .couples import Couple, couples
from .strip import Strip, sampled, strip

Verdict = Literal["meets", "nearly", "misses", "not asked", "unknown"]
#: The worst first.
ORDER: tuple[Verdict, ...] = ("misses", "nearly", "unknown", "meets", "not asked")


def verdict_of(worst: float) -> Verdict:
    """The verdict on the furthest that bars miss, mm."""
    return "meets" if worst <= MATCHED_MM else "nearly" if worst <= MISMATCH_MM else "misses"


@dataclass(frozen=True)
class Met:
    """One seam between two copies: its strips, and the places of the cloth that come together (rows of x and y, mm)."""

    couple: Couple | None
    strips: tuple[Strip, ...]
    a: Reals
    b: Reals

    def of(self, axis: Axis) -> Strip | None:
        """The strip of the bars of one direction."""
        return next((one for one in self.strips if one.axis == axis), None)


@dataclass(frozen=True)
class Judged:
    """A seam on a lay, or as it is asked for before there is one: every couple of copies that is sewn there."""

    sewn: Sewn
    mets: tuple[Met, ...]
    #: why nothing can be said of it, or nothing
    why: str = ""

    @cached_property
    def asked(self) -> tuple[Strip, ...]:
        """The strips of what shall match."""
        axes = ["x"] * self.sewn.seam.levels + ["y"] * self.sewn.seam.lengthwise
        return tuple(one for met in self.mets for one in met.strips if one.axis in axes)

    @cached_property
    def worst_strip(self) -> Strip | None:
        return max(self.asked, key=lambda one: one.worst, default=None)

    @property
    def worst(self) -> float | None:
        """The furthest that bars miss at it which shall meet, mm; None where none are asked or nothing is known."""
        return None if self.worst_strip is None else self.worst_strip.worst

    @property
    def mean(self) -> float | None:
        """How far they miss on the whole, mm, at the worst of its couples."""
        return max((one.mean for one in self.asked), default=None)

    @property
    def verdict(self) -> Verdict:
        if not self.sewn.seam.asked:
            return "not asked"
        return "unknown" if self.worst is None else verdict_of(self.worst)

    @property
    def rank(self) -> tuple[int, float, int]:
        """The worst first."""
        return ORDER.index(self.verdict), -(self.worst or 0.0), self.sewn.seam.priority


def in_lay_axes(one: Sewn, move: Callable[[Outline], Outline]) -> Sewn:
    """A seam whose pieces are laid otherwise than they are drawn: enlarged for cloth that is sewn first."""
    return replace(one, a=move(one.a), b=move(one.b), cut_a=move(one.cut_a), cut_b=move(one.cut_b))


def on_lay(
    sewn: Sequence[Sewn], pieces: Mapping[str, LayPiece], cuts: Sequence[Cut], bars: Bars, *, at_cut: bool = False
) -> tuple[Judged, ...]:
    """Every seam on a lay, ``cuts`` as they leave the cloth; ``at_cut``: compared at the cut edges instead of the seam
    line."""
    return tuple(_on_lay(one, pieces, cuts, bars, at_cut) for one in sewn)


def _on_lay(one: Sewn, pieces: Mapping[str, LayPiece], cuts: Sequence[Cut], bars: Bars, at_cut: bool) -> Judged:
    a, b = pieces.get(one.seam.a.piece), pieces.get(one.seam.b.piece)
    if a is None or b is None:
        return Judged(one, (), "One of its pieces does not lie on this lay.")
    mets = tuple(
        met_at(one, couple, bars, couple.a.placed, couple.b.placed, at_cut) for couple in couples(one, a, b, cuts)
    )
    return Judged(one, mets, "" if mets else "Its copies do not lie on this lay yet.")


def met_at(
    one: Sewn,
    couple: Couple | None,
    bars: Bars,
    place_a: Callable[[Outline], Outline],
    place_b: Callable[[Outline], Outline],
    at_cut: bool = False,
) -> Met:
    """The strips of one couple; ``place_…`` put a run of each piece on the cloth."""
    at, a, b = together(one, place_a, place_b, at_cut)
    strips = tuple(found for axis in AXES if (found := strip(axis, bars, at, a, b)) is not None)
    return Met(couple, strips, a, b)


AXES: tuple[Axis, ...] = ("x", "y")


def together(
    one: Sewn,
    place_a: Callable[[Outline], Outline],
    place_b: Callable[[Outline], Outline],
    at_cut: bool = False,
) -> tuple[Reals, Reals, Reals]:
    """Lengths along side a, and the places of the cloth that come together there."""
    at = sampled(one.lengths[0], one.joints)
    meets = one.meets(at)
    run_a, run_b = place_a(one.a), place_b(one.b)
    if at_cut:
        # at the cut edges the same shares of both lie one on the other
        run_a, run_b = place_a(one.cut_a), place_b(one.cut_b)
        long_a, long_b = (float(np.hypot(*np.diff(np.array(run), axis=0).T).sum()) for run in (run_a, run_b))
        return at, places_at(run_a, at / one.lengths[0] * long_a), places_at(run_b, meets / one.lengths[1] * long_b)
    return at, places_at(run_a, at), places_at(run_b, meets)


def foreseen(sewn: Sequence[Sewn], met: Joined, bars: Bars) -> tuple[Judged, ...]:
    """What the bars across the garment come to at each seam before anything is laid, from where each piece shall lie on
    them; of those along it only a lay tells."""
    only = Bars(bars.x_repeat, None, bars.x_axes)
    out = []
    for one in sewn:
        zero_a, zero_b = (met.levels.zero.get(side.piece) for side in (one.seam.a, one.seam.b))
        if zero_a is None or zero_b is None or bars.x_repeat is None:
            placed = one.seam.levels and bars.x_repeat is not None
            out.append(Judged(one, (), "Nothing places it on the bars yet." if placed else ""))
            continue
        out.append(Judged(one, (met_at(one, None, only, _raised(zero_a), _raised(zero_b)),)))
    return tuple(out)


def _raised(zero: float) -> Callable[[Outline], Outline]:
    return lambda run: tuple((x - zero, y) for x, y in run)
