"""When each step of each load is done: one washer, one dryer, one line, one board, and a person who sleeps.

A job shop with waits, solved by OR-Tools' CP-SAT: the least time at which everything is done; then, no later than
that, the least sum of ends, so that single cloths are ready early too. Times are whole minutes from midnight of the
first day.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from .loads import STEP_MIN, Load, LoadStep

#: Times are planned in steps of so many minutes.
GRAIN = STEP_MIN
DAY = 24 * 60
MOST_DAYS = 21
#: Wet cloth waits no longer than this for its drying, minutes: it creases, and mildews. Common practice, no source.
MOST_WET_WAIT = 60
#: How much work the solver may do for the least finish, and then to have single loads ready early, in its own
#: deterministic units; together about a second, and the same on every machine.
WORK = 0.9
TIDY_WORK = 0.4
#: A waking day shorter than this has no room for a wash and its drying, minutes.
LEAST_WAKING = 180
#: A step that should have begun or ended so long ago is late, minutes.
GRACE = 5
MOST_TASKS = 80
LEAST_HOUR = 60
#: More grains than all cloths of one plan can lie wet together.
MOST_WAITS = MOST_TASKS * MOST_WET_WAIT // GRAIN + 1
DRYING_PLACES = ("dryer", "line", "flat")


class CannotSchedule(ValueError):
    """No plan is possible; the message is a sentence."""


@dataclass(frozen=True)
class Waking:
    """When the person is up, in minutes from midnight; ``rise`` before ``sleep``."""

    rise: int = 7 * 60
    sleep: int = 22 * 60


@dataclass(frozen=True)
class Done:
    """A step that has begun or ended: its start and its end (expected, when it is still going)."""

    start: int
    end: int


@dataclass(frozen=True)
class Slot:
    """One step with its place in time."""

    load: int
    step: int
    start: int
    end: int


@dataclass(frozen=True)
class Schedule:
    """Every step's slot, by load then step; when all is done; whether nothing shorter exists."""

    slots: tuple[Slot, ...]
    finish: int
    least: bool


def plan(
    loads: Sequence[Load],
    now: int,
    waking: Waking | None = None,
    begun: Mapping[tuple[int, int], Done] | None = None,
    taken: Mapping[str, int] | None = None,
) -> Schedule:
    """The earliest finish. ``now`` in minutes; ``begun`` are steps, by (load, step), that cannot be moved any more;
    ``taken``: until when a machine is not free, in minutes.

    Raises :class:`CannotSchedule` when a step is longer than a waking day, or there are too many.
    """
    waking = waking or Waking()
    begun = begun or {}
    tasks = [(i, j, step) for i, load in enumerate(loads) for j, step in enumerate(load.steps)]
    if len(tasks) > MOST_TASKS:
        raise CannotSchedule(f"{len(tasks)} steps are more than one plan takes; finish some loads first.")
    if waking.sleep - waking.rise < LEAST_HOUR:
        raise CannotSchedule("The waking day must last at least an hour; look at when you rise and go to bed.")
    for i, j, step in tasks:
        if (
            (i, j) not in begun
            and step.bound in ("whole", "ends")
            and _units(step) * GRAIN > waking.sleep - waking.rise
        ):
            raise CannotSchedule(
                f"“{step.what}” of {loads[i].name} takes {step.minutes / 60:.1f} h, longer than you are up. "
                "Treat the cloth in two lengths."
            )
    if not tasks:
        return Schedule((), now, True)
    return _solve(tasks, now, waking, begun, taken or {})


def _units(step: LoadStep) -> int:
    return max(1, -(-step.minutes // GRAIN))


def windows(step: LoadStep, now: int, waking: Waking) -> list[tuple[int, int]]:
    """Between which times, inclusive, in grains, a step may begin."""
    first = -(-now // GRAIN)
    if step.bound == "none":
        return [(first, MOST_DAYS * DAY // GRAIN)]
    out = []
    for day in range(MOST_DAYS):
        rise = -(-(day * DAY + waking.rise) // GRAIN)
        sleep = (day * DAY + waking.sleep) // GRAIN
        last = sleep - (_units(step) if step.bound in ("whole", "ends") else 0)
        low = max(rise, first)
        if low <= last:
            out.append((low, last))
    return out


def _solve(
    tasks: list[tuple[int, int, LoadStep]],
    now: int,
    waking: Waking,
    begun: Mapping[tuple[int, int], Done],
    taken: Mapping[str, int],
) -> Schedule:
    # more than half a second to import, and only this needs it
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    horizon = (MOST_DAYS + 2) * DAY // GRAIN
    starts: dict[tuple[int, int], Any] = {}
    ends: dict[tuple[int, int], Any] = {}
    by_machine: dict[str, list[Any]] = {}
    for i, j, step in tasks:
        done = begun.get((i, j))
        if done is not None:
            start: Any = done.start // GRAIN
            size = max(1, -(-(done.end - done.start) // GRAIN))
        else:
            size = _units(step)
            # what is taken is free again at the next grain
            free = max(now, taken.get(step.machine, now))
            start = model.new_int_var_from_domain(
                cp_model.Domain.from_intervals([list(w) for w in windows(step, free, waking)]), f"s{i}.{j}"
            )
        starts[i, j], ends[i, j] = start, start + size
        # what is over takes no machine any more, whatever its times say
        if step.machine != "rest" and (done is None or done.end > now):
            by_machine.setdefault(step.machine, []).append(model.new_fixed_size_interval_var(start, size, f"i{i}.{j}"))
        if j > 0 and done is None:
            model.add(start >= ends[i, j - 1])
            before = (i, j - 1)
            if step.machine in DRYING_PLACES and before not in begun:
                model.add(start <= ends[before] + MOST_WET_WAIT // GRAIN)
    for intervals in by_machine.values():
        model.add_no_overlap(intervals)
    finish = model.new_int_var(0, horizon, "finish")
    last: dict[int, int] = {}
    for i, j, _ in tasks:
        last[i] = max(last.get(i, 0), j)
    for i, j in last.items():
        model.add(finish >= ends[i, j])
    # two searches, not one with weights: enough cloths that could be ready earlier would outvote any weight
    model.minimize(finish)
    solver = _solver(WORK)
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        raise CannotSchedule("These loads do not fit into three weeks. Finish some, or dry some another way.")
    least = status == cp_model.OPTIMAL
    slots = _slots(solver, tasks, starts, ends)
    model.add(finish <= int(solver.value(finish)))
    for start in starts.values():
        if not isinstance(start, int):
            model.add_hint(start, solver.value(start))
    # of equal ends, the one that lets least wet cloth lie: a wash begins so late that its drying place is free
    waits = [
        starts[i, j] - ends[i, j - 1]
        for i, j, step in tasks
        if j > 0 and step.machine in DRYING_PLACES and (i, j) not in begun and (i, j - 1) not in begun
    ]
    ready = cp_model.LinearExpr.sum([ends[i, j] for i, j in last.items()])
    model.minimize(ready * MOST_WAITS + cp_model.LinearExpr.sum(waits) if waits else ready)
    solver = _solver(TIDY_WORK)
    if solver.solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        slots = _slots(solver, tasks, starts, ends)
    return Schedule(slots, max(slot.end for slot in slots), least)


def _solver(work: float) -> Any:
    from ortools.sat.python import cp_model

    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_deterministic_time = work
    return solver


def _slots(
    solver: Any, tasks: Sequence[tuple[int, int, LoadStep]], starts: Mapping[Any, Any], ends: Mapping[Any, Any]
) -> tuple[Slot, ...]:
    return tuple(
        Slot(i, j, int(solver.value(starts[i, j])) * GRAIN, int(solver.value(ends[i, j])) * GRAIN) for i, j, _ in tasks
    )
