"""What is left when pieces are cut: remnants in their true outlines, put into the cupboard with the cloth's facts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from sqlalchemy.orm import Session

from ...core.cloth.bars import Bar
from ...core.cut.remnants import LeftOver, Remnant, bars_from, what_is_left
from ...core.lay.asking import frame_of
from ...core.plan.outline import Outline
from ...core.wording import Sentence
from ...core.working import length
from ...store import cloth as cloths
from ...store import cutting, models, use
from ...store.settings import settings
from ..cloth import TREATED_BEFORE
from ..log import note
from ..refused import Refused
from ..standing import Standing
from .again import gone_of, put_away, there_of
from .rounds import read_cutting

#: The least and the most that a scrap may be told as, mm.
LEAST_SCRAP_MM, MOST_SCRAP_MM = 20.0, 1000.0
#: What a remnant has of the cloth it was cut from.
_ALIKE = (
    "blend", "weave", "finish", "colouring", "like", "mass", "price", "price_unit", "direction", "pile", "pile_why",
    "wales", "face", "face_mark", "reversible", "depth", "rub_grade", "ground", "answers", "style_number",
)  # fmt: skip


@dataclass(frozen=True)
class ClothLeft:
    """What is left of a cloth; ``gone``: what is cut of it or still waits to be; how long it was, whether that is known
    or only what the lay took."""

    left: LeftOver
    width: float
    gone: tuple[Outline, ...]
    long: float
    known: bool
    least: float


class Seen(NamedTuple):
    """A remnant as somebody saw it: where its corner lies on the cloth, mm, and how large it is, mm²."""

    x: float
    y: float
    area: float


def read_left(session: Session, now: Standing) -> ClothLeft | None:
    """What is left of the cloth of a garment; None before anything was cut from it."""
    found = read_cutting(session, now)
    mine = [one for one in found.rounds if one.row.cloth_id == now.use.cloth_id]
    gone = gone_of(session, now, now.cloth.row)
    if not mine or not gone:
        return None
    waits = [shape for one in mine for shape in one.waiting(found.tally)]
    there = there_of(now)
    laid = max(one.lay.length for one in mine)
    # never less than what was cut from
    long = max(there or 0.0, laid)
    least = settings(session).scrap
    border = cloths.as_border(now.cloth.row)
    margin = now.cloth.row.margin_low if border is not None and border.side == "low" else now.cloth.row.margin_high
    frame = frame_of(now.cutting.laid, use.as_rules(now.use).trim)
    left = what_is_left(
        mine[-1].problem.width,
        long,
        gone,
        waits=waits,
        put=put_away(session, now.cloth.row),
        least=least,
        frame=frame,
        border=None if border is None else (border.side, max(0.0, border.usable(margin))),
    )
    return ClothLeft(left, mine[-1].problem.width, (*gone, *waits), long, there is not None, least)


def change_scrap(session: Session, least: float) -> None:
    """Say from which size on a remnant is kept, mm. Raises :class:`Refused`."""
    if not LEAST_SCRAP_MM <= least <= MOST_SCRAP_MM:
        told = Sentence(
            "Scraps are told from {least} to {most}.", least=length(LEAST_SCRAP_MM), most=length(MOST_SCRAP_MM)
        )
        raise Refused(told, path="least")
    settings(session).scrap = least
    session.flush()


def keep_remnant(session: Session, now: Standing, seen: Seen) -> models.Cloth:
    """Put a remnant into the cupboard, as it was seen, with the facts of the cloth it was cut from. Raises
    :class:`Refused`."""
    found = read_left(session, now)
    one = next((one for one in found.left.remnants if one.is_as_seen(*seen)), None) if found is not None else None
    if one is None:
        raise Refused("There is no such remnant any more: what is left has changed. Look at the list again.", path="x")
    if one.kept:
        raise Refused("That remnant is in the cupboard already.", path="x")
    row = now.cloth.row
    made = models.Cloth(**{name: getattr(row, name) for name in _ALIKE})
    made.name = f"{row.name or 'Cloth'}, remnant {len(cutting.remnants_of(session, row.id)) + 1}"[:120]
    made.place = row.place
    made.remnant_of, made.cut_at = row.id, [one.x, one.y]
    # beside a cut edge nothing has to be left off
    made.margin_low = row.margin_low if one.near_selvage else 0.0
    made.margin_high = row.margin_high if one.far_selvage else 0.0
    made.outline = [[[x, round(y + made.margin_low, 1)] for x, y in ring] for ring in one.rings]
    session.add(made)
    session.flush()
    treated = row.state_id is not None
    if treated:
        session.add(models.Wash(cloth_id=made.id, how=row.treatments[-1].how or TREATED_BEFORE,
                                wash=row.treatments[-1].wash))  # fmt: skip
        session.flush()
        session.refresh(made, ["washes"])
    made.outline_state = 1 if treated else 0
    state = made.state_id
    wide = one.across + made.margin_low + made.margin_high
    cloths.keep_widths(made, state, [round(wide, 1)] * 3)
    cloths.keep_length(made, state, one.along)
    _bars(made, row, one, now)
    _flaws(made, now, one)
    if one.border:
        made.border, made.border_kind = row.border, row.border_kind
        made.border_deep = row.border_deep
    session.flush()
    size = Sentence("{along} by {across}", along=length(one.along), across=length(one.across))
    note(session, now.use, "cut", "remnant-kept", cloth=made, name=row.name or "the cloth", size=size)
    session.flush()
    return made


def _bars(made: models.Cloth, row: models.Cloth, one: Remnant, now: Standing) -> None:
    """The bars as they read from the remnant's own corner, in the measures they have by now."""
    warp, weft = now.cutting.laid.bars_move.best
    for way, off, lost in (("along", one.x, warp), ("across", one.y + row.margin_low - made.margin_low, weft)):
        sequence: Sequence[Bar] = [
            Bar(bar.width * (1 - lost / 100), bar.colour)
            for bar in cloths.bar_sequence(row, way)  # type: ignore[arg-type]
        ]
        if sequence:
            given = [{"width": round(bar.width, 2), "colour": bar.colour} for bar in bars_from(sequence, off)]
            cloths.keep_bars(made, way, given)  # type: ignore[arg-type]


def _flaws(made: models.Cloth, now: Standing, one: Remnant) -> None:
    """The flaws that lie on the remnant, each as the whole ground where it may be by now."""
    given = []
    if now.problem is None:
        return
    whats = [flaw.what for flaw in now.cloth.row.flaws]
    for k, (x0, y0, x1, y1) in enumerate(now.problem.blocked[: len(whats)]):
        x, y = max(0.0, x0 - one.x), max(0.0, y0 - one.y)
        w, h = min(x1 - one.x, one.along) - x, min(y1 - one.y, one.across) - y
        if w > 0 and h > 0:
            given.append({"x": x, "y": y + made.margin_low, "w": w, "h": h, "what": whats[k]})
    if given:
        cloths.keep_flaws(made, given)
