"""True: the first edge, the fold test and its log, and the checks made at the table."""

from __future__ import annotations

from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.true.slant import BadTest, FoldTest, check_bands, read_test
from ..store import models, records
from . import present, show_true
from . import schemas as out
from . import schemas_true as true_out
from .context import Refused, begin, look, send, system
from .entries import LengthIn
from .presenter import Presenter
from .true_state import settle_ends

blueprint = APIBlueprint("true", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

Side = Literal["", "near", "far"]
Done = Literal["", "steam", "pull", "pin", "short", "cut"]


class ReadingIn(out.In):
    """The reading at hand; what is left out stays. ``side`` says which selvage's corner sticks out."""

    place: LengthIn | None = None
    offset: LengthIn | None = None
    side: Side | None = None
    bow: LengthIn | None = None
    done: Done | None = None


class StationOfFoldIn(out.In):
    along: LengthIn
    distance: LengthIn


class BarOfPlaidIn(out.In):
    place: LengthIn
    off: LengthIn
    side: Literal["out", "in"] = "out"


class CheckIn(out.In):
    key: str = Field(max_length=200)
    tail: LengthIn | None = None
    head: LengthIn | None = None


class TrueChange(out.In):
    """Any of what is read at the table; what is left out stays, and a list is sent whole."""

    edge: list[LengthIn] | None = Field(default=None, max_length=20)
    edge_way: Literal["", "tear", "thread", "bar", "shears", "square"] | None = None
    cut_off: LengthIn | None = None
    now: ReadingIn | None = None
    fold: list[StationOfFoldIn] | None = Field(default=None, max_length=30)
    ripple: Literal["", "out", "in"] | None = None
    check: CheckIn | None = None
    bars: list[BarOfPlaidIn] | None = Field(default=None, max_length=30)
    bands: list[LengthIn] | None = Field(default=None, max_length=3)
    school: Literal["", "pin", "pull"] | None = None
    accepted: bool | None = None


@blueprint.get("/projects/<int:project_id>/true", operation_id="readTrue", responses={200: true_out.TrueOut})
def read_true(path: out.ProjectPath) -> Response:
    """Is it on grain, what to do, and does it matter."""
    with look() as session:
        return send(show_true.true_out(session, records.project(session, path.project_id), Presenter(system())))


@blueprint.patch("/projects/<int:project_id>/true", operation_id="changeTrue", responses={200: true_out.TrueKeptOut})
def change_true(path: out.ProjectPath, body: TrueChange) -> Response:
    """Keep what was read at the table. What straightening loses flows into the purchase and the lay."""
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = _kept(session, row)
        given = body.model_fields_set
        if body.now is not None:
            _now(row, sheet, body.now)
        if body.fold is not None:
            sheet.fold = [[s.along, s.distance] for s in body.fold]
        if body.bars is not None:
            sheet.bars = [[b.place, b.off if b.side == "out" else -b.off] for b in body.bars]
        if body.check is not None:
            _check(session, row, sheet, body.check)
        if body.bands is not None:
            _bands(sheet, body.bands)
        for key in ("ripple", "school", "accepted"):
            if key in given and (value := getattr(body, key)) is not None:
                setattr(sheet, key, value)
        if given & {"edge", "edge_way", "cut_off"}:
            _edge(row, sheet, body)
        session.flush()
        names = [_NAMES[key] for key in _NAMES if key in given]
        if names:
            detail = body.model_dump(exclude_unset=True, mode="json")
            records.log(session, row.id, "true", f"Changed {', '.join(names)}.", **detail)
        return send(_both(session, row))


_NAMES = {
    "edge": "the readings of the cut edge",
    "edge_way": "how the first edge is made",
    "cut_off": "what is cut off",
    "fold": "the readings of the fold",
    "ripple": "how the fold ripples",
    "check": "the distances of a pinned piece",
    "bars": "the readings of the bars",
    "bands": "the bands",
    "school": "the school of straightening",
    "accepted": "whether a happy medium is taken",
}


def _kept(session: Session, row: models.Project) -> models.TrueSheet:
    sheet = records.true_sheet(session, row.id)
    session.add(sheet)
    return sheet


def _now(row: models.Project, sheet: models.TrueSheet, body: ReadingIn) -> None:
    given: dict[str, Any] = {k: v for k, v in body.model_dump(exclude_unset=True).items() if v is not None}
    if not given:
        sheet.now = {}
        return
    was = sheet.now.get("offset", 0.0)
    # a reading without its side keeps the side it had or was said to have; else it is taken for the far one's
    side = given.get("side") or show_true.side_of(was) or sheet.now.get("side", "")
    if "offset" in given or ("side" in given and "offset" in sheet.now):
        given["offset"] = given.get("offset", abs(was)) * (-1.0 if side == "near" else 1.0)
    now = {**sheet.now, **given}
    width = show_true.width_of(row.cloth)
    if width is not None and "offset" in now:
        try:
            read_test(FoldTest(now["offset"], now.get("bow", 0.0)), width)
        except BadTest as fault:
            raise Refused(str(fault), path="now.bow" if "bow" in given else "now.offset") from None
    sheet.now = now


def _bands(sheet: models.TrueSheet, bands: list[float]) -> None:
    if not bands:
        sheet.bands = []
        return
    if len(bands) != 3:
        raise Refused("Three bands are needed, such as 3 mm, 12 mm and 40 mm.", path="bands")
    try:
        check_bands((bands[0], bands[1], bands[2]))
    except BadTest as fault:
        raise Refused(str(fault), path="bands") from None
    sheet.bands = bands


def _check(session: Session, row: models.Project, sheet: models.TrueSheet, body: CheckIn) -> None:
    if all(shape.key != body.key for shape in show_true.pinned(session, row)):
        raise Refused("That piece is not on the chosen lay.", path="check.key")
    tail, head = sheet.checks.get(body.key, [None, None])
    given = body.model_fields_set
    read = [body.tail if "tail" in given else tail, body.head if "head" in given else head]
    sheet.checks = {**sheet.checks, body.key: read}


def _edge(row: models.Project, sheet: models.TrueSheet, body: TrueChange) -> None:
    """The edge's readings and way, and what is cut off: together they are what both ends lose."""
    if body.edge is not None:
        sheet.edge = body.edge
    if body.edge_way is not None:
        row.edge_way = body.edge_way
    if body.cut_off is not None:
        if row.cloth.in_hand is not None and body.cut_off >= row.cloth.in_hand:
            raise Refused("Nothing would be left of the length in hand.", path="cut_off")
        row.cut_off = body.cut_off
    settle_ends(row, sheet)


@blueprint.post("/projects/<int:project_id>/true/tests", operation_id="addTest", responses={201: true_out.TrueKeptOut})
def add_test(path: out.ProjectPath) -> Response:
    """Write the reading at hand down as a test."""
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = _kept(session, row)
        if "offset" not in sheet.now:
            raise Refused("Read the edge first: how far apart the edges are, 0 when they are level.", path="now.offset")
        now = sheet.now
        session.add(
            models.TrueTest(
                project_id=row.id,
                cloth_id=row.cloth_id,
                place=now.get("place", 0.0),
                offset=now["offset"],
                bow=now.get("bow", 0.0),
                done=now.get("done", ""),
            )
        )
        # the place is kept for the next try there; the reading is not
        sheet.now = {"place": now.get("place", 0.0)}
        sheet.accepted = False
        session.flush()
        side = {"": "level", "far": "the far selvage out", "near": "the near selvage out"}[
            show_true.side_of(now["offset"])
        ]
        told = f"Fold test: {Presenter(system()).length(abs(now['offset'])).text}, {side}."
        records.log(
            session, row.id, "true", told, offset=now["offset"], place=now.get("place", 0.0), done=now.get("done", "")
        )
        return send(_both(session, row), 201)


def _test(session: Session, path: true_out.TestPath, *, deleted: bool = False) -> models.TrueTest:
    test = session.get(models.TrueTest, path.test_id)
    if test is None or test.project_id != path.project_id or (test.deleted_at is not None and not deleted):
        raise records.NotFound("There is no such test in this project.")
    return test


@blueprint.delete(
    "/projects/<int:project_id>/true/tests/<int:test_id>",
    operation_id="deleteTest",
    responses={200: true_out.TrueKeptOut},
)
def delete_test(path: true_out.TestPath) -> Response:
    """Strike a test out. It can be brought back, and stays in the log."""
    return _set_deleted(path, gone=True)


@blueprint.post(
    "/projects/<int:project_id>/true/tests/<int:test_id>/restore",
    operation_id="restoreTest",
    responses={200: true_out.TrueKeptOut},
)
def restore_test(path: true_out.TestPath) -> Response:
    """Bring a test back."""
    return _set_deleted(path, gone=False)


def _set_deleted(path: true_out.TestPath, *, gone: bool) -> Response:
    with begin() as session:
        row, test = records.project(session, path.project_id), _test(session, path, deleted=not gone)
        test.deleted_at = models.now() if gone else None
        session.flush()
        records.log(session, row.id, "true", f"{'Struck out' if gone else 'Brought back'} a fold test.", test=test.id)
        return send(_both(session, row))


def _both(session: Session, row: models.Project) -> true_out.TrueKeptOut:
    return true_out.TrueKeptOut(
        project=present.project_out(session, row, system()),
        true=show_true.true_out(session, row, Presenter(system())),
    )
