"""Plan: pieces taken in from files, looked at before they are kept; and written for other programs."""

from __future__ import annotations

import base64
import binascii

from flask import Response

from ...core.plan.outline import Point
from ...formats.reading import FORMATS, Taken, Wishes
from ...formats.writing import MEDIA
from ...operations import taking_in
from ...operations.plan import Sketch
from ...operations.project import garment, read_garment
from ...operations.refused import Refused
from ..project import schemas as project_out
from ..project.show import project_out as show_project
from ..services import begin, look, send, services
from ..shared.figures import Presenter, presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath
from . import schemas as out
from .show import drawn_out

#: A picture of the file has at most so many points: a file of many pages is drawn coarser.
MOST_SHOWN = 40_000


def look_into(body: out.TakingIn) -> Response:
    """What can be understood of a file of pieces; nothing is kept."""
    taken = _taken(body)
    with look():
        return send(_taken_out(presenter(), taken))


def _taken(body: out.TakingIn) -> Taken:
    return taking_in.look_into(_bytes(body), body.file_name, _wishes(body), services().read)


def keep_taken(path: ProjectPath, body: out.KeepTaken) -> Response:
    """Keep the pieces of a file that were confirmed."""
    confirmed = [
        taking_in.Confirmed(p.number, p.name, p.copies, p.pair, p.grain, p.one_way, p.seam, p.use_id)
        for p in body.pieces
    ]
    taken = _taken(body)
    with begin() as session:
        project = garment(session, path.project_id)
        read = taking_in.keep_taken(session, project, taken, body.file_name, confirmed, body.twice)
        return send(
            project_out.ImportOut(
                added=list(read.added),
                not_read=[out.NotReadOut(code=n.code, what=n.place, why=n.why) for n in read.not_read],
                mended=[out.NotReadOut(code=m.code, what=m.place, why=m.how) for m in read.mended],
                project=show_project(session, project.main),
            ),
            201,
        )


def pieces_file(path: ProjectPath, query: out.PiecesFileQuery) -> Response:
    """The pieces of a garment as SVG, DXF, PDF at true size, a table of points, or a lay problem."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        data = taking_in.write_pieces(now, query.kind, paper=query.paper, system=system())
        ending = f"pieces.{query.kind}"
        return attachment(data, MEDIA[query.kind].partition(";")[0], file_name(now.garment, ending))


def _bytes(body: out.TakingIn) -> bytes:
    try:
        return base64.b64decode(body.file, validate=True)
    except (binascii.Error, ValueError):
        raise Refused("This is no file in base64.", path="file") from None


def _wishes(body: out.TakingIn) -> Wishes:
    places = None if body.places is None else {one.number: (one.x, one.y) for one in body.places}
    return Wishes(body.unit, tuple(body.styles), body.columns, places)


def _taken_out(show: Presenter, taken: Taken) -> out.TakenOut:
    choices = taken.choices
    return out.TakenOut(
        format=taken.format,
        told=FORMATS[taken.format],
        lines=_coarser(taken.lines),
        pieces=[_piece_out(show, taken, k, sketch) for k, sketch in enumerate(taking_in.sketches(taken)) if sketch],
        unit=choices.unit,
        units=list(choices.units),
        styles=[out.StyleOut(name=name, outlines=count, read=name in choices.chosen) for name, count in choices.styles],
        nested=choices.nested,
        pages=[
            out.TakenPageOut(number=number, x=at[0], y=at[1], wide=size[0], high=size[1])
            for number, at, size in choices.pages
        ],
        joined=choices.joined,
        not_read=[out.NotReadOut(code=n.code, what=n.place, why=n.why) for n in taken.not_read],
        mended=[out.NotReadOut(code=m.code, what=m.place, why=m.how) for m in taken.mended],
    )


def _piece_out(show: Presenter, taken: Taken, number: int, sketch: Sketch) -> out.TakenPieceOut:
    read = taken.pieces[number]
    how = read.how
    return out.TakenPieceOut(
        number=number,
        name=read.name,
        cut=list(sketch.cut),
        arrow=list(sketch.arrow),
        marks=drawn_out(sketch.piece.marks),
        on_fold=how.on_fold,
        half=read.draft.half,
        copies=how.copies,
        pair=how.pair,
        grain=how.grain,
        one_way=how.one_way,
        seam=show.length(how.seam),
        included=show.length(read.draft.included),
        shorter=show.length(how.shorter),
        edges=len(sketch.edges),
        notches=len(read.draft.notches),
        sizes=[one.size for one in read.sizes],
        size=show.size(sketch.cut, how.on_fold),
    )


def _coarser(lines: tuple[tuple[Point, ...], ...]) -> list[list[Point]]:
    """The lines with every so-manyth of their points, both ends kept, and to a hundredth of a millimetre."""
    every = max(1, -(-sum(len(line) for line in lines) // MOST_SHOWN))
    out_lines = []
    for line in lines[:MOST_SHOWN]:
        kept = [*line[:-1:every], line[-1]] if line else []
        out_lines.append([(round(x, 2), round(y, 2)) for x, y in kept])
    return out_lines
