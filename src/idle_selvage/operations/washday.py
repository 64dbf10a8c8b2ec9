"""The washing day: what waits to be treated, the loads planned, what is under way, and the times learned."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from sqlalchemy.orm import Session

from ..core.shrink.treatment import WASH_OF_CYCLE
from ..core.washday.loads import MACHINES, WASHERS_KG, Batch, Load, Machine, group, learned_time
from ..core.washday.needs import napped
from ..core.washday.schedule import GRACE, GRAIN, LEAST_WAKING, CannotSchedule, Done, Slot, Waking, plan
from ..core.wording import sentence_of
from ..store import models, wash_load
from ..store import project as projects
from ..store.settings import settings
from .log import note, note_cloth
from .refused import Refused
from .standing import ClothStanding, Standing, standings


@dataclass(frozen=True)
class Waiting:
    """A cloth that is to be treated for a garment: as a batch, or what is missing before it can be planned."""

    cloth: ClothStanding
    garment: models.Project
    batch: Batch | None
    missing: str

    @property
    def name(self) -> str:
        return self.batch.name if self.batch else self.cloth.row.name or f"cloth of {self.garment.name}"


def waiting(session: Session) -> list[Waiting]:
    """Every cloth of every open garment that still has to be treated, once each."""
    out: dict[int, Waiting] = {}
    for garment in standings(session, projects.projects(session)):
        for now in garment.uses:
            if now.cloth.row.id not in out and now.cloth.needs_treatment:
                one = _waiting(now)
                if one is not None:
                    out[now.cloth.row.id] = one
    return list(out.values())


def _waiting(now: Standing) -> Waiting | None:
    """One cloth of a garment; None when nothing is done with it."""
    garment, cloth = now.garment, now.cloth
    programme = now.advice.programme
    if programme.cycle == "none":
        return None
    width, long = cloth.width_now, cloth.length_now
    if width is None:
        return Waiting(cloth, garment, None, "Measure its width first.")
    # what is still to be bought is treated as it is bought
    length = long.value if long is not None else now.bought.to_buy.value if now.bought is not None else None
    if not length:
        return Waiting(cloth, garment, None, "How long it is is not known: give the length in hand.")
    name = cloth.row.name or f"cloth of {garment.name}"
    batch = Batch(
        str(cloth.row.id),
        name,
        programme,
        length,
        width.value,
        cloth.row.mass,
        cloth.dye,
        napped(cloth.make, cloth.row.direction),
    )
    return Waiting(cloth, garment, batch, "")


@dataclass(frozen=True)
class Day:
    """The washing day. ``waiting``: what is not planned yet; None when it was not asked for. ``to_measure``: cloths
    that were treated and not measured since. ``stale``: why the plan no longer holds, as a sentence, or nothing."""

    now: datetime
    loads: tuple[models.WashLoad, ...]
    waiting: tuple[Waiting, ...] | None
    stale: str
    settings: models.Settings
    to_measure: tuple[Standing, ...]
    learned: dict[str, tuple[float, int]]

    @property
    def finish_at(self) -> datetime | None:
        return max((task.end_at for load in self.loads for task in load.steps), default=None)


def read_day(session: Session, *, brief: bool = False) -> Day:
    """What waits to be washed, and the plan; ``brief`` leaves out what waits."""
    at = models.now()
    loads = wash_load.loads(session)
    planned = {c.cloth_id for load in loads for c in load.cloths}
    found = [] if brief else waiting(session)
    stale = _stale(loads, None if brief else found, planned, at)
    left = None if brief else tuple(w for w in found if w.cloth.row.id not in planned)
    measure = () if brief else to_measure(session)
    return Day(at, tuple(loads), left, stale, settings(session), measure, learned(session))


def to_measure(session: Session) -> tuple[Standing, ...]:
    """Every cloth of the open garments whose width or length was not measured since it was treated, once each, by the
    first garment that uses it."""
    found: dict[int, Standing] = {}
    for garment in standings(session, projects.projects(session)):
        for now in garment.uses:
            states = now.cloth.states
            at = states.current
            if at and (states.measured("width", at) != at or states.measured("length", at) != at):
                found.setdefault(now.cloth.row.id, now)
    return tuple(found.values())


def _stale(loads: Sequence[models.WashLoad], found: Sequence[Waiting] | None, planned: set[int], at: datetime) -> str:
    if found is not None:
        new = [w for w in found if w.batch is not None and w.cloth.row.id not in planned]
        if loads and new:
            return f"{new[0].name} is not in the plan yet."
        # a cloth is washed long before it is pressed: it no longer waits, and its load still goes on
        gone = planned - {w.cloth.row.id for w in found}
        begun = {c.cloth_id for load in loads if any(t.started_at for t in load.steps) for c in load.cloths}
        if gone - begun:
            return "A cloth in the plan no longer needs treating."
    return "A step runs late." if any(late(t, at) for load in loads for t in load.steps) else ""


def late(task: models.LoadTask, at: datetime) -> bool:
    """Whether a step should have begun, or, once begun, have ended, longer ago than a moment's grace."""
    grace = timedelta(minutes=GRACE)
    if task.finished_at is not None:
        return False
    if task.started_at is None:
        return at > task.start_at + grace
    return at > task.started_at + timedelta(minutes=task.minutes) + grace


def learned(session: Session) -> dict[str, tuple[float, int]]:
    """Times learned from steps that were timed, minutes (per metre where it depends on it), and how many there were."""
    past = wash_load.timed(session)
    return {key: (time, len(values)) for key, values in past.items() if (time := learned_time(values)) is not None}


_CLOCK = re.compile(r"^\s*(\d{1,2})\s*[:.h]?\s*(\d{2})?\s*(?:([ap])\.?\s*m\.?)?\s*$", re.IGNORECASE)


def _minutes(text: str, path: str) -> int:
    found = _CLOCK.match(text)
    hours, minutes = (int(found[1]), int(found[2] or 0)) if found else (99, 0)
    if found and found[3]:
        # twelve is the first hour of both halves of a day
        hours = (hours % 12 + (12 if found[3].lower() == "p" else 0)) if 1 <= hours <= 12 else 99
    if hours > 24 or minutes > 59 or hours * 60 + minutes > 24 * 60:
        raise Refused(f"“{text}” is no time of day; write it as 7:00, 22:30 or 10:30 pm.", path=path)
    return hours * 60 + minutes


def change_house(session: Session, washer_kg: float | None, rise: str | None, sleep: str | None) -> None:
    """Change what the washer takes, kg, or when the person is up (as 7:00). Raises :class:`Refused`."""
    row = settings(session)
    if washer_kg is not None:
        least, most = WASHERS_KG
        if not least <= washer_kg <= most:
            told = f"A washer at home takes from {least:g} to {most:g} kg; its door or its booklet says."
            raise Refused(told, path="washer_kg")
        row.washer_kg = washer_kg
    up = row.rise if rise is None else _minutes(rise, "rise")
    down = row.sleep if sleep is None else _minutes(sleep, "sleep")
    if down - up < LEAST_WAKING:
        told = "You must be up for at least three hours of the same day, rising before going to bed."
        raise Refused(told, path="rise" if rise is not None else "sleep")
    row.rise, row.sleep = up, down
    session.flush()


@dataclass(frozen=True)
class Wished:
    """What is wished of a plan: which cloths (None: all that wait), not before when, and until when a machine is not
    free, each as a time of day such as 14:30, today."""

    cloths: frozenset[int] | None = None
    start: str = ""
    taken: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class DrawnUp:
    """A plan that was reckoned and is not kept yet. ``found``: the loads and their begun steps it was reckoned from,
    ``kept``: those that stay; a slot's load counts through them and then through ``fresh``."""

    midnight: datetime
    found: tuple[object, ...]
    kept: tuple[int, ...]
    fresh: tuple[Load, ...]
    garments: Mapping[str, str]
    slots: tuple[Slot, ...]
    begun: frozenset[tuple[int, int]]


def plan_day(session: Session, at: datetime, midnight: datetime, wished: Wished | None = None) -> None:
    """Plan the day and keep the plan at once."""
    keep_day(session, draw_up(session, at, midnight, wished))


def draw_up(session: Session, at: datetime, midnight: datetime, wished: Wished | None = None) -> DrawnUp:
    """Plan everything that is not under way anew, from ``at`` on; ``midnight`` is the local day's beginning. It takes
    seconds and only reads, so that nobody else waits to write meanwhile.

    Steps begun or done stay as they are. Raises :class:`Refused`.
    """
    wished = wished or Wished()
    if not MACHINES.keys() >= wished.taken.keys():
        raise Refused(f"It must be one of: {', '.join(MACHINES)}.", path="taken")
    taken = {machine: _minutes(until, f"taken.{machine}") for machine, until in wished.taken.items() if until.strip()}
    begins = midnight + timedelta(minutes=_minutes(wished.start, "start")) if wished.start.strip() else at
    house = settings(session)
    there = wash_load.loads(session)
    kept = [row for row in there if any(t.started_at for t in row.steps)]
    busy = {str(c.cloth_id) for row in kept for c in row.cloths}
    found = {w.batch.key: (w, w.batch) for w in waiting(session) if w.batch is not None}
    known = {key: time for key, (time, _) in learned(session).items()}
    if wished.cloths is not None:
        found = {key: one for key, one in found.items() if int(key) in wished.cloths}
    fresh = group([batch for key, (_, batch) in found.items() if key not in busy], house.washer_kg, known)
    going = [
        Load((), row.kilograms, row.why, row.too_heavy, tuple(wash_load.as_step(t) for t in row.steps)) for row in kept
    ]

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
    try:
        made = plan([*going, *fresh], minute(max(at, begins)), Waking(house.rise, house.sleep), begun, taken)
    except CannotSchedule as fault:
        raise Refused(sentence_of(fault), code="cannot_schedule") from None
    if not made.slots:
        raise Refused("Nothing waits to be treated, so there is nothing to plan.", code="not_ready")
    names = {key: one.garment.name for key, (one, _) in found.items()}
    ids = tuple(row.id for row in kept)
    return DrawnUp(midnight, _as_found(there), ids, tuple(fresh), names, tuple(made.slots), frozenset(begun))


def _as_found(rows: Sequence[models.WashLoad]) -> tuple[object, ...]:
    """What a plan rests on: which loads there are, and which of their steps were begun and ended."""
    return tuple((row.id, *((t.id, t.started_at, t.finished_at) for t in row.steps)) for row in rows)


def keep_day(session: Session, drawn: DrawnUp) -> None:
    """Keep a plan in place of what was planned and not begun. Raises :class:`Refused` when the washing day was changed
    since it was drawn up."""
    there = wash_load.loads(session)
    if _as_found(there) != drawn.found:
        told = "The washing day was changed while this was planned; nothing was overwritten. Plan it again."
        raise Refused(told, code="changed_since")
    for row in there:
        if row.id not in drawn.kept:
            session.delete(row)
    session.flush()
    of = {row.id: row for row in there}
    rows = [*(of[number] for number in drawn.kept), *(_new_load(session, one, drawn.garments) for one in drawn.fresh)]
    for slot in drawn.slots:
        if (slot.load, slot.step) in drawn.begun:
            continue
        step = rows[slot.load].steps[slot.step]
        step.start_at = drawn.midnight + timedelta(minutes=slot.start)
        step.end_at = drawn.midnight + timedelta(minutes=slot.end)
    session.flush()
    note(session, None, "shrink", "day-planned", count=len(rows))


def _new_load(session: Session, load: Load, garments: Mapping[str, str]) -> models.WashLoad:
    row = models.WashLoad(
        name=load.name,
        why=load.why,
        kilograms=round(load.kilograms, 3),
        metres=sum(b.length for b in load.batches) / 1000.0,
        too_heavy=load.too_heavy,
        cloths=[
            models.LoadCloth(
                cloth_id=int(b.key),
                position=k,
                name=b.name,
                garment=garments[b.key],
                length=b.length,
                width=b.width,
                mass=b.mass,
            )
            for k, b in enumerate(load.batches)
        ],
        steps=[
            models.LoadTask(
                position=i,
                what=s.what,
                machine=s.machine,
                minutes=s.minutes,
                bound=s.bound,
                learn=s.learn,
                each=s.each,
                times=s.times,
                own=s.own,
                start_at=models.now(),
                end_at=models.now(),
            )
            for i, s in enumerate(load.steps)
        ],
    )
    session.add(row)
    session.flush()
    return row


def machine_of(row: models.LoadTask) -> Machine:
    """The machine a step needs."""
    return next(m for m in MACHINES if m == row.machine)


def ready(row: models.LoadTask) -> bool:
    """Whether everything before a step is done."""
    return all(t.finished_at is not None for t in row.load.steps if t.position < row.position)


def begin_step(session: Session, number: int) -> None:
    """Begin a step; its clock runs from now. Raises NotFound and :class:`Refused`."""
    row = wash_load.task(session, number)
    if row.finished_at is not None:
        raise Refused("That step is done already.", code="not_ready")
    if not ready(row):
        raise Refused("What comes before this step is not done yet.", code="not_ready")
    if row.started_at is None:
        other = _busy(session, row)
        if other is not None:
            told = f"The {MACHINES[machine_of(row)]} is taken by {other.load.name}; end that first."
            raise Refused(told, code="not_ready")
        row.started_at = models.now()
    session.flush()


def _busy(session: Session, row: models.LoadTask) -> models.LoadTask | None:
    """What is on the same machine now."""
    if row.machine == "rest":
        return None
    tasks = [task for load in wash_load.loads(session) for task in load.steps]
    return next(
        (t for t in tasks if t.machine == row.machine and t.started_at is not None and t.finished_at is None), None
    )


def end_step(session: Session, number: int) -> None:
    """A step is done; how long it took is remembered. After the wash of a load, each of its cloths has a wash more in
    its record. Raises NotFound and :class:`Refused`."""
    row = wash_load.task(session, number)
    if not ready(row):
        raise Refused("What comes before this step is not done yet.", code="not_ready")
    if row.finished_at is not None:
        return
    row.finished_at = models.now()
    row.started_at = row.started_at or row.finished_at
    if row.machine in ("washer", "basin") or row.learn == "steam":
        for entry in row.load.cloths:
            cloth = session.get(models.Cloth, entry.cloth_id)
            if cloth is not None:
                session.add(models.Wash(cloth_id=cloth.id, how=row.what, wash=WASH_OF_CYCLE[row.learn], task_id=row.id))
                session.flush()
                session.refresh(cloth, ["washes"])
                note_cloth(session, cloth, "shrink", "treated", name=cloth.name or "the cloth", how=row.what)
    session.flush()


def take_step_back(session: Session, number: int) -> None:
    """Take back that a step was begun or ended; the wash it stood for is struck out too. Raises NotFound and
    :class:`Refused`."""
    row = wash_load.task(session, number)
    if any(t.started_at is not None for t in row.load.steps if t.position > row.position):
        raise Refused("A later step of this load has begun; take that back first.", code="not_ready")
    if row.finished_at is not None:
        row.finished_at = None
        for number in wash_load.strike_washes(session, row.id):
            cloth = session.get_one(models.Cloth, number)
            session.refresh(cloth, ["washes"])
            note_cloth(session, cloth, "shrink", "treated-back", name=cloth.name or "the cloth")
    else:
        row.started_at = None
    session.flush()
