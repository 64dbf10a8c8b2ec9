"""The sizes of a piece, and the size a garment is cut in."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from sqlalchemy.orm import Session

from ..core.plan.draft import Draft
from ..core.plan.outline import BadPiece, Point
from ..core.plan.sizes import SizeOutline, graded
from ..core.wording import sentence_of
from ..store import models
from ..store import piece as pieces
from .log import note
from .refused import Refused

#: Steps that differ by less than this are one, mm.
SAME_STEP_MM = 0.01


@dataclass(frozen=True)
class PieceSizes:
    """The sizes of a piece in their order, which of them its points are told in, and its grade steps by point: none
    where its sizes are not one step apart."""

    sizes: tuple[str, ...] = ()
    base: str = ""
    steps: Mapping[int, Point] = field(default_factory=dict)


def sizes_of(row: models.Piece) -> PieceSizes:
    """The sizes a piece has."""
    found = pieces.as_sizes(row)
    draft = pieces.as_draft(row)
    base = next((one.size for one in found if _same(one, draft)), "")
    return PieceSizes(tuple(one.size for one in found), base, _steps(found, draft))


def _same(one: SizeOutline, draft: Draft) -> bool:
    return all(
        abs(x - p.along) < SAME_STEP_MM and abs(y - p.across) < SAME_STEP_MM
        for (x, y), p in zip(one.places, draft.points, strict=True)
    )


def _steps(found: Sequence[SizeOutline], draft: Draft) -> dict[int, Point]:
    if len(found) < 2:
        return {}
    out: dict[int, Point] = {}
    for i, point in enumerate(draft.points):
        moves = [(b.places[i][0] - a.places[i][0], b.places[i][1] - a.places[i][1]) for a, b in pairwise(found)]
        first = moves[0]
        if any(abs(x - first[0]) > SAME_STEP_MM or abs(y - first[1]) > SAME_STEP_MM for x, y in moves):
            return {}
        if abs(first[0]) > SAME_STEP_MM or abs(first[1]) > SAME_STEP_MM:
            out[point.key] = (round(first[0], 3), round(first[1], 3))
    return out


def grade_piece(
    session: Session, row: models.Piece, sizes: Sequence[str], base: str, steps: Mapping[int, Point]
) -> models.Project:
    """Give a piece its sizes by grade steps, or take them away. Its garment. Raises :class:`Refused`."""
    before = {"sizes": row.sizes}
    try:
        found = graded(pieces.as_draft(row), sizes, base, steps) if sizes else ()
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="sizes") from None
    pieces.keep_sizes(row, found)
    garment = session.get_one(models.Project, row.project_id)
    session.flush()
    note(session, garment, "plan", "piece-changed", before=before, after={"sizes": row.sizes}, name=row.name,
         piece=row.id)  # fmt: skip
    return garment
