"""Cloth: what is known of it, in a project or in the cupboard."""

from __future__ import annotations

import base64
import binascii
from typing import Any

from flask import Response, make_response
from sqlalchemy.orm import Session

from ...operations import cloth
from ...operations.project import cloth_use, garment
from ...operations.refused import Refused
from ...store import photo
from ...store.cloth import cloth as find
from ..project import schemas as project_schemas
from ..project.show import project_out
from ..services import begin, look, send, services
from ..shared.figures import presenter
from ..shared.person import by, insisted
from ..shared.schemas import ClothPath, ProjectPath, UseQuery
from . import schemas as out
from .show import cloth_out, cupboard_out


def _given(body: out.ClothChange) -> dict[str, Any]:
    # only what was sent, but its parts whole: leaving out what is unset would leave out their defaults too
    return {
        key: value
        for key, value in body.model_dump().items()
        if key in body.model_fields_set and key != "state" and (value is not None or key in cloth.CLEARED)
    }


def _cloth(session: Session, number: int) -> out.ClothOut:
    return cloth_out(presenter(), cloth.read_cloth(session, number))


def change_cloth(path: ProjectPath, query: UseQuery, body: out.ClothChange) -> Response:
    """Change what is known of one of a project's cloths."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        cloth.change_cloth(session, use.cloth, _given(body), body.state, by(), sure=insisted.get())
        return send(project_out(session, use))


def list_cloths(query: out.CupboardQuery) -> Response:
    """The cupboard: every cloth, or those in whose facts all the words are found."""
    with look() as session:
        return send(cupboard_out(presenter(), *cloth.cupboard(session, query.words)))


def add_cloth(body: out.NewCloth) -> Response:
    """Put a cloth into the cupboard."""
    with begin() as session:
        return send(_cloth(session, cloth.add_cloth(session, body.name).id), 201)


def read_cloth(path: ClothPath) -> Response:
    """One cloth of the cupboard."""
    with look() as session:
        return send(_cloth(session, path.cloth_id))


def change_any_cloth(path: ClothPath, body: out.ClothChange) -> Response:
    """Change what is known of a cloth, whichever projects use it."""
    with begin() as session:
        cloth.change_cloth(session, find(session, path.cloth_id), _given(body), body.state, by(), sure=insisted.get())
        return send(_cloth(session, path.cloth_id))


def delete_cloth(path: ClothPath) -> Response:
    """Take a cloth out of the cupboard. It can be brought back."""
    with begin() as session:
        cloth.take_out(session, find(session, path.cloth_id))
        return send(cupboard_out(presenter(), *cloth.cupboard(session)))


def restore_cloth(path: ClothPath) -> Response:
    """Bring back a cloth that was taken out."""
    with begin() as session:
        return send(_cloth(session, cloth.bring_back(session, path.cloth_id).id))


def keep_photo(path: ClothPath, body: out.PhotoIn) -> Response:
    """Keep a photo of a cloth; it is made smaller, and what the camera wrote into it is left out."""
    try:
        picture = base64.b64decode(body.data, validate=True)
    except (binascii.Error, ValueError):
        raise Refused("This is no picture in base64.", path="data") from None
    with begin() as session:
        cloth.keep_photo(session, find(session, path.cloth_id), picture)
        return send(_cloth(session, path.cloth_id))


def read_photo(path: ClothPath, query: out.PhotoQuery) -> Response:
    """A cloth's photo."""
    with look() as session:
        answer = make_response(photo.photo(session, find(session, path.cloth_id).id).jpeg)
        answer.headers["Content-Type"] = "image/jpeg"
        return answer


def delete_photo(path: ClothPath) -> Response:
    """Take a photo away. It can be brought back."""
    return _hide_photo(path, gone=True)


def restore_photo(path: ClothPath) -> Response:
    """Bring back a photo that was taken away."""
    return _hide_photo(path, gone=False)


def _hide_photo(path: ClothPath, *, gone: bool) -> Response:
    with begin() as session:
        cloth.hide_photo(session, find(session, path.cloth_id), gone=gone)
        return send(_cloth(session, path.cloth_id))


def add_wash(path: ClothPath, body: out.WashIn) -> Response:
    """Write down a wash of the length: how, the rag's grade, and what it measured afterwards."""
    given = cloth.WashGiven(body.how, body.grade, body.length_after, body.width_after, body.wash)
    with begin() as session:
        washer = services().washer if body.stand_in else None
        cloth.add_wash(session, find(session, path.cloth_id), given, washer)
        return send(_cloth(session, path.cloth_id), 201)


def delete_wash(path: out.WashPath) -> Response:
    """Strike out a wash that was written down by mistake. It can be brought back."""
    return _strike_wash(path, gone=True)


def restore_wash(path: out.WashPath) -> Response:
    """Bring back a wash that was struck out."""
    return _strike_wash(path, gone=False)


def _strike_wash(path: out.WashPath, *, gone: bool) -> Response:
    with begin() as session:
        cloth.strike_wash(session, find(session, path.cloth_id), path.wash_id, gone=gone)
        return send(_cloth(session, path.cloth_id))


def use_cloth(path: ProjectPath, query: UseQuery, body: out.UseIn) -> Response:
    """Take another cloth out of the cupboard for a project; the one it had goes into the cupboard."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        cloth.use_cloth(session, use, find(session, body.cloth_id))
        return send(project_out(session, use))


def add_use(path: ProjectPath, body: project_schemas.NewUse) -> Response:
    """Cut a project from another cloth as well: a lining, interfacing, contrast, trim."""
    with begin() as session:
        row = garment(session, path.project_id)
        use = cloth.add_use(session, row, body.role, cloth_id=body.cloth_id, name=body.name)
        return send(project_out(session, use), 201)


def change_use(path: project_schemas.UsePath, body: project_schemas.UseChange) -> Response:
    """Say that one of a project's cloths is for something else."""
    with begin() as session:
        use = cloth_use(session, path.project_id, path.use_id)
        cloth.change_use(session, use, body.role)
        return send(project_out(session, use))


def delete_use(path: project_schemas.UsePath) -> Response:
    """Cut a project from one of its cloths no longer; it stays in the cupboard, and can be brought back."""
    return _take_out_use(path, gone=True)


def restore_use(path: project_schemas.UsePath) -> Response:
    """Bring a cloth back into a project."""
    return _take_out_use(path, gone=False)


def _take_out_use(path: project_schemas.UsePath, *, gone: bool) -> Response:
    with begin() as session:
        row = garment(session, path.project_id)
        cloth.take_out_use(session, row, path.use_id, gone=gone)
        return send(project_out(session, row.main if gone else cloth_use(session, row.id, path.use_id)))


def keep_runs(path: project_schemas.UsePath, body: project_schemas.RunsIn) -> Response:
    """Say which edges a trim goes on."""
    with begin() as session:
        use = cloth_use(session, path.project_id, path.use_id)
        cloth.keep_runs(session, use, [(run.what, run.length, run.times) for run in body.runs])
        return send(project_out(session, use))
