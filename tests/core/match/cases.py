"""Pieces, cuts and seams for the tests of matching, on paper numbers."""

from __future__ import annotations

from dataclasses import replace

from idle_selvage.core.lay.answer import Cut
from idle_selvage.core.lay.problem import LayPiece
from idle_selvage.core.plan.outline import Outline
from idle_selvage.core.plan.seams import Seam, SeamSide, Sewn
from idle_selvage.core.plan.sides import Side, Spot, runs_left

ANY = Side(Spot(1), Spot(2))
#: A panel, 400 long and 200 wide, its low end at 0, its middle on the grain.
PANEL: Outline = ((0.0, -100.0), (400.0, -100.0), (400.0, 100.0), (0.0, 100.0))


def panel(key: str, outline: Outline = PANEL, **more: object) -> LayPiece:
    return LayPiece(key, outline, name=key.capitalize(), **more)  # type: ignore[arg-type]


def cut(piece: str, copy: int = 1, x: float = 0.0, y: float = 0.0, turn: int = 0, mirrored: bool = False) -> Cut:
    return Cut(piece, copy, x, y, turn, mirrored)


def sewn(a: str, run_a: Outline, b: str, run_b: Outline, *, mirrors: bool = False, **said: object) -> Sewn:
    """A seam whose runs are given from where sewing begins."""
    seam = Seam("1", SeamSide(a, ANY), SeamSide(b, ANY if a != b or mirrors else replace(ANY, end=Spot(3))), **said)  # type: ignore[arg-type]
    return Sewn(seam, run_a, run_b, run_a, run_b, mirrors)


#: Its right and its left edge, from the low end up.
RIGHT: Outline = (PANEL[0], PANEL[1])
LEFT: Outline = (PANEL[3], PANEL[2])
assert runs_left(PANEL)
