"""Cloths grouped into loads, and each load's steps with their times.

Mass is length × width × g/m². A drum is filled to half at most, so that long lengths have room to move; napped
cloth and anything that bleeds goes alone. Common practice, no source.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..cloth.dye import Dye, all_share, alone
from ..shrink.treatment import Programme

Bound = Literal["whole", "ends", "start", "none"]
Machine = Literal["washer", "basin", "dryer", "line", "flat", "board", "rest"]

#: What a load's steps are called, and the machine each needs.
MACHINES: dict[Machine, str] = {
    "washer": "washer",
    "basin": "tub",
    "dryer": "dryer",
    "line": "line",
    "flat": "flat",
    "board": "ironing board",
    "rest": "rest",
}
#: Minutes to begin with, until one's own times replace them. Common practice, from memory.
MINUTES: dict[str, int] = {
    "soak": 30,
    "hand": 30,
    "gentle": 45,
    "normal": 75,
    "hot": 90,
    "tumble": 40,
    "tumble-short": 10,
    "press-metre": 10,
    "rest": 30,
}
#: Line and flat drying by weight of cloth, (up to g/m², line minutes, flat minutes). Common practice, from memory.
DRYING: tuple[tuple[float, int, int], ...] = ((150.0, 240, 720), (300.0, 480, 960), (math.inf, 720, 1440))
#: A cloth whose weight is not known is reckoned as this. From memory.
USUAL_MASS = 200.0
#: A drum is filled to this share of what it takes at most. Common practice, no source.
MOST_FILLED = 0.5
#: What a washer at home takes, kg, from the smallest to the largest. From memory.
WASHERS_KG = (1.0, 30.0)
#: So many of the last times are learned from.
LAST_TIMES = 5


@dataclass(frozen=True)
class Batch:
    """One length of cloth to be treated. Lengths in mm, mass in g/m² (None when not known)."""

    key: str
    name: str
    programme: Programme
    length: float
    width: float
    mass: float | None = None
    dye: Dye = field(default_factory=Dye)
    napped: bool = False

    @property
    def kilograms(self) -> float:
        """Dry weight of the length."""
        return self.length / 1000.0 * self.width / 1000.0 * (self.mass or USUAL_MASS) / 1000.0


@dataclass(frozen=True)
class LoadStep:
    """One step of a load: what, on which machine, how long, and how the person is bound to it.

    ``bound`` is ``whole`` (pressing), ``ends`` (a washer is filled and emptied by someone awake), ``start``
    (a line is only hung) or ``none``. ``learn`` names the time that replaces the default.
    """

    what: str
    machine: Machine
    minutes: int
    bound: Bound
    learn: str


@dataclass(frozen=True)
class Load:
    """Cloths that share water, why they are together or alone, and the steps they go through."""

    batches: tuple[Batch, ...]
    kilograms: float
    why: str
    too_heavy: bool
    steps: tuple[LoadStep, ...]

    @property
    def name(self) -> str:
        return ", ".join(batch.name for batch in self.batches)


def group(batches: Sequence[Batch], machine_kg: float, learned: Mapping[str, float] | None = None) -> tuple[Load, ...]:
    """The loads, biggest first. ``machine_kg`` is what the washer takes at most; half of it is used."""
    room = machine_kg * MOST_FILLED
    bins: list[list[Batch]] = []
    for batch in sorted(batches, key=lambda b: (-b.kilograms, b.key)):
        single = bool(_lonely(batch))
        for held in bins:
            first = held[0]
            if (
                not single
                and not _lonely(first)
                and first.programme == batch.programme
                and all_share([*(b.dye for b in held), batch.dye])
                and sum(b.kilograms for b in held) + batch.kilograms <= room
            ):
                held.append(batch)
                break
        else:
            bins.append([batch])
    return tuple(_load(held, room, learned or {}) for held in bins)


def _lonely(batch: Batch) -> str:
    why = alone(batch.dye)
    if why:
        return why
    return "its pile marks when it is crowded" if batch.napped else ""


def _load(held: list[Batch], room: float, learned: Mapping[str, float]) -> Load:
    weight = sum(b.kilograms for b in held)
    first = held[0]
    why = _lonely(first)
    if why:
        told = f"alone: {why}"
    elif len(held) == 1:
        told = "nothing else shares its temperature, cycle, drying and colour"
    else:
        told = f"same temperature ({first.programme.temperature} °C), cycle and drying, colours that may share water"
    machine = first.programme.cycle not in ("hand", "soak", "steam", "none")
    return Load(tuple(held), weight, told, machine and weight > room + 1e-9, load_steps(held, learned))


def load_steps(held: Sequence[Batch], learned: Mapping[str, float]) -> tuple[LoadStep, ...]:
    """The steps of one load, in order, with the learned time in place of the default where there is one."""
    plan = held[0].programme
    metres = sum(b.length for b in held) / 1000.0
    heaviest = max((b.mass or USUAL_MASS) for b in held)

    def step(what: str, machine: Machine, usual: float, bound: Bound, learn: str, times: float = 1.0) -> LoadStep:
        minutes = learned.get(learn, usual) * times
        return LoadStep(what, machine, max(5, math.ceil(minutes / 5) * 5), bound, learn)

    rest = step("rest flat", "rest", MINUTES["rest"], "none", "rest")
    if plan.cycle == "steam":
        return (step("steam all over", "board", MINUTES["press-metre"], "whole", "steam", metres), rest)
    if not plan.wet:
        return ()
    by_hand = plan.cycle in ("hand", "soak")
    what = {"hand": "wash by hand", "soak": "soak"}.get(plan.cycle, f"wash at {plan.temperature} °C")
    steps = [step(what, "basin" if by_hand else "washer", MINUTES[plan.cycle], "ends", plan.cycle)]
    line, flat = next((a, b) for limit, a, b in DRYING if heaviest <= limit)
    if plan.dry == "tumble-short":
        steps.append(step("tumble 10 min", "dryer", MINUTES["tumble-short"], "ends", "tumble-short"))
        steps.append(step("dry flat", "flat", flat, "start", "flat"))
    elif plan.dry.startswith("tumble"):
        steps.append(step("tumble", "dryer", MINUTES["tumble"], "ends", "tumble"))
    elif plan.dry == "flat":
        steps.append(step("dry flat", "flat", flat, "start", "flat"))
    else:
        steps.append(step("hang to dry", "line", line, "start", "line"))
    if plan.press:
        steps.append(step("press", "board", MINUTES["press-metre"], "whole", "press", metres))
    return (*steps, rest)


#: What is learned per metre of cloth rather than per load.
PER_METRE = ("press", "steam")


def learned_time(past: Sequence[float]) -> float | None:
    """The time to plan with from past ones (minutes, the newest last): the median of the last five."""
    last = sorted(past[-LAST_TIMES:])
    if not last:
        return None
    middle = len(last) // 2
    return last[middle] if len(last) % 2 else (last[middle - 1] + last[middle]) / 2
