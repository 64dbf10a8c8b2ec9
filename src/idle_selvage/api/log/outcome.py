"""How a garment came out, what that teaches, and why."""

from __future__ import annotations

from datetime import timedelta

from flask import Response

from ...core.project.outcome import BY_KIND, Outcome, OutcomeUnit
from ...core.project.why import COMPLAINTS
from ...core.wording import say
from ...core.working import Quantity
from ...core.written import quantity_text
from ...formats.ics import Entry, write_ics
from ...operations import outcome
from ...operations.project import garment, list_garments, read_garment
from ...store import models
from ...store.outcome import outcome as find
from ..services import begin, look, send
from ..shared.figures import Presenter, presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath, UseQuery
from . import outcome_schemas as out

#: Differences at seams and in laying are told finer than a garment's length, mm.
SMALL_MM = 10.0


def read_outcomes(path: ProjectPath, query: UseQuery) -> Response:
    """What was measured of a finished garment beside what was predicted, and what can be measured."""
    with look() as session:
        return send(_outcomes(outcome.OutcomeStanding(session, read_garment(session, path.project_id, query.use))))


def keep_outcome(path: ProjectPath, query: UseQuery, body: out.OutcomeIn) -> Response:
    """Write down what was measured; what is predicted now stays beside it."""
    measured = body.measured if BY_KIND[body.kind].unit == "length" else body.grade
    given = outcome.OutcomeGiven(body.kind, body.number, measured, body.before, body.after, body.washes, body.note)
    with begin() as session:
        outcome.keep_outcome(session, read_garment(session, path.project_id, query.use), given)
    with look() as session:
        found = outcome.OutcomeStanding(session, read_garment(session, path.project_id, query.use))
        return send(_outcomes(found), 201)


def strike_outcome(path: out.OutcomePath, query: UseQuery) -> Response:
    """Strike a measure out; it can be taken back."""
    with begin() as session:
        now = read_garment(session, path.project_id, query.use)
        outcome.strike_out(session, find(session, path.outcome_id), now)
    with look() as session:
        return send(_outcomes(outcome.OutcomeStanding(session, read_garment(session, path.project_id, query.use))))


def read_why(path: ProjectPath, query: out.WhyQuery) -> Response:
    """From a complaint to the likely reasons in the garment's own record, most likely first."""
    show = presenter()
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        found = outcome.OutcomeStanding(session, now).why(query.complaint, query.number)
        listed = [
            out.ReasonOut(
                sure=one.sure,
                told=say(one.told, system()),
                explains=show.maybe(one.explains),
                next_time=one.next_time,
            )
            for one in found
        ]
        return send(out.WhyOut(headline=outcome.why_told(found), reasons=listed))


def reminder_ics(path: ProjectPath, query: out.ReminderQuery) -> Response:
    """A reminder for the calendar: to measure how the garment came out."""
    with look() as session:
        row = garment(session, path.project_id)
        begins = models.now().replace(hour=10, minute=0, second=0, microsecond=0) + timedelta(days=query.days)
        told = "Wash it as it is worn, and measure again: length, twist, seams, the marked distances."
        entry = Entry(row.id, "How it came out", row.name, told, begins, begins + timedelta(minutes=30))
        body = write_ics([entry], models.now(), name="How it came out", of="garment")
        return attachment(body, "text/calendar", file_name(row, "came-out.ics"))


def read_teaches() -> Response:
    """What all garments that were measured teach."""
    show = presenter()
    with look() as session:
        uses = [use for one in list_garments(session) for use in one.uses]
        return send(_teaches(show, outcome.what_it_teaches(session, uses)))


def _value(value: float, unit: OutcomeUnit, *, signed: bool = False) -> out.ValueOut:
    sign = "" if not signed else "−" if value < 0 else "+" if value > 0 else "±"
    size = abs(value) if signed else value
    if unit == "grade":
        text = f"{size:g}"
    else:
        # what is small is told to a tenth of a millimetre
        small = unit == "length" and size < SMALL_MM
        told = Quantity(round(size, 1) if small else size, "length" if unit == "length" else "percent")
        text = quantity_text(told, system(), fine=small)
    return out.ValueOut(value=value, text=f"{sign}{text}")


def _outcomes(found: outcome.OutcomeStanding) -> out.OutcomesOut:
    kept = [_outcome(row, one) for row, one in found.kept]
    now = found.now
    return out.OutcomesOut(
        headline=found.headline,
        measurable=[
            out.MeasurableOut(
                kind=one.facts.kind, name=one.facts.name, how=one.facts.how, unit=one.facts.unit, of=one.facts.of,
                number=one.number, what=one.name,
                predicted=None if one.predicted is None else _value(one.predicted.value, one.facts.unit),
            )
            for one in found.measurable
        ],
        kept=kept,
        complaints=[out.OptionOut(value=key, label=name) for key, name in COMPLAINTS.items()],
        pieces=[out.OptionOut(value=str(row.id), label=row.name) for row, _ in now.rows.cuts],
        seams=[out.OptionOut(value=str(row.id), label=row.name) for row in now.whole.rows.seams],
    )  # fmt: skip


def _outcome(row: models.OutcomeRow, one: Outcome) -> out.OutcomeOut:
    facts, predicted = BY_KIND[one.kind], one.predicted
    between = ""
    if predicted is not None and predicted.low is not None and predicted.high is not None:
        between = f"{_value(predicted.low, facts.unit).text} to {_value(predicted.high, facts.unit).text}"
    return out.OutcomeOut(
        id=row.id, kind=one.kind, name=facts.name, what=one.name, measured=_value(one.measured, facts.unit),
        predicted=None if predicted is None else _value(predicted.value, facts.unit), between=between,
        difference=None if one.difference is None else _value(one.difference, facts.unit, signed=True),
        foreseen=one.foreseen, washes=row.washes, note=row.note, at=row.at,
    )  # fmt: skip


def _teaches(show: Presenter, found: outcome.WhatItTeaches) -> out.TeachesOut:
    over, share = found.over
    count = len(found.outcomes)
    return out.TeachesOut(
        headline="Nothing was measured yet" if not count else f"{count} measured on finished garments",
        learned=[
            out.TaughtOut(
                kind=one.kind, name=BY_KIND[one.kind].name, unit=BY_KIND[one.kind].unit, count=one.count,
                foreseen=one.foreseen, mean=_value(one.mean, BY_KIND[one.kind].unit, signed=True),
                spread=None if one.spread is None else _value(one.spread, BY_KIND[one.kind].unit),
                told=f"{one.foreseen} of {one.count} came out as foreseen",
                points=[
                    out.TaughtPointOut(at=o.at, garment=name, what=o.name, foreseen=bool(o.foreseen),
                                 difference=_value(o.difference, BY_KIND[one.kind].unit, signed=True))
                    for name, o in found.outcomes if o.kind == one.kind and o.difference is not None
                ],
            )
            for one in found.learned
        ],
        hand=show.maybe(found.hand),
        laid=found.laid,
        bought=[
            out.BoughtOfOut(
                garment=one.garment, cloth=one.cloth, bought=show.length(one.bought.bought),
                needed=show.length(one.bought.needed), over=show.length(abs(one.bought.over)),
                short=one.bought.over < 0,
                cost="" if one.bought.cost is None else quantity_text(Quantity(one.bought.cost, "money"), system()),
            )
            for one in found.bought
        ],
        over_told="" if not found.bought else (
            f"{show.length(abs(over)).text} {'more' if over >= 0 else 'less'} than was needed in all, "
            f"{abs(share) * 100:.0f} %"
        ),
    )  # fmt: skip
