"""Bars across the garment: from the seams that shall meet to where each piece lies on the bars along the cloth.

Pieces joined by seams form a graph. A seam says that its key point has the same place on the bars on both pieces; seams
are taken by priority, and each that joins two parts of the graph for the first time can be met exactly: together they
are a spanning tree. One that closes a ring follows by itself, or misses by what the ring comes to.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

#: What misses by no more than this follows by itself, mm. From memory: no tape shows it.
FOLLOWS_MM = 0.05

Standing = Literal["exact", "follows", "misses"]


@dataclass(frozen=True)
class Tie:
    """A seam for the graph: the pieces by their keys, and where its key point lies along the grain of each, mm."""

    key: str
    a: str
    b: str
    at_a: float
    at_b: float


@dataclass(frozen=True)
class Levels:
    """Where the pieces lie. ``zero``: the place along each piece's grain that has one place on the bars with that of
    its ``group``; ``off``: by how much each seam's key points miss one another on the bars, mm, signed."""

    zero: dict[str, float]
    group: dict[str, str]
    standing: dict[str, Standing]
    off: dict[str, float]


def apart(a: float, b: float, repeat: float) -> float:
    """By how much a lies before b on bars that repeat, mm, from half a repeat back to half a repeat on."""
    return (a - b + repeat / 2.0) % repeat - repeat / 2.0


def levels(ties: Sequence[Tie], repeat: float) -> Levels:
    """Place pieces on the bars, ``ties`` in the order of their priority; ``repeat`` of the bars along the cloth, mm.

    No other placing meets a seam that this one misses without missing one of a higher priority.
    """
    of: dict[str, str] = {}
    zero: dict[str, float] = {}
    members: dict[str, list[str]] = {}
    standing: dict[str, Standing] = {}
    for tie in ties:
        for piece, at in ((tie.a, tie.at_a), (tie.b, tie.at_b)):
            if piece not in of:
                of[piece], zero[piece], members[tie.key + piece] = tie.key + piece, at, [piece]
        ours, theirs = of[tie.a], of[tie.b]
        if ours == theirs:
            continue
        # theirs is moved as a whole, so that this seam meets
        by = (zero[tie.a] - tie.at_a) - (zero[tie.b] - tie.at_b)
        for piece in members.pop(theirs):
            zero[piece] += by
            of[piece] = ours
            members[ours].append(piece)
        standing[tie.key] = "exact"
    first: dict[str, Tie] = {}
    for tie in ties:
        first.setdefault(of[tie.a], tie)
    for root, tie in first.items():
        # a group's zero is the key point of its first seam
        by = tie.at_a - zero[tie.a]
        for piece in members[root]:
            zero[piece] += by
    off = {tie.key: apart(tie.at_a - zero[tie.a], tie.at_b - zero[tie.b], repeat) for tie in ties}
    for tie in ties:
        standing.setdefault(tie.key, "follows" if abs(off[tie.key]) <= FOLLOWS_MM else "misses")
    return Levels(zero, {piece: first[root].key for piece, root in of.items()}, standing, off)
