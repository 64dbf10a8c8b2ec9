"""Gathered strips, and bias tape out of a rectangle."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from ...core.buy.bias import Tape, bias_tape, slants
from ...core.buy.ruffles import BadStrip, Ruffle, Way, ways
from ...core.wording import sentence_of
from ...store import buy_sheet, models
from ..log import note
from ..standing import Standing

_EMPTY: dict[str, Any] = {
    "edge": None,
    "fullness": 2.0,
    "depth": None,
    "hem": 20.0,
    "seam": 15.0,
    "ring": True,
    "long": None,
    "wide": None,
    "tape": None,
    "tape_seam": 6.0,
}


@dataclass(frozen=True)
class StripsStanding:
    """What was typed (lengths in mm), and the ways to cut it, the one that takes least cloth first."""

    typed: Mapping[str, Any]
    width: float | None
    ways: tuple[Way, ...]
    fault: str
    tape: Tape | None
    slants: tuple[tuple[float, float, float, float], ...]
    tape_fault: str


def change_strips(session: Session, use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Keep what was typed about strips; what is left out stays, None clears."""
    sheet = buy_sheet.kept_sheet(session, use.id)
    before = {key: sheet.strips.get(key) for key in given}
    sheet.strips = {**sheet.strips, **given}
    session.flush()
    note(session, use, "buy", "strips-changed", before=before, after=given)


def read(session: Session, now: Standing) -> StripsStanding:
    """Gathered strips and bias tape, worked out."""
    kept = buy_sheet.sheet(session, now.use.id).strips
    typed = {**_EMPTY, **{k: v for k, v in kept.items() if v is not None}}
    width = now.tally.width.value if now.tally.width is not None else None
    found, fault = _ruffle(typed, width, now.tally.missing.get("width", ""))
    tape, tape_fault = _tape(typed)
    lines = slants(typed["long"], typed["wide"], typed["tape"]) if tape is not None else ()
    return StripsStanding(typed, width, found, fault, tape, lines, tape_fault)


def _ruffle(typed: Mapping[str, Any], width: float | None, missing: str) -> tuple[tuple[Way, ...], str]:
    if not typed["edge"] or not typed["depth"]:
        return (), ""
    if width is None:
        return (), missing
    ruffle = Ruffle(typed["edge"], typed["fullness"], typed["depth"], width, typed["hem"], typed["seam"], typed["ring"])
    try:
        return ways(ruffle), ""
    except BadStrip as fault:
        return (), sentence_of(fault)


def _tape(typed: Mapping[str, Any]) -> tuple[Tape | None, str]:
    if not (typed["long"] and typed["wide"] and typed["tape"]):
        return None, ""
    try:
        return bias_tape(typed["long"], typed["wide"], typed["tape"], typed["tape_seam"]), ""
    except BadStrip as fault:
        return None, sentence_of(fault)
