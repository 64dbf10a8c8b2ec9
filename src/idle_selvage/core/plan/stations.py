"""The run of points through stations read along the grainline with a tape."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .draft import SAME_PLACE_MM, DraftPoint, halved, keyed, outline_of
from .draft import Draft as _Draft
from .outline import BadPiece, Outline

#: On which sides of a station the outline has a corner.
Corners = Literal["", "left", "right", "both"]


@dataclass(frozen=True)
class Station:
    """At ``along`` millimetres from the bottom end, the edge lies ``left`` and ``right`` of the tape; None: nothing was
    read on that side. A negative distance lies on the other side. ``corners``: where the edge turns sharply."""

    along: float
    left: float | None
    right: float | None
    corners: Corners = ""


def points_from_stations(stations: Sequence[Station], *, smooth: bool, half: bool) -> tuple[DraftPoint, ...]:
    """The points through typed stations, the right side up and the left side down again.

    ``smooth``: between the ends every point is smooth, but for those said to be corners. Of a ``half`` only the left
    is used; its fold runs along the tape. Raises :class:`BadPiece`.
    """
    if len(stations) < 2:
        raise BadPiece("An outline needs at least two stations: one at the bottom end and one at the top.")
    order = sorted(stations, key=lambda s: s.along)
    if order[-1].along - order[0].along < SAME_PLACE_MM:
        raise BadPiece("All stations lie at the same place along the grain; the tape runs from the bottom end up.")
    left = _side([(s.along, s.left, s.corners in ("left", "both")) for s in order], smooth)
    if not left:
        raise BadPiece("Nothing was read on the left of the tape.")
    if half:
        low, high = order[0].along, order[-1].along
        right = [DraftPoint(low, 0.0, straight=True), DraftPoint(high, 0.0)]
    else:
        right = _side([(s.along, None if s.right is None else -s.right, s.corners in ("right", "both")) for s in order],
                      smooth)  # fmt: skip
        if not right:
            raise BadPiece("Nothing was read on the right of the tape. Cut on the fold, it needs none: then say so.")
    ring: list[DraftPoint] = []
    for point in [*right, *reversed(left)]:
        if not ring or math.dist(ring[-1].at, point.at) >= SAME_PLACE_MM:
            ring.append(point)
    while len(ring) > 1 and math.dist(ring[0].at, ring[-1].at) < SAME_PLACE_MM:
        ring.pop()
    found = keyed(ring)
    return halved(_Draft(found, half=True)).points if half else found


def _side(read: Sequence[tuple[float, float | None, bool]], smooth: bool) -> list[DraftPoint]:
    there = [(along, across, corner) for along, across, corner in read if across is not None]
    last = len(there) - 1
    return [
        DraftPoint(along, across, smooth and not corner and 0 < i < last)
        for i, (along, across, corner) in enumerate(there)
    ]


def outline_from_stations(stations: Sequence[Station], *, smooth: bool, on_fold: bool) -> Outline:
    """The outline through typed stations. Raises :class:`BadPiece`."""
    return outline_of(_Draft(points_from_stations(stations, smooth=smooth, half=on_fold), half=on_fold))
