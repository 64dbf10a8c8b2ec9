"""Matching told a second time, from docs/lay-formats.md and what a seam is, with shapely: nothing of ours is used.

A seam: two runs of places in the pieces' own axes, each from where sewing begins; both are sewn at equal shares of
their lengths. ``mirrors``: a copy of piece a that is cut as drawn meets one of piece b that is mirrored. A copy on the
cloth: mirrored ? (x, −y) : (x, y), turned counter-clockwise about the origin, then moved. A piece on the fold is its
half and the reflection of that in y = 0.
"""

from __future__ import annotations

from typing import Any

from shapely.affinity import affine_transform, rotate, translate
from shapely.geometry import LineString

Run = list[tuple[float, float]]


def on_cloth(run: Run, entry: dict[str, Any], *, reflected: bool = False) -> LineString:
    """A run of a piece where a copy of it is cut."""
    line = LineString(run)
    if reflected:
        line = affine_transform(line, [1, 0, 0, -1, 0, 0])
    if entry["mirrored"]:
        line = affine_transform(line, [1, 0, 0, -1, 0, 0])
    return translate(rotate(line, entry["turn"], origin=(0, 0)), entry["x"], entry["y"])


def halves(problem: dict[str, Any], lay: dict[str, Any], piece: str) -> list[tuple[dict[str, Any], bool, bool]]:
    """Every copy with whether it is of the drawn hand, and whether its reflected half is meant."""
    told = next(p for p in problem["pieces"] if p["id"] == piece)
    cuts = [entry for entry in lay["cut"] if entry["piece"] == piece]
    if told.get("on_fold"):
        return [(entry, True, False) for entry in cuts] + [(entry, False, True) for entry in cuts]
    return [(entry, not (told.get("pair") and entry["mirrored"]), False) for entry in cuts]


def meetings(
    problem: dict[str, Any], lay: dict[str, Any], a: str, b: str, *, mirrors: bool
) -> list[tuple[tuple[dict[str, Any], bool], tuple[dict[str, Any], bool]]]:
    """Which copies are sewn together: those of a as drawn with those of b that fit, then the mirrored ones."""
    ours, theirs = halves(problem, lay, a), halves(problem, lay, b)
    if a == b:
        drawn = [one for one in ours if one[1]]
        if mirrors:
            other = [one for one in ours if not one[1]]
            pairs = list(zip(drawn, other, strict=False))
        else:
            pairs = [(one, drawn[(n + 1) % len(drawn)]) for n, one in enumerate(drawn)]
        return [((p[0], p[2]), (q[0], q[2])) for p, q in pairs]
    found = []
    for hand in (True, False):
        mine = [one for one in ours if one[1] == hand]
        fits = [one for one in theirs if one[1] == (hand != mirrors)]
        found += [((p[0], p[2]), (q[0], q[2])) for p, q in zip(mine, fits, strict=False)]
    return found


def missing_by(one: LineString, other: LineString, repeat: float, axes: list[float], k: int, shares: list[float]
               ) -> list[float]:  # fmt: skip
    """By how much the bars of one direction (k 0: that follow along x) miss at these shares of a seam, unsigned."""
    p = [one.interpolate(share, normalized=True).coords[0][k] for share in shares]
    q = [other.interpolate(share, normalized=True).coords[0][k] for share in shares]
    moves = sum((p[n + 1] - p[n]) * (q[n + 1] - q[n]) for n in range(len(shares) - 1))
    offs = []
    for u, v in zip(p, q, strict=True):
        there = 2 * axes[0] - v if moves < -1e-9 and axes else v
        off = (u - there) % repeat
        offs.append(min(off, repeat - off))
    return offs
