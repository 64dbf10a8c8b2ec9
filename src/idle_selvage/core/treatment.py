"""What to do with the cloth before cutting. Default school: mirror what the garment will live through.

Mirroring is the default because it takes out just what the finished thing would lose later, and no more.
"""

from __future__ import annotations

from .shrinkage import planning_range

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
#: What a fibre forbids whatever the garment's care says. Common practice, no source.
FORBIDS: dict[str, str] = {
    "viscose": "Viscose is dried flat, never hung: wet, it stretches under its own weight.",
    "velveteen": "Pile is never overloaded: wash it on its own or with a towel, or it marks.",
    "wool": "Wool is never agitated in water: it felts. Steam it unless the garment will be washed.",
    "gauze": "Gauze is never pressed flat before cutting: pieces come out small by the crinkle.",
    "fur": "No dryer heat for synthetic pile: it melts at the tips.",
    "acetate": "Acetate is weak when wet: lift it in both hands, cool iron only.",
}


def mirror(wash: str, dry: str, kind: str) -> tuple[str, ...]:
    """Steps for treating a cloth (and its swatch) as the finished garment will be, cautions last.

    ``wash`` and ``dry`` are keys of WASHES and DRIES, ``kind`` of the planning ranges.
    """
    wet = wash not in ("dry-clean", "never")
    steps = []
    if wet:
        steps.append("Stitch or overlock the two cut edges. Leave the selvages alone.")
    steps.append(f"{WASHES[wash]}{', then ' + DRIES[dry] if wet and DRIES[dry] else ''}.")
    if wet:
        steps.append("Take it out slightly damp, smooth it by hand, press it dry, let it rest flat half an hour.")
        if kind == "gauze":
            steps[-1] = "Dry it crinkled, and let it lie loose half an hour before measuring."
    entry = planning_range(kind)
    if entry is not None:
        steps.append(f"Usual for {entry.label.lower()}: {entry.pre_treatment}.")
    if kind in FORBIDS:
        steps.append(FORBIDS[kind])
    return tuple(steps)


def cautions(wash: str, dry: str) -> tuple[str, ...]:
    """What can hurt here. Care labels and the machine maker's limits come before this program's advice."""
    out = []
    if wash == "60":
        out.append("Hot water scalds: test it, keep children away.")
    if wash not in ("never",):
        out.append("Iron and steam burn.")
    if dry.startswith("tumble") and wash not in ("dry-clean", "never"):
        out.append("Clean the lint filter before and after: loose ends make dust, and dust burns.")
    out.append("The care label and the machine maker's limits come before this advice.")
    return tuple(out)
