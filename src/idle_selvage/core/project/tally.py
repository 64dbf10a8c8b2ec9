"""From what is known of one cloth of a garment to the few figures it is steered by.

Each figure is either there with its working, or missing with the sentence that says what to do first. The purchase
reasons from the cloth as bought, the lay from the cloth as it is when it is cut.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Literal

from ..buy.order import Extra, Order
from ..buy.purchase import Purchase, purchase
from ..cloth.make import Make
from ..cloth.state import State
from ..cloth.width import BadCloth, Cloth, usable_width
from ..plan.allowance import cut_line
from ..plan.outline import BadPiece
from ..plan.piece import Piece
from ..shrink.history import Past
from ..shrink.known import LEFT_ALONE, RAW_CUT, Shrinkage, nothing_left
from ..shrink.programme import Programme
from ..shrink.shrinkage import Direction
from ..shrink.states import ClothStates, states_of
from ..shrink.swatch import AT_REST, BOTH_WAYS, Swatch
from ..wording import Sentence, sentence_of
from ..working import Figure, Step, length, percent

#: What happens to a cloth before it is cut: it will be treated, it was, nothing, or it is sewn first and shrunk to fit.
Treatment = Literal["coming", "done", "none", "fit"]


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

    #: what the cloth loses in all, along and across
    warp: Shrinkage
    weft: Shrinkage
    #: what a length loses from as it is bought to as it is cut
    warp_taken: Shrinkage
    weft_taken: Shrinkage
    #: selvage to selvage as it is cut, and what of that may be used
    washed_width: Figure | None
    width: Figure | None
    #: the length in hand as it is cut, and what is left of it once both ends are straightened, on the safe side
    length: Figure | None
    left: Figure | None
    purchase: Purchase | None
    missing: dict[str, str]
    warnings: tuple[tuple[str, str, str], ...]

    @property
    def taken(self) -> tuple[float, float]:
        """Shrinkages along and across from as bought to as cut, as planned with, per cent."""
        warp, weft = self.warp_taken.plan, self.weft_taken.plan
        return (warp.value if warp else 0.0, weft.value if weft else 0.0)

    @property
    def basis(self) -> dict[str, float]:
        """What a lay made now would rest on: those of the two shrinkages that are known, by direction."""
        return {k.direction: round(k.plan.value, 3) for k in (self.warp_taken, self.weft_taken) if k.plan}


@dataclass(frozen=True)
class ClothFacts:
    """What a tally rests on besides the cloth's measures.

    ``states``: the cloth through its states; none: only as it is measured. ``washed_later``: the finished garment will
    be washed.
    """

    make: Make = field(default_factory=Make)
    swatch: Swatch = field(default_factory=Swatch)
    past: tuple[Past, ...] = ()
    treatment: Treatment = "coming"
    states: tuple[State, ...] = ()
    washed_later: bool = True
    #: how the length will be washed, or how the finished garment will where the length is not
    how: Programme | None = None


@dataclass(frozen=True)
class MeasuredLay:
    """The chosen lay: its length in mm, what each rule of the cloth costs in it, and what serves a rule of thumb.

    ``what`` it is: a lay, or the edges a trim goes on.
    """

    length: float
    extras: tuple[Extra, ...] = ()
    repeat: float | None = None
    main_pieces: int = 0
    what: str = "the lay"


def cut_in(states: ClothStates, treatment: Treatment) -> int:
    """The state in which a cloth is cut."""
    return states.treated if treatment == "coming" else states.current


def states_for(cloth: Cloth | None, given: ClothFacts) -> ClothStates:
    """A cloth through its states."""
    measured = () if cloth is None else (State(cloth.width_readings, cloth.in_hand),)
    return ClothStates(given.states or states_of(measured), given.make, given.swatch, given.past, given.how)


def _taken(states: ClothStates, treatment: Treatment, direction: Direction) -> Shrinkage:
    """What a length that is bought loses before it is cut."""
    if treatment == "fit":
        return nothing_left(direction, "the cloth is cut raw: nothing shrinks before it is cut", (RAW_CUT,))
    if treatment == "none" and states.current == 0:
        return nothing_left(direction, "it is left alone: nothing shrinks before it is cut", (LEFT_ALONE,))
    return states.after(cut_in(states, treatment), direction)


def tally(cloth: Cloth | None, given: ClothFacts, lay: MeasuredLay | None, wishes: Wishes) -> Tally:
    """Everything that can be said now. ``cloth`` has the margins and the price; ``lay`` is the chosen one, or None."""
    states = states_for(cloth, given)
    at = cut_in(states, given.treatment)
    whole = max(1, states.washes, states.current)
    warp, weft = states.after(whole, "warp"), states.after(whole, "weft")
    warp_taken, weft_taken = (_taken(states, given.treatment, way) for way in BOTH_WAYS)
    missing: dict[str, str] = {}
    warnings: list[tuple[str, str, str]] = []
    for known in (warp, weft):
        if known.figure is None:
            missing[f"shrinkage_{known.direction}"] = known.missing
        elif known.basis == "range" and given.treatment in ("coming", "fit"):
            told = f"The {known.direction} shrinkage is a planning range, not a swatch."
            warnings.append(("shrink", "look", told))
    # a length that was treated is measured, not planned by its swatch
    if given.treatment in ("coming", "fit") or (given.treatment == "none" and given.washed_later):
        warnings += [("shrink", "look", told) for told in dict.fromkeys(k.told for k in (warp, weft) if k.told)]
    width, washed_width = _width(cloth, states, at, missing, warnings)
    in_hand = states.length_in(at)
    bought = _bought(cloth, lay, wishes, states, at, warp_taken, missing)
    if bought is not None and bought.cost is None:
        missing["cost"] = "Give the cloth's price."
    if bought is not None and bought.in_hand_does is False:
        warnings.append(("buy", "spoil", "The length in hand is too short for this lay."))
    warnings += _left_to_shrink(states, given)
    return Tally(
        warp,
        weft,
        warp_taken,
        weft_taken,
        washed_width,
        width,
        in_hand,
        None if in_hand is None else left_to_lay_on(in_hand, wishes.ends),
        bought,
        missing,
        tuple(warnings),
    )


def _width(
    cloth: Cloth | None, states: ClothStates, at: int, missing: dict[str, str], warnings: list[tuple[str, str, str]]
) -> tuple[Figure | None, Figure | None]:
    """The usable width as it is cut, and the width from selvage to selvage."""
    since = states.measured("width", at)
    if cloth is None or since is None:
        missing["width"] = "Measure the cloth's width in three places."
        return None, None
    coming = states.coming(since, at, "weft")
    if coming.plan is None:
        missing["width"] = coming.missing
        return None, None
    try:
        found = usable_width(replace(cloth, width_readings=states.states[since].widths), coming.plan)
    except BadCloth as fault:
        missing["width"] = sentence_of(fault)
        return None, None
    if found.note:
        warnings.append(("cloth", "look", Sentence("Width: {note}.", note=found.note)))
    return found, states.width_in(at)


def _bought(
    cloth: Cloth | None,
    lay: MeasuredLay | None,
    wishes: Wishes,
    states: ClothStates,
    at: int,
    taken: Shrinkage,
    missing: dict[str, str],
) -> Purchase | None:
    if lay is None:
        missing["lay"] = "Lay the pieces."
    if lay is None or taken.plan is None:
        missing["to_buy"] = "Lay the pieces first." if lay is None else taken.missing
        return None
    since = states.measured("length", at)
    in_hand = None if since is None else states.states[since].length
    order = Order(
        wishes.ends,
        wishes.spare,
        wishes.step,
        wishes.bought_extra,
        wishes.why,
        price_per_m=cloth.price_per_m if cloth else None,
        in_hand=in_hand,
    )
    return purchase(
        lay.length,
        taken.plan,
        order,
        extras=lay.extras,
        repeat=lay.repeat,
        main_pieces=lay.main_pieces,
        what=lay.what,
        in_hand_warp=None if since is None else states.coming(since, at, "warp").plan,
    )


def left_to_lay_on(in_hand: Figure, ends: float) -> Figure:
    """What is left of a length (as it is cut, mm) once both ends are straightened; of a predicted one its low end."""
    least = in_hand.value if in_hand.low is None else in_hand.low
    inputs = (("length as it is cut, at least", length(least)), ("both ends", length(ends)))
    step = Step("left to lay on", "length as it is cut, at least − both ends", inputs, length(least - ends))
    return Figure(least - ends, "length", steps=(*in_hand.steps, step), sources=in_hand.sources, note=in_hand.note)


def _left_to_shrink(states: ClothStates, given: ClothFacts) -> list[tuple[str, str, str]]:
    """Warnings of what the garment will lose after it is sewn, as it will be washed."""
    if given.treatment == "coming" or not (given.washed_later or given.treatment == "fit"):
        return []
    whole = max(1, states.washes, states.current)
    along, across = (states.coming(states.current, whole, way).figure for way in BOTH_WAYS)
    if given.treatment == "fit":
        if states.current == 0 or along is None or across is None:
            return []
        by = {"along": percent(max(0.0, along.value)), "across": percent(max(0.0, across.value))}
        told = "It was pre-shrunk, so the pieces are enlarged only by what is left: {along} along and {across} across."
        return [("shrink", "look", Sentence(told, **by))]
    if (along is None or across is None) and given.treatment == "none":
        told = "It is left alone, but the finished thing will be washed, and how much it shrinks then is not known."
        return [("shrink", "spoil", told)]
    if along is None or across is None or max(along.value, across.value) < AT_REST:
        return []
    by = {"along": percent(max(0.0, along.value)), "across": percent(max(0.0, across.value))}
    if given.treatment == "none":
        told = (
            "It is left alone, but the finished thing will be washed: it will then shrink by about {along} along and "
            "{across} across."
        )
        return [("shrink", "spoil", Sentence(told, **by))]
    told = (
        "Its swatch shrank by about {along} along and {across} across more in later washes than the length has had: "
        "wash it again."
    )
    return [("shrink", "look", Sentence(told, **by))]


def bad_pieces(pieces: list[Piece]) -> list[str]:
    """One sentence for each piece that cannot be cut as described."""
    faults = []
    for piece in pieces:
        try:
            cut_line(piece)
        except BadPiece as fault:
            faults.append(sentence_of(fault))
    return faults
