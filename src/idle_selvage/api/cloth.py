"""Cloth: what is known of it, in a project or in the cupboard."""

from __future__ import annotations

import base64
import binascii
from collections.abc import Mapping
from datetime import datetime
from typing import Any, Literal

from flask import Response, make_response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.cloth import hand as judgements
from ..core.cloth.direction import CLOTH_DIRECTIONS, PILE_RUNS, wale_class
from ..core.cloth.make import COLOURINGS, FIBRES, FINISHES, WEAVES
from ..core.cloth.width import BadCloth, check_cloth
from ..core.shrink.ranges import like_key
from ..core.shrink.together import ROLES
from ..formats.photo import BadPhoto, small_jpeg
from ..standins.washer import Specimen
from ..store import models, records
from . import present
from . import schemas as out
from .context import Refused, begin, look, send, system, washer
from .entries import LengthIn, Name, NumberIn, Text
from .presenter import Presenter
from .show_cloth import cloth_out, cupboard_line, found_by, programme_text

blueprint = APIBlueprint("cloth", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

MOST_FLAWS = 100


class BarIn(out.In):
    width: LengthIn
    colour: str = Field(pattern=r"^#[0-9A-Fa-f]{6}$")


class ShareIn(out.In):
    fibre: str
    share: NumberIn


class FlawIn(out.In):
    """A place to keep off: lower left corner from the cut end and the near selvage, and its size."""

    x: LengthIn
    y: LengthIn
    w: LengthIn
    h: LengthIn
    what: Text = "flaw"


class ClothChange(out.In):
    """Any of a cloth's entries; what is left out stays, and null clears what may be unknown."""

    name: Text | None = None
    blend: list[ShareIn] | None = Field(default=None, max_length=6)
    weave: str | None = None
    finish: str | None = None
    colouring: str | None = None
    width_readings: list[LengthIn] | None = Field(default=None, max_length=20)
    margin_low: LengthIn | None = None
    margin_high: LengthIn | None = None
    in_hand: LengthIn | None = None
    mass: NumberIn | None = None
    price: NumberIn | None = None
    price_unit: Literal["m", "yd"] | None = None
    direction: str | None = None
    pile: str | None = None
    pile_why: Text | None = None
    wales: NumberIn | None = None
    face: Text | None = None
    face_mark: Text | None = None
    reversible: bool | None = None
    depth: Literal["light", "medium", "dark"] | None = None
    rub_grade: int | None = Field(default=None, ge=1, le=5, strict=True)
    ground: str | None = Field(default=None, pattern=r"^#[0-9A-Fa-f]{6}$")
    bars_along: list[BarIn] | None = Field(default=None, max_length=60)
    bars_across: list[BarIn] | None = Field(default=None, max_length=60)
    flaws: list[FlawIn] | None = Field(default=None, max_length=MOST_FLAWS)
    shop_fold: LengthIn | None = None
    answers: dict[str, str] | None = Field(default=None, max_length=20)
    style_number: Text | None = None
    place: Text | None = None
    treated: bool | None = None


class NewCloth(out.In):
    name: Name


class CupboardQuery(out.In):
    words: str = Field(default="", max_length=120)


class PhotoIn(out.In):
    data: str = Field(max_length=8_500_000, description="a JPEG, PNG or WebP picture in base64")


class PhotoQuery(out.In):
    at: int = Field(default=0, ge=0)


class WashIn(out.In):
    """One wash of the length. With ``stand_in`` the simulated washer makes up the grade and the measures."""

    how: Text = ""
    grade: int | None = Field(default=None, ge=1, le=5, strict=True)
    length_after: LengthIn | None = None
    width_after: LengthIn | None = None
    stand_in: bool = False


class SetIn(out.In):
    """A cloth to stand beside the main one: one of the cupboard by its number, or a new one by its name."""

    cloth_id: int | None = Field(default=None, ge=1, le=2**31, strict=True)
    name: Text = ""
    role: str


class UseIn(out.In):
    cloth_id: int = Field(ge=1, le=2**31, strict=True)


_CLEARED = {"in_hand", "mass", "price", "wales", "rub_grade", "shop_fold"}
_TABLES: dict[str, Mapping[str, Any]] = {
    "weave": WEAVES,
    "finish": FINISHES,
    "colouring": COLOURINGS,
    "direction": CLOTH_DIRECTIONS,
    "pile": PILE_RUNS,
}
_NAMES = {
    "name": "name",
    "blend": "fibres",
    "weave": "weave",
    "finish": "finish",
    "colouring": "colouring",
    "width_readings": "width readings",
    "margin_low": "near selvage",
    "margin_high": "far selvage",
    "in_hand": "length in hand",
    "mass": "weight",
    "price": "price",
    "price_unit": "price",
    "direction": "direction",
    "pile": "the way the pile runs",
    "pile_why": "the way the pile runs",
    "wales": "wales",
    "face": "face",
    "face_mark": "how the face is marked",
    "reversible": "whether both sides may show",
    "depth": "colour depth",
    "rub_grade": "rub test",
    "ground": "colour",
    "bars_along": "bars",
    "bars_across": "bars",
    "flaws": "flaws",
    "shop_fold": "the faded shop fold",
    "answers": "judgements by hand",
    "style_number": "style number",
    "place": "where it is kept",
    "treated": "that it was measured after pre-treatment",
}


def _given(body: ClothChange) -> dict[str, Any]:
    # only what was sent, but its parts whole: leaving out what is unset would leave out their defaults too
    given = {
        key: value
        for key, value in body.model_dump().items()
        if key in body.model_fields_set and (value is not None or key in _CLEARED)
    }
    for key, table in _TABLES.items():
        if key in given and given[key] not in table:
            raise Refused(f"That is not in the list; choose one of: {', '.join(k for k in table if k)}.", path=key)
    for place, part in enumerate(given.get("blend", [])):
        if part["fibre"] not in FIBRES:
            raise Refused("That fibre is not in the list; choose the nearest one.", path=f"blend.{place}.fibre")
        if not 0 < part["share"] <= 100:
            raise Refused("A share must be more than 0 and at most 100 per cent.", path=f"blend.{place}.share")
    if given.get("wales") is not None:
        try:
            wale_class(given["wales"])
        except ValueError as fault:
            raise Refused(str(fault), path="wales") from None
    if "answers" in given:
        fault_ = judgements.check(given["answers"])
        if fault_:
            raise Refused(fault_, path="answers")
    return given


def _apply(session: Session, row: models.Cloth, given: dict[str, Any]) -> None:
    """Set the entries; refuse a cloth that cannot be."""
    bars = dict(row.bars)
    for key, value in given.items():
        if key.startswith("bars_"):
            bars[key.removeprefix("bars_")] = value
        elif key == "blend":
            row.blend = [[part["fibre"], part["share"]] for part in value]
        elif key == "answers":
            row.answers = {k: v for k, v in {**row.answers, **value}.items() if v}
        else:
            setattr(row, key, value)
    row.bars = bars if any(bars.values()) else {}
    row.like = like_key(records.as_make(row))
    cloth = records.as_cloth(row)
    if cloth.width_readings:
        try:
            check_cloth(cloth)
        except BadCloth as fault:
            raise Refused(str(fault), path=next(iter(given), "")) from None
        for place, flaw in enumerate(row.flaws):
            if flaw["y"] > max(cloth.width_readings):
                raise Refused("That flaw would lie past the far selvage.", path=f"flaws.{place}.y")
    if row.shop_fold is not None and cloth.width_readings and row.shop_fold > max(cloth.width_readings):
        raise Refused("That fold would lie past the far selvage.", path="shop_fold")
    session.flush()


def _note(session: Session, row: models.Cloth, given: Mapping[str, Any]) -> None:
    """Into the log of every project that uses the cloth, or into the cupboard's own."""
    if not given:
        return
    told = "Noted " + ", ".join(dict.fromkeys(_NAMES[k] for k in given)) + (f" of {row.name}." if row.name else ".")
    kept = {k: v for k, v in given.items() if not k.startswith("bars_")}
    records.log_cloth(session, row, "cloth", told, **kept)


@blueprint.patch("/projects/<int:project_id>/cloth", operation_id="changeCloth", responses={200: out.ProjectOut})
def change_cloth(path: out.ProjectPath, body: ClothChange) -> Response:
    """Change what is known of a project's main cloth."""
    given = _given(body)
    with begin() as session:
        project = records.project(session, path.project_id)
        _apply(session, project.cloth, given)
        _note(session, project.cloth, given)
        return send(present.project_out(session, project, system()))


@blueprint.get("/cloths", operation_id="listCloths", responses={200: out.CupboardOut})
def list_cloths(query: CupboardQuery) -> Response:
    """The cupboard: every cloth, or those in whose facts all the words are found."""
    with look() as session:
        show = Presenter(system())
        lines = [cupboard_line(session, show, row) for row in records.cupboard(session)]
        found = [line for line in lines if found_by(line, query.words)]
        return send(out.CupboardOut(cloths=found, of=len(lines)))


@blueprint.post("/cloths", operation_id="addCloth", responses={201: out.ClothOut})
def add_cloth(body: NewCloth) -> Response:
    """Put a cloth into the cupboard."""
    with begin() as session:
        row = _new_cloth(session, body.name)
        records.log(session, None, "cloth", f"Put {row.name} into the cupboard.", cloth=row.id)
        return send(cloth_out(session, Presenter(system()), row), 201)


def _new_cloth(session: Session, name: str) -> models.Cloth:
    row = models.Cloth(name=name)
    session.add(row)
    session.flush()
    session.refresh(row)
    return row


@blueprint.get("/cloths/<int:cloth_id>", operation_id="readCloth", responses={200: out.ClothOut})
def read_cloth(path: out.ClothPath) -> Response:
    """One cloth of the cupboard."""
    with look() as session:
        return send(cloth_out(session, Presenter(system()), records.cloth(session, path.cloth_id)))


@blueprint.patch("/cloths/<int:cloth_id>", operation_id="changeAnyCloth", responses={200: out.ClothOut})
def change_any_cloth(path: out.ClothPath, body: ClothChange) -> Response:
    """Change what is known of a cloth, whichever projects use it."""
    given = _given(body)
    with begin() as session:
        row = records.cloth(session, path.cloth_id)
        _apply(session, row, given)
        _note(session, row, given)
        return send(cloth_out(session, Presenter(system()), row))


@blueprint.delete("/cloths/<int:cloth_id>", operation_id="deleteCloth", responses={200: out.CupboardOut})
def delete_cloth(path: out.ClothPath) -> Response:
    """Take a cloth out of the cupboard. It can be brought back."""
    with begin() as session:
        row = records.cloth(session, path.cloth_id)
        used = records.projects_of_cloth(session, row.id)
        if used:
            raise Refused(f"{row.name or 'This cloth'} is used for {used[0].name}; put that away first.", code="in_use")
        row.deleted_at = models.now()
        records.log(session, None, "cloth", f"Took {row.name or 'a cloth'} out of the cupboard.", cloth=row.id)
        session.flush()
        show = Presenter(system())
        lines = [cupboard_line(session, show, c) for c in records.cupboard(session)]
        return send(out.CupboardOut(cloths=lines, of=len(lines)))


@blueprint.post("/cloths/<int:cloth_id>/restore", operation_id="restoreCloth", responses={200: out.ClothOut})
def restore_cloth(path: out.ClothPath) -> Response:
    """Bring back a cloth that was taken out."""
    with begin() as session:
        row = records.cloth(session, path.cloth_id, deleted=True)
        if row.deleted_at is not None:
            row.deleted_at = None
            records.log(session, None, "cloth", f"Brought {row.name or 'a cloth'} back.", cloth=row.id)
        return send(cloth_out(session, Presenter(system()), row))


@blueprint.put("/cloths/<int:cloth_id>/photo", operation_id="keepPhoto", responses={200: out.ClothOut})
def keep_photo(path: out.ClothPath, body: PhotoIn) -> Response:
    """Keep a photo of a cloth; it is made smaller, and what the camera wrote into it is left out."""
    try:
        picture = small_jpeg(base64.b64decode(body.data, validate=True))
    except (BadPhoto, binascii.Error, ValueError) as fault:
        told = str(fault) if isinstance(fault, BadPhoto) else "This is no picture in base64."
        raise Refused(told, path="data") from None
    with begin() as session:
        row = records.cloth(session, path.cloth_id)
        photo = session.get(models.Photo, row.id)
        if photo is None:
            session.add(models.Photo(cloth_id=row.id, jpeg=picture))
        else:
            photo.jpeg, photo.at, photo.deleted_at = picture, models.now(), None
        session.flush()
        return send(cloth_out(session, Presenter(system()), row))


_JPEG = {"description": "the photo", "content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}}


@blueprint.get("/cloths/<int:cloth_id>/photo", operation_id="readPhoto", responses={200: _JPEG})
def read_photo(path: out.ClothPath, query: PhotoQuery) -> Response:
    """A cloth's photo."""
    with look() as session:
        photo = records.photo(session, records.cloth(session, path.cloth_id).id)
        if photo is None:
            raise records.NotFound("There is no photo of this cloth yet.")
        answer = make_response(photo.jpeg)
        answer.headers["Content-Type"] = "image/jpeg"
        return answer


@blueprint.delete("/cloths/<int:cloth_id>/photo", operation_id="deletePhoto", responses={200: out.ClothOut})
def delete_photo(path: out.ClothPath) -> Response:
    """Take a photo away. It can be brought back."""
    return _hide_photo(path.cloth_id, models.now())


@blueprint.post("/cloths/<int:cloth_id>/photo/restore", operation_id="restorePhoto", responses={200: out.ClothOut})
def restore_photo(path: out.ClothPath) -> Response:
    """Bring back a photo that was taken away."""
    return _hide_photo(path.cloth_id, None)


def _hide_photo(cloth_id: int, at: datetime | None) -> Response:
    with begin() as session:
        row = records.cloth(session, cloth_id)
        photo = session.get(models.Photo, row.id)
        if photo is None:
            raise records.NotFound("There is no photo of this cloth.")
        photo.deleted_at = at
        session.flush()
        return send(cloth_out(session, Presenter(system()), row))


@blueprint.post("/cloths/<int:cloth_id>/washes", operation_id="addWash", responses={201: out.ClothOut})
def add_wash(path: out.ClothPath, body: WashIn) -> Response:
    """Write down a wash of the length: how, the rag's grade, and what it measured afterwards."""
    with begin() as session:
        row = records.cloth(session, path.cloth_id)
        wash = models.Wash(
            cloth_id=row.id,
            how=body.how,
            grade=body.grade,
            length_after=body.length_after,
            width_after=body.width_after,
            simulated=body.stand_in,
        )
        if body.stand_in:
            _stand_in(session, row, wash)
        if not (wash.how or wash.grade or wash.length_after or wash.width_after):
            raise Refused("Say how it was washed, or what it measured afterwards.", path="how")
        session.add(wash)
        session.flush()
        grade = f"; rag grade {wash.grade}" if wash.grade else ""
        records.log_cloth(session, row, "shrink", f"Washed {row.name or 'the cloth'}: {wash.how}{grade}.")
        return send(cloth_out(session, Presenter(system()), row), 201)


@blueprint.delete(
    "/cloths/<int:cloth_id>/washes/<int:wash_id>", operation_id="deleteWash", responses={200: out.ClothOut}
)
def delete_wash(path: out.WashPath) -> Response:
    """Strike out a wash that was written down by mistake. It can be brought back."""
    return _strike_wash(path, models.now(), "Struck out")


@blueprint.post(
    "/cloths/<int:cloth_id>/washes/<int:wash_id>/restore", operation_id="restoreWash", responses={200: out.ClothOut}
)
def restore_wash(path: out.WashPath) -> Response:
    """Bring back a wash that was struck out."""
    return _strike_wash(path, None, "Brought back")


def _strike_wash(path: out.WashPath, at: datetime | None, said: str) -> Response:
    with begin() as session:
        row = records.cloth(session, path.cloth_id)
        wash = records.wash(session, row.id, path.wash_id)
        wash.deleted_at = at
        session.flush()
        records.log_cloth(
            session, row, "shrink", f"{said} a wash of {row.name or 'the cloth'}: {wash.how or 'washed'}."
        )
        return send(cloth_out(session, Presenter(system()), row))


def _stand_in(session: Session, row: models.Cloth, wash: models.Wash) -> None:
    """Let the simulated washer wash the length, as the first project that uses it would."""
    if not row.in_hand or not row.width_readings:
        raise Refused("The stand-in needs a length in hand and a width to wash.", path="stand_in")
    using = records.projects_of_cloth(session, row.id)
    project = using[0] if using else models.Project(wash="40", dry="line", school="")
    programme = records.advice(session, project, row).programme
    before = [w for w in records.washes(session, row.id) if w.simulated]
    specimen = Specimen(
        kinds=records.treat_facts(session, row).kinds,
        warp=(before[-1].length_after or row.in_hand if before else row.in_hand,),
        weft=(before[-1].width_after or min(row.width_readings) if before else min(row.width_readings),),
        washed=len(before),
        number=row.id,
        depth=row.depth,
        finish=row.finish,
    )
    report = washer().wash(specimen, programme)
    wash.how = wash.how or f"{programme_text(programme)} (stand-in)"
    wash.grade, wash.length_after, wash.width_after = report.grade, report.warp[0], report.weft[0]


@blueprint.put("/projects/<int:project_id>/cloth/use", operation_id="useCloth", responses={200: out.ProjectOut})
def use_cloth(path: out.ProjectPath, body: UseIn) -> Response:
    """Make a project of a cloth out of the cupboard; the one it had goes into the cupboard."""
    with begin() as session:
        project = records.project(session, path.project_id)
        row = records.cloth(session, body.cloth_id)
        if session.get(models.SetCloth, (project.id, row.id)) is not None:
            raise Refused(f"{row.name} is in this project already, beside the main cloth.", path="cloth_id")
        former = project.cloth
        project.cloth_id = row.id
        session.flush()
        session.refresh(project)
        if former.id != row.id and not former.name and not records.projects_of_cloth(session, former.id):
            # nothing was ever noted of it
            former.deleted_at = models.now()
        records.log(session, project.id, "cloth", f"Took {row.name or 'a cloth'} from the cupboard.", cloth=row.id)
        return send(present.project_out(session, project, system()))


@blueprint.post("/projects/<int:project_id>/set", operation_id="addToSet", responses={201: out.ProjectOut})
def add_to_set(path: out.ProjectPath, body: SetIn) -> Response:
    """Put a lining, interfacing, trim or second cloth beside the main one."""
    if body.role not in ROLES or body.role == "main":
        raise Refused(f"It must be one of: {', '.join(k for k in ROLES if k != 'main')}.", path="role")
    if body.cloth_id is None and not body.name:
        raise Refused("Give it a name, or choose a cloth of the cupboard.", path="name")
    with begin() as session:
        project = records.project(session, path.project_id)
        row = records.cloth(session, body.cloth_id) if body.cloth_id else _new_cloth(session, body.name)
        if row.id == project.cloth_id or session.get(models.SetCloth, (project.id, row.id)) is not None:
            raise Refused(f"{row.name or 'This cloth'} is in this project already.", path="cloth_id")
        session.add(models.SetCloth(project_id=project.id, cloth_id=row.id, role=body.role))
        session.flush()
        records.log(session, project.id, "shrink", f"Put {row.name} beside the main cloth, as {ROLES[body.role]}.")
        return send(present.project_out(session, project, system()), 201)


@blueprint.delete(
    "/projects/<int:project_id>/set/<int:cloth_id>", operation_id="removeFromSet", responses={200: out.ProjectOut}
)
def remove_from_set(path: out.SetPath) -> Response:
    """Take a cloth from beside the main one; it stays in the cupboard."""
    with begin() as session:
        project = records.project(session, path.project_id)
        beside = session.get(models.SetCloth, (project.id, path.cloth_id))
        if beside is not None:
            records.log(session, project.id, "shrink", f"Took {beside.cloth.name or 'a cloth'} from the set.")
            session.delete(beside)
            session.flush()
        return send(present.project_out(session, project, system()))
