"""A lay as shapes on the cloth, with the grain arrows and the distances a person measures with a tape.

Two ways of looking: ``pinned`` is the folded cloth on the table, ``opened`` every copy on the open cloth.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..plan.arrow import grainline
from ..plan.outline import Outline, Point, whole_polygon
from ..plan.piece import DrawnMark
from ..working import Figure, Source, Step, length
from .answer import Lay, Section
from .layers import copies_of, lies_on_fold, pinned_keys
from .placing import distances_to_edge, place, place_all
from .problem import LayPiece
from .table import KeptOff, Stretch, kept_off, stretches

EdgeName = Literal["near selvage", "far selvage", "fold", "cut end"]
Lies = Literal["straight", "cross", "bias"]

#: What the distances from an arrow's two ends say when the piece lies right.
LIES: dict[Lies, str] = {
    "straight": "on grain when both measure the same",
    "cross": "on the cross grain: both ends measure the same from the cut end",
    "bias": "on the bias: the two differ by the arrow's own slant",
}


@dataclass(frozen=True)
class PlacedShape:
    """One shape on the picture. ``tail``/``head`` are the grain arrow's ends; the two distances run from
    them to ``edge``, at right angles, in millimetres and including the selvage margin."""

    key: str
    piece_id: str
    piece: str
    copy: int
    layers: int
    turn: int
    mirrored: bool
    outline: Outline
    tail: Point
    head: Point
    edge: EdgeName
    tail_distance: float
    head_distance: float
    from_end: tuple[float, float]
    lies: Lies
    #: where that edge lies on the usable cloth
    edge_at: float
    #: notches, points, darts and lines, each by its kind and its places on the cloth
    marks: tuple[DrawnMark, ...] = ()
    #: the placement it is cut by, the same in both views; and the stretch it lies on
    pinned: str = ""
    section: int = 0
    #: its origin on the open cloth
    origin: Point = (0.0, 0.0)
    #: whether places along are counted from a crosswise fold and not from the cut end
    from_fold: bool = False

    @property
    def name(self) -> str:
        """The piece and which of its copies."""
        return f"{self.piece}, {self.copy}"

    @property
    def measured(self) -> tuple[Figure, Figure]:
        """The distances of the arrow's tail and head with their working."""
        k = 0 if self.turn in (90, 270) else 1
        return (
            _worked(self.edge, self.edge_at, "tail", self.tail[k], self.tail_distance),
            _worked(self.edge, self.edge_at, "head", self.head[k], self.head_distance),
        )

    @property
    def lies_told(self) -> str:
        """What the two distances say when it is pinned right."""
        return LIES[self.lies]


@dataclass(frozen=True)
class Drawing:
    """The picture: the cloth stretch by stretch, and what lies on it. ``length`` is how long the picture is."""

    view: str
    length: float
    stretches: tuple[Stretch, ...]
    shapes: tuple[PlacedShape, ...]
    #: what was laid around, as it lies on the folded or the open cloth
    kept_off: tuple[KeptOff, ...] = ()

    @property
    def low(self) -> float:
        """Where the cloth begins across."""
        return min(one.low for one in self.stretches)

    @property
    def high(self) -> float:
        """Where it ends across."""
        return max(one.high for one in self.stretches)

    @property
    def folded(self) -> bool:
        """Whether any stretch is folded."""
        return any(one.fold != "open" for one in self.stretches)


def draw(
    lay: Lay,
    pieces: Mapping[str, LayPiece],
    width: float,
    *,
    margins: tuple[float, float] = (0.0, 0.0),
    view: Literal["pinned", "opened"] = "pinned",
    leans: Mapping[str, int] | None = None,
    blocked: Sequence[Outline] = (),
    keys: Sequence[str] | None = None,
) -> Drawing:
    """The drawing of a lay on cloth of usable ``width``; ``margins`` are the near and far selvage's.

    ``leans``: pieces that were given to the engine turned already, and by how many degrees their arrow leans.
    ``keys``: of the placements, where they have some of their own.
    """
    leans = leans or {}
    opened = view == "opened"
    cloth = stretches(lay, width, margins, opened=opened)
    shapes: list[PlacedShape] = []
    copies: dict[str, int] = {}
    for entry, pinned in zip(lay.laid, pinned_keys(lay.laid) if keys is None else keys, strict=True):
        piece, section = pieces[entry.piece], lay.sections[entry.section]
        lean = leans.get(entry.piece, 0)
        if opened:
            table = _Table(width, margins, ())
            for cut in copies_of(piece, entry, section):
                number = copies[entry.piece] = copies.get(entry.piece, 0) + 1
                pose = _Pose(number, 1, cut.x, cut.y, cut.turn, cut.mirrored, False, pinned)
                shapes.append(_shown(piece, pose, table, lean))
            continue
        number = copies[entry.piece] = copies.get(entry.piece, 0) + 1
        half = lies_on_fold(piece, entry, section)
        off = section.fold_at[0] if section.fold == "crosswise" and section.fold_at else 0.0
        pose = _Pose(
            number, entry.layers, entry.x - off, entry.y, entry.turn, entry.mirrored, half, pinned, entry.section, off
        )
        shapes.append(_shown(piece, pose, _Table.of(section, width, margins), lean))
    length = max(one.end for one in cloth)
    return Drawing(view, length, cloth, tuple(shapes), kept_off(blocked, lay, width, opened=opened))


@dataclass(frozen=True)
class _Table:
    """The cloth as it lies at one stretch: its usable width, the near and far margin, where fold edges lie along it;
    mm. ``across``: a fold lies at the beginning of the picture."""

    width: float
    margins: tuple[float, float]
    folds: tuple[float, ...]
    across: bool = False

    @classmethod
    def of(cls, section: Section, width: float, margins: tuple[float, float]) -> _Table:
        across = section.fold == "crosswise"
        return cls(width, margins, () if across else section.fold_at, across)

    def edges(self) -> list[tuple[EdgeName, float]]:
        """The edges along the cloth that can be measured to."""
        if not self.folds:
            return [("far selvage", self.width + self.margins[1]), ("near selvage", -self.margins[0])]
        folds: list[tuple[EdgeName, float]] = [("fold", y) for y in self.folds]
        return folds if len(folds) > 1 else [("far selvage", self.width + self.margins[1]), *folds]


@dataclass(frozen=True)
class _Pose:
    """Where one copy lies, and how; ``half``: with its edge on a fold."""

    copy: int
    layers: int
    x: float
    y: float
    turn: int
    mirrored: bool
    half: bool
    pinned: str
    section: int = 0
    #: what the picture's beginning lies from the cut end
    off: float = 0.0

    def place(self, lines: Sequence[Sequence[Point]]) -> list[Outline]:
        return place_all(lines, x=self.x, y=self.y, turn=self.turn, mirrored=self.mirrored)


def _shown(piece: LayPiece, pose: _Pose, table: _Table, lean: int) -> PlacedShape:
    base: Outline = piece.outline
    if piece.on_fold and not pose.half:
        base = tuple((float(a), float(b)) for a, b in whole_polygon(piece.outline).exterior.coords[:-1])
    # the paper's own arrow; where none is drawn, one with room to measure from
    arrow = piece.arrow or (_leaning(base, lean) if lean else grainline(base, on_fold=pose.half))
    marks = _lines(piece, opened=piece.on_fold and not pose.half)
    outline, (tail, head), *lines = pose.place([base, arrow, *(mark.line for mark in marks)])
    edge, at, (from_tail, from_head) = _measure(tail, head, pose.turn, table)
    xs = [p[0] for p in outline]
    return PlacedShape(
        key=f"{piece.id}·{pose.copy}",
        piece_id=piece.id,
        piece=piece.called,
        copy=pose.copy,
        layers=pose.layers,
        turn=pose.turn,
        mirrored=pose.mirrored,
        outline=outline,
        tail=tail,
        head=head,
        edge=edge,
        tail_distance=from_tail,
        head_distance=from_head,
        from_end=(min(xs), max(xs)),
        lies=_lies((pose.turn + lean) % 360),
        edge_at=at,
        marks=tuple(replace(mark, line=line) for mark, line in zip(marks, lines, strict=True)),
        pinned=pose.pinned,
        section=pose.section,
        origin=(pose.x + pose.off, pose.y),
        from_fold=table.across,
    )


def _lines(piece: LayPiece, *, opened: bool) -> tuple[DrawnMark, ...]:
    """The marks of a piece; on both halves of one that is opened out."""
    if not opened:
        return piece.marks
    return (*piece.marks, *(replace(mark, line=tuple((x, -y) for x, y in mark.line)) for mark in piece.marks))


def _lies(turn: int) -> Lies:
    """How an arrow at this turn lies to the selvage."""
    return "straight" if turn % 180 == 0 else "cross" if turn % 180 == 90 else "bias"


def _leaning(outline: Outline, lean: int) -> tuple[Point, Point]:
    """The arrow of a piece that stands turned by ``lean`` in its own outline."""
    straight = place(outline, x=0.0, y=0.0, turn=-lean, mirrored=False)
    tail, head = place(grainline(straight), x=0.0, y=0.0, turn=lean, mirrored=False)
    return tail, head


def _measure(tail: Point, head: Point, turn: int, table: _Table) -> tuple[EdgeName, float, tuple[float, float]]:
    """The nearest edge to measure to, where it lies, and the two distances. A cross-grain arrow is measured to the cut
    end, or to the fold that lies there."""
    if turn in (90, 270):
        return "fold" if table.across else "cut end", 0.0, (tail[0], head[0])
    lines = table.edges()
    middle = (tail[1] + head[1]) / 2
    name, y = min(lines, key=lambda line: abs(line[1] - middle))
    return name, y, distances_to_edge(tail, head, y)


FROM_THE_LAY = Source("your own log", "the lay’s own places", "across from where the usable width begins")


def _worked(edge: EdgeName, at: float, end: str, lies: float, found: float) -> Figure:
    """A distance from an arrow's end to an edge, mm: the larger place less the smaller."""
    put = ((f"the {end}", length(lies)), (f"the {edge}", length(at)))
    names = (f"the {edge}", f"the {end}") if at >= lies else (f"the {end}", f"the {edge}")
    step = Step(f"{end} to {edge}", " − ".join(names), put, length(found), "their places on the usable cloth")
    return Figure(found, "length", steps=(step,), sources=(FROM_THE_LAY,))
