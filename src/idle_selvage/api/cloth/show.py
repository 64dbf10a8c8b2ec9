"""Cloths as they are sent."""

from __future__ import annotations

from ...core.cloth import hand
from ...core.cloth.bars import BarPattern, told
from ...core.cloth.direction import is_one_way, pile_note, wale_note
from ...core.cloth.dye import alone
from ...core.cloth.dye import verdict as dye_verdict
from ...core.cloth.make import blend_note, blend_text
from ...core.cloth.margins import margin_hint
from ...core.cloth.width import width_note
from ...operations.cloth import CupboardLine
from ...operations.standing import ClothStanding
from ...store import models
from ...store.cloth import as_cloth
from ..shared.figures import Presenter
from . import schemas as out


def bar_out(show: Presenter, width: float, colour: str) -> out.BarOut:
    return out.BarOut(width=width, colour=colour, text=show.length(width).text)


def bars_out(show: Presenter, found: BarPattern) -> out.BarsOut:
    """What one direction's bars come to."""
    return out.BarsOut(
        repeat=show.maybe(found.repeat),
        axes=[round(a, 2) for a in found.axes],
        balanced=found.balanced,
        seen=found.seen,
        dominant=bar_out(show, found.dominant.width, found.dominant.colour) if found.dominant else None,
    )


def cloth_out(show: Presenter, known: ClothStanding) -> out.ClothOut:
    """Everything that is known of a cloth."""
    row, (along, across) = known.row, known.bars
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
        width_readings=[show.length(v) for v in row.width_readings],
        width_note=width_note(as_cloth(row)),
        margin_low=show.length(row.margin_low),
        margin_high=show.length(row.margin_high),
        margin_hint=margin_hint(row.weave),
        in_hand=show.maybe(row.in_hand),
        mass=row.mass,
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
        bars_along=[bar_out(show, b["width"], b["colour"]) for b in row.bars.get("along", [])],
        bars_across=[bar_out(show, b["width"], b["colour"]) for b in row.bars.get("across", [])],
        along=bars_out(show, along),
        across=bars_out(show, across),
        bars_note=list(told(along, across, row.colouring)),
        flaws=[_flaw(show, flaw) for flaw in row.flaws],
        shop_fold=show.maybe(row.shop_fold),
        answers=dict(row.answers),
        advice=list(hand.advice(row.answers)),
        style_number=row.style_number,
        place=row.place,
        treated=row.treated,
        washes=[_wash(show, w) for w in known.rows.washes],
        photo=f"/api/cloths/{row.id}/photo?at={int(at.timestamp())}" if at else None,
    )


def _flaw(show: Presenter, flaw: dict[str, float]) -> out.FlawOut:
    return out.FlawOut(**{k: show.length(flaw[k]) for k in ("x", "y", "w", "h")}, what=str(flaw["what"]))


def _wash(show: Presenter, row: models.Wash) -> out.WashOut:
    return out.WashOut(
        id=row.id,
        at=row.at,
        how=row.how,
        grade=row.grade,
        length_after=show.maybe(row.length_after),
        width_after=show.maybe(row.width_after),
        simulated=row.simulated,
    )


_BASES = {"swatch": "from a swatch", "history": "from your tests", "range": "a planning range"}


def cupboard_line(show: Presenter, line: CupboardLine) -> out.CupboardLineOut:
    """A cloth with what is left of it."""
    known = line.cloth
    warp, weft = known.warp, known.weft
    shrinkage = ""
    if warp.figure and weft.figure:
        both = f"{show.figure_text(warp.figure)} along, {show.figure_text(weft.figure)} across"
        shrinkage = f"{both}, {_BASES[warp.basis]}"
    return out.CupboardLineOut(
        cloth=cloth_out(show, known), left=_left(show, known), shrinkage=shrinkage, projects=list(line.used_for)
    )


def _left(show: Presenter, known: ClothStanding) -> str:
    row = known.row
    left = show.length(row.in_hand).text if row.in_hand else "none in hand"
    if row.in_hand and row.width_readings:
        left += f" of {show.length(min(row.width_readings)).text} cloth"
    times = len(known.rows.washes)
    if row.treated:
        return left + ", pre-treated"
    if times:
        return left + (", washed once" if times == 1 else f", washed {times} times")
    return left


def cupboard_out(show: Presenter, lines: list[CupboardLine], of: int) -> out.CupboardOut:
    """The cloths that were found."""
    return out.CupboardOut(cloths=[cupboard_line(show, line) for line in lines], of=of)
