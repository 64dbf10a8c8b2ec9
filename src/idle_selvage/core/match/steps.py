"""The steps at the table for pieces whose bars shall meet, on this lay: what is cut first, and what is laid by it.

The trade's way: the bars are squared, the first piece is cut, and each further piece is found by laying the cut one on
the cloth, bar on bar. Common practice, no source beside what is said with each step.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..lay.answer import Cut
from ..lay.placing import place, place_point
from ..lay.problem import LayPiece, piece_area
from ..plan.outline import Outline
from ..plan.seams import Sewn
from ..wording import Sentence
from ..working import length

#: A seam that leans further from the grain than this is slanted, degrees.
SLANT_DEGREES = 3.0
#: A seam that leaves its chord by more than this is curved, mm.
CURVE_MM = 25.0


@dataclass(frozen=True)
class CutStep:
    """One step: what to do, why, and which pieces it is about."""

    told: Sentence
    why: str = ""
    pieces: tuple[str, ...] = ()


def steps(
    sewn: Sequence[Sewn], pieces: Mapping[str, LayPiece], cuts: Sequence[Cut], squared: str = ""
) -> tuple[CutStep, ...]:
    """The steps for the seams that shall match, in order; ``squared``: what the bars were read to be under True."""
    asked = [one for one in sewn if one.seam.asked and one.seam.a.piece in pieces and one.seam.b.piece in pieces]
    if not asked:
        return ()
    said = squared or "read several with an L-square under True"
    out = [CutStep(Sentence("Square the bars first: {said}.", said=said), "what leans now misses at every seam")]
    done: set[str] = set()
    while True:
        rest = {side.piece for one in asked for side in (one.seam.a, one.seam.b)} - done
        if not rest:
            break
        first = max(rest, key=lambda key: _size(pieces[key]))
        out.append(_first(pieces[first], cuts))
        done.add(first)
        out += _followers(first, asked, pieces, cuts, done)
    traced = next((one for one in asked if one.seam.a.piece != one.seam.b.piece), None)
    if traced is not None:
        both = (traced.seam.a.piece, traced.seam.b.piece)
        told = "As a check, trace the bars onto the paper of {a} at its seam line, and carry them to that of {b}."
        said = Sentence(told, a=pieces[both[0]].called, b=pieces[both[1]].called)
        out.append(CutStep(said, "paper shows a slip before the shears do", both))
    out.append(
        CutStep(
            Sentence("Sew: one pin through every bar on the seam line, baste by hand, and use a walking foot."),
            "the feed of the machine shifts the lower layer",
        )
    )
    return tuple(out)


def laid_by(sewn: Sequence[Sewn], pieces: Mapping[str, LayPiece]) -> tuple[tuple[str, str], ...]:
    """Which piece is laid by which, as (piece, the one laid by it): the largest of those sewn together first, and from
    it along the seams that shall match."""
    asked = [one for one in sewn if one.seam.asked and one.seam.a.piece in pieces and one.seam.b.piece in pieces]
    rest = {side.piece for one in asked for side in (one.seam.a, one.seam.b)}
    out: list[tuple[str, str]] = []
    while rest:
        queue = [max(rest, key=lambda key: _size(pieces[key]))]
        rest.discard(queue[0])
        while queue:
            here = queue.pop(0)
            for one in asked:
                sides = (one.seam.a.piece, one.seam.b.piece)
                other = sides[1] if sides[0] == here else sides[0]
                if here in sides and other in rest:
                    rest.discard(other)
                    queue.append(other)
                    out.append((here, other))
    return tuple(out)


def _size(piece: LayPiece) -> tuple[float, str]:
    return piece_area(piece) / piece.copies, piece.id


def _first(piece: LayPiece, cuts: Sequence[Cut]) -> CutStep:
    copies = [cut for cut in cuts if cut.piece == piece.id]
    told = Sentence("Cut {piece} first, every copy face up on one layer.", piece=piece.called)
    if copies:
        cut = copies[0]
        ring = place(piece.outline, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)
        told = Sentence(
            "Cut {piece} first: its low end lies {x} from the cut end, its near edge {y} from where the usable cloth "
            "begins.",
            piece=piece.called,
            x=length(max(0.0, min(p[0] for p in ring))),
            y=length(max(0.0, min(p[1] for p in ring))),
        )
    return CutStep(told, "the largest piece leaves the least choice", (piece.id,))


def _followers(
    first: str, asked: Sequence[Sewn], pieces: Mapping[str, LayPiece], cuts: Sequence[Cut], done: set[str]
) -> list[CutStep]:
    """Each piece that is sewn to one already cut, laid by that one."""
    out: list[CutStep] = []
    queue = [first]
    while queue:
        here = queue.pop(0)
        for one in asked:
            sides = (one.seam.a.piece, one.seam.b.piece)
            if here not in sides:
                continue
            other = sides[1] if sides[0] == here else sides[0]
            if other == here:
                out += _by(one, pieces[here], pieces[here], cuts)
            elif other not in done:
                done.add(other)
                queue.append(other)
                out += _by(one, pieces[here], pieces[other], cuts)
    return out


def _by(one: Sewn, cut: LayPiece, following: LayPiece, cuts: Sequence[Cut]) -> list[CutStep]:
    run = one.a if one.seam.a.piece == cut.id else one.b
    name = one.seam.name or f"{cut.called} to {following.called}"
    both = (cut.id, following.id)
    where = _where(one, following, cuts)
    second = following.called
    if cut is following:
        second = f"the mirrored {second}" if one.mirrors else f"the next {second}"
    said = {"name": name, "a": cut.called, "b": second, "where": where}
    if one.seam.kind == "laid on":
        return [CutStep(Sentence(BY_PLACE, **said), "", both)]
    if curved(run):
        return [CutStep(Sentence(BY_CURVE, **said), "", both), _corner(name)]
    if slant(run) > SLANT_DEGREES:
        why = "a slanted edge laid face down would meet other bars"
        return [CutStep(Sentence(BY_SLANT, **said), why, both), _corner(name)]
    return [CutStep(Sentence(BY_EDGE, **said), "", both)]


#: How a following piece is laid by the cut one: a pocket, along a curve, a slanted seam, a straight one.
BY_PLACE = (
    "{name}: lay the paper of {b} on the cut {a} where it will be sewn, draw its bars onto it, and lay it on the cloth "
    "bar on bar{where}."
)
BY_CURVE = (
    "{name} is curved: pin every bar round the whole edge of the cut {a}, laid face down, before {b} is cut{where}."
)
BY_SLANT = (
    "{name} slants: fold the allowance of the cut {a} under at the seam line, lay it face up on the cloth and move it "
    "until the bars run on, mark the seam line beside the fold, turn the paper of {b} over along it, and add its "
    "allowance{where}."
)
BY_EDGE = "{name}: lay the cut {a} face down on the cloth, bar on bar, and cut {b} by its edge{where}."


def _corner(name: str) -> CutStep:
    told = "{name}: stop the shears at the corner; do not run over it."
    return CutStep(Sentence(told, name=name), "the next edge begins there")


def _where(one: Sewn, following: LayPiece, cuts: Sequence[Cut]) -> Sentence:
    """Where the key point of the following piece comes to lie, in words; nothing where it does not lie yet."""
    copies = [cut for cut in cuts if cut.piece == following.id]
    if not copies:
        return Sentence("")
    key = one.key[0] if one.seam.a.piece == following.id else one.key[1]
    cut = copies[-1]
    x, y = place_point(key, x=cut.x, y=cut.y, turn=cut.turn, mirrored=cut.mirrored)
    told = "; its key point comes to lie {x} from the cut end and {y} across"
    return Sentence(told, x=length(abs(x)), y=length(abs(y)))


def slant(run: Outline) -> float:
    """By how much a seam leans from the grain, degrees: 0 along it."""
    (ax, ay), (bx, by) = run[0], run[-1]
    off = abs(math.degrees(math.atan2(by - ay, bx - ax))) % 180.0
    return min(off, 180.0 - off)


def curved(run: Outline) -> bool:
    """Whether a seam leaves its chord so far that its bars must be pinned all round."""
    ring = np.array(run)
    chord = ring[-1] - ring[0]
    long = float(np.hypot(*chord))
    if long < 1.0:
        return True
    away = np.abs(chord[0] * (ring[:, 1] - ring[0, 1]) - chord[1] * (ring[:, 0] - ring[0, 0])) / long
    return float(away.max()) > CURVE_MM
