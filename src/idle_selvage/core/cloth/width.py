"""What is known of a cloth: width readings, margins, and the width that is left after washing."""

from __future__ import annotations

from dataclasses import dataclass

from ..wording import Sentence, capital, joined, sentence_of
from ..working import Figure, Source, Step, about, length, numbered, of, percent

MEASURED = Source("common practice", "width measured in three places", "the narrowest place is planned with")

#: Readings of one cloth further apart than this are worth measuring again.
SPREAD_WARN_MM = 10.0
#: In so many places a width is measured. Common practice, no source.
PLACES = 3
#: Narrower than this no ribbon is. From memory.
LEAST_WIDTH_MM = 2.0


class BadCloth(ValueError):
    """A cloth whose numbers cannot be; the message is a sentence."""


@dataclass(frozen=True)
class Cloth:
    """A length of woven cloth as it came from the shop. Lengths in mm, ``mass`` in g/m², price per metre."""

    width_readings: tuple[float, ...]
    margin_low: float = 0.0
    margin_high: float = 0.0
    one_way: bool = False
    in_hand: float | None = None
    mass: float | None = None
    price_per_m: float | None = None


def check_cloth(cloth: Cloth) -> None:
    """Raise :class:`BadCloth` when no cloth can be like this."""
    if not cloth.width_readings:
        raise BadCloth("The width is not known yet. Measure it in three places, selvage to selvage.")
    narrowest = min(cloth.width_readings)
    if narrowest < LEAST_WIDTH_MM:
        told = "No cloth or ribbon is narrower than {least}. Check the unit."
        raise BadCloth(Sentence(told, least=about(LEAST_WIDTH_MM)))
    if cloth.margin_low + cloth.margin_high >= narrowest / 2:
        raise BadCloth("The two selvage margins take half the cloth or more. Measure only the edge not to be used.")


def planned_width(cloth: Cloth) -> Figure:
    """The width to plan with: the narrowest reading, the spread kept as its range."""
    check_cloth(cloth)
    readings = cloth.width_readings
    put = numbered("reading", map(length, readings))
    step = Step("width to plan with", of("smallest", put), put, length(min(readings)), "the narrowest place")
    note: str = ""
    if max(readings) - min(readings) > SPREAD_WARN_MM:
        told = "the readings lie more than {spread} apart: measure again, flat and without tension"
        note = Sentence(told, spread=about(SPREAD_WARN_MM))
    elif len(readings) < PLACES:
        note = "measured in fewer than three places"
    widest = Step("at the widest", of("largest", put), put, length(max(readings)))
    return Figure(min(readings), "length", min(readings), max(readings), (widest, step), (MEASURED,), note)


def usable_width(cloth: Cloth, weft_shrinkage: Figure) -> Figure:
    """Width after washing and without selvages: ``W × (1 − s_weft) − margins``, millimetres.

    ``weft_shrinkage`` is the shrinkage *to plan with* (:func:`.shrinkage.plan_with`).
    """
    wide = planned_width(cloth)
    s = weft_shrinkage.value
    washed = wide.value * (1.0 - s / 100.0)
    usable = washed - cloth.margin_low - cloth.margin_high
    if usable <= 0:
        raise BadCloth("Nothing is left of the width after washing and margins. Check the readings.")
    steps = (
        *wide.steps,
        *weft_shrinkage.steps,
        Step(
            "as it is cut",
            "width × (1 − shrinkage across)",
            (("width", length(wide.value)), ("shrinkage across", percent(s))),
            length(washed),
        ),
        Step(
            "usable",
            "washed − one margin − other margin",
            (
                ("washed", length(washed)),
                ("one margin", length(cloth.margin_low)),
                ("other margin", length(cloth.margin_high)),
            ),
            length(usable),
        ),
    )
    return Figure(usable, "length", None, None, steps, (*wide.sources, *weft_shrinkage.sources), wide.note)


def past_the_end(along: float, long: float, in_hand: float | None) -> Sentence | None:
    """The question whether a place really lies past the end of a length in hand, both mm; None where it does not.

    ``long``: how much further it reaches.
    """
    if in_hand is None or along + long <= in_hand:
        return None
    told = "Does it reach {far} along, on a cloth that is {long} long?"
    return Sentence(told, far=length(along + long), long=length(in_hand))


def check_place(across: float, cloth: Cloth, what: str) -> None:
    """Raise :class:`BadCloth` when ``what`` would lie past the far selvage, ``across`` mm from the near one."""
    if cloth.width_readings and across > max(cloth.width_readings):
        raise BadCloth(f"That {what} would lie past the far selvage.")


def width_note(cloth: Cloth) -> str:
    """How the width readings agree, in a sentence, or nothing."""
    if not cloth.width_readings:
        return ""
    try:
        note = planned_width(cloth).note
    except BadCloth as fault:
        return sentence_of(fault)
    return capital(joined([note, "."], "")) if note else ""
