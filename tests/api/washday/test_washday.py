"""The washing day: what waits, loads, timers, times learned, late steps, a calendar."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import icalendar
import pytest

from idle_selvage.store import models

from ...conftest import Person


def cloth(person: Person, name: str, fibre: str = "cotton", **facts: object) -> int:
    """A project with a cloth of 2 m; its number."""
    number = int(person.ask("POST", "/projects", name=f"{name} thing")["id"])
    entries = {"width_readings": ["140"] * 3, "in_hand": "2 m", "mass": "200", **facts}
    person.ask("PATCH", f"/projects/{number}/cloth", name=name, blend=[{"fibre": fibre, "share": 100}], **entries)
    person.ask("PATCH", f"/projects/{number}", wash="40", dry="tumble-low")
    return number


def step(day: Any, load: int, what: str) -> Any:
    return next(t for t in day["loads"][load]["tasks"] if what in str(t["what"]))


def shift(person: Person, **by: float) -> None:
    """As if everything that has not ended had been planned and begun earlier."""
    with person.app.services.database.begin() as session:
        for task in session.query(models.LoadTask).where(models.LoadTask.finished_at.is_(None)):
            for key in ("start_at", "end_at", "started_at"):
                at = getattr(task, key)
                setattr(task, key, at - timedelta(**by) if at else None)


def test_what_waits_and_what_is_missing(person: Person) -> None:
    assert person.ask("GET", "/washday")["waiting"] == []
    cloth(person, "Lawn")
    person.ask("POST", "/projects", name="Bare")
    waiting = {w["project"]: w for w in person.ask("GET", "/washday")["waiting"]}
    assert waiting["Lawn thing"]["kilograms"] == pytest.approx(0.56) and "40 °C" in waiting["Lawn thing"]["programme"]
    assert "width" in waiting["Bare"]["missing"]
    person.ask("PATCH", "/projects/2/cloth", width_readings=["140"])
    assert "How long" in person.ask("GET", "/washday")["waiting"][0]["missing"]
    person.ask("PATCH", "/projects/1/cloth", treated=True)
    assert [w["project"] for w in person.ask("GET", "/washday")["waiting"]] == ["Bare"]
    assert "nothing to plan" in person.refused("POST", "/washday/plan")["message"]


def test_loads_are_planned_one_after_another(person: Person) -> None:
    cloth(person, "Lawn")
    cloth(person, "Poplin")
    cloth(person, "Navy", depth="dark")
    day = person.ask("POST", "/washday/plan")
    assert sorted(load["name"] for load in day["loads"]) == ["Navy", "Poplin, Lawn"] or sorted(
        load["name"] for load in day["loads"]
    ) == ["Lawn, Poplin", "Navy"]
    alone = next(load for load in day["loads"] if load["name"] == "Navy")
    assert alone["why"].startswith("alone") and day["waiting"] == [] and day["out_of_date"] == ""
    washes = sorted((step(day, i, "wash")["start_at"], step(day, i, "wash")["end_at"]) for i in range(2))
    assert washes[0][1] <= washes[1][0], "there is one washer"
    assert day["finish_at"] == max(t["end_at"] for load in day["loads"] for t in load["tasks"])
    again = person.ask("POST", "/washday/plan")
    assert len(again["loads"]) == 2, "planned anew, not twice"


def test_a_new_cloth_puts_the_plan_out_of_date(person: Person) -> None:
    cloth(person, "Lawn")
    person.ask("POST", "/washday/plan")
    cloth(person, "Poplin")
    day = person.ask("GET", "/washday")
    assert day["out_of_date"] == "Poplin is not in the plan yet." and [w["name"] for w in day["waiting"]] == ["Poplin"]
    assert person.ask("POST", "/washday/plan")["out_of_date"] == ""


def test_steps_are_begun_timed_and_ended_in_order(person: Person) -> None:
    cloth(person, "Lawn")
    day = person.ask("POST", "/washday/plan")
    wash, tumble = step(day, 0, "wash"), step(day, 0, "tumble")
    assert wash["rings"] and not step(day, 0, "rest")["rings"], "resting cloth wakes nobody"
    assert wash["ready"] and not tumble["ready"]
    assert "not done yet" in person.ask("POST", f"/washday/steps/{tumble['id']}/begin", 422)["message"]
    day = person.ask("POST", f"/washday/steps/{wash['id']}/begin")
    assert step(day, 0, "wash")["started_at"] is not None
    person.ask("POST", f"/washday/steps/{wash['id']}/begin"), "twice changes nothing"
    shift(person, minutes=61)
    day = person.ask("POST", f"/washday/steps/{wash['id']}/end")
    assert step(day, 0, "wash")["finished_at"] and step(day, 0, "tumble")["ready"]
    learned = {entry["what"]: entry for entry in day["learned"]}
    assert learned["normal"]["minutes"] == pytest.approx(61, abs=0.5) and learned["normal"]["times"] == 1
    washes = person.ask("GET", "/projects/1")["cloth"]["washes"]
    assert [w["how"] for w in washes] == ["wash at 40 °C"]
    assert "Pre-treated Lawn: wash at 40 °C." in [e["what"] for e in person.ask("GET", "/projects/1/log")["entries"]]
    assert person.ask("GET", "/washday")["waiting"] == [], "it is under way"
    # the next load is planned with the time learned: 61 minutes, in steps of five
    cloth(person, "Poplin")
    day = person.ask("POST", "/washday/plan")
    assert len(day["loads"]) == 2 and step(day, 1, "wash")["minutes"] == 65


def test_what_was_ticked_by_mistake_is_taken_back(person: Person) -> None:
    cloth(person, "Lawn")
    day = person.ask("POST", "/washday/plan")
    wash, tumble = step(day, 0, "wash")["id"], step(day, 0, "tumble")["id"]
    person.ask("POST", f"/washday/steps/{wash}/end")
    person.ask("POST", f"/washday/steps/{tumble}/begin")
    assert "later step" in person.ask("POST", f"/washday/steps/{wash}/back", 422)["message"]
    person.ask("POST", f"/washday/steps/{tumble}/back")
    day = person.ask("POST", f"/washday/steps/{wash}/back")
    assert step(day, 0, "wash")["finished_at"] is None
    assert person.ask("GET", "/projects/1")["cloth"]["washes"] == [], "the wash is struck out too"
    assert day["learned"] == [], "what was only ticked teaches no time"
    person.ask("POST", "/washday/steps/999/begin", 404)


def test_one_machine_one_load(person: Person) -> None:
    cloth(person, "Lawn")
    cloth(person, "Navy", depth="dark")
    day = person.ask("POST", "/washday/plan")
    first, second = (step(day, i, "wash")["id"] for i in range(2))
    person.ask("POST", f"/washday/steps/{first}/begin")
    assert "washer is taken by" in person.ask("POST", f"/washday/steps/{second}/begin", 422)["message"]


def test_a_late_step_is_planned_anew_in_one_touch(person: Person) -> None:
    cloth(person, "Lawn")
    day = person.ask("POST", "/washday/plan")
    wash = step(day, 0, "wash")
    person.ask("POST", f"/washday/steps/{wash['id']}/begin")
    shift(person, hours=3)
    late = person.ask("GET", "/washday")
    assert late["out_of_date"] == "A step runs late." and step(late, 0, "wash")["late"]
    again = person.ask("POST", "/washday/plan")
    assert step(again, 0, "wash")["started_at"] == step(late, 0, "wash")["started_at"], "what runs is not moved"
    assert step(again, 0, "tumble")["start_at"] >= again["now"][:16]
    cloth(person, "Navy", depth="dark")
    both = person.ask("POST", "/washday/plan")
    second = next(load for load in both["loads"] if load["name"] == "Navy")
    assert second["tasks"][0]["start_at"] > both["now"][:16], "the washer is not free while a late load is in it"


def test_a_whole_load_comes_to_its_end(person: Person) -> None:
    cloth(person, "Lawn")
    for task in person.ask("POST", "/washday/plan")["loads"][0]["tasks"]:
        day = person.ask("POST", f"/washday/steps/{task['id']}/end")
    assert day["loads"] == [] and day["waiting"] == [] and day["finish_at"] is None
    assert any("measure its width and length again" in w["text"] for w in person.ask("GET", "/projects/1")["warnings"])
    treated = person.ask("PATCH", "/projects/1/cloth", width_readings=["138 cm"] * 3, in_hand="1,9 m")
    assert not any("again" in w["text"] for w in treated["warnings"])
    assert "done already" in person.ask("POST", f"/washday/steps/{task['id']}/begin", 422)["message"]


def test_cloth_that_still_bleeds_waits_again(person: Person) -> None:
    cloth(person, "Navy", depth="dark", rub_grade=2)
    for task in person.ask("POST", "/washday/plan")["loads"][0]["tasks"]:
        person.ask("POST", f"/washday/steps/{task['id']}/end")
    person.ask("POST", "/cloths/1/washes", how="40 °C", grade=3)
    assert [w["name"] for w in person.ask("GET", "/washday")["waiting"]] == ["Navy"]
    person.ask("POST", "/cloths/1/washes", how="40 °C", grade=5)
    assert person.ask("GET", "/washday")["waiting"] == []


@pytest.mark.parametrize(
    ("body", "path"),
    [
        ("100", "washer_kg"),
        ("30.1", "washer_kg"),
        ("0.9", "washer_kg"),
        ("noon", "rise"),
        ("25:00", "rise"),
        ("8", "sleep"),
    ],
)
def test_houses_that_cannot_be(person: Person, body: str, path: str) -> None:
    assert person.refused("PATCH", "/washday", **{path: body})["fields"][0]["path"] == path


@pytest.mark.parametrize("kilos", [1.0, 30.0])
def test_the_least_and_the_largest_washer_of_a_house(person: Person, kilos: float) -> None:
    assert person.ask("PATCH", "/washday", washer_kg=f"{kilos:g}")["washer_kg"] == kilos


def test_the_house(person: Person) -> None:
    told = person.ask("PATCH", "/washday", washer_kg="5,5", rise="6.30", sleep="23")
    assert (told["washer_kg"], told["rise"], told["sleep"]) == (5.5, "6:30", "23:00")
    cloth(person, "Felt", in_hand="12 m")
    assert person.ask("POST", "/washday/plan")["loads"][0]["too_heavy"], "3.4 kg are more than half of 5.5"


def test_the_plan_is_taken_away_as_a_calendar(person: Person) -> None:
    person.ask("GET", "/washday/plan.ics", 404)
    cloth(person, "Lawn")
    day = person.ask("POST", "/washday/plan")
    answer = person.client.get("/api/washday/plan.ics", base_url="http://127.0.0.1")
    assert answer.mimetype == "text/calendar"
    events = icalendar.Calendar.from_ical(answer.data).walk("VEVENT")
    assert len(events) == len(day["loads"][0]["tasks"]) and "Lawn" in str(events[0]["summary"])


def test_the_demo_s_whole_washing_day(choir: Person) -> None:
    """Begun and ended in the planned order until nothing waits, with a plan anew after every third step."""
    person = choir
    day = person.ask("POST", "/washday/plan")
    names = {name for entry in day["loads"] for name in entry["name"].split(", ")}
    done = 0
    for _ in range(80):
        ready = [t for entry in day["loads"] for t in entry["tasks"] if t["ready"]]
        if not ready:
            break
        task = min(ready, key=lambda t: (t["start_at"], t["id"]))
        person.ask("POST", f"/washday/steps/{task['id']}/begin")
        shift(person, minutes=task["minutes"])
        day = person.ask("POST", f"/washday/steps/{task['id']}/end")
        done += 1
        if done % 3 == 0 and day["loads"]:
            day = person.ask("POST", "/washday/plan")
    assert day["loads"] == [] and done >= 8 and len(names) >= 3
    assert all(w["missing"] for w in day["waiting"]), "what is left cannot be planned yet, and says why"
    assert {entry["what"] for entry in day["learned"]} >= {"hand", "normal", "flat", "tumble"}
    washed = [line["cloth"] for line in person.ask("GET", "/cloths")["cloths"] if line["cloth"]["washes"]]
    assert len(washed) >= 3
