"""True: the first edge, the fold test and its log, and the checks made at the table."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, cast

from sqlalchemy.orm import Session

from ..core.buy.purchase import ENDS
from ..core.lay.drawing import PlacedShape
from ..core.plan.outline import BadPiece, Outline
from ..core.true.attempts import Attempt, at_this_place, good_from, newest_by_place
from ..core.true.edge import EdgeAdvice, EdgeWay, advise_edge, both_ends, edge_cost, other_end_cost, settled_ends
from ..core.true.fold_line import FoldLine, FoldReading, fold_line
from ..core.true.pinned import GrainCheck, check_grain
from ..core.true.slant import BadTest, FoldTest, Slant, check_band_count, read_test, side_of, signed_offset, true_angle
from ..core.true.squareness import BarReading, Squareness, squareness
from ..core.true.straighten import StraightenFacts, Straightening, StraightenSchool, forbidden, plan, straighten_facts
from ..core.true.twist import Twist, hanging_outline, sheared, twist_of
from ..core.wording import Sentence, sentence_of
from ..core.working import Figure, given, length
from ..store import cloth as cloths
from ..store import models, true_sheet, true_test
from ..store import piece as pieces
from ..store.true_sheet import as_bands
from ..store.true_test import as_attempts
from .lay import pinned
from .log import note
from .refused import Refused
from .standing import Standing, cloth_standing, standing

#: What may have been done before a test.
DONE = {
    "": "nothing yet",
    "steam": "steamed and pressed",
    "pull": "pulled",
    "pin": "pinned and steamed",
    "short": "worked in shorter lengths",
    "cut": "cut off and begun anew",
}


def edge_advice(cloth: models.Cloth) -> EdgeAdvice:
    """How the first edge of a cloth is best made."""
    return advise_edge(cloths.as_edge_facts(cloth))


def edge_way(use: models.ClothUse) -> EdgeWay:
    """How the first edge is made: as chosen, or as the cloth wants it."""
    return cast(EdgeWay, use.edge_way) if use.edge_way else edge_advice(use.cloth).way


def settle_ends(use: models.ClothUse) -> None:
    """What both ends lose, from the edge's readings, the way it is made and what is cut off."""
    ends = settled_ends(true_sheet.edge(use), edge_way(use), use.cut_off)
    use.first_end, use.ends = ends.tested, ends.both


def keep_at_table(session: Session, use: models.ClothUse, given: Mapping[str, Any], by: models.By = "tape") -> None:
    """Keep what was read at the table. What straightening loses flows into the purchase and the lay.

    ``given``: ``now`` {place, offset, side, bow, done}, ``fold`` [{along, distance}], ``bars`` [{place, off, side}],
    ``check`` {key, tail, head}, ``bands``, ``edge``, ``edge_way``, ``cut_off``, ``ripple``, ``school``, ``accepted``;
    what is left out stays. Lengths in mm. Raises :class:`Refused`.
    """
    sheet = true_sheet.kept_sheet(session, use.id)
    before = _entries(use, sheet, given)
    if given.get("now") is not None:
        _now(session, use, sheet, given["now"])
    if given.get("fold") is not None:
        true_sheet.keep_pairs(use, "fold", [(s["along"], s["distance"]) for s in given["fold"]], by)
    if given.get("bars") is not None:
        found = [(b["place"], b["off"] if b["side"] == "out" else -b["off"]) for b in given["bars"]]
        true_sheet.keep_pairs(use, "bar", found, by)
    if given.get("check") is not None:
        _check(session, use, given["check"], by)
    if given.get("bands") is not None:
        sheet.bands = _bands(given["bands"])
    for key in ("ripple", "school", "accepted"):
        if given.get(key) is not None:
            setattr(sheet, key, given[key])
    if given.keys() & {"edge", "edge_way", "cut_off"}:
        _edge(use, given, by)
    session.flush()
    entries = ["straightening" if key == "school" else key for key in given]
    if entries:
        note(session, use, "true", "changed", before=before, after=given, entries=entries)


def _entries(use: models.ClothUse, sheet: models.TrueSheet, given: Mapping[str, Any]) -> dict[str, Any]:
    """What was read and chosen, of what is to be changed."""
    there: dict[str, Any] = {
        "edge": true_sheet.edge(use),
        "fold": true_sheet.pairs(use, "fold"),
        "bars": true_sheet.pairs(use, "bar"),
        "edge_way": use.edge_way,
        "cut_off": use.cut_off,
        "now": true_sheet.reading_now(use, sheet),
        **{key: getattr(sheet, key) for key in ("ripple", "school", "accepted", "bands")},
    }
    return {key: there[key] for key in given if key in there}


def _now(session: Session, use: models.ClothUse, sheet: models.TrueSheet, told: Mapping[str, Any]) -> None:
    given = {k: v for k, v in told.items() if v is not None}
    if not given:
        true_sheet.keep_now(use, sheet, {})
        return
    there = true_sheet.reading_now(use, sheet)
    was = there.get("offset", 0.0)
    # a reading without its side keeps the side it had or was said to have; else it is taken for the far one's
    side = given.get("side") or side_of(was) or there.get("side", "")
    if "offset" in given or ("side" in given and "offset" in there):
        given["offset"] = signed_offset(given.get("offset", abs(was)), side)
    now = {**there, **given}
    cloth = cloth_standing(session, use.cloth)
    _check_place(cloth.length_now, now)
    found = cloth.width_now
    width = found.value if found is not None else None
    if width is not None and "offset" in now:
        try:
            read_test(FoldTest(now["offset"], now.get("bow", 0.0)), width)
        except BadTest as fault:
            raise Refused(sentence_of(fault), path="now.bow" if "bow" in given else "now.offset") from None
    true_sheet.keep_now(use, sheet, now)


def _check_place(long: Figure | None, now: Mapping[str, Any]) -> None:
    """Refuse a test further along than the cloth is long, as far as that is known."""
    if long is None or "place" not in now:
        return
    most = long.value if long.high is None else long.high
    if now["place"] > most:
        told = "The cloth is only {long} long: give where along it the test was made."
        raise Refused(Sentence(told, long=length(most)), path="now.place")


def _bands(bands: Sequence[float]) -> list[float]:
    try:
        return list(check_band_count(bands)) if bands else []
    except BadTest as fault:
        raise Refused(sentence_of(fault), path="bands") from None


def _check(session: Session, use: models.ClothUse, given: Mapping[str, Any], by: models.By) -> None:
    drawing = pinned(standing(session, use))
    shape = next((one for one in drawing.shapes if one.key == given["key"]), None) if drawing is not None else None
    if shape is None or not shape.piece_id.isdigit():
        raise Refused("That piece is not on the chosen lay.", path="check.key")
    for end in ("tail", "head"):
        if end in given:
            true_sheet.keep_pinned(use, int(shape.piece_id), shape.copy, end, given[end], by)


def _edge(use: models.ClothUse, given: Mapping[str, Any], by: models.By) -> None:
    """The edge's readings and way, and what is cut off: together they are what both ends lose."""
    if given.get("edge") is not None:
        true_sheet.keep_edge(use, given["edge"], by)
    if given.get("edge_way") is not None:
        use.edge_way = given["edge_way"]
    if given.get("cut_off") is not None:
        lengths = [long for state in use.cloth.states if (long := use.cloth.length_in(state)) is not None]
        if lengths and given["cut_off"] >= lengths[-1]:
            raise Refused("Nothing would be left of the length in hand.", path="cut_off")
        use.cut_off = given["cut_off"]
    settle_ends(use)


_SIDES = {"": "level", "far": "the far selvage out", "near": "the near selvage out"}


def add_test(session: Session, use: models.ClothUse) -> models.TrueTest:
    """Write the reading at hand down as a test. Raises :class:`Refused` while nothing was read."""
    sheet = true_sheet.kept_sheet(session, use.id)
    now = true_sheet.reading_now(use, sheet)
    if "offset" not in now:
        told = "Read the edge first: how far apart the edges are, 0 when they are level."
        raise Refused(told, path="now.offset")
    row = models.TrueTest(
        use_id=use.id,
        cloth_id=use.cloth_id,
        wash_id=use.cloth.state_id,
        place=now.get("place", 0.0),
        offset=now["offset"],
        bow=now.get("bow", 0.0),
        done=now.get("done", ""),
    )
    session.add(row)
    # the place is kept for the next try there; the reading is not
    true_sheet.keep_now(use, sheet, {"place": row.place})
    sheet.accepted = False
    session.flush()
    read = {"offset": row.offset, "place": row.place, "done": row.done, "test": row.id}
    apart, side = length(abs(row.offset)), _SIDES[side_of(row.offset)]
    note(session, use, "true", "fold-tested", apart=apart, side=side, values=read)
    return row


def strike_test(session: Session, use: models.ClothUse, number: int, *, gone: bool) -> None:
    """Strike a test out, or bring it back; it stays in the log. Raises NotFound."""
    row = true_test.test(session, use.id, number, deleted=not gone)
    row.deleted_at = models.now() if gone else None
    session.flush()
    note(session, use, "true", "test-out" if gone else "test-back", test=row.id)


#: What a carried test rests on.
BEFORE = "the last test before it was treated, shrunk with the cloth; washing may have turned it"


@dataclass(frozen=True)
class Reading:
    """The reading that decides: the one at hand, else the newest test; ``basis`` says which, or nothing."""

    offset: float
    bow: float
    basis: str
    slant: Slant | None


@dataclass(frozen=True)
class PieceTwist:
    """What a slant does to one piece: as it is drawn and as it would hang."""

    piece: models.Piece
    twist: Twist
    outline: Outline
    hangs: Outline


@dataclass(frozen=True)
class PinnedCheck:
    """One pinned piece of the lay, what was read at its arrow (mm, None: not yet), and what that comes to."""

    shape: PlacedShape
    arrow: float
    tail: float | None
    head: float | None
    check: GrainCheck | None


@dataclass(frozen=True)
class TrueStanding:
    """How the cloth of a garment lies, by what was read at the table."""

    now: Standing

    @property
    def sheet(self) -> models.TrueSheet:
        return self.now.rows.true_sheet

    @cached_property
    def at_hand(self) -> dict[str, Any]:
        """The fold test not written down yet."""
        return true_sheet.reading_now(self.now.use, self.sheet)

    @property
    def accepted(self) -> bool:
        """Whether a happy medium was taken, of the cloth as it is: a wash asks again."""
        return self.sheet.accepted and bool(self.tests or self.read_now)

    @property
    def tests(self) -> tuple[models.TrueTest, ...]:
        return self.now.rows.true_tests

    @property
    def cloth(self) -> models.Cloth:
        return self.now.cloth.row

    @cached_property
    def width_now(self) -> Figure | None:
        """The width of the cloth as it is, measured or predicted."""
        return self.now.cloth.width_now

    @property
    def width(self) -> float | None:
        """The width the test is read over, mm."""
        return None if self.width_now is None else self.width_now.value

    @cached_property
    def bands(self) -> tuple[float, float, float]:
        return as_bands(self.sheet)

    @cached_property
    def before(self) -> FoldTest | None:
        """What the last test before a treatment would read now: both are lengths along the cloth, and shrank with it.
        None where there was none, or one was made since. How far washing turned the weft is not told by it."""
        last = self.now.rows.true_before
        if last is None or self.tests or self.read_now:
            return None
        states = self.now.cloth.states
        lost = states.move(cloths.state_index(self.cloth, last.wash_id), states.current).best[0]
        return FoldTest(last.offset * (1.0 - lost / 100.0), last.bow * (1.0 - lost / 100.0))

    @property
    def told(self) -> str:
        """What the tests so far say."""
        if self.now.rows.true_before is not None and not self.tests:
            return "No test since it was treated: fold selvage to selvage, let it hang, and read the edge."
        return self.now.truth.loop.told

    @cached_property
    def attempts(self) -> list[Attempt]:
        return as_attempts(self.tests)

    @property
    def here(self) -> tuple[models.TrueTest, ...]:
        """The tests made where the newest was."""
        return tuple(self.tests[k] for k in at_this_place(self.attempts)) if self.tests else ()

    @property
    def by_place(self) -> tuple[models.TrueTest, ...]:
        """The newest test of each place, along the length."""
        return tuple(self.tests[k] for k in newest_by_place(self.attempts))

    @property
    def good_from(self) -> float | None:
        """From where on the cloth is good, mm."""
        return good_from(self.attempts, self.bands)

    @cached_property
    def reading(self) -> Reading:
        """The reading that decides."""
        read = self.at_hand
        if "offset" in read:
            offset, bow, basis = read["offset"], read.get("bow", 0.0), "the reading at hand"
        elif self.tests:
            last = self.tests[-1]
            offset, bow = last.offset, last.bow
            basis = Sentence("the test at {place}", place=length(last.place))
        elif self.before is not None:
            offset, bow, basis = self.before.offset, self.before.bow, BEFORE
        else:
            return Reading(0.0, 0.0, "", None)
        if self.width is None:
            return Reading(offset, bow, basis, None)
        try:
            return Reading(offset, bow, basis, read_test(FoldTest(offset, bow), self.width, self.bands))
        except BadTest:
            return Reading(offset, bow, basis, None)

    @property
    def read_now(self) -> bool:
        """Whether a reading is at hand that was not written down yet."""
        return "offset" in self.at_hand

    @cached_property
    def facts(self) -> StraightenFacts:
        """What decides how the cloth may be straightened."""
        return straighten_facts(cloths.as_edge_facts(self.cloth), self.now.cloth.bars_seen)

    @cached_property
    def advice(self) -> Straightening | None:
        """What to do next, once something was read."""
        slant = self.reading.slant
        if slant is None or self.before is not None:
            return None
        school = cast(StraightenSchool, self.sheet.school) if self.sheet.school else None
        long = self.now.cloth.length_now
        return plan(slant, self.facts, long.value if long is not None else None, school)

    @property
    def never_pulled(self) -> bool:
        return bool(forbidden(self.facts))

    @property
    def headline(self) -> str:
        """What True says, in a few words."""
        if self.width is None:
            return "Is it on grain?"
        if self.read_now and self.advice is not None:
            return self.advice.headline
        if self.accepted:
            return "A happy medium was taken: lay it so"
        if self.now.truth.loop.state == "stop":
            return "No better in two tries: take the happy medium"
        if self.advice is not None:
            return self.advice.headline
        if self.before is not None:
            return "Test it again: it was treated since"
        return "Make a true edge, fold, let it hang, and read the edge"

    @property
    def side(self) -> str:
        """Which selvage's corner is the longer one: as read, as it was at the last test, else the far one."""
        read = self.at_hand
        side = side_of(read.get("offset", 0.0)) or read.get("side", "")
        return side or (side_of(self.tests[-1].offset) if self.tests else "") or "far"

    @cached_property
    def twists(self) -> tuple[PieceTwist, ...]:
        """What the slant does to each piece, the worst first; none before anything was read."""
        if not self.reading.basis or not self.width:
            return ()
        angle = true_angle(self.reading.offset, self.width)
        # a slanting weft carries the bars across the cloth along with it; stripes along the cloth stay where they are
        bars = self.now.cloth.bars[0].seen
        found = []
        for row, cut in self.now.rows.cuts:
            shape = pieces.as_piece(row, cut, self.now.size)
            try:
                outline = hanging_outline(shape)
            except BadPiece:
                continue
            twist = twist_of(row.name, outline, shape.grain, angle, bars=bars)
            found.append(PieceTwist(row, twist, outline, sheared(outline, angle)))
        return tuple(sorted(found, key=lambda one: -one.twist.twist.value))

    @property
    def fold_readings(self) -> list[FoldReading]:
        return [FoldReading(a, b) for a, b in true_sheet.pairs(self.now.use, "fold")]

    @cached_property
    def fold(self) -> FoldLine | None:
        """Is the fold on grain."""
        return fold_line(self.fold_readings)

    @property
    def bar_readings(self) -> list[BarReading]:
        return [BarReading(a, b) for a, b in true_sheet.pairs(self.now.use, "bar")]

    @cached_property
    def square(self) -> Squareness | None:
        """Are the bars square."""
        return squareness(self.bar_readings, self.width) if self.width else None

    @cached_property
    def checks(self) -> tuple[PinnedCheck, ...]:
        """Each pinned piece of the chosen lay."""
        drawing = pinned(self.now)
        return tuple(self._check(shape) for shape in (drawing.shapes if drawing is not None else ()))

    def _check(self, shape: PlacedShape) -> PinnedCheck:
        known = shape.piece_id.isdigit()
        tail, head = true_sheet.pinned(self.now.use, int(shape.piece_id), shape.copy) if known else (None, None)
        arrow = math.dist(shape.tail, shape.head)
        check = None
        if tail is not None and head is not None:
            check = check_grain((tail, head), (shape.tail_distance, shape.head_distance), arrow)
        return PinnedCheck(shape, arrow, tail, head, check)

    @property
    def way(self) -> EdgeWay:
        """How the first edge is made."""
        return edge_way(self.now.use)

    @property
    def this_end(self) -> Figure:
        """What the measured end loses before anything is cut off further in."""
        return edge_cost(true_sheet.edge(self.now.use), self.way)

    @property
    def other_end(self) -> Figure:
        """What the other end loses."""
        return other_end_cost(self.way)

    @property
    def ends(self) -> Figure:
        """What both ends lose together: as settled from the readings, or as wished."""
        use = self.now.use
        if use.first_end is not None:
            return both_ends(true_sheet.edge(use), self.way, use.cut_off)
        step = given("both ends", length(use.ends), "as wished under Buy")
        return Figure(use.ends, "length", steps=(step,), sources=(ENDS,))

    @property
    def left_in_hand(self) -> Figure | None:
        """What is left of the length in hand, as it is cut, once both ends are straightened."""
        return self.now.tally.left


def read_true(session: Session, use: models.ClothUse) -> TrueStanding:
    """Is it on grain, what to do, and does it matter."""
    return TrueStanding(standing(session, use))
