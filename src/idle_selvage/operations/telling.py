"""How a piece is told: by stations, by points, by two tapes, by its measures, or from another piece."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from sqlalchemy.orm import Session

from ..core.plan.doubt import doubts
from ..core.plan.draft import (
    ENDS,
    MARKS,
    PLACES,
    Draft,
    DraftPoint,
    Mark,
    Notch,
    check_points,
    halved,
    keyed,
    lean,
    notch_at,
    outline_of,
    place_on,
)
from ..core.plan.from_another import facing, lengthened, mirrored, without_allowance
from ..core.plan.outline import BadPiece, Point, fold_fault, polygon_fault, whole_polygon
from ..core.plan.shapes import Measures, shaped
from ..core.plan.stations import Station, points_from_stations
from ..core.plan.tapes import BADLY, TwoTapes, points_by_tapes, sureness
from ..core.wording import Sentence, joined, sentence_of
from ..core.working import about
from ..store.piece import as_draft, piece
from .refused import Refused

Way = Literal["stations", "points", "tapes", "measures", "another"]
FromAnother = Literal["same", "mirrored", "lengthened", "facing"]

#: So many marks and notches are kept of one piece.
MOST_MARKS = 100


@dataclass(frozen=True)
class NotchTold:
    """A notch as told: from a point so far along, or by a place it is nearest to."""

    double: bool = False
    after: int | None = None
    at: float = 0.0
    place: Point | None = None


@dataclass(frozen=True)
class Another:
    """A piece told from another; ``line`` and ``by``: where it is lengthened and by how much; ``edge``, ``width`` and
    ``upto``: whose facing it is. Lengths in mm."""

    piece_id: int
    change: FromAnother = "same"
    line: float = 0.0
    by: float = 0.0
    edge: int = 0
    width: float = 0.0
    upto: float | None = None


@dataclass(frozen=True)
class Told:
    """A piece as it is told. ``notches``, ``marks`` and ``arrow`` None: as they come with the way it is told."""

    way: Way = "points"
    stations: Sequence[Station] = ()
    smooth: bool = True
    points: Sequence[DraftPoint] = ()
    apart: float = 0.0
    tapes: Sequence[TwoTapes] = ()
    measures: Measures | None = None
    another: Another | None = None
    half: bool = False
    arrow: tuple[Point, Point] | None = None
    no_arrow: bool = False
    included: float = 0.0
    notches: Sequence[NotchTold] | None = None
    marks: Sequence[Mark] | None = None


def by_stations(stations: Sequence[Station], *, smooth: bool = True, half: bool = False) -> Told:
    """A piece told by stations."""
    return Told("stations", stations, smooth, half=half)


def draft_of(session: Session | None, told: Told) -> Draft:
    """The draft of a piece as it is told. Raises :class:`Refused`, with the entry it is about."""
    try:
        draft = _draft(session, told)
        if told.arrow is not None:
            draft = replace(draft, arrow=told.arrow)
        elif told.no_arrow:
            draft = replace(draft, arrow=None)
        if told.included:
            draft = replace(draft, included=told.included)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path=_PATHS[told.way]) from None
    draft = _marked(draft, told)
    _check(draft, _PATHS[told.way])
    return draft


_PATHS: dict[Way, str] = {
    "stations": "stations", "points": "points", "tapes": "tapes", "measures": "measures", "another": "another",
}  # fmt: skip


def _draft(session: Session | None, told: Told) -> Draft:
    match told.way:
        case "stations":
            return Draft(points_from_stations(told.stations, smooth=told.smooth, half=told.half), half=told.half)
        case "tapes":
            draft = Draft(points_by_tapes(told.apart, told.tapes), half=told.half)
        case "measures":
            if told.measures is None:
                raise BadPiece("Give its measures.")
            return shaped(told.measures, half=told.half)
        case "another":
            if told.another is None or session is None:
                raise BadPiece("Choose the piece it is made from.")
            return _from_another(session, told.another)
        case _:
            draft = Draft(keyed(told.points), half=told.half)
    check_points(draft.points)
    return halved(draft) if told.half else draft


def _from_another(session: Session, told: Another) -> Draft:
    draft = as_draft(piece(session, told.piece_id))
    match told.change:
        case "mirrored":
            return mirrored(draft)
        case "lengthened":
            return lengthened(draft, told.line, told.by)
        case "facing":
            return facing(draft, told.edge, told.width, told.upto)
        case _:
            return without_allowance(draft)


def _marked(draft: Draft, told: Told) -> Draft:
    """The draft with its notches and marks. Raises :class:`Refused`."""
    notches, marks = draft.notches, draft.marks
    if told.marks is not None:
        if len(told.marks) > MOST_MARKS:
            raise Refused(f"At most {MOST_MARKS} marks can be kept of one piece.", path="marks")
        for number, mark in enumerate(told.marks):
            if mark.kind not in MARKS or len(mark.places) != PLACES[mark.kind]:
                raise Refused(f"A mark of this kind has {PLACES.get(mark.kind, 1)} places.", path=f"marks.{number}")
            if mark.kind == "level" and not mark.name:
                raise Refused("A height needs a name, such as bust, waist or hip.", path=f"marks.{number}.name")
        marks = tuple(told.marks)
    if told.notches is not None:
        if len(told.notches) > MOST_MARKS:
            raise Refused(f"At most {MOST_MARKS} notches can be kept of one piece.", path="notches")
        notches = tuple(_notch(draft, one, number) for number, one in enumerate(told.notches))
    else:
        kept = {p.key for p in draft.points}
        notches = tuple(n for n in notches if n.after in kept)
    return replace(draft, notches=notches, marks=marks)


def _notch(draft: Draft, told: NotchTold, number: int) -> Notch:
    try:
        if told.place is not None:
            return notch_at(draft, told.place, double=told.double)
        found = Notch(told.after or 0, told.at, told.double)
        place_on(draft, found.after, found.at)
        return found
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path=f"notches.{number}") from None


def _check(draft: Draft, path: str) -> None:
    """Refuse an outline nobody could cut."""
    if any(p.ends not in ENDS for p in draft.points):
        raise Refused(f"An allowance ends in one of these ways: {', '.join(ENDS)}.", path=path)
    try:
        outline = outline_of(draft)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path=path) from None
    wrong = polygon_fault(outline) or (fold_fault(outline) if draft.half else None)
    if wrong:
        raise Refused(f"The outline {wrong}.", path=path)
    try:
        if draft.half:
            whole_polygon(outline)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path=path) from None
    try:
        lean(draft)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="arrow") from None


def doubted(draft: Draft, name: str = "") -> tuple[Sentence, ...]:
    """What looks like a slip in it, each as a question."""
    return doubts(draft.points, name)


def remarks(told: Told, draft: Draft) -> tuple[Sentence, ...]:
    """What is worth knowing of how a piece is told: points that two tapes tell badly."""
    if told.way != "tapes":
        return ()
    out = []
    for number, read in enumerate(told.tapes, start=1):
        by = sureness(told.apart, read)
        if by > BADLY:
            moved = "a millimetre on a tape moves it by {by}" if by < MOST_TOLD_MM else "there they tell almost nothing"
            out.append(
                Sentence(
                    "Point {number} lies nearly in line with the two marks: "
                    + moved
                    + ". Two readings tell it better.",
                    number=str(number),
                    by=about(round(min(by, MOST_TOLD_MM))),
                )
            )
    return tuple(out)


#: A place that moves further than this by a millimetre of reading is not told at all, mm.
MOST_TOLD_MM = 50.0


def ask_back(draft: Draft, name: str, *, sure: bool) -> None:
    """Ask back what looks like a slip, unless it was insisted on."""
    asked = () if sure else doubted(draft, name)
    if asked:
        raise Refused(joined([*asked, "If so, keep it once more."]), code="asked")
