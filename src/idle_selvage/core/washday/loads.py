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
from ..shrink.programme import Programme
from ..working import Figure, Inputs, Quantity, Source, Step, numbered, of

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
#: Times are planned in steps of so many minutes.
STEP_MIN = 5
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
    def weighed(self) -> Figure:
        """Dry weight of the length, grams."""
        return weighed(self.length, self.width, self.mass)

    @property
    def kilograms(self) -> float:
        """Dry weight of the length."""
        return self.weighed.value / 1000.0


WEIGHT = Source("your own log", "the cloth’s weight as you gave it")
WEIGHT_GUESSED = Source("from memory", "a cloth whose weight is not known", f"reckoned as {USUAL_MASS:g} g/m²")


def weighed(long: float, wide: float, mass: float | None) -> Figure:
    """Dry weight in grams of a length, mm, of cloth of ``mass`` g/m² (None: not given, and reckoned as usual cloth)."""
    each = mass or USUAL_MASS
    value = long / 1000.0 * wide / 1000.0 * each
    put = (
        ("length", Quantity(long, "purchase")),
        ("width", Quantity(wide, "purchase")),
        ("weight", Quantity(each, "weight")),
    )
    step = Step("dry weight", "length × width × weight", put, Quantity(value, "mass"))
    note = "" if mass else f"its weight was not given: reckoned as {USUAL_MASS:g} g/m²"
    return Figure(value, "mass", steps=(step,), sources=(WEIGHT if mass else WEIGHT_GUESSED,), note=note)


def weight_of(each: Sequence[Figure]) -> Figure:
    """What several lengths weigh together, grams."""
    if len(each) == 1:
        return each[0]
    put = numbered("cloth", (one.quantity for one in each))
    total = math.fsum(one.value for one in each)
    step = Step("dry weight", of("sum", put), put, Quantity(total, "mass"))
    steps = tuple(step_ for one in each for step_ in one.steps)
    notes = dict.fromkeys(one.note for one in each if one.note)
    sources = tuple(dict.fromkeys(source for one in each for source in one.sources))
    return Figure(total, "mass", steps=(*steps, step), sources=sources, note="; ".join(notes))


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
    #: the time of one, how many times that, and whether it was learned
    each: float = 0.0
    times: float = 1.0
    own: bool = False


TIMES = Source("from memory", "usual times at home", "your own replace them as they are timed")
OWN_TIMES = Source("your own log", "the median of your last times")


def minutes_of(each: float, times: float, per_metre: bool, own: bool) -> Figure:
    """How long a step takes, minutes: the time of one (or of a metre) so many times, up to the next five."""
    value = max(STEP_MIN, math.ceil(each * times / STEP_MIN) * STEP_MIN)
    if per_metre:
        put: Inputs = (("time of a metre", Quantity(each, "pace")), ("cloth", Quantity(times * 1000.0, "purchase")))
        formula = "largest of (time of a metre × cloth rounded up to step, step)"
    else:
        put, formula = (("time", Quantity(each, "minutes")),), "largest of (time rounded up to step, step)"
    put = (*put, ("step", Quantity(float(STEP_MIN), "minutes")))
    step = Step("planned", formula, put, Quantity(value, "minutes"))
    return Figure(value, "minutes", steps=(step,), sources=(OWN_TIMES if own else TIMES,))


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
        # what is steamed is no load: there is no water to share
        single = bool(_lonely(batch)) or not batch.programme.wet
        for held in bins:
            first = held[0]
            if (
                not single
                and not _lonely(first)
                and first.programme.wet
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
    weight = weight_of([b.weighed for b in held]).value / 1000.0
    first = held[0]
    why = _lonely(first)
    if first.programme.cycle == "steam":
        told = "steamed on the board, length by length: it meets no water"
    elif why:
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
        each = learned.get(learn, usual)
        own = learn in learned
        planned = minutes_of(each, times, learn in PER_METRE, own)
        return LoadStep(what, machine, int(planned.value), bound, learn, each, times, own)

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
