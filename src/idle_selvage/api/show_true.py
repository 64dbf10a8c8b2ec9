"""From what was read at the table to what True shows."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, cast

from sqlalchemy.orm import Session

from ..core.cloth.width import planned_width
from ..core.lay.drawing import PlacedShape, draw
from ..core.lay.reading import read_problem
from ..core.plan.allowance import cut_line
from ..core.plan.outline import BadPiece, whole_polygon
from ..core.true.attempts import Loop, good_from, loop
from ..core.true.edge import METHODS
from ..core.true.fold_line import GOOD_SPREAD_MM, FoldReading, Ripple, fold_line, torque
from ..core.true.pinned import ON_GRAIN_MM, check_grain
from ..core.true.slant import (
    ACCEPTED_BARS_PERCENT,
    ACCEPTED_PERCENT,
    BadTest,
    FoldTest,
    Slant,
    band_of,
    read_test,
    true_angle,
)
from ..core.true.squareness import BarReading, squareness
from ..core.true.straighten import STRAIGHTEN_SCHOOLS, StraightenFacts, StraightenSchool, forbidden, plan
from ..core.true.twist import HANGS_MM, SEEN_MM, sheared, twist_of
from ..core.working import Figure, Quantity, Step, length
from ..store import models, records
from . import present
from . import schemas_true as out
from .presenter import Presenter
from .schemas import ChoiceOut
from .true_state import attempts_of, bands_of, edge_way, first_end

#: What may have been done before a test.
DONE = {
    "": "nothing yet",
    "steam": "steamed and pressed",
    "pull": "pulled",
    "pin": "pinned and steamed",
    "short": "worked in shorter lengths",
    "cut": "cut off and begun anew",
}
Side = Literal["", "near", "far"]


def facts_of(row: models.Cloth) -> StraightenFacts:
    """What decides how a cloth may be straightened."""
    edge = records.edge_facts(row)
    along, across = records.as_bars(row)
    return StraightenFacts(row.weave, row.finish, row.colouring, along.seen or across.seen, edge.sheer, edge.slips)


def width_of(row: models.Cloth) -> float | None:
    """The width the test is read over, mm."""
    return planned_width(records.as_cloth(row)).value if row.width_readings else None


@dataclass(frozen=True)
class _At:
    """The reading that decides: the one at hand, else the newest test."""

    offset: float
    bow: float
    basis: str
    slant: Slant | None


def _at(sheet: models.TrueSheet, tests: list[models.TrueTest], width: float | None, show: Presenter) -> _At:
    bands = bands_of(sheet)
    offset, bow, basis = 0.0, 0.0, ""
    if "offset" in sheet.now:
        offset, bow, basis = sheet.now["offset"], sheet.now.get("bow", 0.0), "the reading at hand"
    elif tests:
        last = tests[-1]
        offset, bow = last.offset, last.bow
        basis = f"the test at {show.length(last.place).text}"
    if not basis or width is None:
        return _At(offset, bow, basis, None)
    try:
        return _At(offset, bow, basis, read_test(FoldTest(offset, bow), width, bands))
    except BadTest:
        return _At(offset, bow, basis, None)


def true_out(session: Session, row: models.Project, show: Presenter) -> out.TrueOut:
    """Everything True shows."""
    sheet = records.true_sheet(session, row.id)
    tests = records.true_tests(session, row)
    cloth = row.cloth
    width = width_of(cloth)
    at = _at(sheet, tests, width, show)
    bands = bands_of(sheet)
    facts = facts_of(cloth)
    attempts = attempts_of(tests)
    found = loop(attempts, bands)
    good = good_from(attempts, bands)
    advice = _advice(at.slant, facts, cloth.in_hand, sheet)
    bars = facts.bars
    checks = _checks(session, show, row, sheet)
    # a slanting weft carries the bars across the cloth along with it; stripes along the cloth stay where they are
    carried, _ = records.as_bars(cloth)
    twists = _twists(session, show, row, at, width, carried.seen) if at.basis and width else []
    return out.TrueOut(
        headline=_headline(advice, found, sheet, width),
        width=show.maybe(width),
        missing="" if width is not None else "Measure the cloth's width first: the slant is told over it.",
        edge=present.edge_out(show, cloth),
        edge_way=row.edge_way,
        cost=_cost(session, show, row, sheet),
        now=out.ReadingOut(
            place=show.length(sheet.now.get("place", 0.0)),
            offset=show.length(abs(sheet.now.get("offset", 0.0))),
            signed=sheet.now.get("offset", 0.0),
            long_side=side_of(sheet.now.get("offset", 0.0)) or sheet.now.get("side", ""),
            bow=show.length(sheet.now.get("bow", 0.0)),
            done=sheet.now.get("done", ""),
            read="offset" in sheet.now,
        ),
        skew=show.figure(at.slant.skew if at.slant else None),
        angle=show.figure(at.slant.angle if at.slant else None),
        bow=show.figure(at.slant.bow if at.slant else None),
        advice=advice,
        bands=[show.length(value) for value in bands],
        limit=f"Usual limit for accepting {'stripes and checks' if bars else 'woven cloth'}: "
        f"{ACCEPTED_BARS_PERCENT if bars else ACCEPTED_PERCENT:g} % (common practice, from memory).",
        tests=[_test(show, t, bands) for t in tests],
        loop_state=found.state,
        loop_told=found.told,
        good_from=show.maybe(good),
        accepted=sheet.accepted,
        basis=at.basis,
        twist_limits=f"Up to {show.length(SEEN_MM).text} nobody sees it, from {show.length(HANGS_MM).text} a leg or "
        "skirt turns on the body (from memory). A panel of length H on a slant a twists by H × tan a.",
        matters=_matters(twists),
        twists=twists,
        fold=_fold(show, sheet),
        checks=checks,
        checks_missing="" if checks else "Lay the pieces first: the lay says what to measure.",
        checks_limit="Measure from both ends of the arrow to the edge named. Only their difference counts: up to "
        f"{show.length(ON_GRAIN_MM).text} is on grain (common practice).",
        plaid=_plaid(show, sheet, width),
        done_choices=[ChoiceOut(value=value, label=label) for value, label in DONE.items()],
    )


def side_of(offset: float) -> Side:
    """Which selvage's corner sticks out."""
    return "" if abs(offset) < 0.05 else "far" if offset > 0 else "near"


def _headline(advice: out.AdviceOnTrueOut | None, found: Loop, sheet: models.TrueSheet, width: float | None) -> str:
    if width is None:
        return "Is it on grain?"
    if "offset" in sheet.now and advice is not None:
        return advice.headline
    if sheet.accepted:
        return "A happy medium was taken: lay it so"
    if found.state == "stop":
        return "No better in two tries: take the happy medium"
    if advice is not None:
        return advice.headline
    return "Make a true edge, fold, let it hang, and read the edge"


def _advice(
    slant: Slant | None, facts: StraightenFacts, in_hand: float | None, sheet: models.TrueSheet
) -> out.AdviceOnTrueOut | None:
    if slant is None:
        return None
    made = plan(slant, facts, in_hand, cast(StraightenSchool, sheet.school) if sheet.school else None)
    never = bool(forbidden(facts))
    return out.AdviceOnTrueOut(
        band=slant.band,
        action=made.action,
        headline=made.headline,
        steps=list(made.steps),
        school=made.school,
        school_why=made.school_why,
        schools=[
            out.SchoolChoiceOut(value=key, label=label, why=why, forbidden=key == "pull" and never)
            for key, (label, why) in STRAIGHTEN_SCHOOLS.items()
        ],
        forbids=list(made.forbids),
        cautions=list(made.cautions),
        other=list(made.else_),
    )


def _cost(session: Session, show: Presenter, row: models.Project, sheet: models.TrueSheet) -> out.EdgeCostOut:
    this = first_end(row, sheet)
    found, _, _ = present.work_up(session, row)
    after = None if row.cloth.in_hand is None else row.cloth.in_hand - row.ends
    return out.EdgeCostOut(
        readings=[show.length(value) for value in sheet.edge],
        this_end=show.surely(this),
        other_end=show.length(METHODS[edge_way(row)].loss),
        cut_off=show.length(row.cut_off),
        ends=show.length(row.ends),
        in_hand_after=show.maybe(after),
        to_buy=show.quantity(found.purchase.to_buy.quantity) if found.purchase else "",
        measured=row.first_end is not None,
    )


def _test(show: Presenter, row: models.TrueTest, bands: tuple[float, float, float]) -> out.TestOut:
    return out.TestOut(
        id=row.id,
        at=row.at,
        place=show.length(row.place),
        offset=show.length(abs(row.offset)),
        signed=row.offset,
        long_side=side_of(row.offset),
        bow=show.length(row.bow),
        done=row.done,
        done_label=DONE.get(row.done, row.done),
        band=band_of(max(abs(row.offset), row.bow), bands),
    )


def _twists(
    session: Session, show: Presenter, row: models.Project, at: _At, width: float, bars: bool
) -> list[out.TwistOut]:
    angle = true_angle(at.offset, width)
    told = []
    for piece in records.pieces(session, row.id):
        shape = records.as_piece(piece)
        try:
            outline = cut_line(shape)
        except BadPiece:
            continue
        if shape.on_fold:
            whole = whole_polygon(outline).exterior.coords[:-1]
            outline = tuple((float(x), float(y)) for x, y in whole)
        found = twist_of(piece.name, outline, shape.grain, angle, bars=bars)
        told.append(
            out.TwistOut(
                piece_id=piece.id,
                piece=piece.name,
                twist=show.surely(found.twist),
                drift=show.surely(found.drift),
                verdict=found.verdict,
                drift_told=found.drift_told,
                outline=[(round(x, 1), round(y, 1)) for x, y in outline],
                hangs=[(round(x, 1), round(y, 1)) for x, y in sheared(outline, angle)],
            )
        )
    return sorted(told, key=lambda t: -t.twist.value)


def _matters(twists: list[out.TwistOut]) -> str:
    if not twists:
        return "Does it matter?"
    worst = twists[0]
    missed = [t.piece for t in twists if "do not meet" in t.drift_told]
    if worst.verdict != "harmless":
        told = "it shows" if worst.verdict == "visible" else "it will not hang"
        return f"{worst.piece} twists by {worst.twist.text} at the hem: {told}"
    if missed:
        return f"Nothing twists so that it shows, but bars do not meet at the seams of {missed[0]}"
    return "It does not matter: no piece twists so that it shows"


def _fold(show: Presenter, sheet: models.TrueSheet) -> out.FoldLineOut:
    stations = [FoldReading(a, b) for a, b in sheet.fold]
    line = fold_line(stations)
    moves = {m.along: m.by for m in line.moves} if line else {}
    headline = "Measure from fold to selvage at three places or more"
    if line is not None and line.enough:
        spread = show.length(line.spread).text
        headline = f"On grain: within {spread}" if line.good else f"The fold wanders by {spread}: move it as drawn"

    def told(by: float | None) -> str:
        if by is None:
            return ""
        return f"move {show.length(abs(by)).text} {'away from' if by > 0 else 'towards'} the selvages"

    return out.FoldLineOut(
        stations=[
            out.StationOfFoldOut(
                along=show.length(s.along),
                distance=show.length(s.distance),
                move=show.maybe(moves.get(s.along)),
                told=told(moves.get(s.along)),
            )
            for s in stations
        ],
        spread=show.maybe(line.spread if line else None),
        mean=show.maybe(line.mean if line else None),
        good=line.good if line and line.enough else None,
        headline=headline,
        limit=f"A spread of up to {show.length(GOOD_SPREAD_MM).text} is good (common practice).",
        ripple=sheet.ripple,
        torque=torque(cast(Ripple, sheet.ripple)),
    )


def pinned(session: Session, row: models.Project) -> tuple[PlacedShape, ...]:
    """The pieces of the chosen lay as they are pinned."""
    chosen = records.chosen_lay(session, row.id)
    if chosen is None:
        return ()
    asked = read_problem(chosen.problem)
    return draw(
        records.lay_of(chosen),
        {p.id: p for p in asked.pieces},
        asked.width,
        margins=(row.cloth.margin_low, row.cloth.margin_high),
        leans=records.leans(chosen.problem, records.pieces(session, row.id)),
    ).shapes


def _checks(session: Session, show: Presenter, row: models.Project, sheet: models.TrueSheet) -> list[out.CheckOut]:
    found = []
    for shape in pinned(session, row):
        read = sheet.checks.get(shape.key, [None, None])
        arrow = math.dist(shape.tail, shape.head)
        tail, head = read
        tilt, good, told = None, None, ""
        if tail is not None and head is not None:
            check = check_grain((tail, head), (shape.tail_distance, shape.head_distance), arrow)
            put = (("read at the tail", length(tail)), ("read at the head", length(head)), ("arrow", length(arrow)))
            step = Step("tilt", "atan(difference ÷ arrow)", put, Quantity(check.tilt, "angle"))
            tilt = show.surely(Figure(check.tilt, "angle", steps=(step,)))
            good = check.good
            way = "away from" if check.move > 0 else "towards"
            told = "on grain" if good else f"move the head {show.length(abs(check.move)).text} {way} the {shape.edge}"
        found.append(
            out.CheckOut(
                key=shape.key,
                piece=shape.piece,
                copy_number=shape.copy,
                edge=shape.edge,
                wanted_tail=show.length(shape.tail_distance),
                wanted_head=show.length(shape.head_distance),
                arrow=show.length(arrow),
                tail=show.maybe(tail),
                head=show.maybe(head),
                tilt=tilt,
                good=good,
                told=told,
            )
        )
    return found


def _plaid(show: Presenter, sheet: models.TrueSheet, width: float | None) -> out.PlaidOut:
    readings = [BarReading(a, b) for a, b in sheet.bars]
    found = squareness(readings, width) if width else None
    shifts = {b.place: b for b in found.bars} if found else {}
    told = {}
    for reading in readings:
        shift = shifts.get(reading.place)
        if shift is None:
            told[reading.place] = "square"
            continue
        way = "away from" if shift.shift > 0 else "towards"
        told[reading.place] = f"shift its far end {show.length(abs(shift.shift)).text} {way} the tested end" + (
            ", this bar alone" if shift.alone and len(readings) > 1 else ""
        )
    headline = "Read several bars with an L-square"
    if found is not None:
        all_of = "The bars are square" if found.square else f"{len(found.bars)} of {len(readings)} bars to shift"
        common = f"; all lean by {show.length(abs(found.common)).text}" if abs(found.common) > 2.0 else ""
        headline = all_of + common
    return out.PlaidOut(
        bars=[
            out.BarOfPlaidOut(place=show.length(r.place), off=show.length(abs(r.off)), signed=r.off, told=told[r.place])
            for r in readings
        ],
        headline=headline,
        square=found.square if found else None,
    )
