"""Folding: a problem becomes a strip of parts, and a laid strip is opened out again.

Every fold that runs along the cloth is seen from its visible layer, whose y is that of the open cloth; the
hidden layer is its reflection in the fold. A *region* is ground of one kind:

``open``         one region, one layer.
``lengthwise``   selvage to selvage: the upper half, two layers, the fold at its lower edge.
``partial``      one selvage folded up by a depth: two layers beside the fold, one layer beyond.
``double``       both selvages folded to the middle: two regions of two layers that meet there.
``crosswise``    cut end to cut end: two layers, x measured from the fold; never with a direction.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from shapely.geometry import box

from ...plan.outline import is_mirror_symmetric, whole_polygon
from ..answer import Cut, Placement, Section
from ..problem import TOLERANCE_MM, Fixed, LayPiece, Problem, is_reserved, piece_area
from .matching import Bound, Matching, Phases, turns_for, whole_ring
from .orientations import Pose, Ring, pose, poses
from .strips import CannotFold, Image, Obstacle, Part, Placed, Strip, Variant

#: Folds one strip is enough for; a combination is several of them one after another.
SIMPLE = ("open", "lengthwise", "partial", "double", "crosswise")
#: Depths of a partial fold that are tried.
MAX_DEPTHS = 12


@dataclass(frozen=True)
class Region:
    """Ground between y ``low`` and ``high``. ``folds``: its edges that are folds, as (y, +1 low or −1 high)."""

    low: float
    high: float
    layers: int
    fold: tuple[float, int] | None = None


@dataclass(frozen=True)
class Way:
    """One way to fold a cloth: its regions, the folds on the open cloth, and whether it is crosswise."""

    fold: str
    regions: tuple[Region, ...]
    fold_at: tuple[float, ...] = ()
    crosswise: bool = False


def ways(problem: Problem, fold: str) -> list[Way]:
    """The ways to make a fold, the likeliest first. Raises :class:`CannotFold` when the cloth forbids it."""
    width = problem.width
    if fold == "open":
        return [Way("open", (Region(0.0, width, 1),))]
    if fold == "lengthwise":
        at = _nearest_axis(problem, width / 2)
        return [Way(fold, (Region(at, at + min(at, width - at), 2, (at, 1)),), (at,))]
    if fold == "partial":
        return [Way(fold, (Region(d, 2 * d, 2, (d, 1)), *_beyond(2 * d, width)), (d,)) for d in _depths(problem, width)]
    if fold == "double":
        one, two = _nearest_axis(problem, width / 4), _nearest_axis(problem, width * 3 / 4)
        meet_low, meet_high = min(2 * one, width), max(2 * two - width, 0.0)
        if meet_low > meet_high:
            meet_low = meet_high = (meet_low + meet_high) / 2
        return [Way(fold, (Region(one, meet_low, 2, (one, 1)), Region(meet_high, two, 2, (two, -1))), (one, two))]
    if problem.one_way or problem.bars.directed:
        raise CannotFold(
            "", 0.0, 0.0, "The cloth has a direction, and folded crosswise one layer would lie against it."
        )
    return [Way(fold, (Region(0.0, width, 2),), (), True)]


def _beyond(low: float, width: float) -> tuple[Region, ...]:
    """The single layer beside a partial fold, where there is any."""
    return (Region(low, width, 1),) if width - low > TOLERANCE_MM else ()


def axes_across(problem: Problem) -> list[float]:
    """Every mirror axis across the width; folds along the cloth must lie on one when there are any bars."""
    bars = problem.bars
    if bars.y_repeat is None or not bars.y_axes:
        return []
    count = int(problem.width / bars.y_repeat) + 1
    found = {round(a + k * bars.y_repeat, 6) for a in bars.y_axes for k in range(-1, count + 1)}
    return sorted(a for a in found if 0 < a < problem.width)


def _nearest_axis(problem: Problem, at: float) -> float:
    axes = axes_across(problem)
    return min(axes, key=lambda a: (abs(a - at), a)) if axes else at


def _depths(problem: Problem, width: float) -> list[float]:
    """Depths of a partial fold worth trying: just what one of the pieces on two layers needs, and the deepest."""
    if problem.partial_at is not None:
        return [problem.partial_at]
    wanted: set[float] = set()
    for piece in problem.pieces:
        if not may_double(piece, problem) or piece.border is not None:
            continue
        half = piece.on_fold and piece.grain == "lengthwise"
        ring = np.array(piece.outline) if half else whole_ring(piece)
        for turn in turns_for(piece, problem):
            tall = float(np.ptp(pose(ring, turn, False).ring[:, 1]))
            if not half:
                tall += problem.gap / 2
            wanted.add(math.ceil(tall * 100) / 100)
    axes = axes_across(problem)
    if axes:
        wanted = {next((a for a in axes if a >= d - TOLERANCE_MM / 2), width) for d in wanted}
    depths = {d for d in wanted if d <= width / 2}
    if not depths:
        raise CannotFold("", 0.0, 0.0, "No piece is cut on two layers that fit under a partial fold.")
    # as deep as can be: (nearly) selvage to selvage
    depths.add(max((a for a in axes if a <= width / 2), default=width / 2))
    # deep folds first: what needs them is most of the cloth
    return sorted(depths, reverse=True)[:MAX_DEPTHS]


def may_double(piece: LayPiece, problem: Problem) -> bool:
    """Whether two copies, one the mirror image of the other, are two finished copies."""
    if problem.bars.y_repeat is not None and not problem.bars.y_axes and any(m.across for m in piece.match):
        return False
    return piece.pair or problem.reversible or piece.on_fold or is_mirror_symmetric(piece.outline)


def strip_for(
    problem: Problem,
    way: Way,
    matching: Matching,
    phases: Phases,
    *,
    offset: float = 0.0,
    folded_at: float = 0.0,
    copies: dict[str, int] | None = None,
) -> Strip:
    """The strip of one way to fold. Raises :class:`CannotFold` when a piece cannot lie on it.

    ``offset``: where along the cloth the strip begins; ``copies`` limits how many of each piece it takes;
    ``folded_at``: for crosswise folds, where the fold lies when that matters.
    """
    maker = _Maker(problem, way, matching, phases, offset)
    parts: list[Part] = []
    for piece in problem.pieces:
        made = maker.parts(piece, None if copies is None else copies.get(piece.id, 0))
        parts += [replace(part, called=piece.called) for part in made]
    low, high = min(r.low for r in way.regions), max(r.high for r in way.regions)
    bars = problem.bars
    matched = any(p.match or p.centre_on_axis for p in problem.pieces)
    return Strip(
        way.fold,
        low,
        high,
        problem.gap,
        tuple(parts),
        tuple(_obstacles(problem, way, offset, folded_at)),
        way.fold_at,
        2 if way.crosswise else 1,
        (bars.x_repeat or 0.0) if matched else 0.0,
        (bars.y_repeat or 0.0) if matched else 0.0,
        folded_at,
    )


class _Maker:
    """Makes the parts of pieces on one way to fold."""

    def __init__(self, problem: Problem, way: Way, matching: Matching, phases: Phases, offset: float) -> None:
        self.problem, self.way, self.matching, self.phases, self.offset = problem, way, matching, phases, offset
        self.doubles = [r for r in way.regions if r.layers == 2]

    def image_turn(self, turn: int) -> int:
        """The turn of the copy on the hidden layer."""
        return (180 - turn) % 360 if self.way.crosswise else -turn % 360

    def parts(self, piece: LayPiece, limit: int | None) -> list[Part]:
        problem, way = self.problem, self.way
        if way.crosswise and (piece.match or piece.centre_on_axis):
            raise CannotFold(
                piece.id,
                0.0,
                0.0,
                f"“{piece.called}” is to match the bars, and on a crosswise fold the layers' bars do not meet.",
            )
        if piece.border is not None and way.fold not in ("open", "crosswise"):
            raise CannotFold(
                piece.id,
                0.0,
                0.0,
                f"“{piece.called}” is cut with its hem at one selvage, and this fold lays the selvages elsewhere.",
            )
        turns = turns_for(piece, problem)
        plain, mirrored = self._wanted(piece, limit)
        slid = self._sliding(piece) if limit is None else []
        area = piece_area(piece)
        ring = whole_ring(piece)
        border = piece.border is not None
        if piece.on_fold:
            ring = np.array(whole_polygon(piece.outline).exterior.coords[:-1])
            halves = self._half_variants(piece, turns)
            if halves is not None:
                axis = "x" if way.crosswise else "y"
                return [*slid, *[Part(piece.id, 1, area / 2, halves, border, axis)] * (plain + mirrored)]
        paired = [t for t in turns if self.image_turn(t) in turns]
        if way.crosswise and piece.border is not None:
            # the copy behind has its hem at the same selvage and its top to the same side
            paired = list(turns)
        parts = slid
        two = 0
        if self.doubles and paired and may_double(piece, problem):
            free = self._mirrors_freely(piece)
            two = (plain + mirrored) // 2 if free else min(plain, mirrored)
            doubled = self._variants(piece, ring, [(t, m) for m in (False, True) for t in paired], self.doubles, True)
            if not doubled:
                two = 0
            parts += [Part(piece.id, 2, area, doubled, border)] * two
            if free:
                plain, mirrored = plain + mirrored - 2 * two, 0
            else:
                plain, mirrored = plain - two, mirrored - two
        free = self._mirrors_freely(piece)
        for number, flips in ((plain, (False, True) if problem.reversible else (False,)), (mirrored, (True,))):
            if number:
                choices = [(t, m) for m in (flips if not free or problem.reversible else (False,)) for t in turns]
                single = self._variants(piece, ring, choices, list(way.regions), False)
                if not single:
                    raise self._too_wide(piece, ring, choices)
                parts += [Part(piece.id, 1, area, single, border)] * number
        return parts

    def _sliding(self, piece: LayPiece) -> list[Part]:
        """Parts for the copies that move along only. Two that are images of each other in a fold move as one."""
        parts = []
        left = list(piece.sliding)
        if left and self.way.crosswise:
            why = f"“{piece.called}” may only slide along, and a crosswise fold may lie anywhere along the cloth."
            raise CannotFold(piece.id, 0.0, 0.0, why)
        while left:
            f = left.pop(0)
            halves = self._half_variants(piece, (f.turn,)) if piece.on_fold else None
            on_it = [v for v in halves or () if v.turn == f.turn and abs(v.low - f.y) <= TOLERANCE_MM]
            if on_it:
                parts.append(Part(piece.id, 1, piece_area(piece) / 2, tuple(on_it), False, "y", f.x - self.offset))
                continue
            image = next((o for o in left if self._images(f, o)), None) if not piece.on_fold else None
            if image is not None:
                left.remove(image)
            found = [v for one in (f, image) if one is not None for v in self._slides(piece, one, image is not None)]
            if not found:
                why = f"“{piece.called}” may only slide along, and there is no place for it on this fold where it lies."
                raise CannotFold(piece.id, 0.0, 0.0, why)
            border = piece.border is not None
            parts.append(
                Part(piece.id, found[0].layers, piece_area(piece), tuple(found), border, "", f.x - self.offset)
            )
        return parts

    def _images(self, f: Fixed, other: Fixed) -> bool:
        """Whether two copies lie on each other in a fold."""
        same = abs(f.x - other.x) <= TOLERANCE_MM and f.mirrored != other.mirrored
        over = any(abs(f.y + other.y - 2 * y) <= TOLERANCE_MM for y in self.way.fold_at)
        return same and over and other.turn == self.image_turn(f.turn)

    def _slides(self, piece: LayPiece, f: Fixed, double: bool) -> list[Variant]:
        """How a copy may slide where it shows on the layer that is seen."""
        ring = np.array(whole_polygon(piece.outline).exterior.coords[:-1]) if piece.on_fold else whole_ring(piece)
        one = pose(ring, f.turn, f.mirrored)
        low, high = f.y + float(one.ring[:, 1].min()), f.y + float(one.ring[:, 1].max())
        made: list[Variant] = []
        for region in self.doubles if double else [self._seen()]:
            if low < region.low - TOLERANCE_MM or high > region.high + TOLERANCE_MM:
                continue
            images = (Image(f.turn, f.mirrored), *([self._behind(one, region)] if double else []))
            for along, across in self._bounds(piece, one):
                if across.base is None or self._on(f.y, across):
                    made.append(self._variant(one, f.y, f.y, len(images), images, along, Bound()))
        return made

    def _seen(self) -> Region:
        """All that is seen of the cloth, as one."""
        regions = self.way.regions
        return Region(min(r.low for r in regions), max(r.high for r in regions), 1)

    def _mirrors_freely(self, piece: LayPiece) -> bool:
        return self.problem.reversible or piece.on_fold or (not piece.pair) or is_mirror_symmetric(piece.outline)

    def _wanted(self, piece: LayPiece, limit: int | None) -> tuple[int, int]:
        """Copies still to be laid: as drawn, and mirrored."""
        if self._mirrors_freely(piece):
            plain, mirrored = piece.copies - len(piece.fixed), 0
        else:
            plain = piece.copies // 2 - sum(not f.mirrored for f in piece.fixed)
            mirrored = piece.copies // 2 - sum(f.mirrored for f in piece.fixed)
        if limit is not None:
            if mirrored and plain:
                two = min(limit // 2, plain, mirrored)
                left = limit - 2 * two
                plain, mirrored = two + min(left, plain - two), two + max(0, left - (plain - two))
            else:
                plain, mirrored = min(plain, limit), min(mirrored, limit)
        return plain, mirrored

    def _half_variants(self, piece: LayPiece, turns: tuple[int, ...]) -> tuple[Variant, ...] | None:
        """Half the piece with its edge on a fold; None when no fold of this way runs along its centre."""
        half = np.array(piece.outline, dtype=np.float64)
        made: list[Variant] = []
        if self.way.crosswise:
            choices = [(270, False), (90, True)]
            for one in poses(half, [(t, m) for t, m in choices if t in turns]):
                region = self.way.regions[0]
                low, high = self._limits(one.ring, region)
                if high >= low:
                    made.append(
                        Variant(
                            one.turn, one.mirrored, one.ring, low, high, 2, (Image(one.turn, one.mirrored),), 0.0, 1e7
                        )
                    )
            return tuple(made) or None
        if piece.grain != "lengthwise" or piece.border is not None:
            return None
        for region in self.doubles:
            if region.fold is None:
                continue
            y, side = region.fold
            # turned end for end the half must also be mirrored to stay on its side of the fold
            choices = [(0, False), (180, True)] if side > 0 else [(0, True), (180, False)]
            for one in poses(half, [(t, m) for t, m in choices if t in turns]):
                if float(np.ptp(one.ring[:, 1])) > region.high - region.low + TOLERANCE_MM / 2:
                    continue
                for along, across in self._bounds(piece, one):
                    if across.base is not None and not self._on(y, across):
                        continue
                    made.append(self._variant(one, y, y, 2, (Image(one.turn, one.mirrored),), along, Bound()))
        return tuple(made) or None

    def _on(self, y: float, bound: Bound) -> bool:
        repeat = self.problem.bars.y_repeat or 1.0
        gone = abs(y - (bound.base or 0.0)) % repeat
        return min(gone, repeat - gone) <= TOLERANCE_MM / 2

    def _limits(self, ring: Ring, region: Region) -> tuple[float, float]:
        """Where the origin may lie across; a gap is kept to the image behind a fold too."""
        half = self.problem.gap / 2
        low_fold = region.fold is not None and region.fold[1] > 0
        high_fold = region.fold is not None and region.fold[1] < 0
        low = region.low + (half if low_fold else 0.0) - float(ring[:, 1].min())
        high = region.high - (half if high_fold else 0.0) - float(ring[:, 1].max())
        if low - TOLERANCE_MM / 2 <= high < low:
            low = high = (low + high) / 2
        return low, high

    def _bounds(self, piece: LayPiece, one: Pose) -> list[tuple[Bound, Bound]]:
        return self.matching.bounds(piece, one.turn, one.mirrored, self.phases)

    def _variants(
        self, piece: LayPiece, ring: Ring, choices: list[tuple[int, bool]], regions: list[Region], double: bool
    ) -> tuple[Variant, ...]:
        made: list[Variant] = []
        matched = bool(piece.match or piece.centre_on_axis)
        for one in poses(ring, choices) if not matched else [pose(ring, t, m) for t, m in choices]:
            for along, across in self._bounds(piece, one):
                for region in regions:
                    low, high = self._limits(one.ring, region)
                    if piece.border is not None:
                        y = piece.border.distance
                        edge = self.problem.width - y
                        low = high = (
                            y - float(one.ring[:, 1].min())
                            if piece.border.selvage == "low"
                            else edge - float(one.ring[:, 1].max())
                        )
                    if high < low:
                        continue
                    images = [Image(one.turn, one.mirrored)]
                    if double:
                        images.append(self._behind(one, region))
                    made.append(self._variant(one, low, high, len(images), tuple(images), along, across))
        return tuple(made)

    def _behind(self, one: Pose, region: Region) -> Image:
        turn = self.image_turn(one.turn)
        if self.way.crosswise:
            return Image(turn, not one.mirrored, along=-1.0)
        assert region.fold is not None
        return Image(turn, not one.mirrored, across=-1.0, lift=2 * region.fold[0])

    def _variant(
        self, one: Pose, low: float, high: float, layers: int, images: tuple[Image, ...], along: Bound, across: Bound
    ) -> Variant:
        bars = self.problem.bars
        return Variant(
            one.turn,
            one.mirrored,
            one.ring,
            low,
            high,
            layers,
            images,
            (along.base - self.offset) if along.base is not None else 0.0,
            (bars.x_repeat or 0.0) if along.base is not None else 0.0,
            along.root,
            across.base if across.base is not None else 0.0,
            (bars.y_repeat or 0.0) if across.base is not None else 0.0,
            across.root,
            across.sign,
        )

    def _too_wide(self, piece: LayPiece, ring: Ring, choices: list[tuple[int, bool]]) -> CannotFold:
        across = min(float(np.ptp(pose(ring, t, m).ring[:, 1])) for t, m in choices)
        width = max(r.high - r.low for r in self.way.regions)
        if across <= width + TOLERANCE_MM:
            return CannotFold(
                piece.id,
                0.0,
                0.0,
                f"There is no place across the cloth at which “{piece.called}” meets the bars as asked.",
            )
        return CannotFold(piece.id, across, width, called=piece.called)


def fixed_ring(piece: LayPiece, fixed: Fixed) -> Ring:
    """The outline of a fixed copy on the open cloth."""
    ring = whole_ring(piece) if not piece.on_fold else np.array(whole_polygon(piece.outline).exterior.coords[:-1])
    placed: Ring = pose(ring, fixed.turn, fixed.mirrored).ring + np.array([fixed.x, fixed.y])
    return placed


def fixed_end(problem: Problem) -> float:
    """How far along the fixed copies reach."""
    return max(
        (float(fixed_ring(p, f)[:, 0].max()) for p in problem.pieces for f in p.held),
        default=0.0,
    )


def _obstacles(problem: Problem, way: Way, offset: float, folded_at: float) -> list[Obstacle]:
    """Blocked areas and fixed copies as they show on the visible layer, from every layer."""
    found: list[tuple[Ring, bool, str]] = []
    for area in problem.blocked:
        found.append((np.array(box(*area).exterior.coords[:-1]), is_reserved(problem, area), ""))
    found += [(np.array(outline, dtype=np.float64), False, "") for outline in problem.blocked_shapes]
    for piece in problem.pieces:
        found += [(fixed_ring(piece, f), False, piece.id) for f in piece.held]
    made: list[Obstacle] = []
    for ring, reserved, name in found:
        if way.crosswise:
            for sign in (1.0, -1.0):
                made.append(Obstacle((ring - np.array([folded_at, 0.0])) * np.array([sign, 1.0]), reserved))
            continue
        moved = ring - np.array([offset, 0.0])
        made.append(Obstacle(moved, reserved))
        for y in way.fold_at:
            low, high = float(ring[:, 1].min()), float(ring[:, 1].max())
            if name and low < y - TOLERANCE_MM and high > y + TOLERANCE_MM:
                if abs(low + high - 2 * y) > 2 * TOLERANCE_MM:
                    raise CannotFold(name, 0.0, 0.0, f"“{name}” is fixed where this fold would run through it.")
                continue
            made.append(Obstacle(moved * np.array([1.0, -1.0]) + np.array([0.0, 2 * y]), reserved))
    return made


def unfold(
    strip: Strip, placed: tuple[Placed, ...], length: float, offset: float, section: int
) -> tuple[list[Placement], list[Cut]]:
    """What is pinned and what is cut; ``copy`` is numbered by :func:`number`. ``length``: of the strip."""
    laid: list[Placement] = []
    cut: list[Cut] = []
    shift = offset + (length if strip.lengths == 2 else 0.0)
    for place in placed:
        part, variant = strip.parts[place.part], place.variant
        for k, image in enumerate(variant.images):
            x = round(shift + image.along * place.x + image.shift, 4)
            y = round(image.across * place.y + image.lift, 4)
            cut.append(Cut(part.piece, 0, x, y, image.turn, image.mirrored))
            if k == 0:
                laid.append(Placement(part.piece, section, x, y, variant.turn, variant.mirrored, variant.layers))
    return laid, cut


def number(cuts: list[Cut]) -> tuple[Cut, ...]:
    """The copies of each piece numbered from 1."""
    made: dict[str, int] = {}
    out = []
    for entry in cuts:
        made[entry.piece] = made.get(entry.piece, 0) + 1
        out.append(replace(entry, copy=made[entry.piece]))
    return tuple(out)


def section_of(strip: Strip, start: float, length: float) -> Section:
    """The stretch of cloth a strip of ``length`` takes."""
    end = start + length * strip.lengths
    at = (start + length,) if strip.lengths == 2 else strip.fold_at
    return Section(round(start, 4), round(end, 4), strip.fold, tuple(round(a, 4) for a in at))
