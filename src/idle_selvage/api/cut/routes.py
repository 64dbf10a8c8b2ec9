"""Cut: the list before it, the table, what went wrong, what is left, and what is printed."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime

from flask import Response
from sqlalchemy.orm import Session

from ...core.cut.template import BadTemplate
from ...core.cut.true_size import BadCalibration, by_corners, by_square, checked
from ...core.plan.tiles import TooManyPages
from ...core.units import BadEntry, read_length
from ...core.wording import sentence_of
from ...formats.pdf_templates import write_gauges, write_labels, write_swatch
from ...formats.pdf_tiles import TileShape, write_tiles
from ...formats.svg_true import write_true_svg
from ...operations.buy.trials import trials_standing
from ...operations.cut import again, before, left, papers, rounds
from ...operations.project import cloth_use, read_garment
from ...operations.refused import Refused
from ...operations.standing import Standing, standing
from ...store.settings import settings
from ..services import begin, look, send
from ..shared.figures import presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import again_out, cut_out, left_out

#: A swatch that is not told is so large, mm: 25 cm, as AATCC TM135 marks it, or ten inches.
USUAL_SWATCH = {"metric": 250.0, "imperial": 254.0}
PDF = "application/pdf"


def _today() -> date:
    return datetime.now().astimezone().date()


def _sent(session: Session, project_id: int, use: int | None, status: int = 200) -> Response:
    session.flush()
    session.expire_all()
    return send(_shown(session, read_garment(session, project_id, use)), status)


def _shown(session: Session, now: Standing) -> out.CuttingOut:
    found = rounds.read_cutting(session, now)
    ahead = None if found.begun else rounds.planned(now)
    return cut_out(presenter(), now, before.read_before(session, now, _today()), found, ahead)


def read_cut(path: ProjectPath, query: UseQuery) -> Response:
    """Cut as it stands: the list before, and every step at the table."""
    with look() as session:
        return send(_shown(session, read_garment(session, path.project_id, query.use)))


def answer_before(path: ProjectPath, query: UseQuery, body: out.BeforeIn) -> Response:
    """Tick a line of the list by hand, or go on knowingly though it is not so."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        if body.ticked is not None:
            before.tick(session, now, body.key, _today(), on=body.ticked)
        elif body.why is not None:
            before.accept(session, now, body.key, body.why, _today())
        return _sent(session, path.project_id, query.use)


def begin_cut(path: ProjectPath, query: UseQuery) -> Response:
    """Begin to cut the lay the garment goes by, as it is now."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        rounds.begin_cutting(session, now, _today())
        return _sent(session, path.project_id, query.use, 201)


def do_at_table(path: ProjectPath, query: UseQuery, body: out.DeedIn) -> Response:
    """One deed at the table: cut, marked by mistake, or gone wrong."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        rounds.do(
            session, now, body.round, body.key, body.kind, copy=body.copy_number, why=body.why, really=body.really
        )
        return _sent(session, path.project_id, query.use)


def go_to_step(path: ProjectPath, query: UseQuery, body: out.AtIn) -> Response:
    """Have another piece at hand."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        rounds.go_to(session, now, body.round, body.key)
        return _sent(session, path.project_id, query.use)


def reorder_cut(path: ProjectPath, query: UseQuery, body: out.CutOrderIn) -> Response:
    """Cut in an order of one's own, or as computed again."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        rounds.reorder(session, now, body.round, body.keys)
        return _sent(session, path.project_id, query.use)


def read_again(path: ProjectPath, query: UseQuery) -> Response:
    """What can be done about what went wrong, each way with what it costs."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        found = again.read_again(session, now)
        return send(again_out(presenter(), found, trials_standing(session, now, "again", found.wanted)))


def take_way(path: ProjectPath, query: UseQuery, body: out.WayIn) -> Response:
    """Go one of the ways: another round of cutting begins."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        again.take_way(session, now, body.way)
        return _sent(session, path.project_id, query.use, 201)


def _left(session: Session, project_id: int, use: int | None) -> out.ClothLeftOut:
    now = read_garment(session, project_id, use)
    return left_out(presenter(), left.read_left(session, now), settings(session).scrap)


def read_left(path: ProjectPath, query: UseQuery) -> Response:
    """What is left of the cloth: remnants in their true outlines, and scraps."""
    with look() as session:
        return send(_left(session, path.project_id, query.use))


def keep_remnant(path: ProjectPath, query: UseQuery, body: out.RemnantIn) -> Response:
    """Put a remnant into the cupboard with the facts of its cloth."""
    with begin() as session:
        now = standing(session, cloth_use(session, path.project_id, query.use))
        left.keep_remnant(session, now, left.Seen(body.x, body.y, body.area))
        session.expire_all()
        return send(_left(session, path.project_id, query.use), 201)


def change_scrap(path: ProjectPath, query: UseQuery, body: out.ScrapIn) -> Response:
    """Say from which size on a remnant is kept."""
    with begin() as session:
        left.change_scrap(session, body.least)
        return send(_left(session, path.project_id, query.use))


# -- what is printed


def sheet_pdf(path: ProjectPath, query: out.PaperQuery) -> Response:
    """The sheet for the table as PDF."""
    # some time to import, and only this needs it
    from ...formats.pdf_sheet import write_sheet

    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        body = write_sheet(papers.sheet_of(session, now), paper=query.paper, system=system())
        answer = attachment(body, PDF, file_name(now.garment, "cutting-sheet.pdf"))
        if query.show:
            name = answer.headers["Content-Disposition"].removeprefix("attachment")
            answer.headers["Content-Disposition"] = f"inline{name}"
        return answer


def _tiles(shapes: Sequence[papers.TrueShape]) -> list[TileShape]:
    return [TileShape(one.name, one.outline, one.lines, one.arrow, one.notes) for one in shapes]


def lay_pdf(path: ProjectPath, query: out.PaperQuery) -> Response:
    """The lay at its true size on many pages, as PDF."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        return _tiled(now, papers.lay_shapes(session, now), query.paper, "lay", f"{now.garment.name}: lay")


def pieces_pdf(path: ProjectPath, query: out.PieceQuery) -> Response:
    """The pieces as they are cut, or one of them, at their true size on many pages, as PDF."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        shapes = papers.piece_shapes(now, query.piece)
        name = shapes[0].name if query.piece else "pieces"
        return _tiled(now, shapes, query.paper, "pieces", f"{now.garment.name}: {name}")


def _tiled(now: Standing, shapes: Sequence[papers.TrueShape], paper: str, what: str, title: str) -> Response:
    try:
        body = write_tiles(_tiles(shapes), title=title, paper=paper, system=system())
    except TooManyPages as fault:
        raise Refused(sentence_of(fault), path="paper") from None
    return attachment(body, PDF, file_name(now.garment, f"{what}-true-size.pdf"))


def pieces_svg(path: ProjectPath, query: out.PieceQuery) -> Response:
    """The pieces as they are cut, or one of them, as an SVG at 1:1."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        text = write_true_svg(_tiles(papers.piece_shapes(now, query.piece)), title=now.garment.name)
        return attachment(text, "image/svg+xml", file_name(now.garment, "pieces.svg"))


def labels_pdf(path: ProjectPath, query: out.PaperQuery) -> Response:
    """A label for every copy, as PDF."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        body = write_labels(papers.labels_of(session, now), paper=query.paper)
        return attachment(body, PDF, file_name(now.garment, "labels.pdf"))


def gauges_pdf(path: ProjectPath, query: out.PaperQuery) -> Response:
    """A gauge for every allowance, to chalk along, as PDF."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        body = write_gauges(papers.gauges_of(now), paper=query.paper, system=system())
        return attachment(body, PDF, file_name(now.garment, "gauges.pdf"))


def swatch_pdf(query: out.SwatchQuery) -> Response:
    """A swatch template whose edges show shrinkage in per cent, as PDF."""
    side = USUAL_SWATCH[system()]
    try:
        if query.side.strip():
            side = read_length(query.side, system())
        body = write_swatch(side, paper=query.paper, system=system())
    except (BadEntry, BadTemplate, TooManyPages) as fault:
        raise Refused(sentence_of(fault), path="side") from None
    return attachment(body, PDF, "swatch-template.pdf")


# -- at its true size on the table


def calibrate(body: out.CornersIn) -> Response:
    """The map from the table to a device's picture."""
    try:
        if body.corners is not None:
            found = by_corners(body.wide, body.high, body.corners)
        elif body.drawn is not None:
            found = by_square(body.drawn, body.wide, body.high)
        else:
            raise Refused("Give four corners, or the sides of the square that is drawn.", path="corners")
    except BadCalibration as fault:
        raise Refused(sentence_of(fault), path="corners") from None
    return send(out.CalibrationOut(matrix=[list(row) for row in found.matrix], css=list(found.css)))


def check_size(body: out.SizeCheckIn) -> Response:
    """What a check line that was measured says of a calibration."""
    good, told = checked(body.meant, body.measured)
    return send(out.SizeCheckOut(good=good, told=presenter().told(told)))
