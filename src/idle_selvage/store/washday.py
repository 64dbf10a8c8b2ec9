"""The washing day: what waits to be treated, the loads planned, what is under way, and the times learned."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import cast

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from ..core.cloth.make import PILE
from ..core.washday.loads import PER_METRE, Batch, Load, LoadStep, Machine, group, learned_time
from ..core.washday.schedule import GRAIN, Done, Schedule, Waking, plan
from . import records
from .models.base import now
from .models.cloth import Cloth
from .models.load_task import LoadTask
from .models.project import Project
from .models.wash import Wash
from .models.wash_load import WashLoad


@dataclass(frozen=True)
class Waiting:
    """A cloth that is to be treated for a project: as a batch, or what is missing before it can be planned."""

    cloth: Cloth
    project: Project
    batch: Batch | None
    missing: str


def waiting(session: Session, to_buy: Callable[[Project], float | None]) -> list[Waiting]:
    """Every cloth of every open project that still has to be treated, once each.

    ``to_buy`` gives the length to be bought for a project, in mm; it is asked when none of the cloth is in hand.
    """
    out: list[Waiting] = []
    seen: set[int] = set()
    for project in records.projects(session):
        for row in [project.cloth, *(s.cloth for s in records.set_cloths(session, project.id))]:
            if row.id in seen or not records.needs_treatment(session, row):
                continue
            programme = records.advice(session, project, row).programme
            if programme.cycle == "none":
                continue
            seen.add(row.id)
            length = row.in_hand or (to_buy(project) if row.id == project.cloth_id else None)
            name = row.name or f"cloth of {project.name}"
            if not row.width_readings:
                out.append(Waiting(row, project, None, "Measure its width first."))
            elif not length:
                out.append(Waiting(row, project, None, "How long it is is not known: give the length in hand."))
            else:
                width = min(row.width_readings)
                dye = records.as_dye(session, row)
                napped = row.weave in PILE
                batch = Batch(str(row.id), name, programme, length, width, row.mass, dye, napped)
                out.append(Waiting(row, project, batch, ""))
    return out


def loads(session: Session) -> list[WashLoad]:
    """Loads that are planned or under way, in the order of their first step; those done are left out."""
    rows = session.scalars(select(WashLoad).order_by(WashLoad.id)).all()
    open_ = [row for row in rows if any(t.finished_at is None for t in row.steps)]
    return sorted(open_, key=lambda row: min(t.start_at for t in row.steps))


def task(session: Session, number: int) -> LoadTask:
    """A step by its number. Raises :class:`records.NotFound`."""
    row = session.get(LoadTask, number)
    if row is None:
        raise records.NotFound("There is no such step; the day may have been planned anew.")
    return row


def learned(session: Session) -> dict[str, tuple[float, int]]:
    """Times learned from steps that were timed, minutes (per metre where it depends on it), and how many there were."""
    rows = session.execute(
        select(LoadTask, WashLoad.metres)
        .join(WashLoad)
        .where(LoadTask.started_at.is_not(None), LoadTask.finished_at.is_not(None))
        .order_by(LoadTask.finished_at)
    ).all()
    past: dict[str, list[float]] = {}
    for row, metres in rows:
        if row.learn == "rest" or row.started_at is None or row.finished_at is None:
            continue
        minutes = (row.finished_at - row.started_at).total_seconds() / 60.0
        if minutes < 1:
            # ticked off afterwards, not timed
            continue
        past.setdefault(row.learn, []).append(minutes / max(0.1, metres) if row.learn in PER_METRE else minutes)
    return {key: (time, len(values)) for key, values in past.items() if (time := learned_time(values)) is not None}


def _as_step(row: LoadTask) -> LoadStep:
    return LoadStep(row.what, cast(Machine, row.machine), row.minutes, row.bound, row.learn)  # type: ignore[arg-type]


def replan(session: Session, to_buy: Callable[[Project], float | None], at: datetime, midnight: datetime) -> Schedule:
    """Plan everything that is not under way anew, from ``at`` on; ``midnight`` is the local day's beginning.

    Steps begun or done stay as they are. Raises CannotSchedule.
    """
    settings = records.settings(session)
    kept = [row for row in loads(session) if any(t.started_at for t in row.steps)]
    for row in loads(session):
        if row not in kept:
            session.delete(row)
    session.flush()
    busy = {str(c["id"]) for row in kept for c in row.cloths}
    found = waiting(session, to_buy)
    batches = [w.batch for w in found if w.batch is not None and w.batch.key not in busy]
    known = {key: time for key, (time, _) in learned(session).items()}
    fresh = group(batches, settings.washer_kg, known)
    going = [Load((), row.kilograms, row.why, row.too_heavy, tuple(_as_step(t) for t in row.steps)) for row in kept]

    def minute(when: datetime) -> int:
        return int((when - midnight).total_seconds() // 60)

    begun: dict[tuple[int, int], Done] = {}
    for i, row in enumerate(kept):
        for j, step in enumerate(row.steps):
            if step.started_at is None:
                continue
            expected = step.started_at + timedelta(minutes=step.minutes)
            # what runs over still has its machine: a little longer, as far as anybody can tell
            end = step.finished_at or max(expected, at + timedelta(minutes=GRAIN))
            begun[i, j] = Done(minute(step.started_at), minute(end))
    made = plan([*going, *fresh], minute(at), Waking(settings.rise, settings.sleep), begun)
    names = {w.batch.key: w.project.name for w in found if w.batch is not None}
    rows = [*kept, *(_new_load(session, load, names) for load in fresh)]
    for slot in made.slots:
        if (slot.load, slot.step) in begun:
            continue
        step = rows[slot.load].steps[slot.step]
        step.start_at = midnight + timedelta(minutes=slot.start)
        step.end_at = midnight + timedelta(minutes=slot.end)
    session.flush()
    return made


def _new_load(session: Session, load: Load, projects: Mapping[str, str]) -> WashLoad:
    row = WashLoad(
        name=load.name,
        why=load.why,
        kilograms=round(load.kilograms, 3),
        metres=sum(b.length for b in load.batches) / 1000.0,
        too_heavy=load.too_heavy,
        cloths=[{"id": int(b.key), "name": b.name, "project": projects[b.key]} for b in load.batches],
        steps=[
            LoadTask(
                position=i,
                what=s.what,
                machine=s.machine,
                minutes=s.minutes,
                bound=s.bound,
                learn=s.learn,
                start_at=now(),
                end_at=now(),
            )
            for i, s in enumerate(load.steps)
        ],
    )
    session.add(row)
    session.flush()
    return row


def ready(row: LoadTask) -> bool:
    """Whether everything before a step is done."""
    return all(t.finished_at is not None for t in row.load.steps if t.position < row.position)


def begin_step(row: LoadTask) -> None:
    """Start a step's clock."""
    row.started_at = now()


def take_back(session: Session, row: LoadTask) -> None:
    """A step that was begun or ended by mistake; the wash it stood for is struck out too."""
    if row.finished_at is not None:
        row.finished_at = None
        session.execute(delete(Wash).where(Wash.task_id == row.id))
    else:
        row.started_at = None


def end_step(session: Session, row: LoadTask) -> None:
    """A step is done; after the wash of a load, each of its cloths has a wash more in its record."""
    row.finished_at = now()
    if row.started_at is None:
        row.started_at = row.finished_at
    if row.machine in ("washer", "basin") or row.learn == "steam":
        for entry in row.load.cloths:
            cloth = session.get(Cloth, entry["id"])
            if cloth is None:
                continue
            session.add(Wash(cloth_id=cloth.id, how=row.what, task_id=row.id))
            records.log_cloth(session, cloth, "shrink", f"Pre-treated {cloth.name or 'the cloth'}: {row.what}.")
    session.flush()
