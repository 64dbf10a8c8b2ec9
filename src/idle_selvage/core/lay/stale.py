"""Is a lay still right: what changed since it was made, by comparing two problems."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace

import shapely
from shapely.geometry import LinearRing

from ..plan.outline import TOLERANCE_MM, Outline
from ..shrink.shrinkage import Direction
from ..wording import Sentence
from ..working import length, percent
from .problem import LayPiece, Match, Problem

#: Shrinkages and widths nearer than this are the same: per cent, and mm.
SAME_PERCENT = 0.05
SAME_WIDTH_MM = 0.05

_WAYS: dict[Direction, str] = {"warp": "along", "weft": "across"}


def same_pieces(then: Problem, now: Problem) -> bool:
    """Whether both ask for the same pieces, their outlines within a tenth of a millimetre."""
    if then.pieces == now.pieces:
        return True
    if len(then.pieces) != len(now.pieces):
        return False
    pairs = zip(_groups_numbered(then), _groups_numbered(now), strict=True)
    return all(same_piece(a, b) for a, b in pairs)


def _groups_numbered(problem: Problem) -> list[LayPiece]:
    """Pieces whose points that meet are told from the first of their group, which is called by a number: neither its
    name nor from where it is measured asks anything of a lay."""
    numbers: dict[str, str] = {}
    first: dict[str, tuple[float, float]] = {}
    for piece in problem.pieces:
        for match in piece.match:
            numbers.setdefault(match.group, str(len(numbers)))
            first.setdefault(match.group, match.point)

    def told(m: Match) -> Match:
        x0, y0 = first[m.group]
        return replace(
            m,
            group=numbers[m.group],
            point=(m.point[0] - x0 if m.along else 0.0, m.point[1] - y0 if m.across else 0.0),
            phase_x=_phase(m.phase_x, x0, problem.bars.x_repeat),
            phase_y=_phase(m.phase_y, y0, problem.bars.y_repeat),
        )

    return [replace(piece, match=tuple(told(m) for m in piece.match)) for piece in problem.pieces]


def _phase(phase: float | None, begin: float, repeat: float | None) -> float | None:
    """A phase told from where its group begins, within one repeat; to a hundredth of a millimetre."""
    if phase is None or not repeat:
        return phase
    return round((phase - begin) % repeat, 2) % round(repeat, 2)


def same_piece(a: LayPiece, b: LayPiece) -> bool:
    """Whether two pieces are one for the lay: all that is asked of them alike, and the outline and what meets on it
    within a tenth of a millimetre."""
    if a == b:
        return True
    if replace(a, outline=(), match=()) != replace(b, outline=(), match=()) or len(a.match) != len(b.match):
        return False
    for one, other in zip(a.match, b.match, strict=True):
        if replace(one, point=(0.0, 0.0)) != replace(other, point=(0.0, 0.0)):
            return False
        if math.dist(one.point, other.point) > TOLERANCE_MM:
            return False
    return same_outline(a.outline, b.outline)


def same_outline(a: Outline, b: Outline) -> bool:
    """Whether no place of one outline is further than a tenth of a millimetre from the other."""
    if a == b:
        return True
    rings = [LinearRing(outline) for outline in (a, b)]
    # both are runs of chords, so that the furthest place of either is one of its points
    return all(
        float(shapely.distance(shapely.points(one.coords), other).max()) <= TOLERANCE_MM
        for one, other in (rings, rings[::-1])
    )


def changes(
    then: Problem, now: Problem, planned_then: Mapping[str, float], planned_now: Mapping[str, float]
) -> tuple[Sentence, ...]:
    """What changed since a lay was made for ``then``, each as the end of a sentence; none: it is still right.

    ``planned_…``: the shrinkages planned with, per cent, by direction.
    """
    found: list[Sentence] = []
    for direction, way in _WAYS.items():
        before, after = planned_then.get(direction), planned_now.get(direction)
        if before is not None and after is not None and abs(before - after) > SAME_PERCENT:
            told = "the shrinkage {way} to plan with went from {before} to {after}"
            found.append(Sentence(told, way=way, before=percent(before), after=percent(after)))
    if abs(then.width - now.width) > SAME_WIDTH_MM:
        told = "the usable width went from {before} to {after}"
        found.append(Sentence(told, before=length(then.width), after=length(now.width)))
    for changed, what in (
        (then.one_way != now.one_way, "the cloth's direction was changed"),
        (then.reversible != now.reversible, "which side shows was changed"),
        (then.gap != now.gap, "the room between pieces was changed"),
        (then.kept_off != now.kept_off, "the flaws to lay around were changed"),
        (then.bars != now.bars, "the bars to meet were changed"),
        (then.turn_on_bars != now.turn_on_bars, "whether pieces may be turned on the bars was changed"),
        (not same_pieces(then, now), "the pieces were changed"),
    ):
        if changed:
            found.append(Sentence(what))
    return tuple(found)
