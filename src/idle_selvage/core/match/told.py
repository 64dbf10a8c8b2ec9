"""What the sequence of bars means for these pieces, and what is said of a seam, each in one sentence."""

from __future__ import annotations

from collections.abc import Sequence

from ..cloth.bars import LEAST_SEEN_MM, MATCHED_MM, MISMATCH_MM, BarPattern
from ..lay.levels import Standing
from ..plan.piece import Grain
from ..wording import Sentence, listed
from ..working import about, gap
from .chance import DRAWS, Doubt
from .judged import Judged
from .strip import Kind


def consequences(
    along: BarPattern,
    across: BarPattern,
    *,
    pairs: Sequence[str],
    reversible: bool,
    printed: bool,
    bias: Sequence[str] = (),
) -> tuple[Sentence, ...]:
    """What follows from the bars. ``pairs``: pieces that are cut as mirrored pairs; ``bias``: on the bias."""
    out: list[Sentence] = []
    for bars, name in ((along, "across the garment"), (across, "along the garment")):
        if bars.repeat is not None and not bars.seen:
            told = "The bars {name} are under {least}: whether they meet cannot be seen, so it is not asked for."
            out.append(Sentence(told, name=name, least=about(LEAST_SEEN_MM)))
    if along.repeat is not None and along.seen and not along.balanced:
        out.append(Sentence("The bars across the garment read differently up and down, so all tops lie one way."))
    if across.repeat is not None and across.seen and not across.balanced and pairs:
        what = "has" if len(pairs) == 1 else "have"
        way = "turn the cloth over for one of each" if reversible else "let the sequence run on round the body"
        told = "The bars along the garment never mirror, so {pairs} {what} no mirrored pair on them: {way}."
        out.append(Sentence(told, pairs=listed(list(pairs)), what=what, way=way))
    if across.repeat is not None and across.seen and across.balanced:
        out.append(Sentence("The bars along the garment mirror: a middle lies on a mirror line, and pairs mirror."))
    if bias and any(bars.repeat is not None and bars.seen for bars in (along, across)):
        told = (
            "On the bias the bars run diagonally on {bias}: mirrored pairs make chevrons at the seam, or fight; keep "
            "pleats off them, which fold bars that run against each other side by side."
        )
        out.append(Sentence(told, bias=listed(list(bias))))
    if printed and (along.seen or across.seen):
        out.append(
            Sentence("The bars are printed and may lie off the thread: up to 2 % follow the print, for more change "
                     "the cloth (common practice); under True it is measured.")
        )  # fmt: skip
    return tuple(out)


def standing_told(standing: Standing | None, off: float, first: str = "") -> Sentence:
    """How a seam stands in the graph of levels."""
    if standing == "exact":
        return Sentence("met exactly at its key point")
    if standing == "follows":
        return Sentence("follows by itself")
    if standing == "misses":
        told = "cannot meet as well: its key points miss by {off}" + (", for {first} comes first" if first else "")
        return Sentence(told, off=gap(abs(off)), first=first)
    return Sentence("")


#: How a piece lies whose bars run otherwise than those of the others.
ASKEW: dict[Grain, str] = {"crosswise": "on the cross grain", "bias": "on the bias", "any": "any way"}


def askew_told(name: str, grain: Grain) -> Sentence:
    """That bars cannot meet on a piece because of how it is cut."""
    told = "{name} is cut {how}: its bars run the other way, and are not placed to meet"
    return Sentence(told, name=name, how=ASKEW.get(grain, "otherwise"))


KINDS: dict[Kind, str] = {
    "on": "the bars run on over the seam",
    "chevron": "the bars make chevrons at the seam",
    "point": "the bars run against each other and never mirror: they meet at a point only",
}


def verdict_told(one: Judged) -> Sentence:
    """The verdict on a seam, with its worst place."""
    worst, strip = one.worst, one.worst_strip
    if one.verdict == "not asked":
        return Sentence("nothing is asked to meet here")
    if worst is None or strip is None:
        return Sentence(one.why or "known once it is laid")
    told = {
        "meets": "meets: {worst} off at most",
        "nearly": "misses a little: up to {worst} off",
        "misses": "does not meet: up to {worst} off",
    }[one.verdict]
    return Sentence(told, worst=gap(worst))


def limits_text() -> Sentence:
    """From when on a mismatch is seen."""
    told = "Within {good} bars meet; from {bad} on it is plainly seen (common practice)."
    return Sentence(told, good=about(MATCHED_MM), bad=about(MISMATCH_MM))


def couple_told(one: Judged, number: int) -> str:
    """Which copies are sewn together, in words."""
    couple = one.mets[number].couple
    if couple is None:
        return "as it is asked for"
    copies = f"copy {couple.a.cut.copy} to copy {couple.b.cut.copy}"
    if len({met.couple.mirrored for met in one.mets if met.couple is not None}) > 1:
        return f"{'the other' if couple.mirrored else 'one'} side of the body, {copies}"
    return copies if len(one.mets) < 2 else f"{number + 1} of {len(one.mets)}, {copies}"


def how_sure(doubt: Doubt) -> Sentence:
    """On what the chances rest."""
    whose = f"as {doubt.learned} pieces of this garment were pinned" if doubt.learned else "from memory"
    slant = f", a weft that may lean by {doubt.slant:.1f}°, as in the last test under True" if doubt.slant else ""
    uneven = ", and repeats that differ as they were measured" if any(doubt.uneven) else ""
    text = (
        "{draws} draws, with a hand that lays a piece within {hand} (one standard deviation, {whose}){slant}{uneven}."
    )
    return Sentence(text, draws=f"{DRAWS}", hand=gap(doubt.hand), whose=whose, slant=slant, uneven=uneven)
