"""The list for the shop."""

from __future__ import annotations

from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from ...core.buy.shopping import PRETREAT, dominant_colour, reels_text, thread_colour, thread_needed
from ...core.lay.problem import cut_edges
from ...core.shrink.together import ROLES
from ...core.shrink.treatment import programme_text
from ...core.wording import Sentence
from ...core.working import Figure, length
from ...store import cloth as cloths
from ...store import item, models
from ...store.errors import NotFound
from ..log import note
from ..refused import Refused
from ..standing import GarmentStanding, Standing
from . import strips

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
    #: so much of it is in the house that nothing has to be bought
    enough: bool = False


def add_item(session: Session, garment: models.Project, kind: str, name: str, amount: str) -> None:
    """Put something on the list. Raises :class:`Refused`."""
    if kind not in PRETREAT:
        raise Refused(f"Choose a kind from {', '.join(label for label, _ in PRETREAT.values())}.", path="kind")
    if len(item.items(session, garment.id)) >= MOST_ITEMS:
        raise Refused(f"The list holds {MOST_ITEMS} things at most.")
    row = models.ListItem(project_id=garment.id, kind=kind, name=name, amount=amount)
    session.add(row)
    session.flush()
    note(session, garment, "buy", "item-added", name=name, item=row.id)


def remove_item(session: Session, garment: models.Project, line: str) -> None:
    """Take something off the list. Raises NotFound."""
    row = item.item(session, garment.id, line)
    row.deleted_at = models.now()
    session.flush()
    note(session, garment, "buy", "item-out", name=row.name, item=row.id)


def have_item(session: Session, now: GarmentStanding, line: str, *, have: bool) -> None:
    """Tick something off, or not. Raises NotFound."""
    if all(one.id != line for one in read_list(session, now)):
        raise NotFound("That does not stand on the list.")
    item.tick(session, now.rows.project.id, line, have=have)


def read_list(session: Session, now: GarmentStanding) -> tuple[Item, ...]:
    """Everything that must be in the house before the first cut: every cloth, thread, and what was put on it by
    hand."""
    garment = now.rows.project.id
    items = [*(_cloth(one) for one in now.uses), *_strips(session, now), _thread(now)]
    for row in item.items(session, garment):
        label, pretreat = PRETREAT[row.kind]
        items.append(Item(item.line_of(row), row.kind, label, row.name, row.amount, pretreat, own=True))
    have = item.ticked(session, garment)
    return tuple(replace(one, have=one.enough or one.id in have) for one in items)


def _cloth(now: Standing) -> Item:
    row, bought = now.cloth.row, now.bought
    amount: str = "not known yet: " + ("say which edges it goes on" if now.trim else "lay its pieces")
    there = now.cloth.length_now
    if bought is not None:
        amount = bought.told(None if there is None else there.value, verb=False)
    elif now.idle and there is not None:
        amount = Sentence("{in_hand} in hand", in_hand=length(there.value))
    kind = {"main": "cloth", "contrast": "cloth", "interfacing": "interfacing", "trim": "trim"}.get(now.role, "lining")
    label = "cloth" if now.role == "main" else ROLES[now.role]
    name = row.name or ("the cloth" if now.role == "main" else "without a name")
    figure = bought.still if bought is not None else None
    enough = bought is not None and bought.in_hand_does is True
    return Item(f"use-{now.use.id}", kind, label, name, amount, _treated(now), row.ground, figure=figure, enough=enough)


def _strips(session: Session, now: GarmentStanding) -> list[Item]:
    """Strips and tape that were worked out for its cloths: whether their cloth is in what is bought."""
    out = []
    for one in now.uses:
        found = strips.read(session, one)
        worked = ([found.ways[0].key] if found.ways else []) + (["tape"] if found.tape is not None else [])
        for what in worked:
            there = [key for key in found.pieces if (key == "tape") == (what == "tape")]
            of = one.cloth.row.name or "the cloth"
            amount = f"cut from {of}, bought with it" if there else f"not in what is bought of {of} yet"
            todo = "washed with its cloth" if there else "make them pieces, under Strips: they are then laid and bought"
            name = "bias tape" if what == "tape" else "gathered strips"
            out.append(Item(f"strips-{one.use.id}-{'tape' if what == 'tape' else 'ruffle'}", "trim", "strips", name,
                            amount, todo, one.cloth.row.ground))  # fmt: skip
    return out


def _treated(now: Standing) -> str:
    """What is done with a cloth before it is sewn."""
    return programme_text(now.advice.programme) if now.cloth.needs_treatment else DONE


def _thread(now: GarmentStanding) -> Item:
    row = now.uses[0].cloth.row
    sequences = (cloths.bar_sequence(row, "along"), cloths.bar_sequence(row, "across"))
    colour, share = dominant_colour(row.ground, *sequences)
    laid = [one.ladder.problem for one in now.uses if one.ladder is not None]
    reels = thread_needed(sum(cut_edges(problem) for problem in laid)) if laid else None
    name = f"sewing thread{thread_colour(share)}"
    todo = "none; polyester or mercerised cotton"
    return Item("thread", "thread", "thread", name, reels_text(reels), todo, colour, figure=reels)
