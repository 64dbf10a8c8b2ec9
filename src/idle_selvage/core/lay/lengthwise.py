"""Bars along the garment: where each piece lies across the cloth so that they go on over its seams.

A seam between two pieces of one hand says that its places have one place on the bars; one between two of opposite
hands, as at the side seams of a pair, that the one lies where the other's mirror image does. So each piece lies at
``sign × t + shift`` for some ``t`` of its group, and a seam that mirrors a group in itself fixes ``t``.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, field

from .levels import FOLLOWS_MM, Standing, apart


@dataclass(frozen=True)
class AcrossTie:
    """A seam: its pieces by their keys, where its key point lies across each, mm, and whether a copy of the one meets a
    mirror image of the other there."""

    key: str
    a: str
    b: str
    at_a: float
    at_b: float
    mirrors: bool


@dataclass(frozen=True)
class Across:
    """Where the pieces lie. ``shift``: what the origin of each has one place on the bars with, less its group's free
    place, mm; ``fixed``: the groups whose place is no longer free; ``standing`` and ``off`` as of the levels."""

    shift: dict[str, float]
    group: dict[str, str]
    fixed: frozenset[str]
    standing: dict[str, Standing]
    off: dict[str, float]


@dataclass
class _Part:
    """Pieces that lie together: each at ``sign × t + shift``; ``t`` once it is known."""

    first: str
    pieces: dict[str, tuple[int, float]] = field(default_factory=dict)
    t: float | None = None


def lengthwise(ties: Sequence[AcrossTie], centred: Collection[str], axis: float, repeat: float) -> Across:
    """Place pieces across the bars, ``ties`` in the order of their priority; the ``centred`` ones with their middle on
    the ``axis``, and what is mirrored about it. ``repeat`` of the bars across the cloth, mm."""
    parts: dict[str, _Part] = {}
    standing: dict[str, Standing] = {}
    for tie in ties:
        for piece in (tie.a, tie.b):
            if piece not in parts:
                # one whose middle lies on the axis is where it is
                parts[piece] = _Part(tie.key, {piece: (1, 0.0)}, axis if piece in centred else None)
        if _met(tie, parts, axis, repeat):
            standing[tie.key] = "exact"
    for tie in ties:
        part = parts[tie.a]
        if part.t is None and any(sign < 0 for sign, _ in part.pieces.values()):
            # mirrored in itself, it must lie somewhere: with this seam on the axis
            sign, shift = part.pieces[tie.a]
            part.t = sign * (axis - tie.at_a - shift)
    off = {tie.key: _miss(tie, parts, axis, repeat) for tie in ties}
    for key, by in off.items():
        standing[key] = standing.get(key, "follows") if abs(by) <= FOLLOWS_MM else "misses"
    places = {piece: _at(part, piece) for piece, part in parts.items()}
    fixed = frozenset(piece for piece, part in parts.items() if part.t is not None)
    return Across(places, {piece: part.first for piece, part in parts.items()}, fixed, standing, off)


def _at(part: _Part, piece: str) -> float:
    sign, shift = part.pieces[piece]
    return sign * (part.t or 0.0) + shift


def _met(tie: AcrossTie, parts: dict[str, _Part], axis: float, repeat: float) -> bool:
    """Lay the pieces of a seam so that it meets, where something still gives."""
    a, b = parts[tie.a], parts[tie.b]
    s, c = a.pieces[tie.a]
    r, d = b.pieces[tie.b]
    # place of a's key: s·t + c + at_a; of b's: r·u + d + at_b, or its mirror image
    turn = -1 if tie.mirrors else 1
    other = (d + tie.at_b) if not tie.mirrors else 2 * axis - d - tie.at_b
    if a is not b:
        if a.t is not None and b.t is not None:
            return False
        joins, into, by = (b, a, (s, c + tie.at_a)) if b.t is None else (a, b, (turn * r, other))
        mine = (turn * r, other) if b.t is None else (s, c + tie.at_a)
        # joins.t = sign·into.t + shift
        sign = mine[0] * by[0]
        shift = mine[0] * (by[1] - mine[1])
        for piece, (q, e) in joins.pieces.items():
            into.pieces[piece] = (q * sign, q * shift + e)
            parts[piece] = into
        return True
    if s == turn * r or a.t is not None:
        return False
    # s·t + c + at_a = −s·t + other
    a.t = s * apart(other - c - tie.at_a, 0.0, repeat) / 2.0
    return True


def _miss(tie: AcrossTie, parts: dict[str, _Part], axis: float, repeat: float) -> float:
    there = _at(parts[tie.b], tie.b) + tie.at_b
    return apart(_at(parts[tie.a], tie.a) + tie.at_a, 2 * axis - there if tie.mirrors else there, repeat)
