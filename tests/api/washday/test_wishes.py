"""Which cloths, from when, and which machines are free."""

from __future__ import annotations

from datetime import datetime

import pytest

from idle_selvage.core.shrink.programme import Programme
from idle_selvage.core.washday.loads import Batch, group
from idle_selvage.core.washday.schedule import plan

from ...conftest import Person, ready


def test_a_machine_that_is_taken_is_waited_for() -> None:
    warm = Programme("40", 40, "normal", "tumble-low")
    loads = group([Batch("1", "A", warm, 2000.0, 1400.0)], 7.0)
    free = plan(loads, 9 * 60)
    assert free.slots[0].start == 9 * 60
    waited = plan(loads, 9 * 60, taken={"washer": 11 * 60})
    assert waited.slots[0].start == 11 * 60
    dry = plan(loads, 9 * 60, taken={"dryer": 14 * 60})
    assert dry.slots[1].start >= 14 * 60 and dry.slots[1].start - dry.slots[0].end <= 60


def clock(person: Person) -> list[datetime]:
    day = person.ask("GET", "/washday")
    return [datetime.fromisoformat(t["start_at"]).astimezone() for load in day["loads"] for t in load["tasks"]]


def test_some_cloths_and_not_before(person: Person) -> None:
    ready(person)
    person.ask("PATCH", "/projects/1/cloth", in_hand="3 m")
    person.ask("POST", "/projects", name="Apron")
    person.ask(
        "PATCH",
        "/projects/2/cloth",
        name="Twill",
        blend=[{"fibre": "cotton", "share": 100}],
        width_readings=["140 cm"],
        in_hand="2 m",
    )
    person.ask("PATCH", "/washday", rise="0:00", sleep="24:00")
    person.ask("POST", "/washday/plan", cloths=[2], start="11:55 pm")
    day = person.ask("GET", "/washday")
    assert [load["cloths"] for load in day["loads"]] == [["Twill, Apron"]] and len(day["waiting"]) == 1
    first = min(clock(person))
    assert (first.hour, first.minute) >= (23, 55) or first.date() > datetime.now().astimezone().date()
    person.ask("POST", "/washday/plan")
    assert len(person.ask("GET", "/washday")["waiting"]) == 0


@pytest.mark.parametrize(
    ("given", "path"),
    [
        ({"start": "soon"}, "start"),
        ({"taken": {"dryer": "13 pm"}}, "taken.dryer"),
        ({"start": "7:60"}, "start"),
        ({"start": "24:01"}, "start"),
        ({"start": "25:00"}, "start"),
        ({"start": "0 am"}, "start"),
        ({"start": "13 am"}, "start"),
    ],
)
def test_what_is_no_time_of_day_is_refused(skirt: Person, given: dict[str, object], path: str) -> None:
    told = skirt.refused("POST", "/washday/plan", **given)
    assert told["fields"][0]["path"] == path and "time of day" in told["message"]
