"""A piece at its true size on sheets of paper, as it was read or as it is enlarged; and the ease of two edges."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from ..core.plan.draft import run_length
from ..core.plan.drawn import spun
from ..core.plan.outline import Outline
from ..core.plan.piece import DrawnMark
from ..core.plan.sheet import ease
from ..core.plan.tiles import Page, TooManyPages, pages
from ..core.shrink.to_fit import enlarge
from ..core.working import Figure
from ..store import models
from ..store.piece import piece
from .plan import LinesOfPiece, lines_of
from .refused import Refused
from .standing import Standing


@dataclass(frozen=True)
class PiecePages:
    """The sheets of one piece. ``grown``: by how much each edge is longer along the seam, mm; none as it was read."""

    name: str
    lines: LinesOfPiece
    enlarged: bool
    outline: Outline
    cut: Outline
    arrow: Outline
    marks: tuple[DrawnMark, ...]
    grown: tuple[float, ...]
    pages: tuple[Page, ...]


def piece_pages(row: models.Piece, now: Standing, paper: str, *, enlarged: bool = False) -> PiecePages:
    """A piece at its true size. Raises :class:`Refused`."""
    lines = lines_of(row, now)
    if lines.fault:
        raise Refused(lines.fault)
    slant = lines.piece.slant
    outline, cut, arrow, marks = lines.outline, lines.cut, lines.arrow, lines.marks
    grown: tuple[float, ...] = ()
    if enlarged:
        if lines.larger is None:
            raise Refused("This piece is not enlarged: its cloth is not sewn first and shrunk to fit.")
        larger = lines.larger
        outline, cut = spun(larger.outline, slant), lines.enlarged
        arrow = spun(larger.arrow, slant) if larger.arrow else arrow
        marks = tuple(replace(m, line=spun(m.line, slant)) for m in larger.marks)
        grown = _grown(lines, now)
    try:
        found = pages([cut, outline], paper)
    except TooManyPages as fault:
        raise Refused(str(fault), path="paper") from None
    return PiecePages(row.name, lines, enlarged, outline, cut, arrow, marks, grown, found)


def _grown(lines: LinesOfPiece, now: Standing) -> tuple[float, ...]:
    """By how much each edge grows: its line, turned as its grain lies, stretched with the cloth."""
    fit = now.whole.of(lines.how.use_id).fit
    if fit is None:
        return ()
    out = []
    for one in lines.edges:
        line = spun(one.edge.line, -lines.piece.slant)
        out.append(run_length(enlarge(line, lines.piece.grain, *fit)) - run_length(line))
    return tuple(out)


@dataclass(frozen=True)
class EdgeOf:
    """An edge of a piece, by its number."""

    piece_id: int
    edge: int


def ease_of(
    session: Session, now: Standing, longer: Sequence[EdgeOf], shorter: Sequence[EdgeOf]
) -> tuple[Figure, Figure | None]:
    """By how much one run of edges is longer along the seam than the one it is sewn to. Raises :class:`Refused`."""
    return ease(_named(session, now, longer, "longer"), _named(session, now, shorter, "shorter"))


def _named(session: Session, now: Standing, edges: Sequence[EdgeOf], path: str) -> list[tuple[str, float]]:
    out: list[tuple[str, float]] = []
    for number, one in enumerate(edges):
        row = piece(session, one.piece_id)
        if row.project_id != now.use.project_id:
            raise Refused("That piece belongs to another garment.", path=f"{path}.{number}")
        found = lines_of(row, now).edges
        if not 0 <= one.edge < len(found):
            raise Refused("There is no such edge.", path=f"{path}.{number}")
        out.append((f"{'edge' if path == 'longer' else 'other edge'} {number + 1}", found[one.edge].seam))
    return out
