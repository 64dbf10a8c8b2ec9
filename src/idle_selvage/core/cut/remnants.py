"""What is left when everything is cut: remnants in their true outlines, their largest rectangles on grain, scraps."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from shapely import Polygon

from ..cloth.bars import SAME_BAR_MM, Bar
from ..lay.left_over import LEAST_SIDE_MM, Rectangle, left_over
from ..lay.outlined import around
from ..plan.outline import Outline
from ..working import Figure, Quantity, Source, Step
from .really_left import really_there

#: What is narrower than this is a scrap, and holds nothing together, mm. Common practice, no source.
NECK_MM = 20.0
#: A remnant is the one that was seen when its corner lies within so much, mm, and its area is alike to this much, mm²:
#: hardly a piece is smaller than 5 cm by 5 cm, and what is seen of an edge moves by less. Common practice, no source.
SAME_MM, SAME_AREA_MM2 = 5.0, 2500.0
#: What is smaller is no scrap but a sliver, mm². Common practice, no source.
LEAST_SCRAP_MM2 = 500.0
#: An outline is told to this much, mm, inwards: never more cloth than there is.
TOLD_MM = 0.5

FROM_THE_CUT = Source("your own log", "the cloth and what was cut from it", "areas of the outlines as they were cut")


@dataclass(frozen=True)
class Remnant:
    """A remnant: where its own corner lies on the cloth, its outline from there and the holes in it, its largest
    rectangles on grain, and how deep a border runs along its near and far edge, mm."""

    x: float
    y: float
    outline: Outline
    rectangles: tuple[Rectangle, ...]
    area: float
    near_selvage: bool = False
    far_selvage: bool = False
    border: float = 0.0
    holes: tuple[Outline, ...] = ()
    #: whether it is in the cupboard already
    kept: bool = False

    @property
    def rings(self) -> tuple[Outline, ...]:
        """Its outline, and then its holes."""
        return (self.outline, *self.holes)

    def is_as_seen(self, x: float, y: float, area: float) -> bool:
        """Whether it is the one that was seen with its corner there and so large, mm and mm², and no more was cut from
        it since. How its edge is told may move a little when its neighbour is put away."""
        same_corner = abs(self.x - x) <= SAME_MM and abs(self.y - y) <= SAME_MM
        return same_corner and abs(self.area - area) <= SAME_AREA_MM2

    @property
    def along(self) -> float:
        """How long it is at its longest, mm."""
        return max(x for x, _ in self.outline)

    @property
    def across(self) -> float:
        """How wide it is at its widest, mm."""
        return max(y for _, y in self.outline)


@dataclass(frozen=True)
class LeftOver:
    """Remnants, the largest first, and what is too small for one: how many pieces, and the area of all that is no
    remnant, mm²."""

    remnants: tuple[Remnant, ...]
    scraps: int
    scrap_area: float
    cut_area: float
    whole_area: float

    @property
    def used(self) -> Figure:
        """How much of the cloth went into pieces, per cent."""
        put = (
            ("cut", Quantity(self.cut_area, "area")),
            ("the whole cloth", Quantity(self.whole_area, "area")),
        )
        share = 100.0 * self.cut_area / self.whole_area if self.whole_area else 0.0
        step = Step("used", "cut ÷ the whole cloth", put, Quantity(share, "percent"), "")
        return Figure(share, "percent", steps=(step,), sources=(FROM_THE_CUT,))


def what_is_left(
    width: float,
    long: float,
    gone: Sequence[Outline],
    *,
    waits: Sequence[Outline] = (),
    put: Sequence[Sequence[Outline]] = (),
    least: float = LEAST_SIDE_MM,
    frame: Sequence[Outline] = (),
    border: tuple[str, float] | None = None,
) -> LeftOver:
    """What is left of cloth ``long`` by ``width`` mm. ``least``: a remnant has a rectangle on grain of at least this
    side, mm; ``waits``: shapes that are still to be cut, which are neither left nor cut; ``put``: remnants that are in
    the cupboard, each its outline and its holes, which stay as they are whatever becomes free beside them;
    ``border``: along which selvage (``low``, ``high``), and how deep, mm."""
    there = really_there(width, long, [*gone, *waits], frame)
    free = really_there(width, long, [*gone, *waits, *(rings[0] for rings in put)], frame)
    # strips as narrow as the room between two pieces are no part of a remnant
    apart = free.buffer(-NECK_MM / 2).buffer(NECK_MM / 2, join_style="mitre").intersection(free)
    parts = [one for one in getattr(apart, "geoms", [apart]) if isinstance(one, Polygon) and not one.is_empty]
    kept = (_remnant(Polygon(rings[0], rings[1:]), width, least, border) for rings in put)
    remnants = [replace(one, kept=True) for one in kept if one is not None]
    scraps = 0
    for part in parts:
        found = _told(part, width, least, border)
        if found is None:
            scraps += part.area >= LEAST_SCRAP_MM2
        else:
            remnants.append(found)
    remnants.sort(key=lambda one: (-one.area, one.x, one.y))
    whole = Polygon(frame[0], frame[1:]).area if frame else long * width
    scrap_area = max(0.0, there.area - sum(one.area for one in remnants))
    cut = whole - really_there(width, long, gone, frame).area
    return LeftOver(tuple(remnants), scraps, scrap_area, cut, whole)


def _told(part: Polygon, width: float, least: float, border: tuple[str, float] | None) -> Remnant | None:
    """Ground that is left, told inwards; None where it is a scrap."""
    told = part.simplify(TOLD_MM / 2).buffer(-TOLD_MM / 2, join_style="mitre")
    told = max(getattr(told, "geoms", [told]), key=lambda one: one.area)
    return None if told.is_empty else _remnant(told, width, least, border)


def _remnant(told: Polygon, width: float, least: float, border: tuple[str, float] | None) -> Remnant | None:
    x0, y0, x1, y1 = told.bounds
    ring = tuple((round(x - x0, 1), round(y - y0, 1)) for x, y in told.exterior.coords[:-1])
    # the outline was told inwards, so that its holes are told outwards
    inside = tuple(tuple((round(x - x0, 1), round(y - y0, 1)) for x, y in hole.coords[:-1]) for hole in told.interiors)
    if len(ring) < 3:
        return None
    off = [*around(ring, x1 - x0, y1 - y0), *inside]
    rectangles = tuple(one for one in left_over(off, x1 - x0, y1 - y0) if min(one.along, one.across) >= least)
    if not rectangles:
        return None
    near, far = y0 <= 1.0, y1 >= width - 1.0
    deep = 0.0
    if border is not None and (near if border[0] == "low" else far):
        deep = min(border[1], y1 - y0)
    return Remnant(round(x0, 1), round(y0, 1), ring, rectangles, told.area, near, far, deep, inside)


def bars_from(bars: Sequence[Bar], begin: float) -> list[Bar]:
    """A sequence of bars as it reads from a place on: it begins ``begin`` mm later, and the bar there is cut in two."""
    whole = sum(bar.width for bar in bars)
    if not bars or whole <= 0:
        return list(bars)
    at = begin % whole
    out: list[Bar] = []
    for k, bar in enumerate(bars):
        if at < bar.width:
            rest = [Bar(bar.width - at, bar.colour), *bars[k + 1 :], *bars[:k], Bar(at, bar.colour)]
            out = [one for one in rest if one.width > SAME_BAR_MM / 10]
            break
        at -= bar.width
    return out or list(bars)
