"""The washing day, against brute force and by properties."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations, permutations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.cloth.dye import Dye
from idle_selvage.core.shrink.treatment import TreatmentFacts, programme
from idle_selvage.core.washday.loads import Batch, Load, LoadStep, group
from idle_selvage.core.washday.schedule import (
    DAY,
    DRYING_PLACES,
    MOST_WET_WAIT,
    CannotSchedule,
    Done,
    Schedule,
    Slot,
    Waking,
    plan,
    windows,
)

from .cases import batch

HOUR = 60


def check(loads: Sequence[Load], made: Schedule, now: int, waking: Waking, begun: dict[tuple[int, int], Done]) -> None:
    """Every rule, from the plan alone."""
    slots = {(s.load, s.step): s for s in made.slots}
    assert set(slots) == {(i, j) for i, load in enumerate(loads) for j in range(len(load.steps))}
    for (i, j), slot in slots.items():
        step = loads[i].steps[j]
        if (i, j) in begun:
            continue
        assert slot.start >= now and slot.end - slot.start >= step.minutes
        day = slot.start // DAY * DAY
        if step.bound != "none":
            assert day + waking.rise <= slot.start <= day + waking.sleep, "nobody is woken"
        if step.bound in ("whole", "ends"):
            assert slot.end <= day + waking.sleep
        if j:
            before = slots[i, j - 1]
            assert slot.start >= before.end, "never before what it waits for"
            if step.machine in DRYING_PLACES and (i, j - 1) not in begun:
                assert slot.start - before.end <= MOST_WET_WAIT, "wet cloth is not left lying"
    for a, b in combinations(slots.values(), 2):
        machines = {loads[s.load].steps[s.step].machine for s in (a, b)}
        if len(machines) == 1 and machines != {"rest"}:
            assert a.end <= b.start or b.end <= a.start, "a machine is never used twice at once"
    assert made.finish == max(s.end for s in slots.values())


def step(machine: str, hours: int, bound: str) -> LoadStep:
    return LoadStep(machine, machine, hours * HOUR, bound, machine)  # type: ignore[arg-type]


first = st.sampled_from([step("washer", 1, "ends"), step("washer", 2, "ends"), step("basin", 1, "ends")])


second = st.sampled_from([step("dryer", 1, "ends"), step("line", 3, "start"), step("board", 2, "whole")])


def load(*steps: LoadStep) -> Load:
    return Load((), 1.0, "", False, steps)


small = st.lists(st.tuples(first, second), min_size=1, max_size=3).map(lambda pairs: [load(*p) for p in pairs])


def least_makespan(loads: Sequence[Load], now: int, waking: Waking) -> int:
    """Brute force: every hour for every step, one load after another. Rests on whole-hour times only."""
    best = [10**9]
    tasks = [(i, j, s) for i, one in enumerate(loads) for j, s in enumerate(one.steps)]

    def place(k: int, taken: list[Slot]) -> None:
        if k == len(tasks):
            best[0] = min(best[0], max(s.end for s in taken))
            return
        i, j, one = tasks[k]
        before = next((s for s in taken if (s.load, s.step) == (i, j - 1)), None)
        low = before.end if before else now
        high = before.end + MOST_WET_WAIT if before and one.machine in DRYING_PLACES else 3 * DAY
        for start in range(-(-low // HOUR) * HOUR, high + 1, HOUR):
            end = start + one.minutes
            if end >= best[0]:
                return
            awake = waking.rise <= start % DAY <= waking.sleep
            if one.bound in ("whole", "ends"):
                awake = awake and start % DAY + one.minutes <= waking.sleep
            if not awake:
                continue
            if any(
                loads[s.load].steps[s.step].machine == one.machine and s.end > start and end > s.start for s in taken
            ):
                continue
            place(k + 1, [*taken, Slot(i, j, start, end)])

    place(0, [])
    return best[0]


@given(small, st.integers(6, 22))
@settings(max_examples=40)
def test_small_days_finish_as_early_as_brute_force_says(loads: list[Load], hour: int) -> None:
    waking = Waking(7 * HOUR, 21 * HOUR)
    made = plan(loads, hour * HOUR, waking)
    check(loads, made, hour * HOUR, waking, {})
    least = least_makespan(loads, hour * HOUR, waking)
    assert made.least and made.finish - hour * HOUR <= 1.1 * (least - hour * HOUR)
    assert made.finish == least


kinds = st.sampled_from(["cotton", "linen", "viscose", "velveteen", "wool", "denim-raw", "polyester"])


washes = st.sampled_from(["cold-hand", "30-gentle", "40", "60"])


dries = st.sampled_from(["line", "flat", "tumble-low"])


masses = st.sampled_from([None, 90.0, 250.0, 400.0])


depths = st.sampled_from(["light", "medium", "dark"])


cloths = st.lists(st.tuples(kinds, washes, dries, st.floats(0.5, 6.0), masses, depths), min_size=1, max_size=6)


@given(cloths, st.integers(0, DAY - 1), st.integers(0, 3))
@settings(max_examples=25)
def test_whatever_the_cloths_the_plan_keeps_every_rule(
    given_: list[tuple[str, str, str, float, float | None, str]], now: int, under_way: int
) -> None:
    batches = [
        Batch(
            str(i),
            kind,
            programme(wash, dry, "mirror", TreatmentFacts((kind,)))[0],
            m * 1000,
            1400.0,
            mass,
            Dye(depth, 5),
        )
        for i, (kind, wash, dry, m, mass, depth) in enumerate(given_)
    ]
    loads = group(batches, 7.0)
    assert sorted(b.key for one in loads for b in one.batches) == sorted(b.key for b in batches), "none is forgotten"
    waking = Waking()
    begun = {(0, j): Done(now - 100 + 30 * j, now - 70 + 30 * j) for j in range(min(under_way, len(loads[0].steps)))}
    made = plan(loads, now, waking, begun)
    check(loads, made, now, waking, begun)
    assert made == plan(loads, now, waking, begun), "the same day gives the same plan"


def test_steps_that_are_over_take_no_machine() -> None:
    # two loads whose washes were ticked off in the same minute, though there is one washer
    loads = [load(step("washer", 1, "ends"), step("line", 3, "start")) for _ in range(2)]
    now = 10 * HOUR
    made = plan(loads, now, Waking(), {(0, 0): Done(now - 3, now), (1, 0): Done(now - 3, now)})
    lines = sorted((s.start, s.end) for s in made.slots if s.step == 1)
    assert lines == [(now, now + 3 * HOUR), (now + 3 * HOUR, now + 6 * HOUR)]
    busy = plan(loads, now, Waking(), {(0, 0): Done(now - 30, now + 30)})
    assert next(s.start for s in busy.slots if (s.load, s.step) == (1, 0)) >= now + 30, "what runs still does"


def test_days_that_cannot_be_planned_say_why() -> None:
    with pytest.raises(CannotSchedule, match="longer than you are up"):
        plan([load(step("board", 9, "whole"))], 0, Waking(8 * HOUR, 16 * HOUR))
    with pytest.raises(CannotSchedule, match="at least an hour"):
        plan([load(step("board", 1, "whole"))], 0, Waking(500, 520))
    with pytest.raises(CannotSchedule, match="more than one plan takes"):
        plan([load(step("board", 1, "whole"))] * 200, 0)
    assert plan([], 77) == Schedule((), 77, True)


def test_windows_are_the_waking_hours_from_now_on() -> None:
    found = windows(step("washer", 2, "ends"), 20 * HOUR + 1, Waking(7 * HOUR, 22 * HOUR))
    assert found[0] == (DAY // 5 + 84, DAY // 5 + 240), "at 20:01 two hours do not fit any more"
    assert windows(step("line", 12, "start"), 20 * HOUR, Waking(7 * HOUR, 22 * HOUR))[0] == (240, 264)


def _by_hand(minutes: Sequence[int], now: int, waking: Waking) -> int:
    """The least finish of loads that need the washer alone, awake from end to end: every order tried."""
    best = MOST_FINISH
    for order in permutations(minutes):
        at = now
        for length in order:
            day = at // DAY * DAY
            at = max(at, day + waking.rise)
            if at + length > day + waking.sleep:
                at = day + DAY + waking.rise
            at += length
        best = min(best, at)
    return best


#: Later than any of these cases ends.
MOST_FINISH = 21 * DAY


def washed(minutes: Sequence[int]) -> list[Load]:
    return [Load((), 1.0, "", False, (LoadStep("washer", "washer", m, "whole", "washer"),)) for m in minutes]


def test_the_least_finish_is_not_outvoted_by_many_loads_that_could_be_ready_earlier() -> None:
    # four of a quarter of an hour could be ready tonight, and the long one 5 minutes later tomorrow
    minutes, waking = [15, 15, 15, 15, 65, 75, 100], Waking(7 * HOUR, 22 * HOUR)
    made = plan(washed(minutes), 18 * HOUR, waking)
    assert made.finish == _by_hand(minutes, 18 * HOUR, waking) == DAY + 8 * HOUR and made.least
    check(washed(minutes), made, 18 * HOUR, waking, {})


@settings(max_examples=25)
@given(st.lists(st.integers(1, 24).map(lambda n: 5 * n), min_size=2, max_size=7), st.integers(17 * 12, 21 * 12))
def test_the_least_finish_by_brute_force(minutes: list[int], now: int) -> None:
    waking = Waking(7 * HOUR, 22 * HOUR)
    made = plan(washed(minutes), 5 * now, waking)
    assert made.least and made.finish == _by_hand(minutes, 5 * now, waking)


def test_among_the_plans_that_finish_first_single_loads_are_ready_early() -> None:
    made = plan(washed([60, 30, 90]), 8 * HOUR)
    assert [s.end for s in sorted(made.slots, key=lambda s: s.load)] == [9 * HOUR + 30, 8 * HOUR + 30, 11 * HOUR]


def test_no_wash_lies_wet_that_could_have_begun_later() -> None:
    # one line, taken by the first load: the second load's wash waits until the line will be free
    line = programme("40", "line", "mirror", TreatmentFacts(("cotton",)))[0]
    dyes = Dye("light"), Dye("dark", 5)
    loads = group([batch(str(k), metres=6, programme=line, dye=dye) for k, dye in enumerate(dyes)], 7.0)
    assert len(loads) == 2
    made = plan(loads, 8 * HOUR, Waking(7 * HOUR, 22 * HOUR))
    slots = {(s.load, s.step): s for s in made.slots}
    assert [slots[i, 1].start - slots[i, 0].end for i in (0, 1)] == [0, 0]
