"""A stand-in for a washer: seeded, without water, speaking the interface a real appliance's adapter would.

It has a hidden true shrinkage per cloth, drawn from its planning range, and lets most of it out in the first
wash. What it returns is made up, and is marked so wherever it is kept.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

import numpy as np

from ..core.shrink.ranges import planning_range
from ..core.shrink.treatment import Programme

#: Share of the whole shrinkage a temperature lets out, by degrees Celsius, and of cloth dried without a dryer.
HEAT = {0: 0.6, 20: 0.75, 30: 0.85, 40: 1.0, 60: 1.12}
AIR_DRIED = 0.9
#: Share of what is left that stays in after each wash.
KEEPS = 0.15
KEEPS_LOOSE = 0.35
LOOSE = ("denim-raw", "flannel", "gauze")


@dataclass(frozen=True)
class Specimen:
    """What goes in: marked distances as they are now (mm), how often it was washed, and its diagonals if marked.

    ``number`` tells one cloth from another: the same cloth has the same hidden truth. ``graduation`` is the tape's.
    """

    kinds: tuple[str, ...]
    warp: tuple[float, ...]
    weft: tuple[float, ...]
    washed: int = 0
    number: int = 1
    depth: str = "medium"
    finish: str = ""
    graduation: float = 1.0
    diagonals: tuple[float, float] | None = None


@dataclass(frozen=True)
class Report:
    """What comes out: distances and diagonals read again, and the grade of the rag (1 to 5)."""

    warp: tuple[float, ...]
    weft: tuple[float, ...]
    diagonals: tuple[float, float] | None
    grade: int


class Appliance(Protocol):
    """What a washer's adapter must do."""

    def wash(self, specimen: Specimen, programme: Programme) -> Report:
        """Wash, dry and read again."""
        ...


class StandInWasher:
    """The simulated one. The same ``seed``, cloth and number of washes give the same report."""

    def __init__(self, seed: int = 1) -> None:
        self.seed = seed

    def truth(self, specimen: Specimen, programme: Programme, washes: int) -> tuple[float, float, float]:
        """Hidden shrinkage along and across after ``washes`` washes, in parts of one, and the skew in parts of one."""
        rng = np.random.default_rng([self.seed, specimen.number])
        entries = [e for kind in specimen.kinds if (e := planning_range(kind)) is not None]
        warp = (max((e.warp[0] for e in entries), default=2.0), max((e.warp[1] for e in entries), default=4.0))
        weft = (max((e.weft[0] for e in entries), default=1.0), max((e.weft[1] for e in entries), default=3.0))
        whole = rng.uniform(*warp) / 100.0, rng.uniform(*weft) / 100.0
        skew = rng.normal(0.0, 0.006)
        if specimen.finish == "washed":
            whole = whole[0] * 0.5, whole[1] * 0.5
        strength = HEAT.get(programme.temperature, 1.0) * (1.0 if programme.dry.startswith("tumble") else AIR_DRIED)
        keeps = KEEPS_LOOSE if set(specimen.kinds) & set(LOOSE) else KEEPS
        out = 1.0 - keeps**washes
        return whole[0] * strength * out, whole[1] * strength * out, skew * out

    def wash(self, specimen: Specimen, programme: Programme) -> Report:
        """Wash, dry and read again with a tape of the specimen's graduation."""
        now = self.truth(specimen, programme, specimen.washed)
        then = self.truth(specimen, programme, specimen.washed + 1)
        rng = np.random.default_rng([self.seed, specimen.number, specimen.washed + 1])
        r = specimen.graduation

        def read(values: tuple[float, ...], k: int) -> tuple[float, ...]:
            share = (1.0 - then[k]) / (1.0 - now[k])
            spread = 0.25 * r
            return tuple(float(np.round((v * share + rng.normal(0.0, spread)) / r) * r) for v in values)

        diagonals = None
        if specimen.diagonals is not None:
            middle = sum(specimen.diagonals) / 2 * (1.0 - (then[0] - now[0] + then[1] - now[1]) / 2)
            # skew is 2 (AC − BD) / (AC + BD)
            half = middle * then[2] / 2
            diagonals = (float(np.round((middle + half) / r) * r), float(np.round((middle - half) / r) * r))
        first = {"light": 5, "medium": 4, "dark": int(rng.integers(2, 4))}[specimen.depth]
        return Report(read(specimen.warp, 0), read(specimen.weft, 1), diagonals, min(5, first + specimen.washed))
