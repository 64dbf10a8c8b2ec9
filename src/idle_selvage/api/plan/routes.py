"""Plan: pattern pieces, from typed stations or from a drawing."""

from __future__ import annotations

from collections.abc import Sequence

from flask import Response

from ...core.plan.stations import Station
from ...operations import plan
from ...operations.project import cloth_use
from ...store.piece import piece
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..services import begin, send
from ..shared.figures import presenter
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import outline_out


def _stations(given: Sequence[out.StationIn]) -> list[Station]:
    return [Station(s.along, s.left, s.right) for s in given]


def draw_outline(body: out.OutlineIn) -> Response:
    """The outline through stations being typed, before anything is kept."""
    sketch = plan.draw_outline(_stations(body.stations), smooth=body.smooth, on_fold=body.on_fold, seam=body.seam)
    return send(outline_out(presenter(), sketch))


def add_piece(path: ProjectPath, query: UseQuery, body: out.NewPiece) -> Response:
    """Keep a piece typed from stations."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        plan.add_piece(session, row, _stations(body.stations), body.model_dump(exclude={"stations"}))
        return send(show_project(session, row), 201)


def import_pieces(path: ProjectPath, query: UseQuery, body: out.DrawingIn) -> Response:
    """Take the pieces out of an SVG drawing; what could not be read is listed."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        read = plan.read_drawing(session, row, body.svg.encode("utf-8", "surrogatepass"), body.file_name)
        return send(
            project_out.ImportOut(
                added=list(read.added),
                not_read=[out.NotReadOut(code=n.code, what=n.place, why=n.why) for n in read.not_read],
                mended=[out.NotReadOut(code=m.code, what=m.place, why=m.how) for m in read.mended],
                project=show_project(session, row),
            ),
            201,
        )


def change_piece(path: out.PiecePath, query: UseQuery, body: out.PieceChange) -> Response:
    """Change a piece, and how it is cut from the cloth it is seen through."""
    given = body.model_dump(exclude_unset=True, exclude_none=True, exclude={"stations"})
    with begin() as session:
        stations = _stations(body.stations) if body.stations else None
        row = piece(session, path.piece_id)
        seen = cloth_use(session, row.project_id, query.use)
        plan.change_piece(session, row, stations, given, seen)
        return send(show_project(session, seen))


def delete_piece(path: out.PiecePath, query: UseQuery) -> Response:
    """Take a piece out of the plan. It can be brought back."""
    return _take_out(path, query, gone=True)


def restore_piece(path: out.PiecePath, query: UseQuery) -> Response:
    """Bring a piece back into the plan."""
    return _take_out(path, query, gone=False)


def _take_out(path: out.PiecePath, query: UseQuery, *, gone: bool) -> Response:
    with begin() as session:
        row = plan.take_out(session, path.piece_id, gone=gone)
        return send(show_project(session, cloth_use(session, row.id, query.use)))


def change_cut(path: out.CutPath, query: UseQuery, body: out.CutChange) -> Response:
    """Change how a piece is cut from one of the garment's cloths; it is cut from it from now on."""
    with begin() as session:
        row = piece(session, path.piece_id)
        given = body.model_dump(exclude_unset=True, exclude_none=True)
        plan.change_cut(session, row, cloth_use(session, row.project_id, path.use_id), given)
        return send(show_project(session, cloth_use(session, row.project_id, query.use)))


def delete_cut(path: out.CutPath, query: UseQuery) -> Response:
    """Cut a piece from one of the garment's cloths no longer."""
    with begin() as session:
        row = piece(session, path.piece_id)
        plan.remove_cut(session, row, cloth_use(session, row.project_id, path.use_id))
        return send(show_project(session, cloth_use(session, row.project_id, query.use)))
