"""Planning ranges: what to expect of a cloth before a swatch was washed, by what it is made of."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..cloth.make import Make, blend_text, deciding_kinds
from ..working import Figure, Source, Step, of, percent
from .shrinkage import Direction

PLANNING = Source("from memory", "planning ranges of common practice", "ranges, not promises: wash a swatch")


@dataclass(frozen=True)
class PlanningRange:
    """Shrinkage to expect before any swatch was washed, per cent."""

    kind: str
    label: str
    warp: tuple[float, float]
    weft: tuple[float, float]
    pre_treatment: str


#: Common practice, from memory. Ranges, not promises.
PLANNING_RANGES: tuple[PlanningRange, ...] = (
    PlanningRange("cotton", "Cotton, plain", (3, 5), (1, 4), "warm wash, warm or hot tumble, press damp"),
    PlanningRange(
        "flannel",
        "Cotton flannel, loose weave",
        (5, 10),
        (3, 8),
        "warm wash, warm or hot tumble, press damp, often twice",
    ),
    PlanningRange("gauze", "Double or triple gauze", (5, 10), (5, 10), "warm wash, tumble low, do not press flat"),
    PlanningRange("denim-raw", "Denim, raw", (7, 10), (3, 6), "hot soak or wash, up to three times"),
    PlanningRange("denim-washed", "Denim, washed", (2, 3), (1, 3), "one wash as the garment"),
    PlanningRange(
        "velveteen",
        "Corduroy or velveteen, cotton",
        (3, 6),
        (1, 3),
        "cool to warm, gentle, on its own or with a towel; tumble 5–10 min, then dry flat",
    ),
    PlanningRange("linen", "Linen", (4, 8), (3, 6), "warm wash, tumble and take out damp, press damp"),
    PlanningRange("viscose", "Viscose, rayon or modal", (5, 10), (3, 8), "cool hand wash, dry flat, never hang"),
    PlanningRange("lyocell", "Lyocell", (2, 5), (1, 4), "cool gentle, low tumble or line"),
    PlanningRange("cupro", "Cupro", (2, 5), (2, 4), "cool hand wash or gentle, dry flat or on the line"),
    PlanningRange("silk", "Silk, washable", (2, 6), (1, 4), "cool hand wash, hang; steam only when dry-clean"),
    PlanningRange("wool", "Wool, woven", (2, 6), (2, 5), "steam, no agitation; wash only if the garment will be"),
    PlanningRange("polyester", "Polyester", (0, 1), (0, 1), "any wash its label allows"),
    PlanningRange("nylon", "Nylon", (0, 2), (0, 2), "cool, low tumble"),
    PlanningRange("acrylic", "Acrylic", (0, 2), (0, 2), "cool, gentle, no dryer heat"),
    PlanningRange("acetate", "Acetate", (1, 3), (1, 3), "cool, weak when wet, dry flat, cool iron"),
    PlanningRange("fur", "Fur fabric, synthetic pile", (0, 2), (0, 2), "cool gentle, air dry, no dryer heat"),
)


def planning_range(kind: str) -> PlanningRange | None:
    """The planning range of a fibre and kind, or None when there is none."""
    return next((entry for entry in PLANNING_RANGES if entry.kind == kind), None)


def planned_from_range(entry: PlanningRange, direction: Direction) -> Figure:
    """Shrinkage before any swatch: the middle of the planning range, its ends as low and high."""
    low, high = entry.warp if direction == "warp" else entry.weft
    ends = (("from", percent(low)), ("to", percent(high)))
    steps = (
        Step("at least", "from", ends[:1], percent(low), f"{entry.label}, {direction}: planning range until a swatch"),
        Step("at most", "to", ends[1:], percent(high)),
        Step("the middle", of("mean", ends), ends, percent((low + high) / 2)),
    )
    return Figure(
        (low + high) / 2,
        "percent",
        low,
        high,
        steps,
        (PLANNING,),
        note="a range of common practice, not a measurement",
    )


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
    """Cloths with the same key are of one deciding fibre group; see :func:`alike` for all that makes them alike."""
    entry = blend_range(make)
    return entry.kind if entry is not None else ""


def alike(one: Make, other: Make) -> bool:
    """Whether a test of one cloth tells of the other: same deciding fibre group, weave and finish."""
    return like_key(one) == like_key(other) != "" and (one.weave, one.finish) == (other.weave, other.finish)
