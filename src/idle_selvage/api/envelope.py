"""Buy: the chart printed on a pattern's envelope, and what it says."""

from __future__ import annotations

from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.buy.envelope import BadChart, Chart, choose_size, column_of, convert_width, crossing
from ..core.units import MM_PER_YARD
from ..core.written import fraction_text
from ..store import models, records
from . import present
from . import schemas as out
from . import schemas_buy as buy_out
from .context import begin, look, send, system
from .entries import LengthIn, Text
from .presenter import Presenter

blueprint = APIBlueprint("envelope", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class ChartRowIn(out.In):
    width: LengthIn | None = None
    lengths: list[LengthIn | None] = Field(default=[], max_length=20)


class ViewIn(out.In):
    name: Text = ""
    rows: list[ChartRowIn] = Field(default=[], max_length=12)


class SizeIn(out.In):
    name: Text = ""
    body: LengthIn | None = None
    finished: LengthIn | None = None


class EnvelopeIn(out.In):
    """The envelope as typed; what is left out stays."""

    views: list[ViewIn] | None = Field(default=None, max_length=8)
    sizes: list[SizeIn] | None = Field(default=None, max_length=20)
    measure: Text | None = None
    mine: LengthIn | None = None
    fit: Literal["close", "loose"] | None = None
    view: int | None = Field(default=None, ge=0, le=7, strict=True)
    size: Text | None = None
    to_width: LengthIn | None = None
    sleeves_in_one: bool | None = None


_EMPTY: dict[str, Any] = {
    "views": [],
    "sizes": [],
    "measure": "bust",
    "mine": None,
    "fit": "loose",
    "view": 0,
    "size": "",
    "to_width": None,
    "sleeves_in_one": False,
}


@blueprint.get("/projects/<int:project_id>/envelope", operation_id="readEnvelope", responses={200: buy_out.EnvelopeOut})
def read_envelope(path: out.ProjectPath) -> Response:
    """The envelope's chart, and what it says."""
    with look() as session:
        return send(_envelope_out(session, records.project(session, path.project_id)))


@blueprint.patch(
    "/projects/<int:project_id>/envelope", operation_id="changeEnvelope", responses={200: buy_out.EnvelopeOut}
)
def change_envelope(path: out.ProjectPath, body: EnvelopeIn) -> Response:
    """Keep what was typed from the envelope."""
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = records.kept_sheet(session, row.id)
        # only what was sent, but that whole
        sheet.envelope = {
            **sheet.envelope,
            **{k: v for k, v in body.model_dump().items() if k in body.model_fields_set},
        }
        session.flush()
        records.log(session, row.id, "buy", "Changed the envelope's chart.")
        return send(_envelope_out(session, row))


def _envelope_out(session: Session, row: models.Project) -> buy_out.EnvelopeOut:
    show = Presenter(system())
    typed = {**_EMPTY, **{k: v for k, v in records.sheet_of(session, row.id).envelope.items() if v is not None}}
    told: list[str] = []
    faults: list[str] = []
    sizes = [s for s in typed["sizes"] if s["name"]]
    size, size_told, ease_told = typed["size"], "", ""
    measured = [s for s in sizes if s["body"] is not None]
    if typed["mine"] is not None and measured:
        finished = {s["name"]: s["finished"] for s in sizes if s["finished"] is not None}
        try:
            choice = choose_size(
                [s["name"] for s in measured], [s["body"] for s in measured], typed["mine"], typed["fit"], finished
            )
            size_told = f"Size {choice.size}: {choice.why}."
            if not size:
                size = choice.size
            if choice.ease is not None:
                kind = "ease" if choice.ease >= 0 else "smaller than the body: only for cloth that gives"
                ease_told = f"{show.length(abs(choice.ease)).text} {kind} at the {typed['measure']}."
        except BadChart as fault:
            faults.append(str(fault))
    views = typed["views"]
    view = views[typed["view"]] if typed["view"] < len(views) else None
    place, printed = None, None
    width = typed["to_width"] or (min(row.cloth.width_readings) if row.cloth.width_readings else None)
    rows = [r for r in view["rows"] if r["width"] is not None] if view else []
    converted = None
    if rows and size and width is not None:
        names = tuple(s["name"] for s in sizes)
        lengths = tuple(tuple((*r["lengths"], *[None] * len(names))[: len(names)]) for r in rows)
        chart = Chart(tuple(r["width"] for r in rows), names, lengths)
        try:
            try:
                place = crossing(chart, width, size)
                from_width = chart.widths[place.row]
            except BadChart:
                # no printed row is as narrow as the cloth: read the narrowest, and convert from there
                narrow = min(range(len(rows)), key=lambda k: chart.widths[k])
                place = crossing(chart, chart.widths[narrow], size)
                from_width = chart.widths[narrow]
                told.append("No row of the chart is as narrow as this cloth.")
            printed = place.length
            if abs(from_width - width) > 15.0 and column_of(from_width) != column_of(width):
                converted = convert_width(
                    printed,
                    from_width,
                    width,
                    one_way=records.as_cloth(row.cloth).one_way,
                    sleeves_in_one=typed["sleeves_in_one"],
                )
                told.append(
                    f"The handbook table turns {_yards(show, printed)} of {show.length(from_width).text} into "
                    f"{_yards(show, converted.length)} of {show.length(width).text}"
                    + (" (between two of its rows: the longer was taken)." if converted.between else ".")
                )
                if converted.more:
                    told.append(f"It asks for {_yards(show, converted.more)} more: {' and '.join(converted.why)}.")
        except BadChart as fault:
            faults.append(str(fault))
    answer = converted.length + converted.more if converted else printed
    headline = f"The envelope says {_yards(show, answer)}" if answer is not None else "Read the envelope"
    return buy_out.EnvelopeOut(
        views=[
            buy_out.ViewOut(
                name=v["name"],
                rows=[
                    buy_out.RowOfChartOut(width=show.maybe(r["width"]), lengths=[show.shop(x) for x in r["lengths"]])
                    for r in v["rows"]
                ],
            )
            for v in views
        ],
        sizes=[
            buy_out.SizeOut(name=s["name"], body=show.maybe(s["body"]), finished=show.maybe(s["finished"]))
            for s in typed["sizes"]
        ],
        measure=typed["measure"],
        mine=show.maybe(typed["mine"]),
        fit=typed["fit"],
        view=typed["view"],
        size=typed["size"],
        to_width=show.maybe(typed["to_width"]),
        sleeves_in_one=typed["sleeves_in_one"],
        chosen_size=size,
        size_told=size_told,
        ease_told=ease_told,
        row=view["rows"].index(rows[place.row]) if place and view else None,
        column=[s["name"] for s in typed["sizes"]].index(size) if place else None,
        printed=show.maybe(printed),
        converted=show.maybe(converted.length if converted else None),
        more=show.maybe(converted.more if converted and converted.more else None),
        headline=headline,
        told=told,
        faults=faults,
        compared=_compared(session, show, row, answer),
    )


def _yards(show: Presenter, mm: float) -> str:
    """A printed length as the person's shop speaks; an envelope's are whole eighths of a yard."""
    yards = mm / MM_PER_YARD
    if abs(yards * 8 - round(yards * 8)) < 1e-6:
        spoken = fraction_text(yards, 8) + " yd"
        return spoken if show.system == "imperial" else f"{spoken} ({show.length(mm).text})"
    return show.length(mm).text


def _compared(session: Session, show: Presenter, row: models.Project, answer: float | None) -> str:
    found, _, _ = present.work_up(session, row)
    if answer is None or found.purchase is None:
        return ""
    mine = found.purchase.before
    more = answer - mine
    said = f"Laid piece by piece, this cloth needs {show.length(mine).text} before washing"
    if abs(more) < 10:
        return f"{said}: the same."
    way = "more than that" if more > 0 else "less than that, and it would not do"
    return f"{said}: the envelope asks for {show.length(abs(more)).text} {way}."
