"""Plan: pattern pieces, from typed stations or from a drawing."""

from __future__ import annotations

from collections.abc import Sequence

from flask import Response

from ...core.plan.stations import Station
from ...operations import plan
from ...operations.project import garment
from ...store.piece import piece
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..services import begin, send
from ..shared.figures import presenter
from ..shared.schemas import ProjectPath
from . import schemas as out
from .show import outline_out


def _stations(given: Sequence[out.StationIn]) -> list[Station]:
    return [Station(s.along, s.left, s.right) for s in given]


def draw_outline(body: out.OutlineIn) -> Response:
    """The outline through stations being typed, before anything is kept."""
    sketch = plan.draw_outline(_stations(body.stations), smooth=body.smooth, on_fold=body.on_fold, seam=body.seam)
    return send(outline_out(presenter(), sketch))


def add_piece(path: ProjectPath, body: out.NewPiece) -> Response:
    """Keep a piece typed from stations."""
    with begin() as session:
        row = garment(session, path.project_id)
        plan.add_piece(session, row, _stations(body.stations), body.model_dump(exclude={"stations"}))
        return send(show_project(session, row), 201)


def import_pieces(path: ProjectPath, body: out.DrawingIn) -> Response:
    """Take the pieces out of an SVG drawing; what could not be read is listed."""
    with begin() as session:
        row = garment(session, path.project_id)
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


def change_piece(path: out.PiecePath, body: out.PieceChange) -> Response:
    """Change a piece."""
    given = body.model_dump(exclude_unset=True, exclude_none=True, exclude={"stations"})
    with begin() as session:
        stations = _stations(body.stations) if body.stations else None
        row = plan.change_piece(session, piece(session, path.piece_id), stations, given)
        return send(show_project(session, row))


def delete_piece(path: out.PiecePath) -> Response:
    """Take a piece out of the plan. It can be brought back."""
    with begin() as session:
        return send(show_project(session, plan.take_out(session, path.piece_id, gone=True)))


def restore_piece(path: out.PiecePath) -> Response:
    """Bring a piece back into the plan."""
    with begin() as session:
        return send(show_project(session, plan.take_out(session, path.piece_id, gone=False)))
