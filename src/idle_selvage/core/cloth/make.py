"""What a cloth is made of, how it is woven and finished."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

#: Fibres a home dressmaker buys as woven cloth.
FIBRES: dict[str, str] = {
    "cotton": "cotton",
    "linen": "linen",
    "viscose": "viscose",
    "lyocell": "lyocell",
    "silk": "silk",
    "wool": "wool",
    "polyester": "polyester",
    "nylon": "nylon",
    "acetate": "acetate",
    "elastane": "elastane",
    "cupro": "cupro",
    "acrylic": "acrylic",
}
#: Other names people use for a fibre. By definition.
OTHER_NAMES: dict[str, str] = {
    "viscose": "rayon, modal",
    "cupro": "copper rayon, for linings",
    "nylon": "polyamide",
    "elastane": "stretch yarn",
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
    "nonwoven": "non-woven",
    "ribbon": "ribbon or tape",
    "elastic": "elastic",
}

#: Kinds without threads, and so without a grain: their pieces may lie any way round. By definition.
NO_GRAIN = ("nonwoven",)


FINISHES: dict[str, str] = {
    "": "not known",
    "raw": "raw, unwashed",
    "washed": "washed at the mill",
    "resin": "resin or heat-set",
    "starched": "starched",
    "fusible": "fusible: glue on one side",
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


def fibre_label(fibre: str) -> str:
    """A fibre with the other names it goes by, as a list offers it."""
    more = OTHER_NAMES.get(fibre)
    return f"{FIBRES[fibre]} ({more})" if more else FIBRES[fibre]


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


def _kinds(fibre: str, make: Make) -> tuple[str, ...]:
    if make.weave == "fur":
        return ("fur",)
    if fibre == "elastane":
        return ()
    if fibre == "cotton":
        special = {"flannel": "flannel", "gauze": "gauze", "velveteen": "velveteen", "corduroy": "velveteen"}
        if make.weave == "denim":
            return ("denim-washed" if make.finish == "washed" else "denim-raw",)
        return (special.get(make.weave, "cotton"),)
    # crinkled cloth shrinks as it does whatever it is of, and is washed as its fibre is
    return ("gauze", fibre) if make.weave == "gauze" else (fibre,)


def deciding_kinds(make: Make) -> tuple[str, ...]:
    """Planning kinds of every fibre with a share of at least a fifth, the largest share first, and of the weave."""
    shares: Sequence[tuple[str, float]] = sorted(make.blend, key=lambda part: -part[1])
    return tuple(dict.fromkeys(kind for fibre, share in shares if share >= LEAST_SHARE for kind in _kinds(fibre, make)))
