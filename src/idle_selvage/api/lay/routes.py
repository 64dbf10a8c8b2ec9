"""Lay: begin a laying, follow it, look at the lay, take it away as a file."""

from __future__ import annotations

import json

from flask import Response

from ...core.lay.named import fold_name
from ...core.lay.problem import to_json as problem_json
from ...formats.lay_json import lay_text
from ...formats.svg_lay import write_svg
from ...operations import lay
from ...operations.project import cloth_use, read_garment
from ..project.show import project_out
from ..services import begin, look, send, submit
from ..shared.figures import presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath, UseQuery
from . import schemas as out
from .show import job_out, lay_out


def change_lay_wishes(path: ProjectPath, query: UseQuery, body: out.LayWishes) -> Response:
    """Change the room between pieces, the folds to try, or how long to search."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        lay.change_wishes(session, row, body.model_dump(exclude_unset=True, exclude_none=True))
        return send(project_out(session, row))


def begin_lay(path: ProjectPath, query: UseQuery, body: out.LayIn) -> Response:
    """Begin laying a project's pieces on its cloth; an earlier laying under way is stopped."""
    with begin() as session:
        search = lay.Search(body.seconds, body.seed)
        answer = job_out(presenter(), lay.begin_laying(session, cloth_use(session, path.project_id, query.use), search))
    submit(answer.id)
    return send(answer, 202)


def refresh_lay(path: ProjectPath, query: UseQuery) -> Response:
    """Bring lay and purchase up to date: lay again if the lay no longer fits, else go on with it as it is."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        job = lay.refresh_lay(session, row)
        job_id = None if job is None else job.id
        answer = project_out(session, row)
    submit(job_id)
    return send(answer)


def read_job(path: out.JobPath) -> Response:
    """How far a laying is."""
    with look() as session:
        return send(job_out(presenter(), lay.job(session, path.job_id)))


def cancel_job(path: out.JobPath) -> Response:
    """Stop a laying; the best lay found so far is kept."""
    with begin() as session:
        return send(job_out(presenter(), lay.cancel(session, path.job_id)))


def read_lay(path: ProjectPath, query: UseQuery) -> Response:
    """The chosen lay, drawn as pinned and as opened out."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        found = lay.read_lay(session, now)
        if found is None:
            return send(out.MaybeLayOut(lay=None, missing=now.missing or "Nothing was laid yet."))
        return send(out.MaybeLayOut(lay=lay_out(presenter(), now, found), missing=""))


def choose_lay(path: ProjectPath, query: UseQuery, body: out.ChooseIn) -> Response:
    """Go by another of the lays that were found."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        lay.choose_lay(session, row, body.lay_id)
        return send(project_out(session, row))


def lay_svg(path: ProjectPath, query: out.FileQuery) -> Response:
    """The chosen lay as an SVG at 1:1 with labels."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        chosen = lay.chosen(now)
        title = f"{now.garment.name}, {fold_name(chosen.row.fold)}"
        text = write_svg(chosen.drawn(query.view), title=title, system=system())
        return attachment(text, "image/svg+xml", file_name(now.garment, "lay.svg"))


def lay_json(path: ProjectPath, query: UseQuery) -> Response:
    """The chosen lay in ``idle-selvage/lay/1``."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        return attachment(lay_text(lay.chosen(now).lay), "application/json", file_name(now.garment, "lay.json"))


def lay_problem_json(path: ProjectPath, query: UseQuery) -> Response:
    """What the chosen lay answers, in ``idle-selvage/lay-problem/1``."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        text = json.dumps(problem_json(lay.chosen(now).problem, named=True), indent=1) + "\n"
        return attachment(text, "application/json", file_name(now.garment, "lay-problem.json"))
