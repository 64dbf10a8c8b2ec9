"""The washing day as it is sent."""

from __future__ import annotations

from datetime import datetime, timedelta

from ...core.shrink.treatment import programme_text
from ...core.washday.loads import MACHINES, PER_METRE
from ...core.weights import load_unit, load_weight_text
from ...operations.standing import Standing
from ...operations.washday import Day, Waiting, late, machine_of, ready
from ...store import models
from ...store.wash_load import planned, weight
from ..shared.figures import Presenter, presenter
from . import schemas as out


def washday_out(day: Day) -> out.WashdayOut:
    """What waits, the plan, and what it rests on."""
    show = presenter()
    return out.WashdayOut(
        now=day.now,
        waiting=[_waiting(one) for one in day.waiting or ()],
        to_measure=[_to_measure(presenter(), now) for now in day.to_measure],
        loads=[_load(row, day.now) for row in day.loads],
        finish_at=day.finish_at,
        out_of_date=day.stale,
        washer_kg=day.settings.washer_kg,
        washer=load_weight_text(day.settings.washer_kg, show.system),
        washer_unit=load_unit(show.system),
        rise=_clock(day.settings.rise),
        sleep=_clock(day.settings.sleep),
        learned=[
            out.LearnedOut(what=f"{key} per metre" if key in PER_METRE else key, minutes=round(time, 1), times=n)
            for key, (time, n) in day.learned.items()
        ],
    )


def _to_measure(show: Presenter, now: Standing) -> out.ToMeasureOut:
    row, cloth = now.cloth.row, now.cloth
    state = row.state_id
    widths = row.widths_in(state)
    return out.ToMeasureOut(
        cloth_id=row.id,
        name=now.name,
        project=now.garment.name,
        state=state or 0,
        how=row.treatments[-1].how or cloth.states.states[-1].name,
        width=show.maybe(min(widths) if widths else None),
        length=show.maybe(row.length_in(state)),
        width_about=show.maybe(cloth.width_now.value if cloth.width_now is not None else None),
        length_about=show.maybe(cloth.length_now.value if cloth.length_now is not None else None),
    )


def _clock(minutes: int) -> str:
    return f"{minutes // 60}:{minutes % 60:02d}"


def _waiting(one: Waiting) -> out.WaitingOut:
    return out.WaitingOut(
        cloth_id=one.cloth.row.id,
        name=one.name,
        project=one.garment.name,
        programme=presenter().told(programme_text(one.batch.programme)) if one.batch else "",
        kilograms=round(one.batch.kilograms, 2) if one.batch else None,
        weight=presenter().figure(one.batch.weighed if one.batch else None),
        missing=one.missing,
    )


def _load(row: models.WashLoad, at: datetime) -> out.LoadOut:
    return out.LoadOut(
        id=row.id,
        name=row.name,
        why=presenter().told(row.why),
        kilograms=round(row.kilograms, 2),
        weight=presenter().figure(weight(row)),
        too_heavy=row.too_heavy,
        cloths=[f"{c.name}, {c.garment}" for c in row.cloths],
        tasks=[_task(task, at) for task in row.steps],
    )


def _task(row: models.LoadTask, at: datetime) -> out.LoadTaskOut:
    running = row.started_at + timedelta(minutes=row.minutes) if row.started_at is not None else row.end_at
    return out.LoadTaskOut(
        id=row.id,
        load_id=row.load_id,
        what=presenter().told(row.what),
        machine=row.machine,
        machine_label=MACHINES[machine_of(row)],
        minutes=row.minutes,
        time=presenter().surely(planned(row)),
        start_at=row.started_at or row.start_at,
        end_at=row.finished_at or running,
        started_at=row.started_at,
        finished_at=row.finished_at,
        late=late(row, at),
        rings=row.bound in ("ends", "whole"),
        ready=row.finished_at is None and ready(row),
    )
