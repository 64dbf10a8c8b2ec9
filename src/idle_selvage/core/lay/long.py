"""How long a lay is and how short it could be, with their working."""

from __future__ import annotations

from ..working import Figure, Quantity, Source, Step, length, percent
from .answer import Lay
from .drawing import PlacedShape
from .problem import Problem, piece_area, pieces_area

LAID = Source("common practice", "a lay is as long as its pieces reach from the cut end")
BOUNDS = Source(
    "your own log",
    "bounds of the lay engine",
    "theorems: pieces do not overlap, and lie inside the cloth; each proved in core/lay/engine/bounds.py",
)
#: Overlap is judged to so much, mm, and every bound gives it away.
GIVE_MM = 0.1


def lay_length(lay: Lay, shapes: tuple[PlacedShape, ...]) -> Figure:
    """How long it is: where the piece that reaches furthest begins, and how far it reaches; mm from the cut end."""
    if not shapes:
        return Figure(lay.length, "length", sources=(LAID,))
    last = max(shapes, key=lambda shape: shape.from_end[1])
    start, end = last.from_end
    put = (("begins at", length(start)), ("its length there", length(end - start)))
    step = Step("the lay", "begins at + its length there", put, length(lay.length), f"{last.name} reaches furthest")
    return Figure(lay.length, "length", steps=(step,), sources=(LAID,))


def lay_bound(lay: Lay, problem: Problem) -> Figure:
    """What no lay of these pieces on this width goes below, mm, and what makes it so."""
    pieces = Quantity(pieces_area(problem), "area")
    by_area = pieces.value / (problem.width + GIVE_MM) - GIVE_MM
    give = ("give", length(GIVE_MM))
    put = (("pieces", pieces), ("width", length(problem.width)), give)
    area = Step("by their area", "pieces ÷ (width + give) − give", put, length(by_area))
    steps: tuple[Step, ...] = (area,)
    if lay.bound > by_area + GIVE_MM:
        ends = (("by their area", length(by_area)), ("by how they lie", length(lay.bound)))
        why = "the longest piece, or pieces that cannot lie beside one another"
        steps = (area, Step("cannot be shorter than", "largest of (by their area, by how they lie)", ends,
                            length(lay.bound), why))  # fmt: skip
    return Figure(lay.bound, "length", steps=steps, sources=(BOUNDS,))


def lay_used(lay: Lay, problem: Problem) -> Figure:
    """What share of the usable cloth that the lay takes is in pieces, per cent."""
    area = {p.id: piece_area(p) for p in problem.pieces}
    put = (
        ("pieces", Quantity(sum(area[cut.piece] for cut in lay.cut), "area")),
        ("lay", length(lay.length)),
        ("width", length(problem.width)),
    )
    laid = lay.length * problem.width
    value = 100.0 * put[0][1].value / laid if laid > 0 else 0.0
    step = Step("used", "pieces ÷ (lay × width)", put, percent(value), "of the usable width")
    return Figure(value, "percent", steps=(step,), sources=(LAID,))
