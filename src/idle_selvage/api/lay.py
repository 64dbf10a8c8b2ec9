"""Lay: begin a laying, follow it, look at the lay, take it away as a file."""

from __future__ import annotations

import json
from typing import Literal

from flask import Response, make_response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.lay.drawing import draw
from ..core.lay.problem import to_json as problem_json
from ..core.lay.problem import too_wide
from ..core.lay.reading import read_problem
from ..formats.lay_json import lay_text
from ..formats.svg_lay import write_svg
from ..store import models, records
from . import present
from . import schemas as out
from .changes import change, within
from .context import Refused, begin, look, pool, send, system
from .entries import LengthIn
from .files import file_name
from .presenter import Presenter

blueprint = APIBlueprint("lay", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class LayIn(out.In):
    seconds: int | None = Field(default=None, ge=1, le=120, strict=True)
    seed: int = Field(default=1, ge=0, le=2**31, strict=True)


class ChooseIn(out.In):
    lay_id: int = Field(ge=1, le=2**31, strict=True)


class FileQuery(out.In):
    view: Literal["pinned", "opened"] = "pinned"


class LayWishes(out.In):
    """Any of the wishes for laying; what is left out stays."""

    gap: LengthIn | None = None
    folds: list[str] | None = Field(default=None, max_length=6)
    lay_seconds: int | None = Field(default=None, ge=1, le=120, strict=True)


_NAMES = {"gap": "room between pieces", "folds": "folds to try", "lay_seconds": "time to search"}


@blueprint.patch("/projects/<int:project_id>/lay", operation_id="changeLayWishes", responses={200: out.ProjectOut})
def change_lay_wishes(path: out.ProjectPath, body: LayWishes) -> Response:
    """Change the room between pieces, the folds to try, or how long to search."""
    given = body.model_dump(exclude_unset=True, exclude_none=True)
    within(given, {"gap": (0.0, 200.0)})
    if body.folds is not None:
        if not body.folds:
            raise Refused("Choose at least one way to fold.", path="folds")
        for fold in body.folds:
            if fold not in present.FOLD_LABELS:
                told = f"The fold “{fold[:30]}” cannot be laid yet; choose from {', '.join(present.FOLD_LABELS)}."
                raise Refused(told, path="folds")
        given["folds"] = list(dict.fromkeys(body.folds))
    with begin() as session:
        return send(change(session, records.project(session, path.project_id), given, "lay", _NAMES))


@blueprint.post("/projects/<int:project_id>/lays", operation_id="beginLay", responses={202: out.JobOut})
def begin_lay(path: out.ProjectPath, body: LayIn) -> Response:
    """Begin laying a project's pieces on its cloth; an earlier laying under way is stopped."""
    with begin() as session:
        job = _begin(session, records.project(session, path.project_id), body)
        answer = Presenter(system()).job(job)
    _submit(answer.id)
    return send(answer, 202)


def _begin(session: records.Session, row: models.Project, body: LayIn) -> models.Job:
    """A new laying of a project as it stands, waiting for a worker."""
    show = Presenter(system())
    found, _, _ = present.work_up(session, row)
    problem, why = present.current_problem(session, row, found)
    if problem is None:
        raise Refused(why, code="not_ready")
    wide = [show.too_wide(piece, across, problem.width) for piece, across in too_wide(problem)]
    if wide:
        raise Refused(" ".join(wide), code="cannot_lay")
    asked = problem_json(problem)
    # the same questions as for a file: what it refuses there is refused here, by name
    read_problem(asked)
    earlier = records.running_job(session, row.id)
    if earlier is not None:
        earlier.cancel = True
    params = {
        "problem": asked,
        "seconds": body.seconds or row.lay_seconds,
        "seed": body.seed,
        "basis": present.basis_of(found),
    }
    job = models.Job(project_id=row.id, params=params)
    session.add(job)
    session.flush()
    records.log(session, row.id, "lay", f"Began laying {sum(p.copies for p in problem.pieces)} pieces.", job=job.id)
    return job


def _submit(job_id: int) -> None:
    workers = pool()
    if workers is not None:
        workers.submit(job_id)


@blueprint.post("/projects/<int:project_id>/lay/refresh", operation_id="refreshLay", responses={200: out.ProjectOut})
def refresh_lay(path: out.ProjectPath) -> Response:
    """Bring lay and purchase up to date: lay again if the lay no longer fits, else go on with it as it is."""
    job_id = None
    with begin() as session:
        row = records.project(session, path.project_id)
        chosen = records.chosen_lay(session, row.id)
        found, _, _ = present.work_up(session, row)
        problem, _ = present.current_problem(session, row, found)
        if chosen is not None and problem is not None and problem_json(problem) == chosen.problem:
            for lay in records.lays_of_job(session, chosen.job_id) if chosen.job_id else [chosen]:
                lay.basis = present.basis_of(found)
            records.log(session, row.id, "lay", "Looked at the lay again: it stays as it is, and the purchase follows.")
            session.flush()
        else:
            job_id = _begin(session, row, LayIn()).id
        answer = present.project_out(session, row, system())
    if job_id is not None:
        _submit(job_id)
    return send(answer)


@blueprint.get("/jobs/<int:job_id>", operation_id="readJob", responses={200: out.JobOut})
def read_job(path: out.JobPath) -> Response:
    """How far a laying is."""
    with look() as session:
        return send(Presenter(system()).job(records.job(session, path.job_id)))


@blueprint.post("/jobs/<int:job_id>/cancel", operation_id="cancelJob", responses={200: out.JobOut})
def cancel_job(path: out.JobPath) -> Response:
    """Stop a laying; the best lay found so far is kept."""
    with begin() as session:
        row = records.job(session, path.job_id)
        if row.state in ("waiting", "running"):
            row.cancel = True
            session.flush()
        return send(Presenter(system()).job(row))


@blueprint.get("/projects/<int:project_id>/lay", operation_id="readLay", responses={200: out.MaybeLayOut})
def read_lay(path: out.ProjectPath) -> Response:
    """The chosen lay, drawn as pinned and as opened out."""
    with look() as session:
        row = records.project(session, path.project_id)
        chosen = records.chosen_lay(session, row.id)
        if chosen is None:
            found, _, _ = present.work_up(session, row)
            _, why = present.current_problem(session, row, found)
            return send(out.MaybeLayOut(lay=None, missing=why or "Nothing was laid yet."))
        return send(out.MaybeLayOut(lay=present.lay_out(session, row, chosen, system()), missing=""))


@blueprint.post("/projects/<int:project_id>/lay/choose", operation_id="chooseLay", responses={200: out.ProjectOut})
def choose_lay(path: out.ProjectPath, body: ChooseIn) -> Response:
    """Go by another of the lays that were found."""
    with begin() as session:
        row = records.project(session, path.project_id)
        lay = session.get(models.LayRecord, body.lay_id)
        if lay is None or lay.project_id != row.id:
            raise records.NotFound("There is no such lay in this project.")
        records.choose_lay(session, lay, picked=True)
        records.log(
            session, row.id, "lay", f"Chose the lay in {present.FOLD_LABELS[lay.fold]}.", length=lay.lay["length"]
        )
        return send(present.project_out(session, row, system()))


def _file(text: str, kind: str, name: str) -> Response:
    answer = make_response(text)
    answer.headers["Content-Type"] = f"{kind}; charset=utf-8"
    answer.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


_SVG_FILE = {
    "description": "the lay at 1:1, in millimetres",
    "content": {"image/svg+xml": {"schema": {"type": "string"}}},
}
_JSON_FILE = {
    "description": "the format of docs/lay-formats.md",
    "content": {"application/json": {"schema": {"type": "object"}}},
}


@blueprint.get("/projects/<int:project_id>/lay.svg", operation_id="laySvg", responses={200: _SVG_FILE})
def lay_svg(path: out.ProjectPath, query: FileQuery) -> Response:
    """The chosen lay as an SVG at 1:1 with labels."""
    with begin() as session:
        row = records.project(session, path.project_id)
        chosen = _chosen(session, row)
        asked = read_problem(chosen.problem)
        margins = (row.cloth.margin_low, row.cloth.margin_high)
        picture = draw(
            records.lay_of(chosen),
            {p.id: p for p in asked.pieces},
            asked.width,
            margins=margins,
            view=query.view,
            leans=records.leans(chosen.problem, records.pieces(session, row.id)),
        )
        text = write_svg(
            picture, title=f"{row.name}, {present.FOLD_LABELS[chosen.fold]}", system=system(), margins=margins
        )
        records.log(session, row.id, "lay", "Took the lay away as SVG at 1:1.", view=query.view)
        return _file(text, "image/svg+xml", file_name(row, "lay.svg"))


@blueprint.get("/projects/<int:project_id>/lay.json", operation_id="layJson", responses={200: _JSON_FILE})
def lay_json(path: out.ProjectPath) -> Response:
    """The chosen lay in ``idle-selvage/lay/1``."""
    with begin() as session:
        row = records.project(session, path.project_id)
        chosen = _chosen(session, row)
        records.log(session, row.id, "lay", "Took the lay away as JSON.")
        return _file(lay_text(records.lay_of(chosen)), "application/json", file_name(row, "lay.json"))


@blueprint.get(
    "/projects/<int:project_id>/lay-problem.json", operation_id="layProblemJson", responses={200: _JSON_FILE}
)
def lay_problem_json(path: out.ProjectPath) -> Response:
    """What the chosen lay answers, in ``idle-selvage/lay-problem/1``."""
    with look() as session:
        row = records.project(session, path.project_id)
        chosen = _chosen(session, row)
        return _file(
            json.dumps(chosen.problem, indent=1) + "\n", "application/json", file_name(row, "lay-problem.json")
        )


def _chosen(session: records.Session, row: models.Project) -> models.LayRecord:
    chosen = records.chosen_lay(session, row.id)
    if chosen is None:
        raise records.NotFound("Nothing was laid yet, so there is no lay to take away.")
    return chosen
