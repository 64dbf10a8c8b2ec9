"""The edges of a piece that run up it: where a level round the garment crosses them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from .draft import Draft, run_length
from .outline import Outline
from .piece import Piece
from .sides import Side, seam_run, sewn_edges

#: An edge that spans so little more across than along is none that runs up the piece.
ALONG_SHARE = 1.0


@dataclass(frozen=True)
class LevelSide:
    """An edge that runs up a piece: its side, whether it is drawn upwards, its length on the seam line, and how far
    along it (as it is drawn) the level lies, mm."""

    side: Side
    upwards: bool
    long: float
    key: float


def level_sides(draft: Draft, piece: Piece, above: float) -> tuple[LevelSide, ...]:
    """The edges that run up a piece, the most to the right first, with a level ``above`` mm from the low end of its
    seam line. Raises :class:`BadPiece`."""
    runs = [(edge.side, seam_run(piece, draft, edge.side)) for edge in sewn_edges(draft) if edge.whole]
    steep = [(side, run) for side, run in runs if _runs_up(run)]
    if not steep:
        return ()
    low = min(x for _, run in runs for x, _ in run)
    longest = max(abs(run[-1][0] - run[0][0]) for _, run in steep)
    # a notch in the outline makes short ones of no account
    found = [(side, run) for side, run in steep if abs(run[-1][0] - run[0][0]) >= longest / 2]
    found.sort(key=lambda one: sum(y for _, y in one[1]) / len(one[1]))
    return tuple(
        LevelSide(side, run[-1][0] > run[0][0], run_length(run), crossing(run, low + above)) for side, run in found
    )


def _runs_up(run: Outline) -> bool:
    (ax, ay), (bx, by) = run[0], run[-1]
    return abs(bx - ax) > ALONG_SHARE * abs(by - ay)


def crossing(run: Outline, level: float) -> float:
    """How far along a run it first comes to a level, mm; at the end that is nearer to it where it never does."""
    gone = 0.0
    for a, b in pairwise(run):
        long = math.dist(a, b)
        if min(a[0], b[0]) <= level <= max(a[0], b[0]) and a[0] != b[0]:
            return gone + long * (level - a[0]) / (b[0] - a[0])
        gone += long
    return 0.0 if abs(run[0][0] - level) <= abs(run[-1][0] - level) else gone
