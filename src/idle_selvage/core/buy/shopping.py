"""The list for the shop: everything that must be in the house before the first cut, and how it is pre-treated."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from ..cloth.bars import Bar
from ..wording import Sentence
from ..working import Figure, Source, Step, about, count, length

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
#: Thread per length of seam, and per length of cut edge overcast; and what a reel holds, mm.
LOCKSTITCH = 2.8
OVERCAST = 3.0
REEL_MM = 200_000.0
#: One more than is needed breaks no budget and a missing one stops the work.
SAFETY = 1.25
THREAD = Source(
    "from memory",
    "thread for a seam",
    f"about {LOCKSTITCH:g} times the seam for a lockstitch and {2 * OVERCAST:g} to overcast both edges",
)


def dominant_colour(ground: str, *sequences: Sequence[Bar]) -> tuple[str, float]:
    """The colour that takes most of the cloth, and its share of it; thread follows it.

    Each direction's bars cover the cloth in turn: a colour's share is the mean of its shares in the directions
    that have bars.
    """
    shares: dict[str, float] = {}
    # bars that have no width yet cover nothing
    used = [bars for bars in sequences if math.fsum(bar.width for bar in bars) > 0.0]
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
            Step("seams", "cut edges ÷ 2", (("cut edges", length(perimeters)),), length(seams), "each joins two"),
            Step(
                "thread",
                f"(seams × {LOCKSTITCH:g} + cut edges × {OVERCAST:g}) × {SAFETY:g}",
                (("seams", length(seams)), ("cut edges", length(perimeters))),
                length(needed),
                "a quarter more to be sure",
            ),
            Step(
                "reels",
                "largest of (thread ÷ reel rounded up to 1, 1)",
                (("thread", length(needed)), ("reel", length(REEL_MM))),
                count(reels),
            ),
        ),
        sources=(THREAD,),
    )


#: A colour that covers more than this is the whole cloth's.
WHOLE = 0.995


def thread_colour(share: float) -> str:
    """What is told of the colour that thread follows, beside its name; nothing where it is the whole cloth's."""
    return "" if share > WHOLE else f", the colour of {100 * share:.0f} % of the cloth"


def reels_text(reels: Figure | None) -> Sentence:
    """How much thread to ask for; one reel until the edges are known."""
    if reels is None:
        return Sentence("1 reel")
    name = "reel" if reels.value == 1 else "reels"
    return Sentence("{n} {name} of {reel}", n=f"{reels.value:g}", name=name, reel=about(REEL_MM))
