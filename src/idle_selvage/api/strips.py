"""Buy: gathered strips, and bias tape out of a rectangle."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from ..core.buy.bias import bias_tape
from ..core.buy.ruffles import BadStrip, Ruffle, cut_depth, ways
from ..store import models, records
from . import present
from . import schemas as out
from . import schemas_buy as buy_out
from .context import begin, look, send, system
from .entries import LengthIn, NumberIn
from .presenter import Presenter

blueprint = APIBlueprint("strips", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class StripsIn(out.In):
    """A gathered strip and a rectangle for bias tape; what is left out stays, null clears."""

    edge: LengthIn | None = None
    fullness: NumberIn | None = None
    depth: LengthIn | None = None
    hem: LengthIn | None = None
    seam: LengthIn | None = None
    ring: bool | None = None
    long: LengthIn | None = None
    wide: LengthIn | None = None
    tape: LengthIn | None = None
    tape_seam: LengthIn | None = None


_STRIPS: dict[str, Any] = {
    "edge": None,
    "fullness": 2.0,
    "depth": None,
    "hem": 20.0,
    "seam": 15.0,
    "ring": True,
    "long": None,
    "wide": None,
    "tape": None,
    "tape_seam": 6.0,
}


@blueprint.get("/projects/<int:project_id>/strips", operation_id="readStrips", responses={200: buy_out.StripsOut})
def read_strips(path: out.ProjectPath) -> Response:
    """Gathered strips and bias tape, worked out."""
    with look() as session:
        return send(_strips_out(session, records.project(session, path.project_id)))


@blueprint.patch("/projects/<int:project_id>/strips", operation_id="changeStrips", responses={200: buy_out.StripsOut})
def change_strips(path: out.ProjectPath, body: StripsIn) -> Response:
    """Keep what was typed about strips."""
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = records.kept_sheet(session, row.id)
        sheet.strips = {**sheet.strips, **body.model_dump(exclude_unset=True)}
        session.flush()
        records.log(session, row.id, "buy", "Changed the strips.")
        return send(_strips_out(session, row))


def _strips_out(session: Session, row: models.Project) -> buy_out.StripsOut:
    show = Presenter(system())
    typed = {**_STRIPS, **{k: v for k, v in records.sheet_of(session, row.id).strips.items() if v is not None}}
    found, _, _ = present.work_up(session, row)
    width = found.width.value if found.width is not None else None
    cut, fault, headline = [], "", "Strips, gathered and on the bias"
    if typed["edge"] and typed["depth"]:
        if width is None:
            fault = found.missing["width"]
        else:
            try:
                ruffle = Ruffle(
                    typed["edge"],
                    typed["fullness"],
                    typed["depth"],
                    width,
                    typed["hem"],
                    typed["seam"],
                    typed["ring"],
                )
                cut = [
                    buy_out.StripWayOut(
                        key=way.key,
                        name=way.name,
                        strips=way.strips,
                        each=show.length(way.each),
                        joined=show.surely(way.joined),
                        fullness=show.surely(way.fullness),
                        cloth=show.surely(way.cloth),
                        least=k == 0,
                    )
                    for k, way in enumerate(ways(ruffle))
                ]
                count, deep = cut[0].strips, show.length(cut_depth(ruffle)).text
                strips = "one strip" if count == 1 else f"{count} strips"
                headline = f"Cut {strips} {deep} deep, {cut[0].each.text} long"
            except BadStrip as told:
                fault = str(told)
    tape, tape_fault, tape_told = None, "", ""
    if typed["long"] and typed["wide"] and typed["tape"]:
        try:
            tape = bias_tape(typed["long"], typed["wide"], typed["tape"], typed["tape_seam"])
            better = "the continuous method" if tape.continuous.value > tape.strips.value else "cut strips"
            more = abs(tape.continuous.value - tape.strips.value)
            tape_told = (
                f"{show.length(more).text} more by {better}; the continuous method has its joins made in one seam."
            )
        except BadStrip as told:
            tape_fault = str(told)
    return buy_out.StripsOut(
        edge=show.maybe(typed["edge"]),
        fullness=typed["fullness"],
        depth=show.maybe(typed["depth"]),
        width=show.maybe(width),
        hem=show.length(typed["hem"]),
        seam=show.length(typed["seam"]),
        ring=typed["ring"],
        ways=cut,
        headline=headline,
        fault=fault,
        long=show.maybe(typed["long"]),
        wide=show.maybe(typed["wide"]),
        tape=show.maybe(typed["tape"]),
        tape_seam=show.length(typed["tape_seam"]),
        cut_strips=show.figure(tape.strips) if tape else None,
        joins=tape.joins if tape else 0,
        continuous=show.figure(tape.continuous) if tape else None,
        rounds=tape.rounds if tape else 0,
        tape_told=tape_told,
        tape_fault=tape_fault,
    )
