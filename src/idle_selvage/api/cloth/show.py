"""Cloths as they are sent."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, cast

from ...core.cloth import hand
from ...core.cloth.bars import Bar, BarPattern, repeat_of, told, uneven_told
from ...core.cloth.border import BorderKind
from ...core.cloth.direction import is_one_way, pile_note, wale_note
from ...core.cloth.dye import alone
from ...core.cloth.dye import verdict as dye_verdict
from ...core.cloth.make import blend_note, blend_text
from ...core.cloth.margins import margin_hint
from ...core.cloth.width import width_note
from ...core.weights import cloth_unit, cloth_weight_text
from ...operations.cloth import CupboardLine
from ...operations.standing import ClothStanding
from ...store import models
from ...store.cloth import as_cloth, bar_sequence, bars_state, state_index
from ..shared.figures import Presenter
from . import schemas as out


def bar_out(show: Presenter, width: float, colour: str) -> out.BarOut:
    return out.BarOut(width=width, colour=colour, text=show.length(width).text)


def bars_out(show: Presenter, found: BarPattern, sequence: Sequence[Bar], read: Sequence[float]) -> out.BarsOut:
    """What one direction's bars come to."""
    return out.BarsOut(
        repeat=show.maybe(found.repeat),
        repeat_figure=show.figure(repeat_of(sequence)),
        axes=[round(a, 2) for a in found.axes],
        balanced=found.balanced,
        seen=found.seen,
        dominant=bar_out(show, found.dominant.width, found.dominant.colour) if found.dominant else None,
        readings=[show.length(value) for value in read],
        uneven=uneven_told(found, read) or "",
    )


def cloth_out(show: Presenter, known: ClothStanding) -> out.ClothOut:
    """Everything that is known of a cloth."""
    row, (along, across) = known.row, known.bars
    fold = row.shop_fold_row()
    at = known.rows.photo_at
    return out.ClothOut(
        id=row.id,
        name=row.name,
        blend=[out.ShareOut(fibre=fibre, share=share) for fibre, share in row.blend],
        made_of=blend_text(known.make),
        blend_note=blend_note(known.make),
        weave=row.weave,
        finish=row.finish,
        colouring=row.colouring,
        width_readings=[show.length(v) for v in row.widths_in(row.state_id)],
        width_note=width_note(as_cloth(row)),
        margin_low=show.length(row.margin_low),
        margin_high=show.length(row.margin_high),
        margin_hint=margin_hint(row.weave),
        in_hand=show.maybe(row.length_in(row.state_id)),
        mass=row.mass,
        mass_text="" if row.mass is None else cloth_weight_text(row.mass, show.system),
        mass_unit=cloth_unit(show.system),
        price=row.price,
        price_unit="yd" if row.price_unit == "yd" else "m",
        direction=row.direction,
        pile=row.pile,
        pile_why=row.pile_why,
        pile_note=pile_note(row.direction, row.pile),
        one_way=is_one_way(row.direction),
        wales=row.wales,
        wale_note=wale_note(row.wales, row.weave),
        face=row.face,
        face_mark=row.face_mark,
        reversible=row.reversible,
        depth=row.depth,
        rub_grade=row.rub_grade,
        dye_note=dye_verdict(known.dye),
        washed_alone=alone(known.dye),
        ground=row.ground,
        bars_along=[bar_out(show, b.width, b.colour) for b in bar_sequence(row, "along")],
        bars_across=[bar_out(show, b.width, b.colour) for b in bar_sequence(row, "across")],
        along=bars_out(show, along, bar_sequence(row, "along"), row.repeats("along")),
        across=bars_out(show, across, bar_sequence(row, "across"), row.repeats("across")),
        bars_note=list(told(along, across, row.colouring)),
        flaws=[_flaw(show, known, flaw) for flaw in row.flaws],
        border=cast(Literal["", "low", "high"], row.border),
        border_kind=cast(BorderKind, row.border_kind),
        border_deep=show.length(row.border_deep),
        shop_fold=show.maybe(row.shop_fold),
        shop_fold_now=show.length(fold.value * _left(known, state_index(row, fold.wash_id))[1]) if fold else None,
        bars_now=_left(known, bars_state(row)),
        answers=dict(row.answers),
        advice=list(hand.advice(row.answers)),
        style_number=row.style_number,
        place=row.place,
        treated=row.state_id is not None,
        state=row.state_id or 0,
        states=[
            out.StateOut(
                id=number or 0,
                name=state.name,
                widths=[show.length(v) for v in state.widths],
                length=show.maybe(state.length),
            )
            for number, state in zip(row.states, known.states.states, strict=True)
        ],
        width_now=show.figure(known.width_now),
        length_now=show.figure(known.length_now),
        washes=[_wash(show, row, w) for w in known.rows.washes],
        photo=f"/api/cloths/{row.id}/photo?at={int(at.timestamp())}" if at else None,
    )


def _left(known: ClothStanding, since: int) -> tuple[float, float]:
    """What is left of a length along and across the cloth that was read in state ``since``, as shares."""
    along, across = known.states.move(since, known.states.current).best
    return 1.0 - along / 100.0, 1.0 - across / 100.0


def _flaw(show: Presenter, known: ClothStanding, flaw: models.Flaw) -> out.FlawOut:
    since = state_index(known.row, flaw.wash_id)
    along, across = _left(known, since)
    return out.FlawOut(
        x=show.length(flaw.x),
        y=show.length(flaw.y),
        w=show.length(flaw.w),
        h=show.length(flaw.h),
        what=flaw.what,
        drawn=[(flaw.x * along, flaw.y * across), ((flaw.x + flaw.w) * along, (flaw.y + flaw.h) * across)],
        predicted=since != known.states.current,
    )


def _wash(show: Presenter, cloth: models.Cloth, row: models.Wash) -> out.WashOut:
    widths = cloth.widths_in(row.id)
    return out.WashOut(
        id=row.id,
        at=row.at,
        how=row.how,
        grade=row.grade,
        length_after=show.maybe(cloth.length_in(row.id)),
        width_after=show.maybe(min(widths) if widths else None),
        simulated=row.simulated,
    )


_BASES = {
    "swatch": "from a swatch",
    "limit": "more than a milder swatch",
    "history": "from your tests",
    "range": "a planning range",
}


def cupboard_line(show: Presenter, line: CupboardLine) -> out.CupboardLineOut:
    """A cloth with what is left of it."""
    known = line.cloth
    warp, weft = known.warp, known.weft
    shrinkage = ""
    if warp.figure and weft.figure:
        both = f"{show.figure_text(warp.figure)} along, {show.figure_text(weft.figure)} across"
        shrinkage = f"{both}, {_BASES[warp.basis]}"
    return out.CupboardLineOut(
        cloth=cloth_out(show, known), left=_there(show, known), shrinkage=shrinkage, projects=list(line.used_for)
    )


def _there(show: Presenter, known: ClothStanding) -> str:
    long, wide = known.length_now, known.width_now
    left = show.figure_text(long) if long is not None else "none in hand"
    before = next((state for state in reversed(known.states.states) if state.length), None)
    if long is None and before is not None and before.length:
        # how much it has lost since cannot be told
        left = f"{show.length(before.length).text} {before.name}"
    if long is not None and wide is not None:
        left += f" of {show.figure_text(wide)} cloth"
    if (long is not None and long.note) or (wide is not None and wide.note):
        left = f"about {left}"
    times = known.states.current
    if times:
        return left + (", pre-treated" if times == 1 else f", pre-treated {times} times")
    return left


def cupboard_out(show: Presenter, lines: list[CupboardLine], of: int) -> out.CupboardOut:
    """The cloths that were found."""
    return out.CupboardOut(cloths=[cupboard_line(show, line) for line in lines], of=of)
