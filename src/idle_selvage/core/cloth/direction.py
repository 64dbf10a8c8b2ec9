"""Which way up a cloth must be cut: nap, stroke, one-way print; and the wales of corduroy."""

from __future__ import annotations

from collections.abc import Sequence

from ..wording import listed
from .make import PILE, WEAVES

CLOTH_DIRECTIONS: dict[str, str] = {
    "none": "no direction",
    "nap": "nap or pile",
    "print": "a print with a top",
    "stroke": "a stroke, as fur has",
    "border": "a border along a selvage",
}
PILE_RUNS: dict[str, tuple[str, str]] = {
    "": ("not chosen yet", "Choose once for the whole garment: all its pieces run the same way."),
    "down": ("down: wears better", "The pile runs down: it wears better and looks lighter."),
    "up": ("up: deeper colour", "The pile runs up: the colour looks deeper, and it wears sooner."),
}
#: Wales to the inch: (least, most, class, what it suits). Common practice, no source.
WALES: tuple[tuple[int, int, str, str], ...] = (
    (3, 8, "wide", "coats, jackets, cushions: thick, and stiff in gathers"),
    (10, 14, "medium", "trousers, skirts, pinafores"),
    (16, 23, "fine", "shirts, dresses, children's clothes: soft enough to gather"),
)


def is_one_way(direction: str) -> bool:
    """Whether every top must lie the same way."""
    return direction in ("nap", "print", "stroke")


def wale_class(per_inch: float) -> tuple[str, str]:
    """The class of a corduroy and what it suits; between two classes the nearer one's name.

    Raises ValueError outside 1 to 30 wales to the inch.
    """
    if not 1 <= per_inch <= 30:
        raise ValueError("Corduroy has from 1 to 30 wales to the inch; count them over one inch (2.5 cm).")
    nearest = min(WALES, key=lambda row: max(row[0] - per_inch, per_inch - row[1], 0.0))
    return nearest[2], nearest[3]


def wale_note(per_inch: float | None, weave: str) -> str:
    """What a corduroy's wales say of it, in a sentence, or nothing for any other cloth."""
    if not per_inch or weave != "corduroy":
        return ""
    name, suits = wale_class(per_inch)
    return f"{name[0].upper()}{name[1:]} wale: {suits}."


def direction_asked(direction: str, weave: str, sideways: Sequence[str], hemmed: Sequence[str] = ()) -> tuple[str, ...]:
    """What is asked about a cloth's direction: pile that was said to have none, and pieces (by their names) that lie
    against a print: ``sideways`` those on the cross grain without a hem on the border, ``hemmed`` those along the cloth
    that have a hem."""
    asked = []
    if weave in PILE and direction == "none":
        asked.append(
            f"It is {WEAVES[weave]}, and no direction is given: stroke it both ways, and say which way its pile runs, "
            "or that it may lie either way."
        )
    if direction == "print" and sideways:
        asked.append(
            f"{listed(sideways)}: cut on the cross grain of a print with a top, so that the print lies on its side "
            "there. Cut it along the cloth, or say that it is meant so."
        )
    if direction == "border" and sideways:
        asked.append(
            f"{listed(sideways)}: cut on the cross grain of border cloth, with no hem on the border. Say under Plan at "
            "which selvage it lies, or that it is meant so."
        )
    if direction == "border" and hemmed:
        asked.append(
            f"{listed(hemmed)}: cut along border cloth, so that the border runs up a side and not round the hem. Turn "
            "it to the cross grain under Plan, or say that it is meant so."
        )
    return tuple(asked)


def pile_note(direction: str, run: str) -> str:
    """What the way the pile runs means, in a sentence, or nothing for cloth without one."""
    return PILE_RUNS[run][1] if direction in ("nap", "stroke") else ""
