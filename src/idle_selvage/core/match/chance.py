"""How sure it is that a seam stays inside its tolerance: the maker's hand, what is left of a slant, uneven repeats.

Monte Carlo over what is not known: each copy is laid a little off, the weft leans a little, the repeats of the weave
are a little longer or shorter than they were measured. The same draws for every seam, so that seams can be compared.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ..cloth.bars import MATCHED_MM
from ..lay.problem import Bars
from ..plan.seams import Reals
from .judged import Judged, Met
from .strip import Strip, nearest

Truths = NDArray[np.bool_]

#: How far off a careful hand lays a piece, one standard deviation, mm. From memory; a tape is read to half of it.
HAND_MM = 0.7
#: From so many pieces on the maker's own hand is gone by.
LEAST_LAID = 4
#: So many times it is drawn: a share is sure to about a per cent.
DRAWS = 2000
#: So many places of a seam are looked at in each draw.
PLACES = 12


@dataclass(frozen=True)
class Doubt:
    """What is not known, each as one standard deviation: ``hand`` mm, how far off a copy is laid; ``slant`` degrees of
    the weft that may be left; ``uneven`` mm by which one repeat along, and one across, differs from the mean.
    ``learned``: on how many pieces that were laid and measured the hand rests; 0: from memory."""

    hand: float = HAND_MM
    slant: float = 0.0
    uneven: tuple[float, float] = (0.0, 0.0)
    learned: int = 0


def hand_from(off: Sequence[float]) -> float | None:
    """How far off a maker lays, one standard deviation about no error, from what pieces that were pinned missed their
    places by, mm; None of too few."""
    return None if len(off) < LEAST_LAID else math.sqrt(math.fsum(by * by for by in off) / len(off))


def chances(
    judged: Sequence[Judged], bars: Bars, doubt: Doubt, seed: int = 1, draws: int = DRAWS
) -> tuple[float | None, ...]:
    """For each seam the share of draws in which every one of its couples stays within 1.5 mm all along; None where
    nothing is asked or known. Each couple is laid by itself; what is left of the slant is one for the whole cloth."""
    return tuple(_chance(one, bars, doubt, seed, draws) for one in judged)


def _chance(one: Judged, bars: Bars, doubt: Doubt, seed: int, draws: int) -> float | None:
    axes = {strip.axis for strip in one.asked}
    found = [
        _inside(met, [met.of(axis) for axis in axes], bars, doubt, _drawn(seed, draws, turn))
        for turn, met in enumerate(one.mets)
    ]
    known = [inside for inside in found if inside is not None]
    return float(np.all(known, axis=0).mean()) if known else None


@lru_cache(maxsize=32)
def _drawn(seed: int, draws: int, couple: int) -> Reals:
    """Normal draws: of the lean, of both copies along and across, of the repeats along and across. The lean is that of
    the whole cloth, the rest of each couple of a seam its own."""
    found: Reals = np.random.default_rng((seed, couple)).normal(size=(7, draws))
    if couple:
        found[0] = _drawn(seed, draws, 0)[0]
    return found


def _inside(met: Met, strips: Sequence[Strip | None], bars: Bars, doubt: Doubt, drawn: Reals) -> Truths | None:
    """In which draws a couple stays inside all along; None where no bars are known there."""
    slope = np.tan(np.radians(drawn[0] * doubt.slant))
    inside = np.ones(drawn.shape[1], dtype=bool)
    known = False
    for strip in strips:
        if strip is None:
            continue
        known = True
        k, repeat = (0, bars.x_repeat) if strip.axis == "x" else (1, bars.y_repeat)
        some = np.array([strip.off.argmin(), strip.off.argmax()])
        if k == 0 and doubt.slant > 0:
            # a lean adds to it all along; else what lies furthest either way decides
            some = np.unique([*some, *np.linspace(0, len(strip.at) - 1, PLACES).astype(int)])
        between: Reals = met.a[some] - met.b[some]
        laid = (drawn[1 + k] - drawn[3 + k]) * doubt.hand
        repeats = float(np.abs(met.a[:, k] - met.b[:, k]).mean()) / (repeat or 1.0)
        drift = drawn[5 + k] * doubt.uneven[k] * math.sqrt(repeats)
        # a weft that leans shifts the bars across the garment by how far apart both lie across the cloth
        leans = np.outer(slope, between[:, 1]) if k == 0 else 0.0
        off = nearest(strip.off[some][None, :] + (laid + drift)[:, None] + leans, repeat or 1.0)
        inside &= np.abs(off).max(axis=1) <= MATCHED_MM
    return inside if known else None
