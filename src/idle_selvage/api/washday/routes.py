"""The washing day: loads over all projects, their times, and a calendar of them."""

from __future__ import annotations

from datetime import datetime

from flask import Response
from sqlalchemy.orm import Session

from ...core.washday.loads import MACHINES
from ...formats.ics import Entry, write_ics
from ...operations import washday
from ...store import models, wash_load
from ...store.errors import NotFound
from ..services import begin, look, send
from ..shared.files import attachment
from . import schemas as out
from .show import washday_out


def _day(session: Session, *, brief: bool = False) -> Response:
    return send(washday_out(washday.read_day(session, brief=brief)))


def _midnight(at: datetime) -> datetime:
    """The beginning of the day, here."""
    return at.astimezone().replace(hour=0, minute=0, second=0, microsecond=0)


def read_washday(query: out.DayQuery) -> Response:
    """What waits to be washed, and the plan."""
    with look() as session:
        return _day(session, brief=query.brief)


def change_house(body: out.HouseChange) -> Response:
    """Change what the washer takes, or when you are up."""
    with begin() as session:
        washday.change_house(session, body.washer_kg, body.rise, body.sleep)
        return _day(session)


def plan_washday(body: out.PlanIn) -> Response:
    """Plan everything that is not under way, or some of it, anew and from now on or later."""
    wished = washday.Wished(None if body.cloths is None else frozenset(body.cloths), body.start, body.taken)
    at = models.now()
    with look() as session:
        drawn = washday.draw_up(session, at, _midnight(at), wished)
    with begin() as session:
        washday.keep_day(session, drawn)
        return _day(session)


def begin_step(path: out.TaskPath) -> Response:
    """Begin a step; its clock runs from now."""
    with begin() as session:
        washday.begin_step(session, path.task_id)
        return _day(session)


def end_step(path: out.TaskPath) -> Response:
    """A step is done; how long it took is remembered."""
    with begin() as session:
        washday.end_step(session, path.task_id)
        return _day(session)


def take_step_back(path: out.TaskPath) -> Response:
    """Take back that a step was begun or ended."""
    with begin() as session:
        washday.take_step_back(session, path.task_id)
        return _day(session)


def washday_ics() -> Response:
    """The steps that are still to come, as a calendar."""
    with look() as session:
        entries = [
            Entry(
                t.id,
                f"{MACHINES[washday.machine_of(t)]}, {t.what}",
                row.name,
                f"{row.why}. For {', '.join(c.garment for c in row.cloths)}.",
                t.start_at,
                t.end_at,
            )
            for row in wash_load.loads(session)
            for t in row.steps
            if t.finished_at is None
        ]
        if not entries:
            raise NotFound("Nothing is planned, so there is no calendar to take away.")
        return attachment(write_ics(entries, models.now()), "text/calendar", "washing-day.ics")
