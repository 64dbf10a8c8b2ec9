"""From what is known of a project to the few figures it is steered by.

Each figure is either there with its working, or missing with the sentence that says what to do first.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .cloth import BadCloth, Cloth, usable_width
from .pieces import BadPiece, Piece, cut_line
from .purchase import Purchase, purchase
from .shrinkage import BadReadings, Direction, plan_with, planned_from_range, planning_range, swatch_shrinkage
from .working import Figure

Basis = Literal["swatch", "range", "none"]
Pair = tuple[float, float | None]


@dataclass(frozen=True)
class Swatch:
    """Pairs of marked distances, before and (once washed) after, millimetres; the tape's graduation."""

    warp: tuple[Pair, ...] = ()
    weft: tuple[Pair, ...] = ()
    graduation: float = 1.0

    def pairs(self, direction: Direction) -> tuple[Pair, ...]:
        return self.warp if direction == "warp" else self.weft


@dataclass(frozen=True)
class Known:
    """Shrinkage of one direction: what it rests on, the figure, and what to plan with; or what is wrong."""

    direction: Direction
    basis: Basis
    figure: Figure | None
    plan: Figure | None
    missing: str = ""


@dataclass(frozen=True)
class Wishes:
    """What the maker set for laying and buying. Lengths in millimetres."""

    gap: float = 3.0
    folds: tuple[str, ...] = ("open", "lengthwise")
    ends: float = 100.0
    spare: float = 0.0
    step: float = 100.0


@dataclass(frozen=True)
class Tally:
    """The figures at the foot of every screen. None where something is still missing; ``missing`` says what."""

    warp: Known
    weft: Known
    width: Figure | None
    purchase: Purchase | None
    missing: dict[str, str]
    warnings: tuple[tuple[str, str, str], ...]


def known_shrinkage(kind: str, swatch: Swatch, direction: Direction) -> Known:
    """The washed swatch when there is one, else the planning range of the cloth's kind."""
    washed = [(b, a) for b, a in swatch.pairs(direction) if a is not None]
    if washed:
        try:
            figure = swatch_shrinkage([b for b, _ in washed], [a for _, a in washed], swatch.graduation, direction)
        except BadReadings as fault:
            return Known(direction, "none", None, None, str(fault))
        return Known(direction, "swatch", figure, plan_with(figure))
    entry = planning_range(kind)
    if entry is None:
        return Known(direction, "none", None, None, "Wash a swatch, or say what the cloth is made of.")
    figure = planned_from_range(entry, direction)
    return Known(direction, "range", figure, plan_with(figure))


def tally(cloth: Cloth | None, kind: str, swatch: Swatch, lay_length: float | None, wishes: Wishes) -> Tally:
    """Everything that can be said now. ``lay_length`` is the chosen lay's, in millimetres, or None."""
    warp, weft = known_shrinkage(kind, swatch, "warp"), known_shrinkage(kind, swatch, "weft")
    missing: dict[str, str] = {}
    warnings: list[tuple[str, str, str]] = []
    width: Figure | None = None
    bought: Purchase | None = None
    for known in (warp, weft):
        if known.figure is None:
            missing[f"shrinkage_{known.direction}"] = known.missing
        elif known.basis == "range":
            warnings.append(("shrink", "look", f"The {known.direction} shrinkage is a planning range, not a swatch."))
    if cloth is None or not cloth.width_readings:
        missing["width"] = "Measure the cloth's width in three places."
    elif weft.plan is None:
        missing["width"] = weft.missing
    else:
        try:
            width = usable_width(cloth, weft.plan)
            if width.note and "range" not in width.note:
                warnings.append(("cloth", "look", f"Width: {width.note}."))
        except BadCloth as fault:
            missing["width"] = str(fault)
    if lay_length is None:
        missing["lay"] = "Lay the pieces."
    if lay_length is None or warp.plan is None:
        missing["to_buy"] = "Lay the pieces first." if lay_length is None else warp.missing
    else:
        bought = purchase(
            lay_length,
            warp.plan,
            ends=wishes.ends,
            spare=wishes.spare,
            step=wishes.step,
            price_per_m=cloth.price_per_m if cloth else None,
            in_hand=cloth.in_hand if cloth else None,
        )
        if bought.cost is None:
            missing["cost"] = "Give the cloth's price."
        if bought.in_hand_short is not None and bought.in_hand_short.value > 0.5:
            warnings.append(("buy", "spoil", "The length in hand is too short for this lay."))
    return Tally(warp, weft, width, bought, missing, tuple(warnings))


def bad_pieces(pieces: list[Piece]) -> list[str]:
    """One sentence for each piece that cannot be cut as described."""
    faults = []
    for piece in pieces:
        try:
            cut_line(piece)
        except BadPiece as fault:
            faults.append(str(fault))
    return faults
