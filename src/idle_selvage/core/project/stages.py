"""How far a project is at each stage, and what needs another look."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..cloth.width import PLACES
from ..wording import Sentence, joined

StageState = Literal["empty", "begun", "done", "look-again"]

#: In working order: what to buy comes from the lay, and what was bought is trued and cut.
STAGES = ("plan", "cloth", "shrink", "lay", "buy", "true", "cut", "log")


@dataclass(frozen=True)
class StageFacts:
    """What decides the stages: counts and yes-or-no facts of one cloth of a garment.

    ``pieces`` are the garment's; ``trued``: the cloth has a grain to be trued; ``laid_out``: pieces are laid on it, as
    they are not on a trim.
    """

    pieces: int
    bad_pieces: int
    width_readings: int
    kind_known: bool
    marks_before: int
    washed_both_ways: bool
    made_up: bool
    not_at_rest: str
    laying: bool
    laid: bool
    stale: tuple[str, ...]
    can_buy: bool
    logged: bool
    true: tuple[StageState, str] = ("empty", "Make a true edge and test the fold.")
    trued: bool = True
    laid_out: bool = True
    cut: tuple[StageState, str] = ("empty", "Look through the list before cutting.")
    #: how many rules the lay breaks that nobody has said are meant
    broken: int = 0


@dataclass(frozen=True)
class Stage:
    """One dot of the rail. ``why`` says what to do next or why to look again."""

    name: str
    state: StageState
    why: str
    #: the cloth it is about, where there are several
    of: str = ""


def stages(facts: StageFacts) -> tuple[Stage, ...]:
    """Every stage with its state, in working order."""
    out_of_date = Sentence("Out of date: {why}.", why=_changes(facts.stale)) if facts.stale else ""
    plan: tuple[StageState, str] = ("done", "")
    if facts.bad_pieces:
        plan = ("look-again", "A piece cannot be cut as described.")
    elif not facts.pieces:
        plan = ("empty", "Add the pattern pieces.")
    cloth: tuple[StageState, str] = ("done", "")
    if facts.width_readings == 0:
        cloth = ("begun" if facts.kind_known else "empty", "Measure the width in three places.")
    elif facts.width_readings < PLACES:
        cloth = ("begun", "Measure the width in three places; fewer are given.")
    shrink: tuple[StageState, str] = ("done", "")
    if not facts.washed_both_ways:
        shrink = (
            ("begun", "Wash the swatch and measure it again.")
            if facts.marks_before
            else ("empty", "Mark a swatch and measure it before washing.")
        )
    elif facts.made_up:
        shrink = ("look-again", "The swatch's readings are made up by the stand-in washer: measure a real one.")
    elif facts.not_at_rest:
        shrink = ("begun", facts.not_at_rest)
    lay: tuple[StageState, str] = ("done", "")
    if facts.laying:
        lay = ("begun", "Laying now.")
    elif not facts.laid_out:
        lay = ("done", "")
    elif not facts.laid:
        lay = ("empty", "Lay the pieces.")
    elif out_of_date:
        lay = ("look-again", out_of_date)
    elif facts.broken:
        lay = ("look-again", "The lay breaks a rule: say that it is meant, or mend it.")
    first = "Lay the pieces first." if facts.laid_out else "Say which edges it goes on."
    buy: tuple[StageState, str] = ("done", "") if facts.can_buy else ("empty", first)
    if facts.can_buy and out_of_date:
        buy = ("look-again", out_of_date)
    log: tuple[StageState, str] = ("begun", "") if facts.logged else ("empty", "Nothing was written down yet.")
    true: tuple[StageState, str] = facts.true if facts.trued else ("done", "")
    cut: tuple[StageState, str] = facts.cut if facts.laid_out else ("done", "")
    states = {
        "plan": plan,
        "cloth": cloth,
        "shrink": shrink,
        "buy": buy,
        "true": true,
        "lay": lay,
        "cut": cut,
        "log": log,
    }
    return tuple(Stage(name, *states[name]) for name in STAGES)


#: Of what makes a lay out of date so much is told beside a dot; the Lay screen tells all.
_TOLD = 2


def _changes(stale: tuple[str, ...]) -> Sentence:
    more = len(stale) - _TOLD
    told = [*stale[:_TOLD], *([f"{more} more {'change' if more == 1 else 'changes'}"] if more > 0 else [])]
    return joined(told, " and ")
