"""A lay in the hand: placements that are moved, turned, put aside and taken back, and the lay they add up to.

A change says how placements lie after it, so that a lay is its beginning and its changes one after another, and taking
the last one back gives to the micrometre what was there before.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

import numpy as np

from ..plan.outline import Outline, is_mirror_symmetric, whole_polygon
from ..plan.piece import Grain
from ..plan.turning import Ring, turned
from .answer import Cut, Lay, Placement, Section
from .layers import copies_of, lies_on_fold, pinned_keys
from .problem import LayPiece, Problem, piece_area

#: Places are kept to so many decimals of a millimetre.
DECIMALS = 4


@dataclass(frozen=True)
class Held:
    """One placement a hand may take, by its ``key`` (piece and number)."""

    key: str
    piece: str
    section: int
    x: float
    y: float
    turn: int
    mirrored: bool
    layers: int
    locked: bool = False

    @property
    def placement(self) -> Placement:
        return Placement(self.piece, self.section, self.x, self.y, self.turn, self.mirrored, self.layers)


@dataclass(frozen=True)
class OwnGrain:
    """A grain that a piece has on this lay only, and why."""

    piece: str
    grain: Grain
    why: str


@dataclass(frozen=True)
class Change:
    """What was done: ``put`` lie so now, ``aside`` went onto the tray. ``anew``: the whole lay is these sections and
    what is put. ``accept`` and ``refuse``: signs of broken rules that are meant, and that are no longer."""

    kind: str
    put: tuple[Held, ...] = ()
    aside: tuple[str, ...] = ()
    anew: tuple[Section, ...] | None = None
    grain: OwnGrain | None = None
    accept: tuple[str, ...] = ()
    refuse: tuple[str, ...] = ()


@dataclass(frozen=True)
class HandLay:
    """A lay as it is held: its stretches, its placements by key, the grains of its own, the broken rules that are
    meant."""

    sections: tuple[Section, ...]
    held: tuple[Held, ...]
    grains: tuple[OwnGrain, ...] = ()
    accepted: frozenset[str] = field(default=frozenset())

    def __getitem__(self, key: str) -> Held:
        """A placement. Raises KeyError."""
        for one in self.held:
            if one.key == key:
                return one
        raise KeyError(key)

    def asked(self, problem: Problem) -> Problem:
        """The problem with the grains of this lay."""
        own = {one.piece: one.grain for one in self.grains}
        if not own:
            return problem
        return replace(problem, pieces=tuple(replace(p, grain=own[p.id]) if p.id in own else p for p in problem.pieces))


def held(lay: Lay) -> HandLay:
    """A lay taken into the hand."""
    keys = pinned_keys(lay.laid)
    return HandLay(lay.sections, tuple(Held(key, **vars(entry)) for key, entry in zip(keys, lay.laid, strict=True)))


def applied(hand: HandLay, change: Change, pieces: Mapping[str, LayPiece]) -> HandLay:
    """The lay after a change."""
    if change.anew is not None:
        locked = {one.key: one.locked for one in hand.held}
        put = tuple(replace(one, locked=locked.get(one.key, one.locked)) for one in change.put)
        hand = replace(hand, sections=change.anew, held=put)
    else:
        new = {one.key: one for one in change.put}
        gone = set(change.aside)
        there = tuple(new.pop(one.key, one) for one in hand.held if one.key not in gone)
        hand = replace(hand, held=(*there, *new.values()))
    if change.grain is not None:
        others = tuple(one for one in hand.grains if one.piece != change.grain.piece)
        hand = replace(hand, grains=(*others, change.grain))
    accepted = (hand.accepted | set(change.accept)) - set(change.refuse)
    return _settled(replace(hand, accepted=accepted), pieces)


def _settled(hand: HandLay, pieces: Mapping[str, LayPiece]) -> HandLay:
    """The stretches as long as what lies on them asks: the last one with pieces ends with them, a crosswise fold lies
    in the middle."""
    far: dict[int, float] = {}
    for one in hand.held:
        ring = outline_of(pieces[one.piece], one.turn, one.mirrored, half=_half(hand, one, pieces))
        far[one.section] = max(far.get(one.section, 0.0), one.x + float(ring[:, 0].max()))
    last = max(far, default=0)
    if hand.sections[0].fold == "crosswise" and hand.sections[0].fold_at:
        at = hand.sections[0].fold_at[0]
        half = round(max(0.0, far.get(0, at) - at), DECIMALS)
        moved = tuple(replace(one, x=round(one.x - at + half, DECIMALS)) for one in hand.held)
        return replace(hand, sections=(Section(0.0, 2 * half, "crosswise", (half,)),), held=moved)
    sections: list[Section] = []
    start = 0.0
    for k, section in enumerate(hand.sections):
        end = section.end if k < last else round(max(start, far.get(k, start)), DECIMALS)
        sections.append(replace(section, start=start, end=end))
        start = end
    return replace(hand, sections=tuple(sections))


def _half(hand: HandLay, one: Held, pieces: Mapping[str, LayPiece]) -> bool:
    return lies_on_fold(pieces[one.piece], one.placement, hand.sections[one.section])


def outline_of(piece: LayPiece, turn: int, mirrored: bool, *, half: bool) -> Ring:
    """A piece about its origin as it shows on the table: half of it where it lies on a fold, else whole."""
    return _outline(piece.outline, piece.on_fold and not half, turn, mirrored)


@lru_cache(maxsize=4000)
def _outline(outline: Outline, opened: bool, turn: int, mirrored: bool) -> Ring:
    ring: Ring = np.array(whole_polygon(outline).exterior.coords[:-1] if opened else outline, dtype=np.float64)
    return turned(ring, turn, mirrored)


def visible(hand: HandLay, one: Held, pieces: Mapping[str, LayPiece]) -> Ring:
    """A placement's outline where it lies on the table, across as on the open cloth; mm."""
    ring = outline_of(pieces[one.piece], one.turn, one.mirrored, half=_half(hand, one, pieces))
    moved: Ring = ring + np.array([one.x, one.y])
    return moved


@dataclass(frozen=True)
class Aside:
    """Copies of a piece that lie on the tray: so many as drawn, and so many turned over."""

    piece: str
    plain: int
    mirrored: int

    @property
    def count(self) -> int:
        return self.plain + self.mirrored


def mirrors_freely(piece: LayPiece, problem: Problem) -> bool:
    """Whether it is all one which side of the cloth a copy is cut from."""
    return problem.reversible or piece.on_fold or is_mirror_symmetric(piece.outline)


def tray(hand: HandLay, problem: Problem) -> tuple[Aside, ...]:
    """What is asked for and not laid."""
    cut: dict[str, list[Cut]] = {piece.id: [] for piece in problem.pieces}
    for entry in cuts_of(hand, problem):
        cut[entry.piece].append(entry)
    found = []
    for piece in problem.pieces:
        there = cut[piece.id]
        left = piece.copies - len(there)
        if left <= 0:
            continue
        over = sum(entry.mirrored for entry in there)
        if not piece.pair or mirrors_freely(piece, problem):
            found.append(Aside(piece.id, left, 0))
            continue
        mirrored = min(left, max(0, piece.copies // 2 - over))
        found.append(Aside(piece.id, left - mirrored, mirrored))
    return tuple(found)


def next_key(hand: HandLay, piece: str, taken: Iterable[str] = ()) -> str:
    """A key nobody has."""
    keys = {one.key for one in hand.held} | set(taken)
    number = 1
    while f"{piece}·{number}" in keys:
        number += 1
    return f"{piece}·{number}"


def cuts_of(hand: HandLay, problem: Problem) -> tuple[Cut, ...]:
    """Every copy that is cut, numbered, in the order of the placements."""
    pieces = {p.id: p for p in problem.pieces}
    return tuple(cut for _, cut in cuts_by_key(hand, pieces))


def cuts_by_key(hand: HandLay, pieces: Mapping[str, LayPiece]) -> list[tuple[str, Cut]]:
    """The same, each with the key of the placement it is cut by."""
    number: dict[str, int] = {}
    out = []
    for one in hand.held:
        for cut in copies_of(pieces[one.piece], one.placement, hand.sections[one.section]):
            number[one.piece] = number.get(one.piece, 0) + 1
            out.append((one.key, replace(cut, copy=number[one.piece])))
    return out


def as_lay(hand: HandLay, problem: Problem, base: Lay) -> Lay:
    """The lay a hand holds, in its format. The bound is said while it holds of it: all is laid, on its own grain, and
    nothing that breaks a rule has made it shorter than the bound."""
    cut = cuts_of(hand, problem)
    left = tuple((one.piece, one.count) for one in tray(hand, problem))
    long = hand.sections[-1].end
    area = {p.id: piece_area(p) for p in problem.pieces}
    used = sum(area[entry.piece] for entry in cut)
    holds = not left and not hand.grains and base.bound <= long
    return Lay(
        long,
        base.bound if holds else 0.0,
        round(used / (long * problem.width), 4) if long > 0 else 0.0,
        not left,
        base.seconds,
        base.seed,
        base.steps,
        hand.sections,
        tuple(one.placement for one in hand.held),
        cut,
        left,
    )


def change_json(change: Change) -> dict[str, Any]:
    """A change ready for :func:`json.dumps`; what says nothing is left out."""
    data: dict[str, Any] = {"kind": change.kind}
    if change.put:
        data["put"] = [vars(one) for one in change.put]
    if change.anew is not None:
        data["anew"] = [[s.start, s.end, s.fold, list(s.fold_at)] for s in change.anew]
    if change.grain is not None:
        data["grain"] = vars(change.grain)
    for name in ("aside", "accept", "refuse"):
        if getattr(change, name):
            data[name] = list(getattr(change, name))
    return data


def change_of(data: Mapping[str, Any]) -> Change:
    """A change as :func:`change_json` wrote it."""
    anew = data.get("anew")
    return Change(
        data["kind"],
        tuple(Held(**one) for one in data.get("put", ())),
        tuple(data.get("aside", ())),
        None if anew is None else tuple(Section(a, b, fold, tuple(at)) for a, b, fold, at in anew),
        OwnGrain(**data["grain"]) if "grain" in data else None,
        tuple(data.get("accept", ())),
        tuple(data.get("refuse", ())),
    )


def replayed(lay: Lay, changes: Sequence[Change], problem: Problem) -> HandLay:
    """A lay and the changes made to it, one after another."""
    pieces = {p.id: p for p in problem.pieces}
    hand = held(lay)
    for change in changes:
        hand = applied(hand, change, pieces)
    return hand
