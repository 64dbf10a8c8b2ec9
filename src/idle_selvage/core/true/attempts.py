"""Tests one after another: does it get better, when to stop, and from which metre on the cloth is good."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .slant import BANDS_MM, band_of

LoopState = Literal["none", "true", "go-on", "stop"]

#: It must get better by more than a tape can tell to count as better, mm.
BETTER_MM = 1.0
#: So many tries without getting better are enough. Common practice, no source.
TRIES = 2
#: Places nearer than this are one, mm.
SAME_PLACE_MM = 1.0


@dataclass(frozen=True)
class Attempt:
    """One test at a ``place`` along the length (mm from the end as it was bought): signed ``offset``, and what was
    done before it."""

    place: float
    offset: float
    done: str = ""


@dataclass(frozen=True)
class Loop:
    """Where the tests of one place have got to, and what that means."""

    state: LoopState
    told: str
    best: float | None


def loop(attempts: Sequence[Attempt], bands: tuple[float, float, float] = BANDS_MM) -> Loop:
    """The re-test loop of the newest test's place, oldest first."""
    if not attempts:
        return Loop("none", "No test yet: fold selvage to selvage, let it hang, and read the edge.", None)
    here = [abs(attempts[k].offset) for k in at_this_place(attempts)]
    best = min(here)
    if band_of(here[-1], bands) == "true":
        return Loop("true", "Inside the band: it is true here.", best)
    if len(here) > TRIES and all(value > min(here[:-TRIES]) - BETTER_MM for value in here[-TRIES:]):
        return Loop(
            "stop",
            f"No better in {TRIES} tries: take the happy medium. Under Does it matter you see what it costs in twist.",
            best,
        )
    if len(here) > 1 and here[-1] <= here[-2] - BETTER_MM:
        return Loop("go-on", "It is getting better: go on.", best)
    return Loop("go-on", "Go on, and test again after each try.", best)


def same_place(a: float, b: float) -> bool:
    """Whether two tests were made at one place along the length, both mm."""
    return abs(a - b) < SAME_PLACE_MM


def at_this_place(attempts: Sequence[Attempt]) -> tuple[int, ...]:
    """Which tests, by their number, were made where the newest was, the oldest first."""
    return tuple(k for k, attempt in enumerate(attempts) if same_place(attempt.place, attempts[-1].place))


def newest_by_place(attempts: Sequence[Attempt]) -> tuple[int, ...]:
    """Which tests, by their number, are the newest of their place, along the length."""
    newest: list[int] = []
    for k, attempt in enumerate(attempts):
        newest = [n for n in newest if not same_place(attempts[n].place, attempt.place)] + [k]
    return tuple(sorted(newest, key=lambda k: attempts[k].place))


def by_place(attempts: Sequence[Attempt]) -> tuple[Attempt, ...]:
    """The newest test of each place, along the length."""
    return tuple(attempts[k] for k in newest_by_place(attempts))


def good_from(attempts: Sequence[Attempt], bands: tuple[float, float, float] = BANDS_MM) -> float | None:
    """From which place on every test so far is inside the steaming band, mm; None when the last one is not.

    0 when all are. Pieces are laid from there on.
    """
    places = by_place(attempts)
    good: float | None = None
    for attempt in reversed(places):
        if band_of(abs(attempt.offset), bands) not in ("true", "steam"):
            break
        good = attempt.place
    if good is not None and places[0].place == good:
        return 0.0
    return good


@dataclass(frozen=True)
class Truth:
    """How far True is: what the tests say, whether anything was read, and whether a happy medium was taken."""

    tested: bool
    begun: bool
    loop: Loop
    accepted: bool = False

    @property
    def progress(self) -> tuple[Literal["empty", "begun", "done"], str]:
        """How far, and what to do next."""
        if self.loop.state == "true":
            return "done", ""
        if not self.tested:
            return ("begun" if self.begun else "empty"), "Make a true edge and test the fold."
        return ("done", "") if self.accepted else ("begun", self.loop.told)
