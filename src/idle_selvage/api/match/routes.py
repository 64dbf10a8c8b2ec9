"""Match: the seams of a garment, and the bars that shall meet at them."""

from __future__ import annotations

from typing import Any

from flask import Response
from sqlalchemy.orm import Session

from ...operations import match
from ...operations.project import cloth_use
from ...operations.standing import standing
from ...store import models
from ...store.piece import piece
from ...store.seam import seam
from ..plan.schemas import PiecePath
from ..services import begin, look, send
from ..shared.figures import presenter
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import match_out, preview_out, ways_out


def read_match(path: ProjectPath, query: out.MatchQuery) -> Response:
    """The seams, what each comes to on the lay, and the steps at the table."""
    with look() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        return send(match_out(presenter(), match.matching(session, now, query.lay_id)))


def preview_seam(path: out.SeamOfProject, query: out.PreviewQuery) -> Response:
    """A seam as one will see it on the finished garment."""
    with look() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        found = match.matching(session, now, query.lay_id)
        return send(preview_out(presenter(), found, path.seam_id, query.couple, query.at_cut))


def read_ways(path: out.SeamOfProject, query: out.MatchQuery) -> Response:
    """What can be done about a seam whose bars do not meet, each way tried."""
    with look() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        return send(ways_out(match.matching(session, now, query.lay_id).ways_of(path.seam_id)))


def _sent(session: Session, use: models.ClothUse, status: int = 200) -> Response:
    session.flush()
    session.expire_all()
    return send(match_out(presenter(), match.matching(session, standing(session, use))), status)


def add_seam(path: ProjectPath, query: UseQuery, body: out.SeamIn) -> Response:
    """Sew an edge of one piece to an edge of another, or lay one piece on another."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        match.add_seam(session, use, match.told_sides(session, use, _given(body)))
        return _sent(session, use, 201)


def _given(body: out.SeamIn) -> dict[str, Any]:
    given = body.model_dump(exclude={"a", "b"})
    for letter, side in (("a", body.a), ("b", body.b)):
        given[f"{letter}_piece_id"] = side.piece_id
        if side.begin is not None and side.end is not None:
            given |= {
                f"{letter}_begin": side.begin.after, f"{letter}_begin_at": side.begin.at,
                f"{letter}_end": side.end.after, f"{letter}_end_at": side.end.at,
            }  # fmt: skip
    if body.b.along is not None and body.b.across is not None:
        given |= {"b_along": body.b.along, "b_across": body.b.across}
    return given


def change_seam(path: out.SeamPath, query: UseQuery, body: out.SeamChange) -> Response:
    """Change what is said of a seam."""
    given = body.model_dump(exclude_unset=True, exclude_none=True, exclude={"free_key", "free_b"})
    if body.free_key:
        given |= {"key_a": None, "key_b": None}
    if body.free_b:
        given["key_b"] = None
    for key in ("along", "across"):
        if key in given:
            given[f"b_{key}"] = given.pop(key)
    with begin() as session:
        row = seam(session, path.seam_id)
        use = cloth_use(session, row.project_id, query.use)
        match.change_seam(session, row, use, given)
        return _sent(session, use)


def delete_seam(path: out.SeamPath, query: UseQuery) -> Response:
    """Take a seam out. Undo brings it back."""
    with begin() as session:
        row = seam(session, path.seam_id)
        use = cloth_use(session, row.project_id, query.use)
        match.take_out_seam(session, row, use)
        return _sent(session, use)


def order_seams(path: ProjectPath, query: UseQuery, body: out.OrderIn) -> Response:
    """Which seams come first where not all can meet."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        match.order_seams(session, use, body.seams)
        return _sent(session, use)


def take_proposed(path: ProjectPath, query: UseQuery, body: out.TakeIn) -> Response:
    """Keep seams that were proposed."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        match.take_proposed(session, standing(session, use), body.which)
        return _sent(session, use, 201)


def set_corner(path: PiecePath, query: UseQuery, body: out.CornerIn) -> Response:
    """Say that a point of a piece is a corner of its seams, or is none."""
    with begin() as session:
        row = piece(session, path.piece_id)
        use = cloth_use(session, row.project_id, query.use)
        match.set_corner(session, row, use, body.key, body.corner)
        return _sent(session, use)


def wish_bar(path: ProjectPath, query: UseQuery, body: out.BarWishIn) -> Response:
    """Say which bar shall fall where on a piece, or leave it free."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        match.wish_bar(session, standing(session, use), body.piece_id, body.way, body.at, body.bar)
        return _sent(session, use)
