"""Closing up a lay made by hand: what the engine is asked, and its answer as a change of the hand's lay.

Searched is the last stretch on which pieces lie; stretches before it stay as they are, cut off one after another.
What is locked stays, and so does what breaks a rule on purpose: the engine lays around it.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..plan.outline import Outline
from .answer import Cut, Lay, Section
from .hand import Change, HandLay, Held, cuts_by_key, mirrors_freely, next_key, outline_of
from .layers import copies_of
from .moves import CannotMove
from .problem import TOLERANCE_MM, Fixed, LayPiece, Problem

#: How what is not locked may move: along the cloth only, or anywhere.
How = Literal["along", "anywhere"]
#: A lay that is shorter by less than this is no shorter, mm.
WORTH_MM = 0.05


@dataclass(frozen=True)
class Closing:
    """What the engine is asked for a stretch that begins at ``start``, and which placements stay outside its search."""

    problem: Problem
    section: int
    start: float
    out: tuple[str, ...]
    held_fast: bool
    #: how far along what stays outside reaches, mm from the cut end
    reach: float


def closing(hand: HandLay, problem: Problem, broken: Collection[str], how: How) -> Closing:
    """The question for the last stretch. ``broken``: placements that break a rule by themselves. Raises
    :class:`CannotMove`."""
    asked = hand.asked(problem)
    if not hand.held:
        raise CannotMove("Nothing is laid yet: take pieces from the tray first.")
    last = max(one.section for one in hand.held)
    section = hand.sections[last]
    here = [one for one in hand.held if one.section == last]
    if section.fold == "crosswise" and (how == "along" or any(one.locked or one.key in broken for one in here)):
        raise CannotMove("On a crosswise fold the fold itself moves: unlock all to search on, or push together.")
    out = {one.key for one in here if one.key in broken}
    pieces: list[LayPiece] = []
    for piece in asked.pieces:
        mine = [one for one in here if one.piece == piece.id and one.key not in out]
        if piece.pair and not mirrors_freely(piece, asked):
            out |= {one.key for one in _odd(mine, piece, section)}
            mine = [one for one in mine if one.key not in out]
        cuts = [(one, cut) for one in mine for cut in copies_of(piece, one.placement, section)]
        if not cuts:
            continue
        fixed = tuple(
            Fixed(cut.x - section.start, cut.y, cut.turn, cut.mirrored, slides=not one.locked)
            for one, cut in cuts
            if one.locked or how == "along"
        )
        pieces.append(replace(piece, copies=len(cuts), fixed=fixed))
    if not pieces:
        raise CannotMove("Nothing is left that may move.")
    by_id = {p.id: p for p in asked.pieces}
    stays = [_whole(by_id[cut.piece], cut, section.start) for key, cut in cuts_by_key(hand, by_id) if key in out]
    off = section.start
    blocked = tuple((a - off, b, c - off, d) for a, b, c, d in asked.blocked if c > off)
    shapes = tuple(tuple((x - off, y) for x, y in one) for one in asked.blocked_shapes)
    found = replace(
        asked,
        pieces=tuple(pieces),
        length=None,
        folds=(section.fold,),
        blocked=blocked,
        blocked_shapes=(*shapes, *stays),
        partial_at=section.fold_at[0] if section.fold == "partial" else None,
    )
    fast = bool(out) or any(one.locked for one in here)
    reach = max((x + off for one in stays for x, _ in one), default=0.0)
    return Closing(found, last, off, tuple(sorted(out)), fast, reach)


def _odd(mine: list[Held], piece: LayPiece, section: Section) -> list[Held]:
    """Of a pair, single copies that have no other: they stay, for the engine lays whole pairs."""
    cuts = [(one, cut) for one in mine for cut in copies_of(piece, one.placement, section)]
    over = sum(cut.mirrored for _, cut in cuts) * 2 - len(cuts)
    single = [one for one in mine if one.layers == 1 and one.mirrored == (over > 0)]
    return sorted(single, key=lambda one: not one.locked)[: abs(over)]


def _whole(piece: LayPiece, cut: Cut, start: float) -> Outline:
    ring = outline_of(piece, cut.turn, cut.mirrored, half=False) + np.array([cut.x - start, cut.y])
    return tuple((float(x), float(y)) for x, y in ring)


def closed(hand: HandLay, asked: Closing, lay: Lay) -> Change | None:
    """The engine's lay as a change of the hand's; None when it is no shorter, or folds elsewhere than what stays."""
    section, new = hand.sections[asked.section], lay.sections[0]
    along = section.fold not in ("open", "crosswise")
    moved = any(abs(a - b) > TOLERANCE_MM for a, b in zip(section.fold_at, new.fold_at, strict=False))
    if along and moved and asked.held_fast:
        return None
    stays = [one for one in hand.held if one.section != asked.section or one.key in asked.out]
    left = [one for one in hand.held if one.section == asked.section and one.key not in asked.out]
    put: list[Held] = []
    placed = [replace(entry, x=round(entry.x + asked.start, 4), section=asked.section) for entry in lay.laid]
    for exactly in (True, False):
        for entry in list(placed):
            known = next((one for one in left if _is(one, entry, exactly)), None)
            if known is None:
                continue
            left.remove(known)
            placed.remove(entry)
            put.append(Held(known.key, **vars(entry), locked=known.locked))
    for entry in placed:
        key = next_key(hand, entry.piece, [one.key for one in put])
        put.append(Held(key, **vars(entry)))
    end = round(asked.start + lay.length, 4)
    if max(end, asked.reach) >= hand.sections[-1].end - WORTH_MM:
        return None
    fold_at = tuple(round(at + asked.start, 4) for at in new.fold_at) if section.fold == "crosswise" else new.fold_at
    after = tuple(replace(one, start=end, end=end) for one in hand.sections[asked.section + 1 :])
    sections = (*hand.sections[: asked.section], Section(asked.start, end, section.fold, fold_at), *after)
    return Change("closed up", (*stays, *put), anew=sections)


def _is(one: Held, entry: object, exactly: bool) -> bool:
    """Whether an entry of the engine's lay is this placement: the same piece, at first in the same place."""
    piece, x, y, turn, mirrored, layers = (
        getattr(entry, name) for name in ("piece", "x", "y", "turn", "mirrored", "layers")
    )
    if one.piece != piece:
        return False
    if not exactly:
        return not one.locked
    near = abs(one.x - x) <= TOLERANCE_MM and abs(one.y - y) <= TOLERANCE_MM
    return near and (one.turn, one.mirrored, one.layers) == (turn, mirrored, layers)
