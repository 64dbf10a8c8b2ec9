"""From what was read at the table to what True shows."""

from __future__ import annotations

from typing import cast

from ...core.true import fold_line, pinned, squareness
from ...core.true.edge import METHODS, EdgeAdvice
from ...core.true.fold_line import Ripple
from ...core.true.slant import FoldTest, band_of, side_of
from ...core.true.straighten import STRAIGHTEN_SCHOOLS, Straightening, accept_text
from ...core.true.twist import limits_text, matters
from ...operations.true import DONE, PieceTwist, PinnedCheck, TrueStanding, edge_advice
from ...store import models
from ...store.true_sheet import edge
from ..buy import schemas as buy_out
from ..shared.figures import Presenter, rounded
from ..shared.schemas import ChoiceOut
from . import schemas as out

#: Where the next bar is read, so many units of the tape on: a hand's breadth or two.
NEXT_BAR_UNITS = 20
#: A unit of the tape, mm.
UNITS_MM = {"metric": 10.0, "imperial": 25.4}


def edge_out(show: Presenter, advice: EdgeAdvice) -> buy_out.EdgeOut:
    """Every way to make the first edge, the one that suits this cloth first."""
    whys = {advice.way: advice.why, **dict(advice.others)}
    return buy_out.EdgeOut(
        way=advice.way,
        why=advice.why,
        ways=[
            buy_out.EdgeWayOut(
                key=key,
                name=METHODS[key].name,
                loss=show.length(METHODS[key].loss),
                why=why,
                steps=list(METHODS[key].steps),
                caution=METHODS[key].caution,
            )
            for key, why in whys.items()
        ],
    )


def true_out(show: Presenter, found: TrueStanding) -> out.TrueOut:
    """Everything True shows."""
    reading, loop, width = found.reading, found.now.truth.loop, found.width
    slant, good = reading.slant, found.good_from
    return out.TrueOut(
        headline=found.headline,
        width=show.figure(found.width_now),
        missing="" if width is not None else "Measure the cloth's width first: the slant is told over it.",
        edge=edge_out(show, edge_advice(found.cloth)),
        edge_way=found.now.use.edge_way,
        way=found.way,
        cost=_cost(show, found),
        now=_now(show, found),
        skew=show.figure(slant.skew if slant else None),
        angle=show.figure(slant.angle if slant else None),
        bow=show.figure(slant.bow if slant else None),
        advice=None if found.advice is None or slant is None else _advice(found, found.advice),
        bands=[show.length(value) for value in found.bands],
        limit=accept_text(found.facts.bars),
        tests=[_test(show, t, found.bands) for t in found.tests],
        before=_before(show, found.before) if found.before else None,
        here=[t.id for t in found.here],
        by_place=[t.id for t in found.by_place],
        side="near" if found.side == "near" else "far",
        loop_state=loop.state,
        loop_told=found.told,
        good_from=show.maybe(good if good else None),
        accepted=found.accepted,
        basis=reading.basis,
        twist_limits=limits_text(),
        matters=matters([one.twist for one in found.twists]),
        twists=[_twist(show, one) for one in found.twists],
        fold=_fold(show, found),
        checks=[_check(show, one) for one in found.checks],
        checks_missing="" if found.checks else "Lay the pieces first: the lay says what to measure.",
        checks_limit=pinned.limit_text(),
        plaid=_plaid(show, found),
        done_choices=[ChoiceOut(value=value, label=label) for value, label in DONE.items()],
    )


def _now(show: Presenter, found: TrueStanding) -> out.ReadingOut:
    read = found.at_hand
    offset = read.get("offset", 0.0)
    return out.ReadingOut(
        place=show.length(read.get("place", 0.0)),
        offset=show.length(abs(offset)),
        signed=offset,
        long_side=side_of(offset) or read.get("side", ""),
        bow=show.length(read.get("bow", 0.0)),
        done=read.get("done", ""),
        read=found.read_now,
    )


def _advice(found: TrueStanding, advice: Straightening) -> out.AdviceOnTrueOut:
    slant = found.reading.slant
    assert slant is not None
    return out.AdviceOnTrueOut(
        band=slant.band,
        action=advice.action,
        headline=advice.headline,
        steps=list(advice.steps),
        school=advice.school,
        school_why=advice.school_why,
        chooses=advice.chooses,
        schools=[
            out.SchoolChoiceOut(value=key, label=label, why=why, forbidden=key == "pull" and found.never_pulled)
            for key, (label, why) in STRAIGHTEN_SCHOOLS.items()
        ],
        forbids=list(advice.forbids),
        cautions=list(advice.cautions),
        other=list(advice.else_),
    )


def _cost(show: Presenter, found: TrueStanding) -> out.EdgeCostOut:
    use, bought = found.now.use, found.now.tally.purchase
    return out.EdgeCostOut(
        readings=[show.length(value) for value in edge(found.now.use)],
        this_end=show.surely(found.this_end),
        other_end=show.surely(found.other_end),
        cut_off=show.length(use.cut_off),
        ends=show.surely(found.ends),
        in_hand_after=show.figure(found.left_in_hand),
        to_buy=show.figure_text(bought.still) if bought else "",
        measured=use.first_end is not None,
    )


def _before(show: Presenter, was: FoldTest) -> out.BeforeOut:
    return out.BeforeOut(offset=show.length(abs(was.offset)), signed=was.offset, bow=show.length(was.bow))


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


def _twist(show: Presenter, one: PieceTwist) -> out.TwistOut:
    return out.TwistOut(
        piece_id=one.piece.id,
        piece=one.piece.name,
        twist=show.surely(one.twist.twist),
        drift=show.surely(one.twist.drift),
        verdict=one.twist.verdict,
        drift_told=one.twist.drift_told,
        meets=one.twist.meets,
        outline=rounded(one.outline),
        hangs=rounded(one.hangs),
    )


def _fold(show: Presenter, found: TrueStanding) -> out.FoldLineOut:
    line, readings = found.fold, found.fold_readings
    moves = {m.along: m.by for m in line.moves} if line else {}
    worked = {m.along: m.figure for m in line.moves} if line else {}
    return out.FoldLineOut(
        stations=[
            out.StationOfFoldOut(
                along=show.length(s.along),
                distance=show.length(s.distance),
                move=show.maybe(abs(moves[s.along]) if s.along in moves else None),
                move_figure=show.figure(worked.get(s.along)),
                outwards=moves.get(s.along, 0.0) > 0,
                told=fold_line.move_told(moves.get(s.along)),
            )
            for s in readings
        ],
        spread=show.figure(line.spread_figure if line else None),
        mean=show.figure(line.mean_figure if line else None),
        good=line.good if line and line.enough else None,
        headline=fold_line.headline(line),
        limit=fold_line.limit_text(),
        ripple=found.sheet.ripple,
        torque=fold_line.torque(cast(Ripple, found.sheet.ripple)),
        next_place=show.length(fold_line.next_place(readings, UNITS_MM[show.system])),
    )


def _check(show: Presenter, one: PinnedCheck) -> out.CheckOut:
    shape, check = one.shape, one.check
    tail, head = shape.measured
    return out.CheckOut(
        key=shape.key,
        piece=shape.piece,
        copy_number=shape.copy,
        edge=shape.edge,
        wanted_tail=show.surely(tail),
        wanted_head=show.surely(head),
        arrow=show.length(one.arrow),
        tail=show.maybe(one.tail),
        head=show.maybe(one.head),
        tilt=show.figure(check.figure if check else None),
        good=check.good if check else None,
        told=pinned.told(check, shape.edge),
    )


def _plaid(show: Presenter, found: TrueStanding) -> out.PlaidOut:
    readings, square = found.bar_readings, found.square
    shifts = {b.place: b for b in square.bars} if square else {}
    last = readings[-1].place if readings else 0.0
    return out.PlaidOut(
        bars=[
            out.BarOfPlaidOut(
                place=show.length(r.place),
                off=show.length(abs(r.off)),
                signed=r.off,
                square=r.place not in shifts,
                told=squareness.shift_told(shifts.get(r.place), len(readings)),
            )
            for r in readings
        ],
        headline=squareness.headline(square, len(readings)),
        square=square.square if square else None,
        next_place=show.length(last + NEXT_BAR_UNITS * UNITS_MM[show.system]),
    )
