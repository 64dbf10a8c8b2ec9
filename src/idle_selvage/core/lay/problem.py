"""The lay problem: what is to be laid, and on what. Format ``idle-selvage/lay-problem/1``.

Docs in docs/lay-formats.md; :mod:`reading` reads it from JSON and says every way it can be wrong.
"""

from __future__ import annotations

import hashlib
import json
import math
from dataclasses import dataclass, field
from typing import Any, Literal

from shapely.geometry import Polygon

from ..plan.outline import Outline, whole_polygon
from ..plan.piece import DrawnMark, Grain
from ..wording import Sentence
from ..working import length

FORMAT = "idle-selvage/lay-problem/1"
FOLDS = ("open", "lengthwise", "partial", "double", "crosswise", "combination")
MAX_PIECES = 200
MAX_ALL_COPIES = 400
MAX_ALL_POINTS = 50_000
#: Everything is compared to a tenth of a millimetre.
TOLERANCE_MM = 0.1

Selvage = Literal["low", "high"]
BorderEdge = Literal["hem", "side"]
Axis = Literal["x", "y"]


class BadProblem(ValueError):
    """A problem that cannot be laid. ``faults`` holds one sentence per fault."""

    def __init__(self, faults: list[str]) -> None:
        super().__init__(" ".join(faults))
        self.faults = faults


@dataclass(frozen=True)
class Match:
    """A point of a piece that must meet its group on the bars: ``along`` in x, ``across`` in y.

    ``phase_x``/``phase_y`` fix where in the repeat; None leaves it to the engine.
    """

    group: str
    point: tuple[float, float]
    along: bool = False
    across: bool = False
    phase_x: float | None = None
    phase_y: float | None = None


@dataclass(frozen=True)
class Fixed:
    """A copy the maker has locked, as it is ``cut``: in the coordinates of the open cloth.

    ``slides``: it may move along the cloth, and only along; ``x`` is where it lies now.
    """

    x: float
    y: float
    turn: int
    mirrored: bool
    slides: bool = False


@dataclass(frozen=True)
class Border:
    """A piece whose hem lies ``distance`` mm from a selvage, on the cross grain; or, ``edge`` "side", a strip off the
    border in one, along the cloth, its long edge there."""

    selvage: Selvage
    distance: float
    edge: BorderEdge = "hem"

    @property
    def turn(self) -> int:
        """The turn that points the hem at its selvage, or lays the strip along it."""
        if self.edge == "side":
            return 0
        return 90 if self.selvage == "low" else 270


@dataclass(frozen=True)
class Bars:
    """The bars of the cloth: their repeat along and across (None: none) and the mirror axes within it."""

    x_repeat: float | None = None
    y_repeat: float | None = None
    x_axes: tuple[float, ...] = ()
    y_axes: tuple[float, ...] = ()

    @property
    def directed(self) -> bool:
        """Whether the bars read differently up and down the cloth, so that every top lies one way."""
        return self.x_repeat is not None and not self.x_axes


@dataclass(frozen=True)
class LayPiece:
    """A piece of a lay problem; see docs/lay-formats.md for what the fields mean.

    It is known by its ``id``; ``name`` is only what it is called, and no part of the problem, and neither are its own
    grainline ``arrow`` and the ``marks`` drawn on it, both in the outline's axes.
    """

    id: str
    outline: Outline
    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    match: tuple[Match, ...] = ()
    centre_on_axis: Axis | None = None
    fixed: tuple[Fixed, ...] = ()
    border: Border | None = None
    name: str = field(default="", compare=False)
    arrow: tuple[tuple[float, float], tuple[float, float]] | None = field(default=None, compare=False)
    marks: tuple[DrawnMark, ...] = field(default=(), compare=False)

    @property
    def held(self) -> tuple[Fixed, ...]:
        """The copies that stay where they are."""
        return tuple(f for f in self.fixed if not f.slides)

    @property
    def sliding(self) -> tuple[Fixed, ...]:
        """The copies that move along the cloth only."""
        return tuple(f for f in self.fixed if f.slides)

    @property
    def called(self) -> str:
        """What it is called where a person reads of it."""
        return self.name or self.id


@dataclass(frozen=True)
class Problem:
    """A lay problem. Lengths in millimetres; ``blocked`` are rectangles (x0, y0, x1, y1), beside outlines."""

    width: float
    pieces: tuple[LayPiece, ...]
    length: float | None = None
    one_way: bool = False
    reversible: bool = False
    gap: float = 0.0
    folds: tuple[str, ...] = ("open",)
    blocked: tuple[tuple[float, float, float, float], ...] = ()
    bars: Bars = Bars()
    #: whether pieces may lie turned end for end on bars that are not balanced, where only their points meet
    turn_on_bars: bool = False
    blocked_shapes: tuple[Outline, ...] = ()
    #: how deep a partial fold is, mm; None: as the engine finds best
    partial_at: float | None = None

    @property
    def kept_off(self) -> tuple[Outline, ...]:
        """The outlines of everything on the open cloth that no piece may touch, rectangles first."""
        return (*(((a, b), (c, b), (c, d), (a, d)) for a, b, c, d in self.blocked), *self.blocked_shapes)

    @property
    def directed(self) -> bool:
        """Nap, a one-way print, or bars that read differently up and down: every piece points one way."""
        return self.one_way or (self.bars.directed and not self.turn_on_bars)


def allowed_turns(grain: Grain, one_way: bool) -> tuple[int, ...]:
    """The turns, degrees counter-clockwise, that the grain and the direction leave."""
    turns = {
        "lengthwise": ((0, 180), (0,)),
        "crosswise": ((90, 270), (90,)),
        "bias": ((45, 135, 225, 315), (45, 315)),
        "any": ((0, 45, 90, 135, 180, 225, 270, 315), (0, 45, 90, 315)),
    }
    return turns[grain][1 if one_way else 0]


def turns_of(piece: LayPiece, problem: Problem) -> tuple[int, ...]:
    """The turns a piece may take on this cloth; a border piece has its one turn."""
    if piece.border is not None:
        if piece.border.edge == "side" and not (piece.one_way or problem.directed):
            return (0, 180)
        return (piece.border.turn,)
    return allowed_turns(piece.grain, piece.one_way or problem.directed)


def is_reserved(problem: Problem, area: tuple[float, float, float, float]) -> bool:
    """Whether a blocked area is the border itself: along a selvage from the cut end, twice as long as deep."""
    x0, y0, x1, y1 = area
    sides = {p.border.selvage for p in problem.pieces if p.border is not None}
    at = ("low" in sides and y0 <= TOLERANCE_MM) or ("high" in sides and y1 >= problem.width - TOLERANCE_MM)
    return at and x0 <= TOLERANCE_MM and (x1 - x0) >= 2 * (y1 - y0)


def turns_over_bars(piece: LayPiece, problem: Problem) -> bool:
    """Whether a matched piece has no reason but the bars to keep its top towards +x."""
    return (
        any(_met(piece, problem.bars))
        and piece.grain == "lengthwise"
        and not (piece.one_way or piece.border or piece.fixed or problem.directed)
    )


def balanced_for(piece: LayPiece, bars: Bars) -> bool:
    """Whether the bars have a mirror axis in each direction in which the piece is matched."""
    along, across = _met(piece, bars)
    return (not along or bool(bars.x_axes)) and (not across or bool(bars.y_axes))


def _met(piece: LayPiece, bars: Bars) -> tuple[bool, bool]:
    """Whether the piece meets bars along, and across."""
    along = bars.x_repeat is not None and any(m.along for m in piece.match)
    return along, bars.y_repeat is not None and any(m.across for m in piece.match)


def to_json(problem: Problem, *, named: bool = False) -> dict[str, Any]:
    """The problem in its format, ready for :func:`json.dumps`; ``named``: with what its pieces are called
    and their own grainlines, which are no part of the problem."""
    bars = problem.bars
    return {
        "format": FORMAT,
        "cloth": {
            "width": problem.width,
            "length": problem.length,
            "one_way": problem.one_way,
            "reversible": problem.reversible,
            "gap": problem.gap,
            "blocked": [
                *(list(area) for area in problem.blocked),
                *([list(point) for point in outline] for outline in problem.blocked_shapes),
            ],
            "bars": {
                "x_repeat": bars.x_repeat,
                "y_repeat": bars.y_repeat,
                "x_axes": list(bars.x_axes),
                "y_axes": list(bars.y_axes),
            },
        },
        "folds": list(problem.folds),
        **({"turn_on_bars": True} if problem.turn_on_bars else {}),
        **({} if problem.partial_at is None else {"partial_at": problem.partial_at}),
        "pieces": [_piece_json(p, named) for p in problem.pieces],
    }


def _piece_json(piece: LayPiece, named: bool) -> dict[str, Any]:
    data: dict[str, Any] = {
        "id": piece.id,
        **({"name": piece.name} if named and piece.name else {}),
        **({"grainline": [list(end) for end in piece.arrow]} if named and piece.arrow is not None else {}),
        "outline": [list(point) for point in piece.outline],
        "copies": piece.copies,
        "pair": piece.pair,
        "on_fold": piece.on_fold,
        "grain": piece.grain,
        "one_way": piece.one_way,
        "match": [_match_json(m) for m in piece.match],
        "centre_on_axis": piece.centre_on_axis,
    }
    # the two additions stand only where they say something
    if piece.fixed:
        data["fixed"] = [
            {key: value for key, value in vars(f).items() if key != "slides" or value} for f in piece.fixed
        ]
    if piece.border is not None:
        data["border"] = {"edge": piece.border.edge, "selvage": piece.border.selvage, "distance": piece.border.distance}
    return data


def _match_json(match: Match) -> dict[str, Any]:
    data = {"group": match.group, "point": list(match.point), "along": match.along, "across": match.across}
    if match.phase_x is not None or match.phase_y is not None:
        both = match.along and match.across
        data["phase"] = [match.phase_x, match.phase_y] if both else match.phase_x if match.along else match.phase_y
    return data


def fingerprint(problem: Problem) -> str:
    """A short name for exactly this problem; it changes when anything that matters to the lay does, so not with what
    its pieces are called."""
    text = json.dumps(to_json(problem), sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def _whole(piece: LayPiece) -> Polygon:
    return whole_polygon(piece.outline) if piece.on_fold else Polygon(piece.outline)


def called(problem: Problem) -> dict[str, str]:
    """What each piece is called, by its id."""
    return {piece.id: piece.called for piece in problem.pieces}


def pieces_area(problem: Problem) -> float:
    """Area of every copy of every piece, mm²."""
    return float(sum(_whole(p).area * p.copies for p in problem.pieces))


def cut_edges(problem: Problem) -> float:
    """Length of the cut lines of every copy of every piece, mm."""
    return float(sum(_whole(p).length * p.copies for p in problem.pieces))


def too_wide(problem: Problem) -> list[tuple[str, float]]:
    """Pieces that reach over the cloth in every turn they may lie in, with their least extent across, mm."""
    found = []
    for piece in problem.pieces:
        least = min(_across(piece, turn) for turn in turns_of(piece, problem))
        if least > problem.width + TOLERANCE_MM:
            found.append((piece.id, least))
    return found


def too_wide_told(piece: str, across: float, width: float) -> Sentence:
    """What is said of a piece that reaches over the cloth, both mm."""
    told = "{piece} is {across} across, and there are only {width} of cloth for it."
    return Sentence(told, piece=piece, across=length(across), width=length(width))


def too_wide_sentences(problem: Problem) -> list[Sentence]:
    """What is said of every piece that reaches over the cloth."""
    names = called(problem)
    return [too_wide_told(names[piece], across, problem.width) for piece, across in too_wide(problem)]


def _across(piece: LayPiece, turn: int) -> float:
    angle = math.radians(turn)
    s, c = math.sin(angle), math.cos(angle)
    points = list(piece.outline)
    if piece.on_fold:
        points += [(x, -y) for x, y in points]
    ys = [s * x + c * y for x, y in points]
    return max(ys) - min(ys)


def piece_area(piece: LayPiece) -> float:
    """Area of one finished copy, mm²."""
    return float(Polygon(piece.outline).area) * (2.0 if piece.on_fold else 1.0)
