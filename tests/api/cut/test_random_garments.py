"""Garments told at random, in either system, are cut through with mishaps; nothing fails and everything adds up."""

from __future__ import annotations

import random

import pytest

from idle_selvage.jobs import laying

from ...conftest import STEPS, Person, data_of
from ...random_maker import Maker
from .cutting import at, cut, deed, settle, try_ways

PAPERS = ("sheet.pdf", "labels.pdf", "pieces.svg", "lay.pdf?paper=a3", "gauges.pdf")


@pytest.mark.parametrize("seed", range(12))
def test_whatever_is_told_is_cut_to_the_end_or_says_why_not(person: Person, seed: int) -> None:
    chance = random.Random(seed)
    person.ask("PATCH", "/settings", system=chance.choice(["metric", "imperial"]))
    made = Maker(person, 500 + seed)
    made.garment()
    number = person.ask("GET", "/projects")["projects"][-1]["id"]
    if person.ask("GET", f"/projects/{number}")["can_lay"]:
        begun = person.client.post(f"/api/projects/{number}/lays", json={"seconds": 1}, base_url="http://127.0.0.1")
        if begun.status_code < 400:
            laying.run(data_of(person.app), begun.get_json()["id"], STEPS)
    found = cut(person, number)
    if found["missing"]:
        assert found["missing"].endswith(".") and not found["before"]["ready"]
        return
    settle(person, number)
    answer = person.client.post(f"/api{at(number)}", base_url="http://127.0.0.1")
    if answer.status_code == 422:
        assert "Not clean yet" in answer.get_json()["message"]
        return
    found = answer.get_json()
    of = found["of"]
    for what in PAPERS:
        given = person.client.get(f"/api{at(number, '/' + what)}", base_url="http://127.0.0.1")
        assert given.status_code == 200 or given.get_json()["message"], what
    for step in found["steps"]:
        found = deed(person, step, number=number)
        if chance.random() < 0.15:
            lost = chance.choice(step["copies"])["copy_number"]
            deed(person, step, "spoilt", number=number, copy_number=lost)
            ways = [
                way for way in try_ways(person, number)["ways"] if way["state"] == "does" and way["kind"] == "beside"
            ]
            kind = "again" if ways else "found"
            if kind == "again":
                person.ask("POST", at(number, "/again"), 201, way=ways[0]["key"])
            else:
                deed(person, step, "found", number=number, copy_number=lost)
    found = cut(person, number)
    for step in found["steps"]:
        if not step["done"]:
            found = deed(person, step, number=number)
    assert found["done"] and found["good"] == of and found["owed"] == []
    left = person.ask("GET", at(number, "/left"))
    assert left["there"] and 0 < left["used"]["value"] <= 100.0
    for one in left["remnants"]:
        person.ask("POST", at(number, "/left"), 201, x=one["x"], y=one["y"], area=one["area"])
    again = person.ask("GET", at(number, "/left"))
    assert all(one["kept"] for one in again["remnants"])
