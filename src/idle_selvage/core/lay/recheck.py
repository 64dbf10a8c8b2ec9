"""A lay made by hand looked at again after the cloth or the pieces changed: what breaks, and what is laid anew."""

from __future__ import annotations

from dataclasses import replace

from ..wording import Sentence
from .answer import Lay, to_json
from .broken import Broken, broken
from .check import Fault, faults_of
from .hand import HandLay, as_lay, cuts_by_key
from .layers import copies_of
from .moves import CannotMove
from .problem import Fixed, Problem
from .problem import to_json as problem_json

#: What only a change from outside can break, and what is said of it.
_TOLD = {
    "overlap": ("{what} would overlap.", "They cannot both be cut there."),
    "gap": ("{what} would be nearer than the room to cut.", "Cut there with care, or lay them again."),
    "ground": ("{what} would lie over a fold or its meeting line.", "It would not be cut as one piece."),
    "fold": ("The fold no longer lies where it has to.", "Everything on it is laid again."),
}


def still_there(hand: HandLay, now: Problem) -> HandLay:
    """The placements of pieces that are still asked for."""
    asked = {p.id for p in now.pieces}
    return replace(hand, held=tuple(one for one in hand.held if one.piece in asked))


def recheck(hand: HandLay, now: Problem, base: Lay) -> tuple[Broken, ...]:
    """What of a lay breaks on the problem as it is now."""
    hand = still_there(hand, now)
    asked = hand.asked(now)
    pieces = {p.id: p for p in asked.pieces}
    keys = {(cut.piece, cut.copy): key for key, cut in cuts_by_key(hand, pieces)}
    found = list(broken(hand, now))
    for k, fault in enumerate(faults_of(problem_json(asked), to_json(as_lay(hand, asked, base)))):
        if fault.kind in _TOLD:
            found.append(_outside(k, fault, hand, keys, {p.id: p.called for p in asked.pieces}))
    return tuple(found)


def _outside(
    number: int, fault: Fault, hand: HandLay, keys: dict[tuple[str, int], str], names: dict[str, str]
) -> Broken:
    told, cost = _TOLD[fault.kind]
    mine = tuple(dict.fromkeys(keys[copy] for copy in fault.copies))
    if fault.kind == "ground":
        mine = tuple(one.key for one in hand.held if one.piece == fault.what[0])
    if fault.kind == "fold":
        mine = tuple(one.key for one in hand.held)
    what = " and ".join(dict.fromkeys(names[one.piece] for one in hand.held if one.key in mine))
    said = Sentence(told, what=what) if "{what}" in told else Sentence(told)
    return Broken("outside", f"{fault.kind} {number}", said, Sentence(cost), mine)


def mending(hand: HandLay, now: Problem, base: Lay) -> Problem:
    """The problem as it is now, with everything fixed that is still right. Raises :class:`CannotMove`."""
    if len([s for s in hand.sections if s.end > s.start]) > 1 or hand.sections[0].fold == "crosswise":
        raise CannotMove("A lay of several stretches, or one folded end to end, is laid again as a whole: Lay again.")
    there = still_there(hand, now)
    wrong = {key for one in recheck(hand, now, base) if one.kind != "count" for key in one.keys}
    asked = there.asked(now)
    fixed: dict[str, list[Fixed]] = {}
    pieces = {p.id: p for p in asked.pieces}
    for one in there.held:
        if one.key in wrong:
            continue
        for cut in copies_of(pieces[one.piece], one.placement, there.sections[one.section]):
            fixed.setdefault(one.piece, []).append(Fixed(cut.x, cut.y, cut.turn, cut.mirrored))
    told = tuple(replace(p, fixed=tuple(fixed.get(p.id, ())[: p.copies])) for p in asked.pieces)
    return replace(asked, pieces=told, folds=(there.sections[0].fold,), length=None, partial_at=_depth(there, asked))


def _depth(hand: HandLay, asked: Problem) -> float | None:
    """The depth of a partial fold, while the cloth is wide enough for it."""
    at = hand.sections[0].fold_at
    return at[0] if hand.sections[0].fold == "partial" and at[0] <= asked.width / 2 else None
