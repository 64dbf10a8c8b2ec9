"""The list for the shop."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...core.buy.shopping import PRETREAT, dominant_colour, reels_text, thread_colour, thread_needed
from ...core.lay.problem import cut_edges
from ...core.shrink.together import ROLES
from ...core.shrink.treatment import programme_text
from ...core.wording import Sentence
from ...core.working import Figure, Quantity, length
from ...store import buy_sheet, models
from ...store import cloth as cloths
from ...store.errors import NotFound
from ..log import note
from ..refused import Refused
from ..standing import ClothStanding, Standing

MOST_ITEMS = 100
DONE = "none: it is pre-treated"


@dataclass(frozen=True)
class Item:
    """One thing on the list: how much of it, and what is done with it before it is sewn in. ``own``: typed by hand."""

    id: str
    kind: str
    label: str
    name: str
    amount: str
    pretreat: str
    colour: str = ""
    own: bool = False
    figure: Figure | None = None
    have: bool = False


def add_item(session: Session, garment: models.Project, kind: str, name: str, amount: str) -> None:
    """Put something on the list. Raises :class:`Refused`."""
    if kind not in PRETREAT:
        raise Refused(f"Choose a kind from {', '.join(label for label, _ in PRETREAT.values())}.", path="kind")
    sheet = buy_sheet.kept_sheet(session, garment.id)
    if len(sheet.items) >= MOST_ITEMS:
        raise Refused(f"The list holds {MOST_ITEMS} things at most.")
    number = max((int(i["id"].removeprefix("own-")) for i in sheet.items), default=0) + 1
    sheet.items = [*sheet.items, {"id": f"own-{number}", "kind": kind, "name": name, "amount": amount}]
    session.flush()
    note(session, garment, "buy", f"Put “{name}” on the list.")


def remove_item(session: Session, garment: models.Project, item_id: str) -> None:
    """Take something off the list. Raises NotFound."""
    sheet = buy_sheet.kept_sheet(session, garment.id)
    gone = next((i for i in sheet.items if i["id"] == item_id), None)
    if gone is None:
        raise NotFound("That does not stand on the list, or cannot be taken off it.")
    sheet.items = [i for i in sheet.items if i is not gone]
    # its number may be given again, and must not come ticked off
    sheet.have = [i for i in sheet.have if i != gone["id"]]
    session.flush()
    note(session, garment, "buy", f"Took “{gone['name']}” off the list.")


def have_item(session: Session, now: Standing, item_id: str, *, have: bool) -> None:
    """Tick something off, or not. Raises NotFound."""
    if all(item.id != item_id for item in read_list(session, now)):
        raise NotFound("That does not stand on the list.")
    sheet = buy_sheet.kept_sheet(session, now.garment.id)
    rest = [i for i in sheet.have if i != item_id]
    sheet.have = [*rest, item_id] if have else rest
    session.flush()


def read_list(session: Session, now: Standing) -> tuple[Item, ...]:
    """Everything that must be in the house before the first cut."""
    sheet = buy_sheet.sheet(session, now.garment.id)
    items = [_cloth(now), *_beside(now), _thread(now)]
    for item in sheet.items:
        label, pretreat = PRETREAT[item["kind"]]
        items.append(Item(item["id"], item["kind"], label, item["name"], item["amount"], pretreat, own=True))
    have = set(sheet.have)
    return tuple(Item(**{**vars(item), "have": item.id in have}) for item in items)


def _cloth(now: Standing) -> Item:
    row, bought = now.main.row, now.tally.purchase
    amount: str = "not known yet: lay the pieces"
    if bought is not None:
        amount = Sentence("{amount}", amount=Quantity(bought.to_buy.value, "purchase"))
    figure = bought.to_buy if bought is not None else None
    name = row.name or "the cloth"
    return Item("cloth", "cloth", "cloth", name, amount, _treated(now, now.main), row.ground, figure=figure)


def _beside(now: Standing) -> list[Item]:
    found = []
    for role, cloth in now.set.cloths[1:]:
        row = cloth.row
        amount: str = "lay its pieces to know how much"
        if row.in_hand:
            amount = Sentence("{in_hand} in hand", in_hand=length(row.in_hand))
        kind = "lining" if role == "lining" else "interfacing"
        name = row.name or "without a name"
        found.append(Item(f"set-{row.id}", kind, ROLES[role], name, amount, _treated(now, cloth), row.ground))
    return found


def _treated(now: Standing, cloth: ClothStanding) -> str:
    """What is done with a cloth before it is sewn."""
    return programme_text(cloth.advice(now.garment).programme) if cloth.needs_treatment else DONE


def _thread(now: Standing) -> Item:
    row = now.main.row
    sequences = (cloths.bar_sequence(row, "along"), cloths.bar_sequence(row, "across"))
    colour, share = dominant_colour(row.ground, *sequences)
    reels = thread_needed(cut_edges(now.ladder.problem)) if now.ladder is not None else None
    name = f"sewing thread{thread_colour(share)}"
    todo = "none; polyester or mercerised cotton"
    return Item("thread", "thread", "thread", name, reels_text(reels), todo, colour, figure=reels)
