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
from .answer import Cut, Lay
from .placing import distances_to_edge, place, place_all
from .problem import LayPiece

EdgeName = Literal["near selvage", "far selvage", "fold", "cut end"]
Area = tuple[float, float, float, float]
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

    @property
    def name(self) -> str:
        """The piece and which of its copies."""
        return f"{self.piece}, {self.copy}"

    @property
    def measured(self) -> tuple[Figure, Figure]:
        """The distances of the arrow's tail and head with their working."""
        k = 0 if self.edge == "cut end" else 1
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
    """The picture: cloth from y ``low`` to ``high``, ``fold_at`` where a fold edge lies."""

    view: str
    length: float
    low: float
    high: float
    fold_at: float | None
    shapes: tuple[PlacedShape, ...]
    #: what was laid around (x0, y0, x1, y1), as it lies on the folded or the open cloth
    kept_off: tuple[Area, ...] = ()


def draw(
    lay: Lay,
    pieces: Mapping[str, LayPiece],
    width: float,
    *,
    margins: tuple[float, float] = (0.0, 0.0),
    view: Literal["pinned", "opened"] = "pinned",
    leans: Mapping[str, int] | None = None,
    blocked: Sequence[Area] = (),
) -> Drawing:
    """The drawing of a lay on cloth of usable ``width``; ``margins`` are the near and far selvage's.

    ``leans``: pieces that were given to the engine turned already, and by how many degrees their arrow leans.
    """
    leans = leans or {}
    section = lay.sections[0]
    folded = section.fold == "lengthwise" and view == "pinned"
    table = _Table(width, margins, section.fold_at[0] if folded else None)
    shapes: list[PlacedShape] = []
    seen: dict[str, int] = {}
    for entry in lay.laid if folded else lay.cut:
        seen[entry.piece] = seen.get(entry.piece, 0) + 1
        copy, layers = (entry.copy, 1) if isinstance(entry, Cut) else (seen[entry.piece], entry.layers)
        pose = _Pose(copy, layers, entry.x, entry.y, entry.turn, entry.mirrored)
        shapes.append(_shown(pieces[entry.piece], pose, table, leans.get(entry.piece, 0)))
    low = table.fold_at if table.fold_at is not None else 0.0
    return Drawing(view, lay.length, low, width, table.fold_at, tuple(shapes), on_folded(blocked, table.fold_at))


@dataclass(frozen=True)
class _Table:
    """The cloth as it lies: its usable width, the near and far margin, where a fold edge lies; mm."""

    width: float
    margins: tuple[float, float]
    fold_at: float | None


@dataclass(frozen=True)
class _Pose:
    """Where one copy lies, and how."""

    copy: int
    layers: int
    x: float
    y: float
    turn: int
    mirrored: bool

    def place(self, lines: Sequence[Sequence[Point]]) -> list[Outline]:
        return place_all(lines, x=self.x, y=self.y, turn=self.turn, mirrored=self.mirrored)


def on_folded(areas: Sequence[Area], fold_at: float | None) -> tuple[Area, ...]:
    """Areas of the open cloth as they lie on cloth folded at y = ``fold_at``: what lies below the fold comes to lie on
    the layer above it, mirrored about the fold. All as they are on open cloth (None)."""
    if fold_at is None:
        return tuple(areas)
    found: list[Area] = []
    for x0, y0, x1, y1 in areas:
        if y1 > fold_at:
            found.append((x0, max(y0, fold_at), x1, y1))
        if y0 < fold_at:
            found.append((x0, max(2 * fold_at - y1, fold_at), x1, 2 * fold_at - y0))
    return tuple(found)


def _shown(piece: LayPiece, pose: _Pose, table: _Table, lean: int) -> PlacedShape:
    half = piece.on_fold and table.fold_at is not None
    base: Outline = piece.outline
    if piece.on_fold and not half:
        base = tuple((float(a), float(b)) for a, b in whole_polygon(piece.outline).exterior.coords[:-1])
    # the paper's own arrow; where none is drawn, one with room to measure from
    arrow = piece.arrow or (_leaning(base, lean) if lean else grainline(base, on_fold=half))
    marks = _lines(piece, opened=piece.on_fold and not half)
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
    end."""
    if turn in (90, 270):
        return "cut end", 0.0, (tail[0], head[0])
    lines: list[tuple[EdgeName, float]] = [("far selvage", table.width + table.margins[1])]
    lines.append(("near selvage", -table.margins[0]) if table.fold_at is None else ("fold", table.fold_at))
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
