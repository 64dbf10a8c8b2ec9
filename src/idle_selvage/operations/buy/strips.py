"""Gathered strips, and bias tape out of a rectangle."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from sqlalchemy.orm import Session

from ...core.buy.bias import Tape, bias_tape, slants
from ...core.buy.ruffles import BadStrip, Ruffle, Way, ways
from ...core.plan.shapes import Measures
from ...core.wording import sentence_of
from ...store import buy_sheet, models
from ...store.piece import as_draft
from ..log import note
from ..plan import add_piece, change_piece
from ..refused import Refused
from ..standing import Standing
from ..telling import Told

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
    """What was typed (lengths in mm), and the ways to cut it, the one that takes least cloth first; all cloth as it is
    cut. ``pieces``: which of them are pieces of the garment, and so in its lay and purchase."""

    typed: Mapping[str, Any]
    width: float | None
    ways: tuple[Way, ...]
    fault: str
    tape: Tape | None
    slants: tuple[tuple[float, float, float, float], ...]
    tape_fault: str
    pieces: Mapping[What, Planned]


What = Literal["across", "along", "tape"]


@dataclass(frozen=True)
class Planned:
    """Strips that are pieces of the garment: whether they are still as they are typed now."""

    piece_id: int
    as_typed: bool


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
    planned = _planned(now, kept.get(PIECES) or {}, typed, found)
    return StripsStanding(typed, width, found, fault, tape, lines, tape_fault, planned)


#: Under which key the sheet keeps which pieces the strips became.
PIECES = "pieces"


def _shape(what: What, typed: Mapping[str, Any], found: Sequence[Way]) -> dict[str, Any] | None:
    """What a piece of these strips is: its length and depth in mm, its copies and its grain; None while not known."""
    if what == "tape":
        if not (typed["long"] and typed["wide"]):
            return None
        return {"long": typed["long"], "deep": typed["wide"], "copies": 1, "grain": "lengthwise"}
    way = next((way for way in found if way.key == what), None)
    if way is None:
        return None
    grain = "crosswise" if what == "across" else "lengthwise"
    return {"long": way.each, "deep": way.deep, "copies": way.strips, "grain": grain}


def _planned(
    now: Standing, there: Mapping[str, int], typed: Mapping[str, Any], found: Sequence[Way]
) -> dict[What, Planned]:
    rows = {row.id: row for row in now.pieces}
    out: dict[What, Planned] = {}
    for what in WHATS:
        row = rows.get(there.get(what, 0))
        cut = row.cut_from(now.use.id) if row is not None else None
        if row is None or cut is None:
            continue
        shape = _shape(what, typed, found)
        points = as_draft(row).points
        xs, ys = [p.along for p in points], [p.across for p in points]
        same = shape is not None and (
            abs(max(xs) - min(xs) - shape["long"]) < SAME_MM
            and abs(max(ys) - min(ys) - shape["deep"]) < SAME_MM
            and cut.copies == shape["copies"]
        )
        out[what] = Planned(row.id, same)
    return out


WHATS: tuple[What, ...] = ("across", "along", "tape")
#: Strips whose measures are nearer than this are the same, mm.
SAME_MM = 0.05
_NAMES: dict[What, str] = {"across": "Ruffle strip", "along": "Ruffle, in one", "tape": "Rectangle for bias tape"}


def make_pieces(session: Session, now: Standing, what: What) -> None:
    """Make the strips pieces of the garment, so that they are laid and bought with it; those made before are made as
    they are typed now. Raises :class:`Refused`."""
    found = read(session, now)
    shape = _shape(what, found.typed, found.ways)
    if shape is None:
        raise Refused("Type the strips first: their measures are not known.", code="not_ready")
    told = Told("measures", measures=Measures("rectangle", shape["long"], shape["deep"]))
    entries = {"copies": shape["copies"], "grain": shape["grain"]}
    sheet = buy_sheet.kept_sheet(session, now.use.id)
    there = dict(sheet.strips.get(PIECES) or {})
    # a ruffle is cut in one way or in the other
    if what != "tape":
        other: What = "along" if what == "across" else "across"
        if other in found.pieces:
            there[what] = there.pop(other)
    row = next((row for row in now.pieces if row.id == there.get(what)), None)
    if row is None:
        row = add_piece(session, now.use, told, {"name": _NAMES[what], **entries})
    else:
        change_piece(session, row, told, {"name": _NAMES[what], **entries}, now.use)
    sheet.strips = {**sheet.strips, PIECES: {**there, what: row.id}}
    session.flush()


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


def strips_told(found: StripsStanding) -> str:
    """In which state of the cloth these lengths are, and whether they are in the lay and the purchase."""
    worked = bool(found.ways) or found.tape is not None
    if not worked:
        return ""
    if found.pieces and all(one.as_typed for one in found.pieces.values()):
        return "All lengths are of cloth as it is cut. They are pieces of the garment: laid and bought with it."
    if found.pieces:
        return "All lengths are of cloth as it is cut. Their pieces are not as typed here: make them anew."
    return (
        "All lengths are of cloth as it is cut, after washing, and of these strips alone: nothing of it is in the lay "
        "or in what is bought until they are made pieces."
    )
