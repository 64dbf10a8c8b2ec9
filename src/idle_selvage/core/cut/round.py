"""A round of cutting as it is added up: what its lay gives at each placement."""

from __future__ import annotations

from ..lay.answer import Cut, Lay
from ..lay.layers import copies_of, pinned_keys
from ..lay.problem import Problem
from .really_left import is_over, part_of, whole_id
from .tally import RoundToCut


def cuts_of(problem: Problem, lay: Lay) -> dict[str, tuple[Cut, ...]]:
    """The copies each placement of a lay gives, on the open cloth, by the placement's key."""
    pieces = {piece.id: piece for piece in problem.pieces}
    return {
        key: copies_of(pieces[entry.piece], entry, lay.sections[entry.section])
        for key, entry in zip(pinned_keys(lay.laid), lay.laid, strict=True)
    }


def round_to_cut(number: int, problem: Problem, lay: Lay) -> RoundToCut:
    """It as it is added up. A piece that is another turned over counts as that one, turned over."""
    cuts = cuts_of(problem, lay)
    return RoundToCut(
        number,
        {key: len(found) for key, found in cuts.items()},
        {key: whole_id(found[0].piece) for key, found in cuts.items()},
        {key: tuple(cut.mirrored != is_over(cut.piece) for cut in found) for key, found in cuts.items()},
        {key: part_of(found[0].piece) for key, found in cuts.items()},
    )
