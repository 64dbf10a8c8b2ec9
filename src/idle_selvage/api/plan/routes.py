"""Plan: pattern pieces, from typed stations or from a drawing."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...core.plan.draft import DraftPoint, Mark
from ...core.plan.drawn import HowCut
from ...core.plan.outline import Point
from ...core.plan.shapes import Measures
from ...core.plan.stations import Station
from ...core.plan.tapes import TwoTapes
from ...operations import pages, plan, sizes
from ...operations.project import cloth_use
from ...operations.refused import Refused
from ...operations.standing import standing
from ...operations.telling import Another, NotchTold, Told, remarks
from ...store.piece import UNCUT, as_how, piece, sized_draft
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..services import begin, look, send
from ..shared.figures import presenter
from ..shared.person import insisted
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import draft_out, outline_out, pages_out, sheet_piece_out


def _told(body: out.Telling) -> Told:
    """A piece as the page tells it, in the one way that is given."""
    shared: dict[str, Any] = {
        "half": body.on_fold,
        "arrow": None if body.arrow is None else (_place(body.arrow.tail), _place(body.arrow.head)),
        "no_arrow": body.no_arrow,
        "included": body.included,
        "notches": None if body.notches is None else [
            NotchTold(n.double, n.after, n.at, n.place) for n in body.notches
        ],
        "marks": None if body.marks is None else [
            Mark(m.kind, tuple(_place(p) for p in m.places), m.name) for m in body.marks
        ],
    }  # fmt: skip
    if body.stations is not None:
        stations = [Station(s.along, s.left, s.right, s.corners) for s in body.stations]
        return Told("stations", stations, body.smooth, **shared)
    if body.points is not None:
        points = [DraftPoint(p.along, p.across, p.smooth, p.straight, p.allowance, p.ends, p.key) for p in body.points]
        return Told("points", points=points, **shared)
    if body.tapes is not None:
        tapes = [TwoTapes(t.first, t.second, t.side, t.smooth, t.straight) for t in body.tapes.points]
        return Told("tapes", apart=body.tapes.apart, tapes=tapes, **shared)
    if body.measures is not None:
        return Told("measures", measures=Measures(**body.measures.model_dump()), **shared)
    if body.another is not None:
        return Told("another", another=Another(**body.another.model_dump()), **shared)
    raise Refused(
        "Tell the piece: by stations, by points, by two tapes, by its measures, or from another.", path="stations"
    )


def _place(given: out.PlaceIn) -> Point:
    return (given.along, given.across)


#: Entries of a piece that say how it is told, and not how it is cut.
_TELLING = set(out.Telling.model_fields) - {"on_fold"}


def draw_outline(body: out.OutlineIn) -> Response:
    """A piece that is being told, before anything is kept."""
    told = _told(body)
    with look() as session:
        sketch = plan.draw_piece(session, told, HowCut(on_fold=body.on_fold, seam=body.seam, bare=body.bare), body.name)
        return send(outline_out(presenter(), sketch, remarks(told, sketch.draft)))


def add_piece(path: ProjectPath, query: UseQuery, body: out.NewPiece) -> Response:
    """Keep a piece as it is told."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        plan.add_piece(session, row, _told(body), body.model_dump(exclude=_TELLING), sure=insisted.get())
        return send(show_project(session, row), 201)


def import_pieces(path: ProjectPath, query: UseQuery, body: out.DrawingIn) -> Response:
    """Take the pieces out of an SVG drawing; what could not be read is listed."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        svg = body.svg.encode("utf-8", "surrogatepass")
        read = plan.read_drawing(session, row, svg, body.file_name, body.twice)
        return send(
            project_out.ImportOut(
                added=list(read.added),
                not_read=[out.NotReadOut(code=n.code, what=n.place, why=n.why) for n in read.not_read],
                mended=[out.NotReadOut(code=m.code, what=m.place, why=m.how) for m in read.mended],
                project=show_project(session, row),
            ),
            201,
        )


def read_draft(path: out.PiecePath, query: UseQuery) -> Response:
    """A piece with its points, edges and marks, as it was told; ``use``: the cloth whose allowance is shown."""
    with look() as session:
        row = piece(session, path.piece_id)
        cut = (row.cut_from(query.use) if query.use is not None else None) or (row.cuts[0] if row.cuts else UNCUT)
        draft, _ = sized_draft(row, plan.AS_DRAFTED)
        sketch = plan.sketch_of(row.name, draft, as_how(cut))
        return send(draft_out(presenter(), row, sketch, sizes.sizes_of(row)))


def change_piece(path: out.PiecePath, query: UseQuery, body: out.PieceChange) -> Response:
    """Change a piece, and how it is cut from the cloth it is seen through."""
    given = body.model_dump(exclude_unset=True, exclude_none=True, exclude={"drawn"})
    with begin() as session:
        row = piece(session, path.piece_id)
        seen = cloth_use(session, row.project_id, query.use)
        told = None if body.drawn is None else _told(body.drawn)
        plan.change_piece(session, row, told, given, seen, sure=insisted.get())
        return send(show_project(session, seen))


def grade_piece(path: out.PiecePath, query: UseQuery, body: out.SizesIn) -> Response:
    """Give a piece its sizes by grade steps."""
    with begin() as session:
        row = piece(session, path.piece_id)
        steps = {g.key: (g.along, g.across) for g in body.grades}
        sizes.grade_piece(session, row, body.sizes, body.base, steps)
        return send(show_project(session, cloth_use(session, row.project_id, query.use)))


def read_sheet(path: ProjectPath, query: UseQuery) -> Response:
    """All pieces with their length, width, area and edges, to be checked against the paper."""
    with look() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        garment = now.whole.rows.project
        told = "; ".join([garment.size, *(f"{one['place']} {one['size']}" for one in garment.size_at)]).strip("; ")
        found = [sheet_piece_out(presenter(), row, now) for row in now.pieces]
        return send(out.SheetOut(name=garment.name, size=told, pieces=found))


def read_pages(path: out.PiecePath, query: out.PagesQuery) -> Response:
    """A piece at its true size on sheets of paper."""
    with look() as session:
        row = piece(session, path.piece_id)
        now = standing(session, cloth_use(session, row.project_id, query.use))
        return send(
            pages_out(presenter(), pages.piece_pages(row, now, query.paper, enlarged=query.enlarged), query.paper)
        )


def read_ease(path: ProjectPath, query: UseQuery, body: out.EaseIn) -> Response:
    """By how much one run of edges is longer than the one it is sewn to."""
    with look() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        sides = [[pages.EdgeOf(e.piece_id, e.edge) for e in side] for side in (body.longer, body.shorter)]
        value, share = pages.ease_of(session, now, *sides)
        show = presenter()
        return send(out.EaseOut(ease=show.surely(value), share=show.figure(share)))


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
