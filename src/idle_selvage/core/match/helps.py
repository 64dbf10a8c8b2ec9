"""What to do about a seam whose bars do not meet: each way tried on the same pieces, and what it comes to."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..cloth.bars import BarPattern
from ..lay.joined import Joined
from ..lay.problem import Bars, LayPiece, piece_area
from ..plan.seams import Sewn
from ..wording import Sentence, listed
from ..working import gap, length
from .judged import Judged, foreseen, verdict_of

#: A piece no larger than this may go on the bias, or turned, so that nobody looks for the bars to meet: a pocket, a
#: flap, a placket, a yoke. From memory, mm².
SMALL_MM2 = 70_000.0
#: A help is told when it betters the worst place by at least this, mm.
WORTH_MM = 0.3

What = Literal["key", "first", "bias", "over", "binding"]


@dataclass(frozen=True)
class Way:
    """A way out: what it is, in words, and the furthest the bars would miss then, mm, where that was worked out;
    ``key_a``: the key point that would do it, mm along side a, for the *key* way."""

    what: What
    told: Sentence
    worst: float | None = None
    key_a: float | None = None


#: The seams placed anew, and what they come to.
Again = Callable[[Sequence[Sewn]], Joined]


def ways(
    one: Judged,
    every: Sequence[Sewn],
    before: Mapping[str, Judged],
    again: Again,
    bars: Bars,
    pieces: dict[str, LayPiece],
    *,
    across: BarPattern,
    reversible: bool,
) -> tuple[Way, ...]:
    """What can be done about a seam, the best first; nothing where its bars meet, or none are asked for.

    ``before``: every seam as it is foreseen now.
    """
    if one.verdict not in ("misses", "nearly"):
        return ()
    found: list[Way] = []
    now = before.get(one.sewn.seam.key)
    if one.sewn.seam.levels and bars.x_repeat is not None and now is not None:
        found += _other_key(one, every, again, bars, now)
        found += _first(one, every, again, bars, before)
    small = [pieces[side.piece] for side in (one.sewn.seam.a, one.sewn.seam.b) if side.piece in pieces]
    for piece in small:
        if piece_area(piece) / max(1, piece.copies) <= SMALL_MM2:
            told = "Cut {piece} on the bias, or turned, on purpose: nobody looks for its bars to meet."
            found.append(Way("bias", Sentence(told, piece=piece.called)))
    if one.sewn.seam.lengthwise and across.seen and not across.balanced and reversible:
        told = "The cloth has no wrong side: turn it over for one of each pair, and the bars mirror."
        found.append(Way("over", Sentence(told)))
    told = "Set it off with a plain binding or a piped edge, so that the bars need not run over it."
    found.append(Way("binding", Sentence(told)))
    return tuple(sorted(found, key=lambda way: np.inf if way.worst is None else way.worst))


def _other_key(one: Judged, every: Sequence[Sewn], again: Again, bars: Bars, now: Judged) -> list[Way]:
    """The key point moved to where the bars miss by as little as they can on both sides of it: there the mismatch lies
    midway between its ends."""
    if now.worst is None:
        return []
    strip = now.mets[0].strips[0]
    middle = (float(strip.off.max()) + float(strip.off.min())) / 2
    there = round(float(strip.at[int(np.abs(strip.off - middle).argmin())]), 1)
    tried = _with_key(one.sewn, there)
    worst = _worst(tried, [tried if s.seam.key == tried.seam.key else s for s in every], again, bars)
    if worst is None or worst > now.worst - WORTH_MM:
        return []
    told = "Move the key point to {at} from where the seam begins: the bars then miss by at most {worst}."
    return [Way("key", Sentence(told, at=length(there), worst=gap(worst)), worst, there)]


def _with_key(one: Sewn, at: float) -> Sewn:
    meets = float(one.meets(np.array([at]))[0])
    return replace(one, seam=replace(one.seam, key_a=at, key_b=meets))


def _worst(one: Sewn, every: Sequence[Sewn], again: Again, bars: Bars) -> float | None:
    return foreseen([one], again(every), bars)[0].worst


def _first(one: Judged, every: Sequence[Sewn], again: Again, bars: Bars, before: Mapping[str, Judged]) -> list[Way]:
    """This seam before all others: which ones miss for it."""
    lowest = min((s.seam.priority for s in every), default=1)
    seam = replace(one.sewn.seam, priority=lowest - 1)
    tried = replace(one.sewn, seam=seam)
    others = [tried if s.seam.key == seam.key else s for s in every]
    after = foreseen(others, again(others), bars)
    now = next((j.worst for j in after if j.sewn.seam.key == seam.key), None)
    was = before[seam.key].worst if seam.key in before else None
    if now is None or was is None or now > was - WORTH_MM:
        return []
    lost = [
        j.sewn.seam.name or "another seam"
        for j in after
        if j.worst is not None
        and (old := before[j.sewn.seam.key].worst) is not None
        and verdict_of(j.worst) != verdict_of(old)
        and j.worst > old
    ]
    told = "Put this seam first: the bars then miss by at most {worst} here" + (
        ", and {lost} no longer meets." if lost else ", and no other seam is worse for it."
    )
    parts = {"lost": listed(lost)} if lost else {}
    return [Way("first", Sentence(told, worst=gap(now), **parts), now)]
