"""The list before cutting: every line clean, or knowingly accepted, before the shears are taken up."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from ..cloth.width import PLACES
from ..wording import Sentence, joined, listed
from ..working import gap, length

#: ``clean``: known to be so; ``open``: it is not so, or not known; ``accepted``: it is not so and meant, with a reason.
LineState = Literal["clean", "open", "accepted"]
Picture = Literal[
    "width", "edge", "lay", "copies", "pairs", "direction", "grain", "fold", "flaws", "bars", "wash", "shears", "blade"
]


@dataclass(frozen=True)
class Line:
    """One line: what is meant, how it stands and why, the stage where it is mended. ``by_hand``: nobody but the maker
    can tell; ``can_accept``: one may go on knowing better."""

    key: str
    asks: str
    state: LineState
    told: str
    picture: Picture
    mend: str = ""
    by_hand: bool = False
    can_accept: bool = True
    why: str = ""


@dataclass(frozen=True)
class Faulty:
    """What the independent checker found, by the kind of rule: sentences."""

    kinds: Mapping[str, tuple[str, ...]]

    def of(self, *kinds: str) -> tuple[str, ...]:
        return tuple(told for kind in kinds for told in self.kinds.get(kind, ()))


@dataclass(frozen=True)
class BeforeFacts:
    """What the list rests on, all as of ``today``.

    ``width_read``: when the width was last measured in the state the cloth is cut in; ``trued``: when it was last found
    true, and ``true_enough``: whether that is so or a happy medium was taken; ``has_grain``; ``lay``: whether there is
    one; ``stale``: why it is out of date; ``checked``: what the checker says of the lay now; ``tray``: pieces not laid;
    ``meant``: broken rules that were accepted; ``seams``: (name, worst mm,
    tolerance kept) of those that shall match; ``treatment``: done, coming, none or fit; ``not_at_rest``: a sentence;
    ``untreated``: other cloths of the set still to be treated; ``fold_spread``: of the readings of the fold, mm,
    whether that is good, and when they were made; ``folded``; ``pile``: whether pile, stroke or print runs one way.
    """

    today: date
    lay: bool = True
    width_read: date | None = None
    width_readings: int = 0
    has_grain: bool = True
    trued: date | None = None
    true_enough: bool = False
    stale: tuple[str, ...] = ()
    checked: Faulty = Faulty({})
    tray: tuple[str, ...] = ()
    meant: tuple[str, ...] = ()
    seams: Sequence[tuple[str, float | None, bool]] = ()
    treatment: str = "done"
    not_at_rest: str = ""
    untreated: tuple[str, ...] = ()
    folded: bool = False
    fold_read: date | None = None
    fold_spread: float | None = None
    fold_good: bool = False
    directed: bool = False
    pairs: int = 0
    flaws: int = 0
    #: other garments that were cut from it
    cut_before: tuple[str, ...] = ()


def before_cutting(facts: BeforeFacts, ticks: Mapping[str, date], accepted: Mapping[str, str]) -> tuple[Line, ...]:
    """Every line in the order in which it is looked at; ``ticks``: what was ticked by hand, and when; ``accepted``:
    lines that are not so and meant, with the reason."""
    lines = [*_whole(facts), *_measured(facts), *_lay(facts), *_seams(facts), *_cloth(facts), *_tools()]
    return tuple(_stands(line, facts.today, ticks, accepted) for line in lines)


def ready(lines: Sequence[Line]) -> bool:
    """Whether nothing is open."""
    return all(line.state != "open" for line in lines)


def _stands(line: Line, today: date, ticks: Mapping[str, date], accepted: Mapping[str, str]) -> Line:
    state, told = line.state, line.told
    if line.by_hand and ticks.get(line.key) == today:
        return _with(line, "clean", "Ticked today.")
    if line.by_hand and line.key in ticks:
        told = "Ticked another day: look once more."
    if state == "open" and line.can_accept and line.key in accepted:
        return _with(line, "accepted", told, accepted[line.key])
    return _with(line, state, told)


def _with(line: Line, state: LineState, told: str, why: str = "") -> Line:
    return Line(line.key, line.asks, state, told, line.picture, line.mend, line.by_hand, line.can_accept, why)


def _ago(then: date, today: date) -> str:
    days = (today - then).days
    if days < 0:
        # a clock that was put back
        return "on a later day, by the clock of then"
    return "yesterday" if days == 1 else f"{days} days ago"


def _whole(facts: BeforeFacts) -> list[Line]:
    """That nothing was cut from the cloth before: said only where something was."""
    if not facts.cut_before:
        return []
    told = (
        f"{listed(list(facts.cut_before))} was cut from it; this lay does not know where. Lay it on a remnant, or go "
        "on where there is whole cloth."
    )
    return [Line("whole", "The cloth is whole", "open", told, "lay", "cloth")]


def _measured(facts: BeforeFacts) -> list[Line]:
    asks = "The width is measured again today"
    if facts.width_read is None:
        width = Line("width", asks, "open", "It was not measured as the cloth is now.", "width", "cloth")
    elif facts.width_read != facts.today:
        told = f"Last measured {_ago(facts.width_read, facts.today)}; cloth draws in and out with the air."
        width = Line("width", asks, "open", told, "width", "cloth")
    elif facts.width_readings < PLACES:
        told = f"Measured today at {facts.width_readings} of {PLACES} places."
        width = Line("width", asks, "open", told, "width", "cloth")
    else:
        width = Line("width", asks, "clean", "Measured today.", "width", "cloth")
    if not facts.has_grain:
        return [width]
    asks = "The cloth is trued today"
    if facts.trued is None:
        true = Line("trued", asks, "open", "It was not tested.", "edge", "true")
    elif not facts.true_enough:
        true = Line("trued", asks, "open", "Its last test was not true, and no happy medium was taken.", "edge", "true")
    elif facts.trued != facts.today:
        told = f"Last tested {_ago(facts.trued, facts.today)}; rolled or hung, it may have shifted."
        true = Line("trued", asks, "open", told, "edge", "true")
    else:
        true = Line("trued", asks, "clean", "Tested today.", "edge", "true")
    return [width, true]


def _rule(
    facts: BeforeFacts, key: str, asks: str, picture: Picture, kinds: Sequence[str], fine: str, *, firm: bool = False
) -> Line:
    """A line that the checker answers. ``firm``: nobody can mean it."""
    if not facts.lay:
        return Line(key, asks, "open", "Nothing is laid yet.", picture, "lay", can_accept=False)
    found = facts.checked.of(*kinds)
    if found:
        return Line(key, asks, "open", joined(found), picture, "lay", can_accept=not firm)
    return Line(key, asks, "clean", fine, picture, "lay")


def _lay(facts: BeforeFacts) -> list[Line]:
    rest = ("overlap", "gap", "end", "selvage", "bound", "length", "copies", "sections", "pinned", "fixed")
    asks = "The lay is sound"
    sound = _rule(facts, "checked", asks, "lay", rest, "Checked now: nothing overlaps or runs over an edge.", firm=True)
    if facts.lay and facts.stale and sound.state == "clean":
        told = Sentence("It is out of date: {why}.", why=joined(facts.stale, "; "))
        sound = Line("checked", asks, "open", told, "lay", "lay")
    copies = _rule(facts, "copies", "Every copy is there", "copies", ("count",), "Every copy is on the lay.")
    if facts.lay and facts.tray:
        copies = Line("copies", copies.asks, "open", f"Not laid: {listed(list(facts.tray))}.", "copies", "lay")
    paired = "There are no pairs."
    if facts.pairs:
        paired = "One pair, one turned over." if facts.pairs == 1 else f"{facts.pairs} pairs, one of each turned over."
    way = "Every top lies one way." if facts.directed else "This cloth has no direction."
    kept = "All are kept off." if facts.flaws else "There are none."
    on_grain = "Every turn is one its grain allows."
    meant = Sentence("Broken on purpose: {what}", what=joined(facts.meant)) if facts.meant else "None is."
    return [
        sound,
        copies,
        _rule(facts, "pairs", "Pairs are mirrored", "pairs", ("sides",), paired, firm=True),
        _rule(facts, "direction", "Tops lie as the cloth asks", "direction", ("direction",), way),
        _rule(facts, "grain", "Every piece is on its grain", "grain", ("turn", "border", "centre"), on_grain),
        _fold(facts),
        _rule(facts, "flaws", "Flaws are kept off", "flaws", ("flaw",), kept),
        Line("broken", "No rule is broken unless meant", "clean", meant, "lay", "lay"),
    ]


def _fold(facts: BeforeFacts) -> Line:
    asks = "The fold is right"
    kinds = ("fold", "ground")
    if not facts.folded:
        return _rule(facts, "fold", asks, "fold", kinds, "The cloth lies in a single layer.")
    line = _rule(facts, "fold", asks, "fold", kinds, "")
    if line.state == "open":
        return line
    if facts.fold_spread is None or facts.fold_read != facts.today:
        told = "Measure fold to selvage at three places, under True, or look along it and tick."
        return Line("fold", asks, "open", told, "fold", "true", by_hand=True)
    spread = length(facts.fold_spread)
    if facts.fold_good:
        good = Sentence("Measured today: fold to selvage spreads {spread}.", spread=spread)
        return Line("fold", asks, "clean", good, "fold", "true")
    bad = Sentence("Fold to selvage spreads {spread}: move the fold, under True.", spread=spread)
    return Line("fold", asks, "open", bad, "fold", "true")


def _seams(facts: BeforeFacts) -> list[Line]:
    asks = "Matched seams are inside their tolerance"
    if not facts.seams and not facts.checked.of("match"):
        return [Line("seams", asks, "clean", "No seam is asked to match.", "bars", "lay")]
    off = [one for one in facts.seams if not one[2]]
    wrong = facts.checked.of("match")
    if wrong and not off:
        return [Line("seams", asks, "open", joined(wrong), "bars", "lay")]
    if not off:
        count = len(facts.seams)
        fine = "The one that shall match does." if count == 1 else f"All {count} that shall match do."
        return [Line("seams", asks, "clean", fine, "bars", "lay")]
    return [Line("seams", asks, "open", joined([_missed(name, worst) for name, worst, _ in off]), "bars", "lay")]


def _missed(name: str, worst: float | None) -> Sentence:
    if worst is None:
        return Sentence("How {name} meets is not known.", name=name)
    return Sentence("{name} misses by {by}.", name=name, by=gap(worst))


def _cloth(facts: BeforeFacts) -> list[Line]:
    asks = "The cloth is washed and at rest"
    if facts.treatment == "coming":
        rest = Line("washed", asks, "open", "It is still to be treated.", "wash", "shrink")
    elif facts.treatment in ("none", "fit"):
        told = "It is sewn first and shrunk to fit." if facts.treatment == "fit" else "It is cut as bought, by choice."
        rest = Line("washed", asks, "clean", told, "wash", "shrink")
    elif facts.not_at_rest:
        rest = Line("washed", asks, "open", facts.not_at_rest, "wash", "shrink")
    else:
        rest = Line("washed", asks, "clean", "It is treated.", "wash", "shrink")
    asks = "Everything that goes with it is treated"
    if facts.untreated:
        told = f"Still to be treated: {listed(list(facts.untreated))}."
        return [rest, Line("set", asks, "open", told, "wash", "shrink")]
    return [rest, Line("set", asks, "clean", "Nothing else waits for its treatment.", "wash", "shrink")]


def _tools() -> list[Line]:
    told = "Try them on a corner that is left over: they must cut to the very point."
    blade = "A guard that closes by itself is still locked by hand; keep fingers and cables off its way."
    asks = "A rotary blade has its guard, and a glove is at hand"
    return [
        Line("shears", "The shears are sharp", "open", told, "shears", by_hand=True, can_accept=False),
        Line("blade", asks, "open", blade, "blade", by_hand=True, can_accept=False),
    ]
