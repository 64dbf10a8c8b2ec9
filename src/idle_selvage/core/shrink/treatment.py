"""What to do with the cloth before cutting: the schools, a default with its reason, and what a fibre forbids.

The default mirrors what the garment will live through, because that takes out just what the finished thing
would lose later, and no more. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..cloth.dye import Dye, alone
from ..cloth.make import Make, deciding_kinds
from .programme import HEAT_OF_DRYING, Cycle, Dry, Programme, beside
from .ranges import planning_range
from .swatch import AT_REST

School = Literal["mirror", "harder", "soak", "leave", "fit"]

WASHES: dict[str, str] = {
    "cold-hand": "Wash by hand in cold water",
    "30-gentle": "Machine wash at 30 °C, gentle",
    "40": "Machine wash at 40 °C",
    "60": "Machine wash at 60 °C",
    "dry-clean": "Do not wash: steam all over, as it will be dry-cleaned",
    "never": "Do not wash: the finished thing never will be",
}
DRIES: dict[str, str] = {
    "line": "dry on the line",
    "flat": "dry flat",
    "tumble-low": "tumble dry, low heat",
    "tumble-warm": "tumble dry, warm",
    "none": "",
}
SCHOOLS: dict[School, tuple[str, str]] = {
    "mirror": ("As the garment", "takes out what the finished thing would lose later, and no more"),
    "harder": ("One step hotter", "takes out all there is, so that one hot wash by mistake does no harm later"),
    "soak": ("Soak only", "fades less and takes out most of what relaxes; some finish stays in"),
    "leave": ("Leave alone", "for what is dry-cleaned or never washed; wool and silk are steamed all over"),
    "fit": ("Sew first, shrink to fit", "keeps raw cloth crisp to cut: the pieces are enlarged instead"),
}
#: The hottest wash a kind takes. Common practice, from memory; the care label comes first.
MOST_WASH: dict[str, str] = {
    "wool": "cold-hand",
    "silk": "cold-hand",
    "viscose": "30-gentle",
    "acetate": "30-gentle",
    "cupro": "30-gentle",
    "acrylic": "30-gentle",
    "velveteen": "30-gentle",
    "fur": "30-gentle",
    "lyocell": "40",
    "gauze": "40",
    "nylon": "40",
    "polyester": "40",
}
#: What a fibre forbids whatever the garment's care says. Common practice, no source.
FORBIDS: dict[str, str] = {
    "viscose": "Viscose is dried flat, never hung: wet, it stretches under its own weight.",
    "velveteen": "Pile is never overloaded: wash it on its own or with a towel, or it marks.",
    "wool": "Wool is never agitated in water: it felts. Steam it unless the garment will be washed.",
    "gauze": "Gauze is never pressed flat before cutting: pieces come out small by the crinkle.",
    "fur": "No dryer heat for synthetic pile: it melts at the tips.",
    "acetate": "Acetate is weak when wet: lift it in both hands, cool iron only.",
    "silk": "Silk may change its surface in water: try the swatch before the length.",
}
_WASH_ORDER = ("cold-hand", "30-gentle", "40", "60")
_CYCLE: dict[str, tuple[int, Cycle]] = {
    "cold-hand": (20, "hand"),
    "30-gentle": (30, "gentle"),
    "40": (40, "normal"),
    "60": (60, "hot"),
}
#: Water from this temperature on scalds at once, °C; and a wet length from so many metres on is heavy. From memory.
SCALDS_C = 60
HEAVY_METRES = 3.0
#: No hotter than this is soaked, °C. Common practice, from memory.
SOAKS_C = 40
DRY_CLEANED = "Steamed instead of washed: the finished thing will be dry-cleaned, and its cloth is not put in water."
LABEL_FIRST = "The care label and the machine maker's limits come before this advice."


@dataclass(frozen=True)
class TreatmentFacts:
    """What decides the treatment besides the care: planning kinds, dye, crinkled or not."""

    kinds: tuple[str, ...] = ()
    dye: Dye = field(default_factory=Dye)
    sequins: bool = False
    fusible: bool = False
    metres: float | None = None


@dataclass(frozen=True)
class TreatStep:
    """One thing to do: the sentence, what must be at hand, and what can hurt here."""

    text: str
    materials: tuple[str, ...] = ()
    caution: str = ""


@dataclass(frozen=True)
class Advice:
    """The school gone by and why, what the fibres changed and forbid, and the steps in order."""

    school: School
    chosen: bool
    why: str
    changed: tuple[str, ...]
    forbids: tuple[str, ...]
    steps: tuple[TreatStep, ...]
    programme: Programme


def default_school(wash: str) -> School:
    """Mirror, but leave alone what will never see water."""
    return "leave" if wash in ("dry-clean", "never") else "mirror"


def programme(wash: str, dry: str, school: School, facts: TreatmentFacts) -> tuple[Programme, tuple[str, ...]]:
    """What is done under a school, and what the fibres made different from it, in sentences.

    A blend is treated as mildly as the mildest of its fibres asks.
    """
    changed: list[str] = []
    kinds = facts.kinds
    if facts.fusible:
        return _fusible(wash, school)
    if school == "fit":
        return Programme("", 0, "none", "none", False), ()
    if school in ("mirror", "harder", "soak") and wash == "dry-clean":
        return Programme("", 0, "steam", "none", True), (DRY_CLEANED,)
    if school == "leave":
        steams = bool({"wool", "silk"} & set(kinds)) or wash == "dry-clean"
        return Programme("", 0, "steam" if steams else "none", "none", steams), ()
    key = wash if wash in _WASH_ORDER else "cold-hand"
    if school == "harder":
        key = _WASH_ORDER[min(len(_WASH_ORDER) - 1, _WASH_ORDER.index(key) + 1)]
        dry = {"tumble-low": "tumble-warm"}.get(dry, dry)
    limit = min((_WASH_ORDER.index(MOST_WASH.get(kind, "60")) for kind in kinds), default=3)
    if _WASH_ORDER.index(key) > limit:
        changed.append(f"{WASHES[_WASH_ORDER[limit]]} instead: the fibre takes no hotter or rougher wash.")
        key = _WASH_ORDER[limit]
    temperature, cycle = _CYCLE[key]
    if school == "soak":
        temperature, cycle = min(temperature, SOAKS_C), "soak"
    dried: Dry = dry if dry in ("line", "flat", "tumble-low", "tumble-warm") else "line"  # type: ignore[assignment]
    dried, why = _dry(dried, kinds)
    if why:
        changed.append(why)
    if facts.sequins and dried.startswith("tumble"):
        dried = "flat"
        changed.append("Dried flat: sequins melt and catch in a dryer.")
    press = "gauze" not in kinds and not facts.sequins
    return Programme("soak" if school == "soak" else key, temperature, cycle, dried, press), tuple(changed)


def _fusible(wash: str, school: School) -> tuple[Programme, tuple[str, ...]]:
    """Glue melts under steam and in a dryer, so cloth that carries it is only ever soaked and dried flat."""
    if school in ("fit", "leave") or wash in ("dry-clean", "never"):
        return Programme("", 0, "none", "none", False), ("Never steamed: steam melts the glue.",)
    return Programme("soak", SOAKS_C, "soak", "flat", False), (
        "Soaked in warm water and dried flat, without steam, iron or dryer: the glue melts. If its maker says "
        "otherwise, that comes first.",
    )


def _dry(dry: Dry, kinds: Sequence[str]) -> tuple[Dry, str]:
    if "viscose" in kinds and dry != "flat":
        return (
            "flat",
            "Dried flat: viscose is never hung, and a hot dryer shrinks it more than the garment ever will be.",
        )
    if "wool" in kinds and dry != "flat":
        return "flat", "Dried flat: wool felts in a dryer and drops on a line."
    if "acetate" in kinds and dry != "flat":
        return "flat", "Dried flat: acetate is weak when wet."
    if "fur" in kinds and dry.startswith("tumble"):
        return "flat", "Dried flat, without heat: synthetic pile melts at the tips."
    if "velveteen" in kinds and dry.startswith("tumble"):
        return "tumble-short", "Tumbled 5 to 10 minutes to lift the pile, then dried flat."
    if "silk" in kinds and dry.startswith("tumble"):
        return "line", "Hung to dry: a dryer dulls silk."
    if "gauze" in kinds and dry == "tumble-warm":
        return "tumble-low", "Tumbled low: gauze is loose and catches."
    return dry, ""


def advise(wash: str, dry: str, facts: TreatmentFacts, school: School | None = None) -> Advice:
    """The treatment of one cloth. ``school`` None takes the default of the garment's care."""
    gone_by = school or default_school(wash)
    plan, changed = programme(wash, dry, gone_by, facts)
    why = SCHOOLS[gone_by][1]
    if school is None and gone_by == "leave":
        why = "the finished thing will never be washed"
    # what is said of washing is of no use to cloth that meets no water
    forbids = tuple(FORBIDS[kind] for kind in facts.kinds if kind in FORBIDS and (plan.wet or kind == "gauze"))
    return Advice(gone_by, school is not None, why, changed, forbids, _steps(plan, gone_by, facts), plan)


def _steps(plan: Programme, school: School, facts: TreatmentFacts) -> tuple[TreatStep, ...]:
    if school == "fit":
        return (
            TreatStep("Do not wash the cloth. Lay and cut the enlarged pieces on the raw cloth."),
            TreatStep("Sew, then wash the finished thing hot once: it shrinks to its size.", (), "Hot water scalds."),
        )
    steps: list[TreatStep] = []
    if plan.cycle == "steam":
        return (
            TreatStep(
                "Steam the cloth all over, face and back, iron held just above it; let each part dry before moving it.",
                ("steam iron", "press cloth"),
                "Steam burns: keep the other hand off the board.",
            ),
            TreatStep("Let it lie flat half an hour before measuring."),
        )
    if facts.fusible:
        return _fusible_steps(plan)
    if plan.cycle == "none":
        return (TreatStep("Nothing: it stays as it came. Press out the shop fold.", ("iron",), "An iron burns."),)
    why_alone = alone(facts.dye)
    steps.append(
        TreatStep(
            "Overlock, zigzag or stitch the two cut edges. Leave the selvages alone: they would draw in.",
            ("thread",),
        )
    )
    if facts.dye.last is None and facts.dye.depth == "dark":
        steps.append(TreatStep("Rub it with a wet white rag first, and grade the rag.", ("white rag",)))
    steps.append(_wash_step(plan, facts, why_alone))
    if facts.dye.depth == "dark":
        steps.append(TreatStep("If white streaks show, rinse again without soap before drying."))
    if why_alone:
        steps.append(
            TreatStep("Test the rag again; wash again until it stays clean.", ("white rag", "dye-catching sheet"))
        )
    steps += _dry_steps(plan, facts)
    steps.append(TreatStep("Let it lie flat half an hour before measuring or cutting."))
    if set(facts.kinds) & {"denim-raw", "flannel"} and not facts.dye.washes:
        steps.append(TreatStep(f"Measure, and wash again until a wash adds less than {AT_REST:g} %."))
    return tuple(steps)


def _fusible_steps(plan: Programme) -> tuple[TreatStep, ...]:
    if not plan.wet:
        return (TreatStep("Nothing: it stays as it came. No iron and no steam touch it before it is fused."),)
    return (
        TreatStep(
            f"Lay it loosely folded in water of {plan.temperature} °C until the water is cold; do not wring it.",
            ("a tub or bath",),
        ),
        TreatStep("Dry it flat on a towel, glue side up, away from any heat.", ("towel",)),
        TreatStep("Press it for the first time when it is fused, as its maker says.", (), "An iron burns."),
    )


def _wash_step(plan: Programme, facts: TreatmentFacts, why_alone: str) -> TreatStep:
    materials = ["the soap the garment will get"]
    caution = (
        "Hot water scalds: test it, keep children away." if plan.temperature >= SCALDS_C or plan.cycle == "soak" else ""
    )
    if plan.cycle == "soak":
        text = f"Soak it half an hour in water of {plan.temperature} °C, pressed under, then wring it gently"
        materials = ["a tub or bath"]
    else:
        text = WASHES[plan.wash]
        if plan.cycle == "hand":
            materials.append("a tub or bath")
    if why_alone:
        text += f", on its own, since {why_alone}"
        materials.append("dye-catching sheet")
    elif set(facts.kinds) & {"velveteen", "fur"}:
        text += ", on its own or with a towel, never in a full drum"
        materials.append("towel")
    if facts.metres is not None and facts.metres > HEAVY_METRES and not caution:
        caution = "A wet full length is heavy: lift it in parts."
    return TreatStep(f"{text}.", tuple(materials), caution)


def _dry_steps(plan: Programme, facts: TreatmentFacts) -> list[TreatStep]:
    lint = "Clean the lint filter before and after: loose ends make dust, and dust burns."
    out: list[TreatStep] = []
    if plan.dry == "tumble-short":
        out.append(TreatStep("Tumble it low for 5 to 10 minutes to lift the pile.", (), lint))
        out.append(TreatStep("Dry it flat, face up, smoothing the pile one way.", ("clean sheet",)))
    elif plan.dry.startswith("tumble"):
        heat = "low" if plan.dry == "tumble-low" else "warm"
        out.append(TreatStep(f"Tumble it {heat}, and take it out slightly damp.", (), lint))
    elif plan.dry == "flat":
        out.append(
            TreatStep("Roll it in a towel, then dry it flat, smoothed square by hand.", ("towel", "clean sheet"))
        )
    else:
        out.append(TreatStep("Hang it over two lines or a rail, evenly, and take it down slightly damp.", ("line",)))
    if plan.press and "velveteen" in facts.kinds:
        out.append(
            TreatStep(
                "Press it face down on a towel or needle board, hardly touching.", ("towel",), "Iron and steam burn."
            )
        )
    elif plan.press and "fur" not in facts.kinds:
        cool = ", with a cool iron" if "acetate" in facts.kinds or "nylon" in facts.kinds else ""
        out.append(
            TreatStep(
                f"Smooth it by hand and press it dry{cool}, the shop fold too. No time now: keep it damp and cold.",
                ("iron",),
                "Iron and steam burn.",
            )
        )
    elif "gauze" in facts.kinds:
        out.append(TreatStep("Leave it crinkled: do not press it flat before cutting."))
    return out


def usual(kinds: Sequence[str], plan: Programme) -> tuple[str, ...]:
    """What is usual for these kinds, one sentence each; nothing for cloth that meets no water."""
    if not plan.wet:
        return ()
    found = [entry for kind in kinds if (entry := planning_range(kind)) is not None]
    return tuple(f"Usual for {entry.label.lower()}: {entry.pre_treatment}." for entry in found)


def cautions(plan: Programme) -> tuple[str, ...]:
    """What holds for the whole of it."""
    out = []
    if plan.wet:
        out.append("New cloth carries finishes: wash it before it touches the skin, and stop on a rash.")
        out.append("Never mix bleach with vinegar or other cleaners.")
    out.append("Never tumble or iron cloth that carries a solvent, such as stain remover.")
    out.append(LABEL_FIRST)
    return tuple(out)


def wash_text(programme: Programme) -> str:
    """What is done before it is dried, in a few words."""
    if programme.cycle == "none":
        return "left as it is"
    if programme.cycle == "steam":
        return "steamed all over"
    wash = "soak" if programme.wash == "soak" else WASHES[programme.wash].removeprefix("Machine ")
    return wash[0].lower() + wash[1:]


def programme_text(programme: Programme) -> str:
    """A treatment in a few words."""
    wash = wash_text(programme)
    if not programme.wet:
        return wash
    dry = "tumble 10 min, then flat" if programme.dry == "tumble-short" else DRIES[programme.dry]
    return f"{wash}, {dry}"


def treatment_facts(make: Make, dye: Dye, in_hand: float | None) -> TreatmentFacts:
    """What decides how a cloth is treated; ``in_hand`` is its length, mm."""
    metres = in_hand / 1000.0 if in_hand else None
    return TreatmentFacts(deciding_kinds(make), dye, make.weave == "sequin", make.finish == "fusible", metres)


#: How a swatch may have been washed, as it is told: what a garment may be, and a soak or steam.
SWATCH_WASHES: dict[str, str] = {
    **{key: told for key, told in WASHES.items() if key in _WASH_ORDER},
    "soak": "Soak only, warm",
    "steam": "Steam all over",
}


SWATCH_DRIES: dict[str, str] = {
    **{key: told for key, told in DRIES.items() if told},
    "tumble-short": "tumble 10 minutes, then dry flat",
}


#: The kind of wash of each way water or steam is used.
WASH_OF_CYCLE: dict[str, str] = {**{cycle: key for key, (_, cycle) in _CYCLE.items()}, "soak": "soak", "steam": "steam"}


def swatch_programme(wash: str, dry: str) -> Programme:
    """What a swatch went through, by the keys of SWATCH_WASHES and DRIES. Raises KeyError for another."""
    if wash == "steam":
        return Programme("", 0, "steam", "none")
    dried: Dry = dry if dry in HEAT_OF_DRYING else "line"
    if wash == "soak":
        return Programme("soak", SOAKS_C, "soak", dried)
    return Programme(wash, *_CYCLE[wash], dried)


def milder_than(had: Sequence[str], coming: Programme) -> str:
    """That each of these washes (keys of SWATCH_WASHES) was milder than what is coming, as a sentence; or nothing."""
    done = [swatch_programme(one, coming.dry) for one in had]
    if any(beside(one, coming) != "harsher" for one in done):
        return ""
    was, will = wash_text(done[-1]), wash_text(coming)
    return f"It was pre-treated more mildly ({was}) than the garment will be washed ({will}): it may shrink again then."


def finished(wash: str, dry: str, facts: TreatmentFacts) -> Programme | None:
    """What the finished garment will go through, as its fibres allow; None where it meets neither water nor steam."""
    if wash == "never":
        return None
    return programme(wash, dry, "leave" if wash == "dry-clean" else "mirror", facts)[0]
