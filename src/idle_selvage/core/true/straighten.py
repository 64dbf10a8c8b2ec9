"""Making the weft stand at right angles again: what to do in each band, two schools, and what the cloth forbids."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..cloth.make import PILE
from ..wording import Sentence
from ..working import about
from .edge import EdgeFacts
from .slant import Slant, accepted, accepted_limit

StraightenSchool = Literal["pin", "pull"]
Action = Literal["nothing", "steam", "straighten", "cut", "follow", "choose"]

STRAIGHTEN_SCHOOLS: dict[StraightenSchool, tuple[str, str]] = {
    "pin": (
        "Pin and steam",
        "pulling only distorts: the weft goes back where it was when the cloth is let go; steam sets it",
    ),
    "pull": (
        "Pull along the shorter diagonal",
        "the threads were dragged askew on the roll, so they are dragged back, little by little",
    ),
}
#: Most of a length worked at one time, mm; longer ones are worked in parts. Common practice.
MOST_AT_ONCE_MM = 2000.0
#: A printed stripe off by no more than this is followed as if it were the thread, per cent. Common practice.
FOLLOW_PERCENT = 2.0
STEAM = "Steam and a hot iron burn: keep hands clear, and let the cloth cool before it is moved."


@dataclass(frozen=True)
class StraightenFacts:
    """What decides how it may be treated, as on the cloth. ``bars``: bars that can be seen, woven or printed."""

    weave: str = "plain"
    finish: str = ""
    colouring: str = ""
    bars: bool = False
    sheer: bool = False
    slips: bool = False


@dataclass(frozen=True)
class Straightening:
    """What to do next: the action, its headline, the steps, what is forbidden and why, cautions, and other ways out."""

    action: Action
    headline: str
    steps: tuple[str, ...]
    school: StraightenSchool
    school_why: str
    forbids: tuple[str, ...]
    cautions: tuple[str, ...]
    else_: tuple[str, ...]

    @property
    def chooses(self) -> bool:
        """Whether the school of straightening matters for what is done next."""
        return self.action in ("straighten", "cut")


def forbidden(facts: StraightenFacts) -> tuple[str, ...]:
    """Why this cloth is never pulled, as sentences; none when it may be."""
    out = []
    if facts.weave in PILE:
        out.append("Pile is never pulled: it is crushed where it is held.")
    if facts.weave in ("crepe", "gauze", "satin", "lace", "sequin"):
        out.append("This weave gives on the bias and stays stretched: it is never pulled.")
    if facts.sheer or facts.slips:
        out.append("Delicate cloth is never pulled: threads part and stay parted.")
    return tuple(out)


def cannot_be_trued(facts: StraightenFacts) -> str:
    """Why the weft of this cloth cannot be moved at all, as a sentence, or nothing."""
    if facts.finish == "resin":
        return "It is resin-finished or heat-set: the weft is fixed where it is and comes back after every wash."
    return ""


def default_school(facts: StraightenFacts) -> tuple[StraightenSchool, str]:
    """The school that suits the cloth, with the reason."""
    if forbidden(facts):
        return "pin", "because this cloth must not be pulled"
    return "pin", "because it cannot overdo it, and steam holds what a pull lets go"


def plan(
    slant: Slant, facts: StraightenFacts, length: float | None = None, school: StraightenSchool | None = None
) -> Straightening:
    """What to do for a slant. ``length`` is how much cloth there is, mm; ``school`` the maker's choice."""
    forbids = forbidden(facts)
    chosen, why = default_school(facts)
    if school is not None and not (school == "pull" and forbids):
        chosen, why = school, "as chosen" if school != chosen else why
    fixed = cannot_be_trued(facts)
    printed = facts.colouring == "printed" and facts.bars

    def made(action: Action, headline: str, steps: list[str], cautions: list[str], *else_: str) -> Straightening:
        stuck = (fixed,) if fixed else ()
        return Straightening(action, headline, tuple(steps), chosen, why, (*stuck, *forbids), tuple(cautions), else_)

    if slant.band == "true":
        return made("nothing", "True: fold it and lay", ["Fold selvage to selvage and check the fold."], [])
    if printed:
        if slant.skew.value <= FOLLOW_PERCENT:
            steps = [
                "Lay the pieces by the printed bars, not by the thread: the eye sees the bars.",
                "Keep long panels few: each twists a little at the hem.",
            ]
            return made("follow", "Follow the print: it is off by little", steps, [])
        steps = [
            "Choose grain or print: the two cannot both be straight.",
            "By the grain the bars slope; by the print the garment twists. Under Does it matter you see by how much.",
            "For something that shows both, change the cloth or take it back.",
        ]
        return made("choose", "Printed off grain: choose grain or print, or change the cloth", steps, [])
    if fixed:
        steps = [
            "Do not try to straighten it: it comes back after the first wash.",
            "Cut by the selvage, and see under Does it matter what that does to each piece.",
        ]
        headline = "It cannot be trued: cut by the selvage, or take it back"
        return made("choose", headline, steps, [], _back(slant, facts))
    if slant.band == "steam":
        steps = [
            "Lay it flat, selvages straight, and square the edge by hand.",
            "Press with steam from the middle outwards, with the edge held square; let it cool flat.",
            "Test again.",
        ]
        return made("steam", "Steam and press it to shape", steps, [STEAM])
    if slant.band == "straighten":
        return made(
            "straighten",
            f"Straighten it: {STRAIGHTEN_SCHOOLS[chosen][0].lower()}",
            _steps(slant, chosen, length),
            [STEAM],
        )
    steps = [
        "Cut off the next metre or two and make a new true edge: the first of a roll is the worst.",
        "Test again further in: write the place down with the reading.",
        Sentence("Or try to straighten it, in lengths of at most {most}.", most=about(MOST_AT_ONCE_MM)),
    ]
    headline = "Too far off to press out: cut off a metre or two and test again"
    return made(
        "cut", headline, steps, [], "Accept a middle way when it gets no better in two tries.", _back(slant, facts)
    )


def _back(slant: Slant, facts: StraightenFacts) -> str:
    limit = f"{accepted_limit(facts.bars):g} %{' for stripes and checks' if facts.bars else ''}"
    if accepted(slant.skew.value, facts.bars):
        return f"It is within the usual limit of {limit}: a shop need not take it back."
    return f"It is over the usual limit of {limit}: take it back, if it was not cut or washed."


def pull_corners(slant: Slant) -> tuple[str, str]:
    """The two ends of the shorter diagonal, along which it is pulled. With the far corner sticking out at the tested
    end, the near corner of that end is the nearer one to the far corner of the other end."""
    if slant.long_side == "far":
        return "the near selvage at this end", "the far selvage at the other end"
    return "the far selvage at this end", "the near selvage at the other end"


def _steps(slant: Slant, school: StraightenSchool, length: float | None) -> list[str]:
    parts: str = ""
    if length is not None and length > MOST_AT_ONCE_MM:
        n = int(-(-length // MOST_AT_ONCE_MM))
        told = "Work in {n} lengths of at most {most}, one after another."
        parts = Sentence(told, n=n, most=about(MOST_AT_ONCE_MM))
    if school == "pull":
        one, other = pull_corners(slant)
        steps = [
            f"Hold {one} and {other}: that is the shorter diagonal. A long piece takes two people.",
            "Pull gently, move both hands a hand's breadth, and pull again, all along.",
            "Lay it flat and test after each time: rather too little than too much.",
            "Press with steam to set it.",
        ]
    else:
        steps = [
            "Fold selvage to selvage on the ironing board and pin them together every few centimetres.",
            "Pin the true edges together too: the layers ripple towards the fold.",
            "Steam from the selvage towards the new fold and smooth the ripples out; do not drag the iron.",
            "Let it cool pinned, take the pins out and count them, then test again.",
        ]
    return [parts, *steps] if parts else steps


def straighten_facts(edge: EdgeFacts, bars_seen: bool) -> StraightenFacts:
    """What decides how a cloth may be straightened; ``bars_seen``: bars of either direction that can be seen."""
    return StraightenFacts(edge.weave, edge.finish, edge.colouring, bars_seen, edge.sheer, edge.slips)


def accept_text(bars: bool) -> str:
    """The usual limit for accepting cloth, in words."""
    what = "stripes and checks" if bars else "woven cloth"
    return f"Usual limit for accepting {what}: {accepted_limit(bars):g} % (common practice, from memory)."
