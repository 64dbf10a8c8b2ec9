"""What a cloth is made of, how it is woven and finished, and which planning range that leads to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..shrink.shrinkage import PlanningRange, planning_range

#: Fibres a home dressmaker buys as woven cloth.
FIBRES: dict[str, str] = {
    "cotton": "cotton",
    "linen": "linen",
    "viscose": "viscose or modal",
    "lyocell": "lyocell",
    "silk": "silk",
    "wool": "wool",
    "polyester": "polyester",
    "nylon": "nylon",
    "acetate": "acetate",
    "elastane": "elastane",
}
WEAVES: dict[str, str] = {
    "plain": "plain weave",
    "twill": "twill",
    "satin": "satin",
    "crepe": "crepe",
    "denim": "denim",
    "flannel": "flannel or loose weave",
    "gauze": "double or triple gauze",
    "velveteen": "velveteen or velvet",
    "corduroy": "corduroy",
    "fur": "fur fabric",
    "sequin": "sequins on mesh",
    "lace": "lace",
}
FINISHES: dict[str, str] = {
    "": "not known",
    "raw": "raw, unwashed",
    "washed": "washed at the mill",
    "resin": "resin or heat-set",
    "starched": "starched",
}
COLOURINGS: dict[str, str] = {
    "": "one colour",
    "yarn-dyed": "yarn-dyed: the bars are threads",
    "printed": "printed",
}
#: A fibre below this share of a blend does not decide how it shrinks. Common practice, from memory.
LEAST_SHARE = 20.0
PILE = ("velveteen", "corduroy", "fur")


@dataclass(frozen=True)
class Make:
    """Fibre shares in per cent, weave, finish and colouring; keys of the tables above."""

    blend: tuple[tuple[str, float], ...] = ()
    weave: str = "plain"
    finish: str = ""
    colouring: str = ""


def blend_note(make: Make) -> str:
    """What is odd about the shares, as a sentence, or nothing."""
    if not make.blend:
        return ""
    total = sum(share for _, share in make.blend)
    if abs(total - 100.0) > 0.5:
        return f"The shares add up to {total:g} %; a blend makes 100 %."
    return ""


def blend_text(make: Make) -> str:
    """``cotton``, or ``55 % linen, 45 % cotton``."""
    if len(make.blend) == 1:
        return FIBRES[make.blend[0][0]]
    return ", ".join(f"{share:g} % {FIBRES[fibre]}" for fibre, share in make.blend)


def _kind(fibre: str, make: Make) -> str | None:
    if make.weave == "fur":
        return "fur"
    if fibre == "elastane":
        return None
    if fibre == "cotton":
        special = {"flannel": "flannel", "gauze": "gauze", "velveteen": "velveteen", "corduroy": "velveteen"}
        if make.weave == "denim":
            return "denim-washed" if make.finish == "washed" else "denim-raw"
        return special.get(make.weave, "cotton")
    return fibre


def deciding_kinds(make: Make) -> tuple[str, ...]:
    """Planning kinds of every fibre with a share of at least a fifth, the largest share first."""
    shares: Sequence[tuple[str, float]] = sorted(make.blend, key=lambda part: -part[1])
    found = [_kind(fibre, make) for fibre, share in shares if share >= LEAST_SHARE]
    return tuple(dict.fromkeys(kind for kind in found if kind is not None))


def blend_range(make: Make) -> PlanningRange | None:
    """The planning range of a blend: in each direction that of the fibre that may shrink most.

    Its ``kind`` is the kind that decides along the warp; treatment is the mildest that any fibre wants, so the
    pre-treatments of all deciding kinds are told.
    """
    entries = [entry for kind in deciding_kinds(make) if (entry := planning_range(kind)) is not None]
    if not entries:
        return None
    warp = max(entries, key=lambda entry: (entry.warp[1], entry.warp[0]))
    weft = max(entries, key=lambda entry: (entry.weft[1], entry.weft[0]))
    if len(entries) == 1:
        return warp
    return replace(
        warp,
        label=f"{blend_text(make)}, as {warp.label.lower()}",
        weft=weft.weft,
        pre_treatment="; ".join(dict.fromkeys(entry.pre_treatment for entry in entries)),
    )


def like_key(make: Make) -> str:
    """Cloths with the same key are alike for one's own history: same deciding fibre group and kind."""
    entry = blend_range(make)
    return entry.kind if entry is not None else ""
