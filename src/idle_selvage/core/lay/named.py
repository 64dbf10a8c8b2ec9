"""What folds and pieces are called."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from .answer import Lay
from .problem import Problem
from .stale import same_outline

#: Fold → (its name, “laid …”).
FOLDS_NAMED: dict[str, tuple[str, str]] = {
    "open": ("single layer", "in a single layer"),
    "lengthwise": ("folded selvage to selvage", "folded selvage to selvage"),
    "partial": ("one selvage folded up", "with one selvage folded up"),
    "double": ("both selvages to the middle", "with both selvages folded to the middle"),
    "crosswise": ("folded end to end", "folded cut end to cut end"),
    "combination": ("folded and open stretches", "on folded and open stretches"),
}


def fold_name(fold: str) -> str:
    """What a fold is called."""
    return FOLDS_NAMED[fold][0]


def laid_how(lay: Lay) -> str:
    """How a lay lies, as the end of “laid …”."""
    return FOLDS_NAMED[lay.sections[0].fold if len(lay.sections) == 1 else "combination"][1]


def called_by(names: Mapping[str, str], piece: str) -> str:
    """What a piece is called, or a part of it that a join made, by its id."""
    whole, comma, part = piece.partition(",")
    return names[whole] + comma + part if whole in names else piece


def renamed(problem: Problem, names: Mapping[str, str], now: Problem | None = None) -> Problem:
    """The same problem, its pieces called what they are called now; those that are gone keep their names.

    ``now``: what would be asked today, whose arrows and marks are drawn on the pieces that are still the same.
    """
    today = {piece.id: piece for piece in now.pieces} if now is not None else {}
    pieces = []
    for piece in problem.pieces:
        there = today.get(piece.id)
        if there is not None and same_outline(piece.outline, there.outline):
            piece = replace(piece, arrow=there.arrow, marks=there.marks)
        called = names.get(piece.id, piece.name)
        pieces.append(piece if called == piece.name else replace(piece, name=called))
    return replace(problem, pieces=tuple(pieces))
