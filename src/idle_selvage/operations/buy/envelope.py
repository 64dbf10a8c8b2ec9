"""The chart printed on a pattern's envelope, and what it says."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from ...core.buy.envelope import ChartLine, Envelope, EnvelopeReading, SizeLine, compared, read_envelope
from ...store import buy_sheet, models
from ...store import cloth as cloths
from ..log import note
from ..standing import Standing

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


@dataclass(frozen=True)
class EnvelopeStanding:
    """The envelope as typed, and what it says. ``compared``: beside what the lay needs, or nothing."""

    typed: Mapping[str, Any]
    reading: EnvelopeReading
    compared: str


def ends_of(typed: Any) -> tuple[float, float] | None:
    """The two ends of what was typed as one length (both the same) or as a range, mm."""
    if typed is None:
        return None
    low, high = typed if isinstance(typed, list | tuple) else (typed, typed)
    return float(low), float(high)


def _row(typed: Mapping[str, Any]) -> ChartLine:
    # a row printed for 44 to 45 in is for cloth that is 44 in wide already
    ends = ends_of(typed["width"])
    return ChartLine(None if ends is None else ends[0], tuple(typed["lengths"]), typed.get("nap", ""))


def change_envelope(session: Session, use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Keep what was typed from the envelope; what is left out stays. Lengths in mm."""
    sheet = buy_sheet.kept_sheet(session, use.id)
    before = {key: sheet.envelope.get(key) for key in given}
    sheet.envelope = {**sheet.envelope, **given}
    session.flush()
    note(session, use, "buy", "envelope-changed", before=before, after=given)


def read(session: Session, now: Standing, give: float) -> EnvelopeStanding:
    """The envelope's chart, and what it says; ``give``: how near a body is to a size that counts as it, mm."""
    kept = buy_sheet.sheet(session, now.use.id).envelope
    typed = {**_EMPTY, **{k: v for k, v in kept.items() if v is not None}}
    views, states = typed["views"], now.cloth.states
    view = views[typed["view"]] if typed["view"] < len(views) else {"rows": []}
    # the chart is for unwashed cloth: by the width it was bought with, or the widest that is known
    raw = next((state.widths for state in states.states if state.widths), ())
    width = typed["to_width"] or (min(raw) if raw else None)
    envelope = Envelope(
        tuple(SizeLine(s["name"], ends_of(s["body"]), s["finished"]) for s in typed["sizes"]),
        tuple(_row(r) for r in view["rows"]),
        typed["measure"],
        typed["mine"],
        typed["fit"],
        typed["size"],
        typed["sleeves_in_one"],
        give,
    )
    one_way, shrinkage = cloths.as_cloth(now.cloth.row).one_way, now.tally.warp_taken.plan
    reading = read_envelope(envelope, width, one_way=one_way, shrinkage=shrinkage)
    bought, asked = now.tally.purchase, reading.washed or reading.answer
    said = compared(None if asked is None else asked.value, bought.before if bought is not None else None)
    return EnvelopeStanding(typed, reading, said)
