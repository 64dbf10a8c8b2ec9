"""A pattern piece: its outline and how it is cut."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .outline import BadPiece, Outline, fold_fault, polygon_fault

Grain = Literal["lengthwise", "crosswise", "bias", "any"]


GRAINS: tuple[Grain, ...] = ("lengthwise", "crosswise", "bias", "any")


MAX_COPIES = 200


@dataclass(frozen=True)
class Piece:
    """One pattern piece. ``seam`` is the allowance still to be added round it, 0 when it is included."""

    name: str
    outline: Outline
    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0


def check_piece(piece: Piece) -> None:
    """Raise :class:`BadPiece` with one sentence when the piece cannot be cut as described."""
    name = piece.name or "The piece"
    if not 1 <= piece.copies <= MAX_COPIES:
        raise BadPiece(f"{name}: copies must be from 1 to {MAX_COPIES}.")
    if piece.pair and piece.on_fold:
        raise BadPiece(f"{name}: a piece on the fold is symmetrical, so it has no pair. Choose one of the two.")
    if piece.pair and piece.copies % 2:
        raise BadPiece(f"{name}: a pair needs an even number of copies, not {piece.copies}.")
    if piece.on_fold and piece.grain == "bias":
        raise BadPiece(f"{name}: a piece on the fold cannot lie on the bias. Draw it whole, or choose another grain.")
    fault = polygon_fault(piece.outline) or (fold_fault(piece.outline) if piece.on_fold else None)
    if fault:
        raise BadPiece(f"{name}: the outline {fault}.")


def how_cut(piece: Piece) -> str:
    """How many are cut, and how, in a few words."""
    if piece.on_fold:
        parts = [f"{piece.copies} on the fold"]
    elif piece.pair:
        pairs = piece.copies // 2
        parts = [f"{pairs} {'pair' if pairs == 1 else 'pairs'}"]
    else:
        parts = [f"{piece.copies} to cut"]
    parts += {"crosswise": ["cross grain"], "bias": ["bias"]}.get(piece.grain, [])
    return ", ".join([*parts, *(["one way"] if piece.one_way else [])])
