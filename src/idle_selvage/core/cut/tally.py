"""What is cut, what went wrong with it, and what is still to be cut: added up from one deed after another.

Deeds are never taken out: a cut that was marked by mistake is taken back by another deed, and so the same deeds give
the same tally on every device and after every restart.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

#: ``cut``: a placement was cut, every layer of it; ``not cut``: that was a mistake, its cloth is whole. The faults are
#: of one copy of a placement; ``found``: what was missing, or only thought spoilt, is good. ``left``: a round was given
#: up for another lay, and what was not cut in it belongs to that one.
DeedKind = Literal["cut", "not cut", "spoilt", "short", "stained", "missing", "found", "left"]
FAULTS: dict[DeedKind, str] = {
    "spoilt": "spoilt",
    "short": "cut too short",
    "stained": "stained or flawed",
    "missing": "missing",
}
CopyState = Literal["waits", "good", "spoilt", "short", "stained", "missing", "left"]


class CannotDo(ValueError):
    """A deed that cannot be done now, with a sentence that says what would be right."""


@dataclass(frozen=True)
class Deed:
    """One deed: in which round, at which placement (none for a whole round), at which of its copies from 0."""

    kind: DeedKind
    round: int
    key: str = ""
    copy: int = 0


@dataclass(frozen=True)
class RoundToCut:
    """A round of cutting: one lay on one cloth. ``copies``: per placement how many copies it gives, in the order of the
    lay; ``pieces``: per placement its piece; ``sides``: per placement whether each copy is cut turned over; ``parts``:
    of pieces that are joined of two, which part a placement gives."""

    number: int
    copies: Mapping[str, int]
    pieces: Mapping[str, str]
    sides: Mapping[str, tuple[bool, ...]]
    parts: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class CopyTold:
    """One copy: which round and placement cuts it, and how it stands."""

    round: int
    key: str
    copy: int
    piece: str
    mirrored: bool
    state: CopyState
    #: which part it is of a piece that is joined of two; nothing: a whole one
    part: str = ""

    @property
    def lost(self) -> bool:
        """Whether it was cut, or thought to be, and another must take its place."""
        return self.state in FAULTS

    @property
    def gone(self) -> bool:
        """Whether its cloth was cut into."""
        return self.state not in ("waits", "left")


@dataclass(frozen=True)
class Tally:
    """How all copies of all rounds stand."""

    copies: tuple[CopyTold, ...] = ()

    def of(self, round_: int, key: str) -> tuple[CopyTold, ...]:
        """The copies of one placement."""
        return tuple(one for one in self.copies if one.round == round_ and one.key == key)

    @property
    def good(self) -> int:
        """How many copies are good, also those that are one too many."""
        return sum(one.state == "good" for one in self.copies)

    def counted(self, asked: Mapping[str, tuple[int, int]]) -> int:
        """How many of the copies that are ``asked`` for are good. One too many of a piece, where a lost one was found
        after another was cut, counts for no other."""
        out = 0
        for piece, (plain, over) in asked.items():
            there, turned = self._whole(piece, over == 0, ("good",))
            out += min(plain, there) + min(over, turned)
        return out

    @property
    def waiting(self) -> tuple[CopyTold, ...]:
        """Copies that lie on a lay and wait for the shears."""
        return tuple(one for one in self.copies if one.state == "waits")

    def owed(self, asked: Mapping[str, tuple[int, int]]) -> dict[str, tuple[int, int]]:
        """Copies (as drawn, turned over) that are neither good nor on a lay, of what is ``asked`` for; none left out.
        Where it is all one which side a copy is cut from, ``asked`` says so by asking for none turned over, and
        whatever was cut counts."""
        out = {}
        for piece, (plain, over) in asked.items():
            there, turned = self._whole(piece, over == 0, ("waits", "good"))
            left = (max(0, plain - there), max(0, over - turned))
            if any(left):
                out[piece] = left
        return out

    def _whole(self, piece: str, either: bool, states: Sequence[CopyState]) -> tuple[int, int]:
        """How many whole copies of a piece are in these states: as drawn and turned over, or (``either``) all as drawn.
        Of a piece that is joined of two, as many as there are of both parts."""
        counted = [0, 0]
        parts: dict[str, list[int]] = {}
        for one in self.copies:
            if one.piece != piece or one.state not in states:
                continue
            side = 1 if one.mirrored and not either else 0
            if one.part:
                parts.setdefault(one.part, [0, 0])[side] += 1
            else:
                counted[side] += 1
        if len(parts) > 1:
            counted = [counted[side] + min(found[side] for found in parts.values()) for side in (0, 1)]
        return counted[0], counted[1]


def begun(rounds: Sequence[RoundToCut]) -> Tally:
    """The tally before anything is cut."""
    return Tally(
        tuple(
            CopyTold(one.number, key, k, one.pieces[key], one.sides[key][k], "waits", one.parts.get(key, ""))
            for one in rounds
            for key, count in one.copies.items()
            for k in range(count)
        )
    )


def tally(rounds: Sequence[RoundToCut], deeds: Iterable[Deed]) -> Tally:
    """Everything added up. Raises :class:`CannotDo` for deeds that could not have been done."""
    found = begun(rounds)
    for deed in deeds:
        found = after(found, deed)
    return found


def after(found: Tally, deed: Deed) -> Tally:
    """The tally after one deed more. Raises :class:`CannotDo`."""
    if deed.kind == "left":
        return _set(found, lambda one: one.round == deed.round and one.state == "waits", "left")
    here = found.of(deed.round, deed.key)
    if not here:
        raise CannotDo("There is no such piece on this lay.")
    if deed.kind == "cut":
        if any(one.state == "left" for one in here):
            raise CannotDo("The rest was laid again: cut it from the new lay.")
        if any(one.gone for one in here):
            raise CannotDo("That is cut already.")
        return _set(found, lambda one: one in here, "good")
    if deed.kind == "not cut":
        if not all(one.gone for one in here):
            raise CannotDo("That is not cut yet.")
        if any(one.lost for one in here):
            raise CannotDo("Something went wrong with it: say first that it is good after all.")
        return _set(found, lambda one: one in here, "waits")
    one = next((each for each in here if each.copy == deed.copy), None)
    if one is None:
        raise CannotDo("There is no such copy.")
    if deed.kind == "found":
        if not one.lost:
            raise CannotDo("Nothing is wrong with that one.")
        return _set(found, lambda each: each == one, "good")
    if not one.gone:
        raise CannotDo("That is not cut yet, so nothing can be wrong with it.")
    return _set(found, lambda each: each == one, deed.kind)


def _set(found: Tally, which: Callable[[CopyTold], bool], state: CopyState) -> Tally:
    return Tally(tuple(replace(one, state=state) if which(one) else one for one in found.copies))


Progress = tuple[Literal["empty", "begun", "done", "look-again"], str]


def progress(found: Tally, asked: Mapping[str, tuple[int, int]], *, begun: bool, laid: bool) -> Progress:
    """How far cutting is of what is ``asked`` for, and what to do next."""
    if not begun:
        return "empty", "Look through the list before cutting." if laid else "Lay the pieces first."
    lost = sum(sum(counts) for counts in found.owed(asked).values())
    if lost:
        told = "A piece went wrong: find it" if lost == 1 else f"{lost} pieces went wrong: find them"
        return "look-again", f"{told} a place again."
    of = sum(plain + over for plain, over in asked.values())
    left = of - found.counted(asked)
    if left:
        return "begun", f"{left} of {of} pieces wait for the shears."
    return "done", ""
