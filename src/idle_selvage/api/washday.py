"""The washing day: loads over all projects, their times, and a calendar of them."""

from __future__ import annotations

import re
from datetime import datetime, timedelta

from flask import Response, make_response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.washday.loads import MACHINES, PER_METRE, Machine
from ..core.washday.schedule import CannotSchedule
from ..formats.ics import Entry, write_ics
from ..store import models, records, washday
from . import present
from . import schemas as out
from .context import Refused, begin, look, send
from .entries import NumberIn
from .show_cloth import programme_text

blueprint = APIBlueprint("washday", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})

_CLOCK = re.compile(r"^\s*(\d{1,2})\s*[:.h]?\s*(\d{2})?\s*$")


class DayQuery(out.In):
    brief: bool = Field(default=False, description="only the loads: what waits is left out, and whether it is planned")


class HouseChange(out.In):
    """What the washer takes, and when the person is up (as 7:00)."""

    washer_kg: NumberIn | None = None
    rise: str | None = Field(default=None, max_length=10)
    sleep: str | None = Field(default=None, max_length=10)


def _midnight(at: datetime) -> datetime:
    """The beginning of the day, here."""
    return at.astimezone().replace(hour=0, minute=0, second=0, microsecond=0)


def _minutes(text: str, path: str) -> int:
    found = _CLOCK.match(text)
    hours, minutes = (int(found[1]), int(found[2] or 0)) if found else (99, 0)
    if hours > 24 or minutes > 59 or hours * 60 + minutes > 24 * 60:
        raise Refused(f"“{text}” is no time of day; write it as 7:00 or 22:30.", path=path)
    return hours * 60 + minutes


def _clock(minutes: int) -> str:
    return f"{minutes // 60}:{minutes % 60:02d}"


def _to_buy(session: Session, row: models.Project) -> float | None:
    """What is to be bought for a project, mm."""
    bought = present.work_up(session, row)[0].purchase
    return bought.to_buy.value if bought is not None else None


def _washday(session: Session, *, brief: bool = False) -> out.WashdayOut:
    at = models.now()
    settings = records.settings(session)
    rows = washday.loads(session)
    planned = {c["id"] for row in rows for c in row.cloths}
    waiting = [] if brief else washday.waiting(session, lambda row: _to_buy(session, row))
    new = [w for w in waiting if w.batch is not None and w.cloth.id not in planned]
    # a cloth is washed long before it is pressed: it no longer waits, and its load still goes on
    gone = planned - {w.cloth.id for w in waiting}
    begun = {c["id"] for row in rows if any(t.started_at for t in row.steps) for c in row.cloths}
    stale = ""
    if rows and new:
        stale = f"{new[0].batch.name if new[0].batch else ''} is not in the plan yet."
    elif not brief and gone - begun:
        stale = "A cloth in the plan no longer needs treating."
    tasks = [t for row in rows for t in row.steps]
    late = any(_late(t, at) for t in tasks)
    if late and not stale:
        stale = "A step runs late."
    return out.WashdayOut(
        now=at,
        waiting=[
            out.WaitingOut(
                cloth_id=w.cloth.id,
                name=w.batch.name if w.batch else w.cloth.name or f"cloth of {w.project.name}",
                project=w.project.name,
                programme=programme_text(w.batch.programme) if w.batch else "",
                kilograms=round(w.batch.kilograms, 2) if w.batch else None,
                missing=w.missing,
            )
            for w in waiting
            if w.cloth.id not in planned
        ],
        loads=[_load(row, at) for row in rows],
        finish_at=max((t.end_at for t in tasks), default=None),
        out_of_date=stale,
        washer_kg=settings.washer_kg,
        rise=_clock(settings.rise),
        sleep=_clock(settings.sleep),
        learned=[
            out.LearnedOut(what=f"{key} per metre" if key in PER_METRE else key, minutes=round(time, 1), times=n)
            for key, (time, n) in washday.learned(session).items()
        ],
    )


def _late(task: models.LoadTask, at: datetime) -> bool:
    """Whether a step should have begun, or, once begun, have ended, more than five minutes ago."""
    grace = timedelta(minutes=5)
    if task.finished_at is not None:
        return False
    if task.started_at is None:
        return at > task.start_at + grace
    return at > task.started_at + timedelta(minutes=task.minutes) + grace


def _load(row: models.WashLoad, at: datetime) -> out.LoadOut:
    return out.LoadOut(
        id=row.id,
        name=row.name,
        why=row.why,
        kilograms=round(row.kilograms, 2),
        too_heavy=row.too_heavy,
        cloths=[f"{c['name']}, {c['project']}" for c in row.cloths],
        tasks=[
            out.LoadTaskOut(
                id=t.id,
                load_id=row.id,
                what=t.what,
                machine=t.machine,
                machine_label=MACHINES[_machine(t)],
                minutes=t.minutes,
                start_at=t.started_at or t.start_at,
                end_at=t.finished_at
                or (t.started_at + timedelta(minutes=t.minutes) if t.started_at is not None else t.end_at),
                started_at=t.started_at,
                finished_at=t.finished_at,
                late=_late(t, at),
                rings=t.bound in ("ends", "whole"),
                ready=t.finished_at is None and washday.ready(t),
            )
            for t in row.steps
        ],
    )


@blueprint.get("/washday", operation_id="readWashday", responses={200: out.WashdayOut})
def read_washday(query: DayQuery) -> Response:
    """What waits to be washed, and the plan."""
    with look() as session:
        return send(_washday(session, brief=query.brief))


@blueprint.patch("/washday", operation_id="changeHouse", responses={200: out.WashdayOut})
def change_house(body: HouseChange) -> Response:
    """Change what the washer takes, or when you are up."""
    with begin() as session:
        row = records.settings(session)
        if body.washer_kg is not None:
            if not 1 <= body.washer_kg <= 30:
                raise Refused("A washer at home takes from 1 to 30 kg; its door or its booklet says.", path="washer_kg")
            row.washer_kg = body.washer_kg
        rise = row.rise if body.rise is None else _minutes(body.rise, "rise")
        sleep = row.sleep if body.sleep is None else _minutes(body.sleep, "sleep")
        if sleep - rise < 180:
            path = "rise" if body.rise is not None else "sleep"
            raise Refused(
                "You must be up for at least three hours of the same day, rising before going to bed.", path=path
            )
        row.rise, row.sleep = rise, sleep
        session.flush()
        return send(_washday(session))


@blueprint.post("/washday/plan", operation_id="planWashday", responses={200: out.WashdayOut})
def plan_washday() -> Response:
    """Plan everything that is not under way, anew and from now on."""
    with begin() as session:
        at = models.now()
        try:
            made = washday.replan(session, lambda row: _to_buy(session, row), at, _midnight(at))
        except CannotSchedule as fault:
            raise Refused(str(fault), code="cannot_schedule") from None
        if not made.slots:
            raise Refused("Nothing waits to be treated, so there is nothing to plan.", code="not_ready")
        records.log(session, None, "shrink", f"Planned {len(washday.loads(session))} loads.")
        return send(_washday(session))


@blueprint.post("/washday/steps/<int:task_id>/begin", operation_id="beginStep", responses={200: out.WashdayOut})
def begin_step(path: out.TaskPath) -> Response:
    """Begin a step; its clock runs from now."""
    with begin() as session:
        row = washday.task(session, path.task_id)
        if row.finished_at is not None:
            raise Refused("That step is done already.", code="not_ready")
        if not washday.ready(row):
            raise Refused("What comes before this step is not done yet.", code="not_ready")
        if row.started_at is None:
            other = _busy(session, row)
            if other is not None:
                told = f"The {MACHINES[_machine(row)]} is taken by {other.load.name}; end that first."
                raise Refused(told, code="not_ready")
            washday.begin_step(row)
        session.flush()
        return send(_washday(session))


def _machine(row: models.LoadTask) -> Machine:
    return next(m for m in MACHINES if m == row.machine)


def _busy(session: Session, row: models.LoadTask) -> models.LoadTask | None:
    """What is on the same machine now."""
    if row.machine == "rest":
        return None
    for load in washday.loads(session):
        for task in load.steps:
            if task.machine == row.machine and task.started_at is not None and task.finished_at is None:
                return task
    return None


@blueprint.post("/washday/steps/<int:task_id>/end", operation_id="endStep", responses={200: out.WashdayOut})
def end_step(path: out.TaskPath) -> Response:
    """A step is done; how long it took is remembered."""
    with begin() as session:
        row = washday.task(session, path.task_id)
        if not washday.ready(row):
            raise Refused("What comes before this step is not done yet.", code="not_ready")
        if row.finished_at is None:
            washday.end_step(session, row)
        return send(_washday(session))


@blueprint.post("/washday/steps/<int:task_id>/back", operation_id="takeStepBack", responses={200: out.WashdayOut})
def take_step_back(path: out.TaskPath) -> Response:
    """Take back that a step was begun or ended."""
    with begin() as session:
        row = washday.task(session, path.task_id)
        if any(t.started_at is not None for t in row.load.steps if t.position > row.position):
            raise Refused("A later step of this load has begun; take that back first.", code="not_ready")
        washday.take_back(session, row)
        session.flush()
        return send(_washday(session))


_ICS_FILE = {
    "description": "the plan as iCalendar (RFC 5545)",
    "content": {"text/calendar": {"schema": {"type": "string"}}},
}


@blueprint.get("/washday/plan.ics", operation_id="washdayIcs", responses={200: _ICS_FILE})
def washday_ics() -> Response:
    """The steps that are still to come, as a calendar."""
    with look() as session:
        entries = [
            Entry(
                t.id,
                f"{MACHINES[_machine(t)]}, {t.what}",
                row.name,
                f"{row.why}. For {', '.join(c['project'] for c in row.cloths)}.",
                t.start_at,
                t.end_at,
            )
            for row in washday.loads(session)
            for t in row.steps
            if t.finished_at is None
        ]
        if not entries:
            raise records.NotFound("Nothing is planned, so there is no calendar to take away.")
        answer = make_response(write_ics(entries, models.now()))
        answer.headers["Content-Type"] = "text/calendar; charset=utf-8"
        answer.headers["Content-Disposition"] = 'attachment; filename="washing-day.ics"'
        return answer
