"""Buy: what is wished for the purchase, and lays tried on the side. The purchase itself comes with the project."""

from __future__ import annotations

from typing import Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.buy.convert import YARD, spoken, yard_table
from ..core.units import BadEntry, read_length
from ..core.written import fraction_text
from ..store import records, trials
from . import buying, present
from . import schemas as out
from . import schemas_buy as buy_out
from .changes import change, within
from .context import Refused, begin, look, pool, send, system
from .entries import LengthIn, Text
from .presenter import Presenter
from .true_state import settle_ends

blueprint = APIBlueprint("buy", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

What = Literal["extras", "offers", "together", "cupboard"]


class PurchaseChange(out.In):
    """Any of the wishes for buying; what is left out stays. Choosing ``edge_way`` sets the ends it takes."""

    ends: LengthIn | None = None
    spare: LengthIn | None = None
    shop_step: LengthIn | None = None
    edge_way: Literal["", "tear", "thread", "bar", "shears", "square"] | None = None
    bought_extra: LengthIn | None = None
    extra_why: Text | None = None


class TrialsIn(out.In):
    what: What
    cloth_id: int | None = Field(default=None, ge=1, le=2**31, strict=True)


class TrialsQuery(out.In):
    what: What
    cloth_id: int | None = Field(default=None, ge=1, le=2**31)


class ConvertQuery(out.In):
    length: str = Field(max_length=60)


_NAMES = {
    "ends": "ends to straighten",
    "spare": "spare",
    "shop_step": "the shop's step",
    "edge_way": "how the first edge is made",
    "bought_extra": "what is bought on purpose",
    "extra_why": "why it is bought",
}
_LIMITS = {"ends": (0.0, 5000.0), "spare": (0.0, 50_000.0), "shop_step": (1.0, 5000.0), "bought_extra": (0.0, 50_000.0)}


@blueprint.patch("/projects/<int:project_id>/purchase", operation_id="changePurchase", responses={200: out.ProjectOut})
def change_purchase(path: out.ProjectPath, body: PurchaseChange) -> Response:
    """Change the ends to straighten, the spare, what is bought on purpose and why, or what the shop cuts in."""
    given = body.model_dump(exclude_unset=True, exclude_none=True)
    within(given, _LIMITS)
    with begin() as session:
        row = records.project(session, path.project_id)
        if body.ends is not None:
            # said to be so much in all: what was read at one end no longer counts
            row.first_end = None
        elif body.edge_way is not None:
            row.edge_way = body.edge_way
            settle_ends(row, records.true_sheet(session, row.id))
            given["ends"] = row.ends
        if given.get("bought_extra", row.bought_extra) > 0 and not given.get("extra_why", row.extra_why):
            told = "Say why more is bought on purpose, such as “clearance” or “unsure of the border”."
            raise Refused(told, path="extra_why")
        return send(change(session, row, given, "buy", _NAMES))


@blueprint.post("/projects/<int:project_id>/trials", operation_id="beginTrials", responses={202: buy_out.TrialsOut})
def begin_trials(path: out.ProjectPath, body: TrialsIn) -> Response:
    """Try the lays that a part of Buy needs and does not have yet; nothing is begun when none is lacking."""
    job_id = None
    with begin() as session:
        row = records.project(session, path.project_id)
        found, _, _ = present.work_up(session, row)
        needed = buying.wanted(session, row, found, body.what, body.cloth_id, Presenter(system()))
        seconds = buying.seconds_of(session, row, body.what)
        lacking = trials.lacking(session, needed, seconds)
        if lacking:
            # helps hang on what was found before them, so the whole list goes along; what is there costs nothing
            job_id = trials.begin(session, row.id, body.what, needed, seconds).id
            records.log(session, row.id, "buy", f"Began trying {len(lacking)} lays on the side.", part=body.what)
        answer = buying.trials_out(session, row, body.what, needed)
    workers = pool()
    if job_id is not None and workers is not None:
        workers.submit(job_id)
    return send(answer, 202)


@blueprint.get("/projects/<int:project_id>/trials", operation_id="readTrials", responses={200: buy_out.TrialsOut})
def read_trials(path: out.ProjectPath, query: TrialsQuery) -> Response:
    """How far the lays of a part of Buy are."""
    with look() as session:
        row = records.project(session, path.project_id)
        found, _, _ = present.work_up(session, row)
        needed = buying.wanted(session, row, found, query.what, query.cloth_id, Presenter(system()))
        return send(buying.trials_out(session, row, query.what, needed))


ROUNDED = {
    "exact": "exactly",
    "up": "rounded up, so that it is enough",
    "nearest": "to the nearest mark",
}


@blueprint.get("/convert", operation_id="convertLength", responses={200: buy_out.ConvertOut})
def convert_length(query: ConvertQuery) -> Response:
    """A length in every unit, and the fractions of a yard."""
    said = []
    if query.length.strip():
        try:
            mm = read_length(query.length, system())
        except BadEntry as fault:
            raise Refused(str(fault), path="length") from None
        said = [buy_out.SpokenOut(unit=s.unit, text=s.text, rounded=ROUNDED[s.rounded]) for s in spoken(mm)]
    table = [
        buy_out.FractionOut(
            yards=f"{fraction_text(float(r.fraction), r.fraction.denominator)} yd",
            inches=f"{fraction_text(float(r.inches), r.inches.denominator)} in",
            centimetres=r.centimetres.text,
            rounded=ROUNDED[r.centimetres.rounded],
        )
        for r in yard_table()
    ]
    return send(buy_out.ConvertOut(spoken=said, table=table, source=f"{YARD.name}: {YARD.note}"))
