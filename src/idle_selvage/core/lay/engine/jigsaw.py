"""Zero waste: when the parts tile the strip exactly, there is little to choose, and the lay is found at once.

In a generic direction the lowest point of the ground still uncovered must be covered by the lowest corner of
some part that is left: so every variant has one position. Depth first, those that touch most of what lies
already first. It needs a true tiling, which garments never are; so it gives up after a number of looks.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
import shapely
from shapely.affinity import translate
from shapely.geometry import Polygon, box

from .strips import Placed, Strip, Variant

if TYPE_CHECKING:
    from .lanes import FoldLane

#: Fits looked at before giving up; about a second.
LOOKS = 6000
#: Fits looked at by a process that is alone and has the search itself to do.
FEW_LOOKS = 1000
#: Slivers thinner than twice this are no ground; two that touch may share or miss about as much.
SLIVER_MM = 0.03
#: With more parts than this the chance is too small.
MOST_PARTS = 60
#: A direction in which hardly two corners are equally low.
SLANT = 0.01731


#: A variant with its lowest corner, its ends along, and its outline.
Ready = tuple[Variant, tuple[float, float], tuple[float, float], Any]


@dataclass
class _Kind:
    """Parts that are the same: how many are left, and their variants."""

    parts: list[int]
    variants: list[Ready]


class Jigsaw:
    """The search on one strip. ``looks`` counts down; :meth:`solve` gives placements or None."""

    def __init__(self, strip: Strip, looks: int = LOOKS) -> None:
        self.strip, self.looks, self.length = strip, looks, 0.0
        kinds: dict[int, _Kind] = {}
        for i, part in enumerate(strip.parts):
            if id(part.variants) not in kinds:
                kinds[id(part.variants)] = _Kind([], [self._ready(v) for v in part.variants])
            kinds[id(part.variants)].parts.append(i)
        self.kinds = list(kinds.values())

    def _ready(self, variant: Variant) -> Ready:
        key = variant.ring[:, 0] + SLANT * variant.ring[:, 1]
        low = variant.ring[int(np.argmin(key))]
        ends = float(variant.ring[:, 0].min()), float(variant.ring[:, 0].max())
        return variant, (float(low[0]), float(low[1])), ends, Polygon(variant.ring)

    def ground(self) -> Any | None:
        """The ground the parts would cover without waste, or None when that cannot be."""
        strip = self.strip
        if strip.gap or strip.folded_at or not strip.parts or len(strip.parts) > MOST_PARTS:
            return None
        blocked = shapely.union_all([Polygon(o.ring) for o in strip.obstacles])
        area = sum(part.area for part in strip.parts)
        length = area / strip.width
        for _ in range(6):
            ground = box(0.0, strip.low, length, strip.high).difference(blocked)
            length += (area - ground.area) / strip.width
        self.length = length
        return _opened(box(0.0, strip.low, length, strip.high).difference(blocked))

    def solve(self) -> tuple[Placed, ...] | None:
        ground = self.ground()
        if ground is None:
            return None
        placed: list[Placed] = []
        return tuple(placed) if self._go(ground, placed) else None

    def _go(self, ground: Any, placed: list[Placed]) -> bool:
        if len(placed) == len(self.strip.parts):
            return True
        corners = shapely.get_coordinates(ground)
        if len(corners) == 0:
            return False
        low = corners[int(np.argmin(corners[:, 0] + SLANT * corners[:, 1]))]
        # one look at many candidates: they are tested together
        options: list[tuple[_Kind, Variant, float, float]] = []
        shapes = []
        for kind in self.kinds:
            if not kind.parts:
                continue
            for variant, corner, ends, shape in kind.variants:
                x, y = float(low[0]) - corner[0], float(low[1]) - corner[1]
                at = self._allowed(variant, *ends, x, y)
                if at is not None:
                    options.append((kind, variant, *at))
                    shapes.append(translate(shape, *at))
        self.looks -= len(options)
        if not shapes or self.looks < 0:
            return False
        outside = shapely.area(shapely.difference(np.array(shapes), ground))
        around = shapely.length(np.array(shapes))
        fits = [k for k in range(len(shapes)) if outside[k] <= SLIVER_MM * around[k]]
        edge = ground.boundary.buffer(3 * SLIVER_MM, cap_style="flat")
        touch = {k: float(shapes[k].exterior.intersection(edge).length / around[k]) for k in fits}
        for k in sorted(fits, key=lambda k: (-round(touch[k], 3), k)):
            kind, variant, x, y = options[k]
            rest = _opened(ground.difference(shapes[k]))
            placed.append(Placed(kind.parts.pop(), variant, x, y))
            if self._go(rest, placed):
                return True
            kind.parts.append(placed.pop().part)
            if self.looks < 0:
                return False
        return False

    def _allowed(self, variant: Variant, low: float, high: float, x: float, y: float) -> tuple[float, float] | None:
        """The position, moved by a hair onto its lattice and inside its limits, or None."""
        give = 3 * SLIVER_MM
        if not variant.low - give <= y <= variant.high + give:
            return None
        y = min(max(y, variant.low), variant.high)
        if x + low < -give or x + high > self.length + give:
            return None
        if variant.y_step:
            near = variant.y_base + round((y - variant.y_base) / variant.y_step) * variant.y_step
            if abs(near - y) > give:
                return None
            y = near
        if variant.x_step:
            near = variant.x_base + round((x - variant.x_base) / variant.x_step) * variant.x_step
            if abs(near - x) > give:
                return None
            x = near
        return (x, y) if math.isfinite(x) else None


def _opened(ground: Any) -> Any:
    """Ground without slivers and spikes, its corners where they were."""
    return ground.buffer(-SLIVER_MM, join_style="mitre", mitre_limit=60).buffer(
        SLIVER_MM, join_style="mitre", mitre_limit=60
    )


def try_jigsaw(lane: FoldLane, looks: int = LOOKS) -> bool:
    """Try to tile the strip of a lane; True when that made its lay shorter."""
    if lane.main is None:
        return False
    placed = Jigsaw(lane.main.strip, looks).solve()
    return placed is not None and lane.main.offer(placed)
