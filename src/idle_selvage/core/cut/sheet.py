"""The sheet for the table: everything that is needed to cut, as a document of two pages."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..lay.drawing import Drawing
from ..wording import Sentence, listed
from ..working import Figure, length
from .handling import MarkKind
from .told import PieceTold, kinds_of


@dataclass(frozen=True)
class SheetRow:
    """One placement in the order of cutting: its number, and a box to tick for each copy."""

    number: int
    piece: PieceTold
    copies: int
    stop_at: tuple[str, ...] = ()
    #: the fold it is cut in, named where it is another than before
    fold: str = ""


@dataclass(frozen=True)
class SheetLay:
    """One lay of the sheet: the cloth it is on, its map, how that is folded, its placements in the order of cutting."""

    cloth: str
    drawing: Drawing
    rows: tuple[SheetRow, ...]
    folding: tuple[tuple[str, tuple[str, ...]], ...]


@dataclass(frozen=True)
class CutSheet:
    """What stands on the sheet. ``lays``: one, or after pieces were laid again every lay that still is cut from;
    ``figures``: (what it is, figure), whose working stands in the footnotes."""

    garment: str
    cloth: str
    size: str
    lays: tuple[SheetLay, ...]
    matching: tuple[str, ...]
    marking: tuple[str, ...]
    handling: tuple[str, ...]
    cautions: tuple[str, ...]
    materials: tuple[str, ...]
    figures: tuple[tuple[str, Figure], ...]

    @property
    def copies(self) -> int:
        return sum(row.copies for lay in self.lays for row in lay.rows)


def place_told(piece: PieceTold) -> Sentence:
    """Where a piece lies along the cloth."""
    begins, ends = max(0.0, piece.shape.from_end[0]), piece.shape.from_end[1]
    told = "{begins} to {ends} from the {start}"
    return Sentence(told, begins=length(begins), ends=length(ends), start=piece.from_what)


def arrow_told(piece: PieceTold) -> Sentence:
    """The two distances of its arrow."""
    shape = piece.shape
    told = "{tail} and {head} to the {edge}"
    return Sentence(told, tail=length(shape.tail_distance), head=length(shape.head_distance), edge=shape.edge)


def marks_told(piece: PieceTold, of: Sequence[str] = ("notch",)) -> Sentence | str:
    """Where its notches (or marks of other kinds) lie: along the cloth, and from the edge of its arrow."""
    there = [mark for mark in piece.marks if mark.kind in of]
    if not there:
        return ""
    parts = {}
    for k, mark in enumerate(there):
        parts[f"m{k}"] = Sentence("{x} / {y}", x=length(mark.along), y=length(mark.across))
    return Sentence("; ".join("{" + name + "}" for name in parts), **parts)


def what_is_marked(rows: Sequence[SheetRow]) -> tuple[MarkKind, ...]:
    """Which kinds of marks the pieces have, each once."""
    return kinds_of([mark for row in rows for mark in row.piece.marks])


def stops_told(row: SheetRow) -> str:
    """Whose cloth its corners must not run into."""
    return f"stop at its corners: {listed(list(row.stop_at))}" if row.stop_at else ""
