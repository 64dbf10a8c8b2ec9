"""The list for the shop: everything that must be in the house before the first cut, and how it is pre-treated."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from ..cloth.bars import Bar
from ..working import Figure, Source, Step, count, length

ItemKind = Literal["cloth", "lining", "interfacing", "thread", "notion", "trim"]

#: What a kind of notion or trim needs before it is sewn in. Common practice, no source.
PRETREAT: dict[str, tuple[str, str]] = {
    "zip": ("zip", "soak in warm water and dry flat if its tape is cotton"),
    "button": ("buttons", "none; check that they take the garment's wash"),
    "elastic": ("elastic", "wash once or steam it unstretched, then measure"),
    "tape": ("bias or twill tape", "wash with the cloth: it shrinks and puckers the edge"),
    "ribbon": ("ribbon or braid", "wash with the cloth, and try it for bleeding on a wet white rag"),
    "lace": ("lace edging", "soak warm and dry flat"),
    "pad": ("shoulder pads", "none; check that they take the garment's wash"),
    "hook": ("hooks, eyes or snaps", "none"),
    "thread": ("more thread", "none"),
    "needle": ("needles", "none"),
    "other": ("something else", "ask how it takes the garment's wash"),
}
THREAD = Source(
    "from memory", "thread for a seam", "about 2.8 times the seam for a lockstitch and 6 to overcast both edges"
)
#: Thread per length of seam, and per length of cut edge overcast; and what a reel holds, mm.
LOCKSTITCH = 2.8
OVERCAST = 3.0
REEL_MM = 200_000.0
#: One more than is needed breaks no budget and a missing one stops the work.
SAFETY = 1.25


def dominant_colour(ground: str, *sequences: Sequence[Bar]) -> tuple[str, float]:
    """The colour that takes most of the cloth, and its share of it; thread follows it.

    Each direction's bars cover the cloth in turn: a colour's share is the mean of its shares in the directions
    that have bars.
    """
    shares: dict[str, float] = {}
    used = [bars for bars in sequences if bars]
    for bars in used:
        whole = math.fsum(bar.width for bar in bars)
        for bar in bars:
            key = bar.colour.lower()
            shares[key] = shares.get(key, 0.0) + bar.width / whole / len(used)
    if not shares:
        return ground.lower(), 1.0
    colour = max(shares, key=lambda c: shares[c])
    return colour, shares[colour]


def thread_needed(perimeters: float) -> Figure:
    """Thread for pieces whose cut lines come to ``perimeters`` mm: nearly every edge is sewn to another."""
    seams = perimeters / 2
    needed = (seams * LOCKSTITCH + perimeters * OVERCAST) * SAFETY
    reels = max(1, math.ceil(needed / REEL_MM))
    return Figure(
        reels,
        "count",
        steps=(
            Step("seams", "half of all cut edges", (("cut edges", length(perimeters)),), length(seams)),
            Step(
                "thread",
                "(seams × 2.8 + cut edges × 3) × 1.25 to be sure",
                (("seams", length(seams)), ("cut edges", length(perimeters))),
                length(needed),
            ),
            Step("reels", "thread ÷ 200 m, rounded up", (("thread", length(needed)),), count(reels)),
        ),
        sources=(THREAD,),
    )
