"""A hem on a straight border loses its curve: by how much, and where."""

from __future__ import annotations

from dataclasses import dataclass

from .outline import Outline, Point

#: A hem that is straight to so much has no curve to lose, mm.
STRAIGHT_MM = 1.0


@dataclass(frozen=True)
class HemCurve:
    """The hem of a piece, in its own axes: the run of its edge, how much higher its highest place lies than its lowest,
    mm, and that place."""

    edge: tuple[Point, ...]
    lost: float
    at: Point

    @property
    def curved(self) -> bool:
        return self.lost > STRAIGHT_MM


def hem_curve(outline: Outline) -> HemCurve:
    """The hem is the run of edges at the low end of a piece (least x) that lie more across than along the grain."""
    n = len(outline)
    low = min(range(n), key=lambda k: outline[k][0])
    edge = [outline[low]]
    for way in (1, -1):
        k = low
        while len(edge) <= n:
            here, there = outline[k % n], outline[(k + way) % n]
            if abs(there[0] - here[0]) > abs(there[1] - here[1]):
                break
            edge = [*edge, there] if way == 1 else [there, *edge]
            k += way
    highest = max(edge, key=lambda p: p[0])
    return HemCurve(tuple(edge), highest[0] - outline[low][0], highest)
