"""From what is known of a project to the few figures it is steered by.

Each figure is either there with its working, or missing with the sentence that says what to do first.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ..buy.order import Extra, Order
from ..buy.purchase import Purchase, purchase
from ..cloth.make import Make
from ..cloth.width import BadCloth, Cloth, usable_width
from ..plan.allowance import cut_line
from ..plan.outline import BadPiece
from ..plan.piece import Piece
from ..shrink.history import Past
from ..shrink.known import RAW_CUT, TREATED, Shrinkage, known_shrinkage, nothing_left
from ..shrink.swatch import RESTS, Swatch
from ..wording import Sentence, sentence_of
from ..working import Figure


@dataclass(frozen=True)
class Wishes:
    """What the maker set for laying and buying. Lengths in millimetres."""

    gap: float = 3.0
    folds: tuple[str, ...] = ("open", "lengthwise")
    ends: float = 100.0
    spare: float = 0.0
    step: float = 100.0
    bought_extra: float = 0.0
    why: str = ""


@dataclass(frozen=True)
class Tally:
    """The figures at the foot of every screen. None where something is still missing; ``missing`` says what."""

    warp: Shrinkage
    weft: Shrinkage
    #: what is taken off before cutting; differs from ``warp`` and ``weft`` when the cloth is cut raw or was treated
    warp_taken: Shrinkage
    weft_taken: Shrinkage
    width: Figure | None
    purchase: Purchase | None
    missing: dict[str, str]
    warnings: tuple[tuple[str, str, str], ...]

    @property
    def taken(self) -> tuple[float, float]:
        """Shrinkages along and across that are still to come before cutting, as planned with, per cent."""
        warp, weft = self.warp_taken.plan, self.weft_taken.plan
        return (warp.value if warp else 0.0, weft.value if weft else 0.0)

    @property
    def basis(self) -> dict[str, float]:
        """What a lay made now would rest on: those of the two shrinkages that are known, by direction."""
        return {k.direction: round(k.plan.value, 3) for k in (self.warp_taken, self.weft_taken) if k.plan}


@dataclass(frozen=True)
class ClothFacts:
    """What a tally rests on besides the cloth's measures. ``raw``: cut before washing, to shrink to fit.
    ``treated``: width and length in hand were measured after pre-treatment."""

    make: Make = field(default_factory=Make)
    swatch: Swatch = field(default_factory=Swatch)
    past: tuple[Past, ...] = ()
    raw: bool = False
    treated: bool = False


@dataclass(frozen=True)
class MeasuredLay:
    """The chosen lay: its length in mm, what each rule of the cloth costs in it, and what serves a rule of thumb."""

    length: float
    extras: tuple[Extra, ...] = ()
    repeat: float | None = None
    main_pieces: int = 0


def tally(cloth: Cloth | None, given: ClothFacts, lay: MeasuredLay | None, wishes: Wishes) -> Tally:
    """Everything that can be said now. ``lay`` is the chosen one, or None."""
    warp = known_shrinkage(given.make, given.swatch, given.past, "warp")
    weft = known_shrinkage(given.make, given.swatch, given.past, "weft")
    warp_taken, weft_taken = warp, weft
    if given.raw or given.treated:
        why = "the cloth is cut raw" if given.raw else "measured after pre-treatment"
        formula = "nothing shrinks before it is cut"
        sources = (RAW_CUT,) if given.raw else (TREATED, RESTS)
        warp_taken = nothing_left("warp", why, formula, sources)
        weft_taken = nothing_left("weft", why, formula, sources)
    missing: dict[str, str] = {}
    warnings: list[tuple[str, str, str]] = []
    width: Figure | None = None
    bought: Purchase | None = None
    for known in (warp, weft):
        if known.figure is None:
            missing[f"shrinkage_{known.direction}"] = known.missing
        elif known.basis == "range" and not given.treated:
            told = f"The {known.direction} shrinkage is a planning range, not a swatch."
            warnings.append(("shrink", "look", told))
    if cloth is None or not cloth.width_readings:
        missing["width"] = "Measure the cloth's width in three places."
    elif weft_taken.plan is None:
        missing["width"] = weft_taken.missing
    else:
        try:
            width = usable_width(cloth, weft_taken.plan)
            if width.note:
                warnings.append(("cloth", "look", Sentence("Width: {note}.", note=width.note)))
        except BadCloth as fault:
            missing["width"] = sentence_of(fault)
    if lay is None:
        missing["lay"] = "Lay the pieces."
    if lay is None or warp_taken.plan is None:
        missing["to_buy"] = "Lay the pieces first." if lay is None else warp_taken.missing
    else:
        bought = purchase(
            lay.length,
            warp_taken.plan,
            Order(
                wishes.ends,
                wishes.spare,
                wishes.step,
                wishes.bought_extra,
                wishes.why,
                price_per_m=cloth.price_per_m if cloth else None,
                in_hand=cloth.in_hand if cloth else None,
            ),
            extras=lay.extras,
            repeat=lay.repeat,
            main_pieces=lay.main_pieces,
        )
        if bought.cost is None:
            missing["cost"] = "Give the cloth's price."
        if bought.in_hand_does is False:
            warnings.append(("buy", "spoil", "The length in hand is too short for this lay."))
    return Tally(warp, weft, warp_taken, weft_taken, width, bought, missing, tuple(warnings))


def bad_pieces(pieces: list[Piece]) -> list[str]:
    """One sentence for each piece that cannot be cut as described."""
    faults = []
    for piece in pieces:
        try:
            cut_line(piece)
        except BadPiece as fault:
            faults.append(sentence_of(fault))
    return faults
