"""Cloths: finding them, what is kept of them in each state, and what the core needs to know of a row."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from typing import Any, Literal, cast

from sqlalchemy import ColumnElement, String, func, or_, select
from sqlalchemy import cast as cast_to
from sqlalchemy.orm import Session

from ..core.buy.order import per_metre
from ..core.cloth.bars import Bar, BarPattern, read_bars
from ..core.cloth.border import BorderKind, ClothBorder, Side
from ..core.cloth.direction import is_one_way
from ..core.cloth.dye import Dye
from ..core.cloth.make import NO_GRAIN, Make
from ..core.cloth.state import State
from ..core.cloth.width import Cloth as MeasuredCloth
from ..core.lay.asking import ClothToLay, FlawToLay
from ..core.shrink.states import ClothStates
from ..core.true.edge import EdgeFacts, edge_facts
from .errors import NotFound
from .models import BarRow, By, Cloth, ClothUse, Flaw, Project, Wash, now
from .models.cloth import REPEAT_WAYS
from .models.reading import Spot, replace_readings

Way = Literal["along", "across"]


def cloth(session: Session, number: int, *, deleted: bool = False) -> Cloth:
    """A cloth by its number. Raises :class:`NotFound`."""
    row = session.get(Cloth, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such cloth; it may have been put away.")
    return row


def cupboard(session: Session, words: Sequence[str], fibres: Mapping[str, Collection[str]]) -> list[Cloth]:
    """Every cloth that is not put away and in whose facts all the ``words`` are found, the newest first; ``fibres``:
    those that each word names. A whole number is also a share of one of several."""
    there = select(Cloth).where(Cloth.deleted_at.is_(None)).order_by(Cloth.id.desc())
    for word in words:
        used = (
            select(ClothUse.id)
            .join(Project, Project.id == ClothUse.project_id)
            .where(ClothUse.cloth_id == Cloth.id, ClothUse.deleted_at.is_(None), Project.deleted_at.is_(None))
            .where(_holds(Project.name, word))
        )
        facts = (Cloth.name, Cloth.weave, Cloth.place, Cloth.style_number, Cloth.depth)
        blend = cast_to(Cloth.blend, String)
        there = there.where(
            or_(
                *(_holds(fact, word) for fact in facts),
                *(blend.contains(f'"{fibre}"', autoescape=True) for fibre in fibres.get(word, ())),
                *([blend.contains(f", {float(word)}]")] if word.isdecimal() and word != "100" else []),
                used.exists(),
            )
        )
    return list(session.scalars(there))


def _holds(fact: Any, word: str) -> ColumnElement[bool]:
    # SQLite by itself knows capitals of ASCII only
    return func.casefold(fact).contains(word.casefold(), autoescape=True)


def in_cupboard(session: Session) -> int:
    """How many cloths are not put away."""
    return session.scalar(select(func.count()).select_from(Cloth).where(Cloth.deleted_at.is_(None))) or 0


# -- its states


def state_index(row: Cloth, wash_id: int | None) -> int:
    """Which state a wash brought it to, 0: as bought. Of a wash that was struck out, the state it was in before."""
    return 0 if wash_id is None else sum(wash.id <= wash_id for wash in row.treatments)


def as_states(row: Cloth) -> tuple[State, ...]:
    """The cloth through its states, the first one as bought."""
    return tuple(
        State(row.widths_in(state), row.length_in(state), f"after treatment {k}" if k else "as bought")
        for k, state in enumerate(row.states)
    )


def keep_widths(row: Cloth, state: int | None, values: Sequence[float], by: By = "tape") -> None:
    """Make the width readings of a state these, mm."""
    given: dict[Spot, float] = {("width", float(k), 0, state, None): value for k, value in enumerate(values)}
    replace_readings(row.readings, ("width",), given, by, wash_id=state)


def keep_length(row: Cloth, state: int | None, value: float | None, by: By = "tape") -> None:
    """Make the length in a state this, mm, or unknown."""
    given: dict[Spot, float] = {} if value is None else {("length", 0.0, 0, state, None): value}
    replace_readings(row.readings, ("length",), given, by, wash_id=state)


def keep_repeats(row: Cloth, way: Way, values: Sequence[float], by: By = "tape") -> None:
    """Make the readings of the repeat of its bars along or across it these, mm."""
    place = float(REPEAT_WAYS.index(way))
    given: dict[Spot, float] = {("repeat", place, n, row.state_id, None): value for n, value in enumerate(values)}
    replace_readings(row.readings, ("repeat",), given, by, place=place)


def keep_shop_fold(row: Cloth, value: float | None, by: By = "tape") -> None:
    """Say where its faded shop fold lies now, mm from the near selvage, or that there is none."""
    given: dict[Spot, float] = {} if value is None else {("shopfold", 0.0, 0, row.state_id, None): value}
    if row.shop_fold != value:
        row.readings[:] = [one for one in row.readings if one.kind != "shopfold"]
        replace_readings(row.readings, ("shopfold",), given, by)


def keep_flaws(row: Cloth, given: Sequence[Mapping[str, Any]], by: By = "tape") -> None:
    """Make its flaws these; one that is where it was keeps the state it was found in."""
    there = {(f.x, f.y, f.w, f.h): f for f in row.flaws}
    kept: list[Flaw] = []
    for place, flaw in enumerate(given):
        spot = (flaw["x"], flaw["y"], flaw["w"], flaw["h"])
        one = there.pop(spot, None) or Flaw(
            x=spot[0], y=spot[1], w=spot[2], h=spot[3], wash_id=row.state_id, by=by, at=now()
        )
        one.what, one.position = flaw.get("what", "flaw"), place
        kept.append(one)
    row.flaws[:] = kept


def keep_bars(row: Cloth, way: Way, given: Sequence[Mapping[str, Any]], by: By = "tape") -> None:
    """Make its bars that follow one another along or across it these."""
    there = sorted((bar for bar in row.bars if bar.way == way), key=lambda bar: bar.position)
    if [(bar.width, bar.colour) for bar in there] == [(bar["width"], bar["colour"]) for bar in given]:
        return
    fresh = [
        BarRow(way=way, position=k, width=b["width"], colour=b["colour"], wash_id=row.state_id, by=by, at=now())
        for k, b in enumerate(given)
    ]
    row.bars[:] = [*(bar for bar in row.bars if bar.way != way), *fresh]


# -- what the core needs to know


def as_cloth(row: Cloth) -> MeasuredCloth:
    """The cloth as it was measured in its present state; its price is per metre whatever the shop says."""
    return MeasuredCloth(
        row.widths_in(row.state_id),
        row.margin_low,
        row.margin_high,
        is_one_way(row.direction),
        row.length_in(row.state_id),
        row.mass,
        per_metre(row.price, row.price_unit),
    )


def as_make(row: Cloth) -> Make:
    """What the cloth is made of."""
    return Make(tuple((fibre, share) for fibre, share in row.blend), row.weave, row.finish, row.colouring)


def as_dye(row: Cloth, washes: Sequence[Wash]) -> Dye:
    """What is known of its dye."""
    return Dye(row.depth, row.rub_grade, tuple(w.grade for w in washes if w.grade is not None))


def bar_sequence(row: Cloth, way: Way) -> list[Bar]:
    """The bars of one direction as they were measured."""
    bars = sorted((bar for bar in row.bars if bar.way == way), key=lambda bar: bar.position)
    return [Bar(bar.width, bar.colour) for bar in bars]


def as_bars(row: Cloth) -> tuple[BarPattern, BarPattern]:
    """The bars that follow one another along the cloth, and across it."""
    return read_bars(bar_sequence(row, "along")), read_bars(bar_sequence(row, "across"))


def bars_state(row: Cloth) -> int:
    """The state its bars were measured in; of several, the first."""
    return min((state_index(row, bar.wash_id) for bar in row.bars), default=0)


def as_edge_facts(row: Cloth) -> EdgeFacts:
    """What decides how its first edge is made."""
    return edge_facts(as_make(row), as_bars(row)[0], row.answers)


def as_laid(row: Cloth, states: ClothStates, at: int) -> ClothToLay:
    """What of it decides a lay when it is cut in state ``at``."""
    fold = row.shop_fold_row()
    return ClothToLay(
        row.margin_low,
        *as_bars(row),
        is_one_way(row.direction),
        row.reversible,
        tuple(FlawToLay((f.x, f.y, f.w, f.h), states.move(state_index(row, f.wash_id), at)) for f in row.flaws),
        row.shop_fold,
        row.weave in NO_GRAIN,
        states.move(bars_state(row), at),
        states.move(0 if fold is None else state_index(row, fold.wash_id), at),
        as_border(row),
        row.margin_high,
        tuple(tuple((float(x), float(y)) for x, y in ring) for ring in row.outline),
        states.move(min(row.outline_state, at), at),
    )


def as_border(row: Cloth) -> ClothBorder | None:
    """Its border along a selvage, if it has one."""
    if not row.border or row.border_deep <= 0:
        return None
    return ClothBorder(cast(Side, row.border), cast(BorderKind, row.border_kind), row.border_deep)
