"""What is told of one piece at the table: where it lies, how it is turned, what is measured and marked on it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..lay.beside import beside
from ..lay.drawing import Drawing, PlacedShape
from ..lay.folding import SIDES, Sides
from ..plan.outline import Point
from ..plan.piece import DrawnMark
from ..wording import Part, Sentence, joined, listed
from ..working import length
from .handling import MARKS, ONE_MARK, MarkKind

#: How a piece is turned on the cloth, in words, by degrees; ``start``: from where places along are counted. On a
#: crosswise fold that is the fold: both cut ends lie at the other end of the table.
TURNS: dict[int, str] = {
    0: "top away from the {start}",
    180: "turned end for end: top towards the {start}",
    90: "on the cross grain: top towards the far selvage",
    270: "on the cross grain: top towards the near selvage",
    45: "on the bias: top towards the far selvage and away from the {start}",
    135: "on the bias: top towards the far selvage and the {start}",
    225: "on the bias: top towards the near selvage and the {start}",
    315: "on the bias: top towards the near selvage and away from the {start}",
}


@dataclass(frozen=True)
class MarkTold:
    """One mark of a piece as it lies: what it is, its places on the cloth, and how far its first place is along the
    cloth (from where places are counted) and across (from the edge its arrow is measured to), mm."""

    kind: MarkKind
    name: str
    line: tuple[Point, ...]
    along: float
    across: float


@dataclass(frozen=True)
class PieceTold:
    """One placement at the table. ``face``: how paper and cloth lie; ``beside``: the numbers of its neighbours in the
    drawing."""

    shape: PlacedShape
    face: str
    turned: str
    layers: str
    marks: tuple[MarkTold, ...]
    beside: tuple[int, ...]

    @property
    def key(self) -> str:
        return self.shape.pinned

    @property
    def paper(self) -> str:
        """Which side of the paper looks up."""
        return paper_side(self.shape)

    @property
    def from_what(self) -> Literal["fold", "cut end"]:
        """From where places along the cloth are counted."""
        return counted_from(self.shape)

    @property
    def marked(self) -> str:
        """How many marks of each kind it has: “4 notches, 1 dart”."""
        return ", ".join(_counted(kind, sum(mark.kind == kind for mark in self.marks)) for kind in kinds_of(self.marks))


def pieces_told(drawing: Drawing, folds: Mapping[int, str], sides: Sides) -> tuple[PieceTold, ...]:
    """Every placement of a lay as it is pinned; ``folds``: the fold of each stretch."""
    near = beside([shape.outline for shape in drawing.shapes])
    return tuple(
        PieceTold(
            shape,
            face_of(shape, folds[shape.section], sides),
            turned_told(shape),
            "through two layers" if shape.layers == 2 else "through one layer",
            tuple(marks_of(shape)),
            tuple(near[k]),
        )
        for k, shape in enumerate(drawing.shapes)
    )


def counted_from(shape: PlacedShape) -> Literal["fold", "cut end"]:
    """From where places along the cloth are counted."""
    return "fold" if shape.from_fold else "cut end"


def turned_told(shape: PlacedShape) -> str:
    """How a piece is turned, in words."""
    return TURNS.get(shape.turn, f"turned by {shape.turn}°").format(start=counted_from(shape))


def _counted(kind: MarkKind, count: int) -> str:
    return f"1 {ONE_MARK[kind]}" if count == 1 else f"{count} {MARKS[kind]}"


def paper_side(shape: PlacedShape) -> str:
    """Which side of the paper looks up."""
    return "printed side down" if shape.mirrored else "printed side up"


def face_of(shape: PlacedShape, fold: str, sides: Sides) -> str:
    """How paper and cloth lie to one another."""
    paper = f"paper {paper_side(shape)}"
    if fold == "open":
        return f"{paper}, on the right side of the cloth"
    if shape.layers == 2:
        return f"{paper}, on cloth folded {SIDES[sides][0]}"
    return f"{paper}, on one layer, the right side of the cloth up"


def marks_of(shape: PlacedShape) -> list[MarkTold]:
    """Its marks with their distances; notches from the cut line inwards."""
    across = 0 if shape.turn in (90, 270) else 1
    out = []
    for mark in shape.marks:
        if mark.kind not in MARKS:
            continue
        x, y = mark.line[0]
        off = abs(y - shape.edge_at) if across else y
        out.append(MarkTold(mark.kind, mark.name, mark.line, abs(x), abs(off)))
    return out


def kinds_of(marks: Sequence[DrawnMark | MarkTold]) -> tuple[MarkKind, ...]:
    """Which kinds of marks there are, in the order in which they are made."""
    there = {mark.kind for mark in marks}
    return tuple(kind for kind in MARKS if kind in there)


def says(one: PieceTold, number: int, of: int, match: Sequence[str] = (), stop_at: Sequence[str] = ()) -> Sentence:
    """The step as it is read aloud."""
    shape = one.shape
    begins, ends = max(0.0, shape.from_end[0]), shape.from_end[1]
    told = (
        "Piece {number} of {of}: {piece}. It lies from {begins} to {ends} from the {start}. Pin the tail of its arrow "
        "{tail} from the {edge}, and the head {head}. {face}, {turned}, {layers}."
    )
    parts: dict[str, Part] = {
        "number": number,
        "of": of,
        "piece": shape.name,
        "begins": length(begins),
        "ends": length(ends),
        "start": one.from_what,
        "tail": length(shape.tail_distance),
        "head": length(shape.head_distance),
        "edge": shape.edge,
        "face": one.face[0].upper() + one.face[1:],
        "turned": one.turned,
        "layers": one.layers,
    }
    more = [*match]
    if stop_at:
        more.append(f"Stop at its corners: {listed(list(stop_at))} needs the cloth beside it.")
    if not more:
        return Sentence(told, **parts)
    return Sentence(told + " {more}", **parts, more=joined(more))
