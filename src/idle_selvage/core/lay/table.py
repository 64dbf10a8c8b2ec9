"""The cloth as it lies on the table, stretch by stretch: how many layers where, its edges, and what is kept off.

Across, everything is measured as on the open cloth, from where the usable width begins; the layer that is seen keeps
its place, the hidden one is its reflection in the fold. Along, a crosswise fold lies at 0 and both cut ends together.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from shapely import affinity
from shapely.geometry import MultiPolygon, Polygon, box

from ..plan.outline import Outline
from .answer import Lay, Section
from .problem import TOLERANCE_MM

LineKind = Literal["near selvage", "far selvage", "fold", "lower edge", "meeting line", "cut", "crease"]
Margins = tuple[float, float]


@dataclass(frozen=True)
class Ground:
    """Cloth between two y, in so many layers; ``under``: only the lower layer is there."""

    low: float
    high: float
    layers: int
    under: bool = False


@dataclass(frozen=True)
class Line:
    """An edge or a line of the cloth on the picture, mm."""

    kind: LineKind
    start: tuple[float, float]
    end: tuple[float, float]


@dataclass(frozen=True)
class KeptOff:
    """What is laid around, as it shows on the picture; ``under``: on the lower layer."""

    outline: Outline
    under: bool


@dataclass(frozen=True)
class Stretch:
    """A stretch of the table with one fold, from x ``start`` to ``end`` of the picture; ``section`` of the lay."""

    section: int
    fold: str
    start: float
    end: float
    grounds: tuple[Ground, ...]
    lines: tuple[Line, ...]
    #: how far selvages reach beyond the usable width at the lower and the upper side of the picture
    margins: Margins = (0.0, 0.0)
    #: how far from the cut end the picture's x = 0 lies on the open cloth
    offset: float = 0.0

    @property
    def low(self) -> float:
        return min(ground.low for ground in self.grounds)

    @property
    def high(self) -> float:
        return max(ground.high for ground in self.grounds)


def stretches(lay: Lay, width: float, margins: Margins, *, opened: bool) -> tuple[Stretch, ...]:
    """The stretches of a lay on cloth of usable ``width``; ``opened``: one in a single layer, its folds as creases."""
    if opened:
        return (_opened(lay, width, margins),)
    found = [_folded(k, section, width, margins) for k, section in enumerate(lay.sections)]
    cut = [Line("cut", (a.end, min(a.low, b.low)), (a.end, max(a.high, b.high))) for a, b in pairwise(found)]
    if cut:
        found[0] = replace(found[0], lines=(*found[0].lines, *cut))
    return tuple(found)


def _opened(lay: Lay, width: float, margins: Margins) -> Stretch:
    lines = [
        Line("near selvage", (0.0, 0.0), (lay.length, 0.0)),
        Line("far selvage", (0.0, width), (lay.length, width)),
    ]
    for section in lay.sections:
        if section.fold == "crosswise":
            lines += [Line("crease", (x, 0.0), (x, width)) for x in section.fold_at]
        else:
            lines += [Line("crease", (section.start, y), (section.end, y)) for y in section.fold_at]
    lines += [Line("cut", (section.start, 0.0), (section.start, width)) for section in lay.sections[1:]]
    return Stretch(0, "open", 0.0, lay.length, (Ground(0.0, width, 1),), tuple(lines), margins)


def _folded(k: int, section: Section, width: float, margins: Margins) -> Stretch:
    start, end = section.start, section.end
    lines: tuple[Line, ...]
    if section.fold == "crosswise" and section.fold_at:
        long = end - section.fold_at[0]
        lines = (
            Line("near selvage", (0.0, 0.0), (long, 0.0)),
            Line("far selvage", (0.0, width), (long, width)),
            Line("fold", (0.0, 0.0), (0.0, width)),
        )
        return Stretch(k, section.fold, 0.0, long, (Ground(0.0, width, 2),), lines, margins, section.fold_at[0])
    grounds, marked = _across(section, width)
    lines = tuple(Line(kind, (start, y), (end, y)) for kind, y in marked)
    low = margins[0] if any(kind == "near selvage" for kind, _ in marked) else 0.0
    high = margins[1] if any(kind == "far selvage" and y == width for kind, y in marked) else 0.0
    return Stretch(k, section.fold, start, end, grounds, lines, (low, high))


def _across(section: Section, width: float) -> tuple[tuple[Ground, ...], list[tuple[LineKind, float]]]:
    """The layers and lines across a stretch whose folds run along the cloth, from low to high."""
    if section.fold in ("lengthwise", "partial") and section.fold_at:
        at = section.fold_at[0]
        edge = 2 * at
        lines: list[tuple[LineKind, float]] = [("fold", at)]
        grounds = [Ground(at, min(edge, width), 2)]
        if edge < width - TOLERANCE_MM:
            grounds.append(Ground(edge, width, 1))
            lines.append(("lower edge", edge))
        elif edge > width + TOLERANCE_MM:
            grounds.append(Ground(width, edge, 1, under=True))
            lines.append(("lower edge", edge))
        return tuple(grounds), [*lines, ("far selvage", width)]
    if section.fold == "double" and len(section.fold_at) == 2:
        one, two = section.fold_at
        near, far = min(2 * one, two), max(2 * two - width, one)
        grounds = [Ground(one, near, 2)]
        lines = [("fold", one)]
        if far - near > TOLERANCE_MM:
            grounds.append(Ground(near, far, 1))
            lines += [("lower edge", near), ("lower edge", far)]
        else:
            lines.append(("meeting line", (near + far) / 2))
        return (*grounds, Ground(far, two, 2)), [*lines, ("fold", two)]
    return (Ground(0.0, width, 1),), [("near selvage", 0.0), ("far selvage", width)]


def kept_off(areas: Sequence[Outline], lay: Lay, width: float, *, opened: bool) -> tuple[KeptOff, ...]:
    """Areas of the open cloth as they show on the picture, those of the hidden layer through the fold."""
    if opened:
        return tuple(KeptOff(area, under=False) for area in areas)
    found: list[KeptOff] = []
    far = lay.length
    for section in lay.sections:
        for area in areas:
            # the last stretch shows what lies beyond the lay too
            there = section.end if section.end < far - TOLERANCE_MM else max(far, *(x for x, _ in area)) + 1.0
            here = Polygon(area).intersection(box(section.start, -width, there, 2 * width))
            found += _shown(here, section, width)
    return tuple(found)


def _shown(area: Polygon, section: Section, width: float) -> list[KeptOff]:
    if section.fold == "crosswise" and section.fold_at:
        moved = affinity.translate(area, xoff=-section.fold_at[0])
        upper = moved.intersection(box(0.0, -width, 1e9, 2 * width))
        lower = affinity.scale(moved, xfact=-1.0, origin=(0.0, 0.0)).intersection(box(0.0, -width, 1e9, 2 * width))
        return [*_outlines(upper, False), *_outlines(lower, True)]
    if not section.fold_at:
        return _outlines(area, False)
    low = section.fold_at[0]
    high = section.fold_at[1] if len(section.fold_at) > 1 else 2 * width
    found = _outlines(area.intersection(box(-1e9, low, 1e9, high)), False)
    for y, hidden in ((low, box(-1e9, -width, 1e9, low)), (high, box(-1e9, high, 1e9, 3 * width))):
        behind = affinity.scale(area.intersection(hidden), yfact=-1.0, origin=(0.0, y))
        found += _outlines(behind, True)
    return found


def _outlines(shape: object, under: bool) -> list[KeptOff]:
    parts = shape.geoms if isinstance(shape, MultiPolygon) else [shape]
    return [
        KeptOff(tuple((float(x), float(y)) for x, y in part.exterior.coords[:-1]), under)
        for part in parts
        if isinstance(part, Polygon) and part.area > 1e-6
    ]
