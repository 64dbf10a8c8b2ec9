"""A pattern piece: its outline and how it is cut."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property
from typing import Literal

from ..wording import joined
from .draft import Ends
from .outline import BadPiece, Outline, Point, fold_fault, polygon_fault

Grain = Literal["lengthwise", "crosswise", "bias", "any"]


GRAINS: tuple[Grain, ...] = ("lengthwise", "crosswise", "bias", "any")


MAX_COPIES = 200
#: An arrow that leans further than this on the paper lays its piece aslant, degrees.
ASLANT_DEGREES = 1.0


@dataclass(frozen=True)
class DrawnMark:
    """A mark as it is drawn: a short line for a notch, else its places; all in the outline's axes."""

    kind: str
    line: Outline
    name: str = ""


@dataclass(frozen=True)
class Allowance:
    """What is said of one stretch of the outline: the number of its edge, its own allowance in mm (None: the piece's
    usual one), and how that ends at the corners."""

    edge: int
    width: float | None = None
    ends: Ends = "mitre"


@dataclass(frozen=True)
class Piece:
    """One pattern piece as it is cut, its grain along +x.

    ``seam``: the allowance still to be added round it, 0 when it is included; ``edges``: what is said of each stretch
    of the outline, or nothing; ``included``: the allowance inside the drawn line; ``bare``: cut without any allowance,
    at the seam line. ``arrow``: its own grainline; ``slant``: how far that leans on the paper, degrees; ``marks``: what
    is drawn on it.
    """

    name: str
    outline: Outline
    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0
    edges: tuple[Allowance, ...] = ()
    included: float = 0.0
    bare: bool = False
    arrow: tuple[Point, Point] | None = None
    slant: float = 0.0
    marks: tuple[DrawnMark, ...] = ()
    #: what is wrong with its draft, if something is
    fault: str = ""

    # what is made of it is looked up by it, again and again
    @cached_property
    def _hash(self) -> int:
        return hash(tuple(getattr(self, one.name) for one in fields(self)))

    def __hash__(self) -> int:
        return self._hash


def check_piece(piece: Piece) -> None:
    """Raise :class:`BadPiece` with one sentence when the piece cannot be cut as described."""
    name = piece.name or "The piece"
    if piece.fault:
        raise BadPiece(joined([name + ":", piece.fault]))
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
    if abs(piece.slant) > ASLANT_DEGREES:
        on_bias = abs(abs(piece.slant) % 90.0 - 45.0) <= ASLANT_DEGREES
        parts.append("bias by its arrow" if on_bias else "aslant by its arrow")
    return ", ".join([*parts, *(["one way"] if piece.one_way else [])])
