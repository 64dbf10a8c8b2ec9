"""What to look at: every warning of one garment in one place, each with the stage where it is mended."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence, listed

Level = Literal["spoil", "look"]


@dataclass(frozen=True)
class Warned:
    """One thing to look at: the stage it belongs to, whether it will spoil cloth, and the sentence."""

    stage: str
    level: Level
    text: str
    #: set aside by the maker, and why; empty: it is to be looked at
    aside: str = ""


@dataclass(frozen=True)
class Watched:
    """What the warnings rest on, besides those the tally gave.

    ``stale``: why the lay is out of date, each as the end of a sentence. ``fold_kept_off``: of a faded shop fold, None
    when there is none or no lay to tell. ``washed_unmeasured``: it was pre-treated and not measured since.
    ``uncut``: the name of a cloth from which no piece is cut. ``milder``: that it was treated more mildly than the
    garment will be. ``broken``: the rules that the lay breaks and nobody said are meant, and whether each spoils cloth.
    ``cannot_meet``: seams at which bars shall meet and cannot. ``asked``: what is odd about a cloth's direction, and
    may be meant so.
    """

    tally: tuple[tuple[str, str, str], ...] = ()
    stale: tuple[str, ...] = ()
    broken: Sequence[tuple[str, bool]] = ()
    bars_seen: bool = False
    any_meets: bool = False
    cannot_meet: Sequence[str] = ()
    fold_kept_off: bool | None = None
    made_up: bool = False
    washed_unmeasured: bool = False
    uncut: str = ""
    milder: str = ""
    asked: Sequence[str] = ()
    mismatches: Sequence[str] = ()
    all_washed: str = ""


def warnings(watched: Watched) -> tuple[Warned, ...]:
    """All of them, in the order they are shown."""
    found = [Warned(stage, "spoil" if level == "spoil" else "look", text) for stage, level, text in watched.tally]

    def look(stage: str, text: str) -> None:
        found.append(Warned(stage, "look", text))

    for why in watched.stale:
        look("lay", Sentence("The lay is out of date: {why}.", why=why))
    for text, spoils in watched.broken:
        found.append(Warned("lay", "spoil" if spoils else "look", text))
    if watched.uncut:
        look("plan", f"No piece is cut from {watched.uncut} yet: say on Plan which are, or take it out.")
    if watched.bars_seen and not watched.any_meets:
        look("plan", "Nothing is asked to meet on the bars: say under Plan, Seams, what shall.")
    if watched.cannot_meet:
        told = "Bars cannot meet at {names} as well as at the seams that come first: see Plan, Seams, what can be done."
        look("plan", Sentence(told, names=listed(list(watched.cannot_meet))))
    if watched.fold_kept_off is False:
        look("lay", "The faded fold cannot be kept off: a piece is wider than the cloth on either side of it.")
    if watched.made_up:
        look("shrink", "The swatch's readings are made up by the stand-in washer.")
    if watched.washed_unmeasured:
        look("cloth", "It was pre-treated and not measured since: measure its width and length again.")
    if watched.milder:
        look("shrink", watched.milder)
    for text in watched.asked:
        look("cloth", text)
    found += [Warned("shrink", "spoil", text) for text in watched.mismatches]
    if watched.all_washed:
        look("shrink", watched.all_washed)
    return tuple(found)
