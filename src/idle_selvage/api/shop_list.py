"""Buy: the list for the shop."""

from __future__ import annotations

from typing import Any

from flask import Response, make_response
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from ..core.buy.shopping import PRETREAT, dominant_colour, thread_needed
from ..core.lay.problem import cut_edges
from ..core.lay.reading import read_problem
from ..core.shrink.together import ROLES
from ..formats.csv_list import list_csv
from ..store import models, records
from . import present
from . import schemas as out
from . import schemas_buy as buy_out
from .context import Refused, begin, look, send, system
from .entries import Name, Text
from .files import file_name
from .presenter import Presenter
from .show_cloth import programme_text

blueprint = APIBlueprint("shop_list", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

MOST_ITEMS = 100


class ItemIn(out.In):
    kind: str
    name: Name
    amount: Text = ""


class HaveIn(out.In):
    have: bool


@blueprint.get("/projects/<int:project_id>/list", operation_id="readList", responses={200: buy_out.ListOut})
def read_list(path: out.ProjectPath) -> Response:
    """Everything that must be in the house before the first cut."""
    with look() as session:
        return send(_list_out(session, records.project(session, path.project_id)))


@blueprint.post("/projects/<int:project_id>/list", operation_id="addItem", responses={201: buy_out.ListOut})
def add_item(path: out.ProjectPath, body: ItemIn) -> Response:
    """Put something on the list."""
    if body.kind not in PRETREAT:
        raise Refused(f"Choose a kind from {', '.join(label for label, _ in PRETREAT.values())}.", path="kind")
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = records.kept_sheet(session, row.id)
        if len(sheet.items) >= MOST_ITEMS:
            raise Refused(f"The list holds {MOST_ITEMS} things at most.")
        number = max((int(i["id"].removeprefix("own-")) for i in sheet.items), default=0) + 1
        one = {"id": f"own-{number}", "kind": body.kind, "name": body.name, "amount": body.amount}
        sheet.items = [*sheet.items, one]
        session.flush()
        records.log(session, row.id, "buy", f"Put “{body.name}” on the list.")
        return send(_list_out(session, row), 201)


@blueprint.delete(
    "/projects/<int:project_id>/list/<string:item_id>", operation_id="deleteItem", responses={200: buy_out.ListOut}
)
def delete_item(path: buy_out.ItemPath) -> Response:
    """Take something off the list."""
    with begin() as session:
        row = records.project(session, path.project_id)
        sheet = records.kept_sheet(session, row.id)
        gone = next((i for i in sheet.items if i["id"] == path.item_id), None)
        if gone is None:
            raise records.NotFound("That does not stand on the list, or cannot be taken off it.")
        sheet.items = [i for i in sheet.items if i is not gone]
        # its number may be given again, and must not come ticked off
        sheet.have = [i for i in sheet.have if i != gone["id"]]
        session.flush()
        records.log(session, row.id, "buy", f"Took “{gone['name']}” off the list.")
        return send(_list_out(session, row))


@blueprint.put(
    "/projects/<int:project_id>/list/<string:item_id>/have", operation_id="haveItem", responses={200: buy_out.ListOut}
)
def have_item(path: buy_out.ItemPath, body: HaveIn) -> Response:
    """Tick something off, or not."""
    with begin() as session:
        row = records.project(session, path.project_id)
        if all(item.id != path.item_id for item in _list_out(session, row).items):
            raise records.NotFound("That does not stand on the list.")
        sheet = records.kept_sheet(session, row.id)
        have = [i for i in sheet.have if i != path.item_id]
        sheet.have = [*have, path.item_id] if body.have else have
        session.flush()
        return send(_list_out(session, row))


_CSV_FILE = {"description": "the list, a line each", "content": {"text/csv": {"schema": {"type": "string"}}}}


@blueprint.get("/projects/<int:project_id>/list.csv", operation_id="listCsv", responses={200: _CSV_FILE})
def list_file(path: out.ProjectPath) -> Response:
    """The list as CSV."""
    with look() as session:
        row = records.project(session, path.project_id)
        items = _list_out(session, row).items
        lines = [(i.kind_label, i.name, i.amount, i.pretreat, i.colour, "yes" if i.have else "no") for i in items]
        answer = make_response(list_csv(lines))
        answer.headers["Content-Type"] = "text/csv; charset=utf-8"
        answer.headers["Content-Disposition"] = f'attachment; filename="{file_name(row, "list.csv")}"'
        return answer


def _list_out(session: Session, row: models.Project) -> buy_out.ListOut:
    show = Presenter(system())
    sheet = records.sheet_of(session, row.id)
    found, _, _ = present.work_up(session, row)
    have = set(sheet.have)
    items: list[buy_out.ItemOut] = []

    def put(id_: str, kind: str, label: str, name: str, amount: str, pretreat: str, **more: Any) -> None:
        items.append(
            buy_out.ItemOut(
                **{"colour": "", "own": False, "figure": None, **more},
                id=id_,
                kind=kind,
                kind_label=label,
                name=name,
                amount=amount,
                pretreat=pretreat,
                have=id_ in have,
            )
        )

    bought = found.purchase
    todo = _treatment(session, row, row.cloth)
    put(
        "cloth",
        "cloth",
        "cloth",
        row.cloth.name or "the cloth",
        show.quantity(bought.to_buy.quantity) if bought else "not known yet: lay the pieces",
        todo,
        colour=row.cloth.ground,
        figure=show.surely(bought.to_buy) if bought else None,
    )
    for member in records.set_cloths(session, row.id):
        in_hand = member.cloth.in_hand
        amount = f"{show.length(in_hand).text} in hand" if in_hand else "lay its pieces to know how much"
        put(
            f"set-{member.cloth_id}",
            "lining" if member.role == "lining" else "interfacing",
            ROLES[member.role],
            member.cloth.name or "without a name",
            amount,
            _treatment(session, row, member.cloth),
            colour=member.cloth.ground,
        )
    colour, share = dominant_colour(
        row.cloth.ground, *(records.bar_sequence(row.cloth, d) for d in ("along", "across"))
    )
    edges = _edges(session, row)
    reels = thread_needed(edges) if edges else None
    whole = "" if share > 0.995 else f", the colour of {100 * share:.0f} % of the cloth"
    put(
        "thread",
        "thread",
        "thread",
        f"sewing thread{whole}",
        f"{reels.value:g} {'reel' if reels.value == 1 else 'reels'} of 200 m" if reels else "1 reel",
        "none; polyester or mercerised cotton",
        colour=colour,
        figure=show.figure(reels),
    )
    for item in sheet.items:
        label, pretreat = PRETREAT[item["kind"]]
        put(item["id"], item["kind"], label, item["name"], item["amount"], pretreat, own=True)
    left = sum(not item.have for item in items)
    return buy_out.ListOut(
        items=items,
        kinds=[buy_out.KindOut(value=k, label=label, pretreat=told) for k, (label, told) in PRETREAT.items()],
        headline="Everything is in the house" if not left else f"{left} {'thing' if left == 1 else 'things'} to bring",
    )


def _treatment(session: Session, row: models.Project, cloth: models.Cloth) -> str:
    if not records.needs_treatment(session, cloth):
        return "none: it is pre-treated"
    return programme_text(records.advice(session, row, cloth).programme)


def _edges(session: Session, row: models.Project) -> float:
    """The cut edges of every copy together, mm; nothing while a piece cannot be cut."""
    chosen = records.chosen_lay(session, row.id)
    if chosen is None:
        return 0.0
    return cut_edges(read_problem(chosen.problem))
