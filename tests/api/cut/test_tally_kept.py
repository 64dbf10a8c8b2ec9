"""Random sequences at the table: whatever is done, back, spoilt, reloaded or restarted, the tally is right."""

from __future__ import annotations

import random
import shutil
from collections import Counter
from pathlib import Path
from typing import Any

import pytest

from idle_selvage.api.services import Application
from idle_selvage.store.database import Database

from ...conftest import Person, served_with
from .cutting import at, begun, cut, deed, more_pieces, try_ways

FAULTS = ["spoilt", "short", "stained", "missing"]


class Book:
    """A tally written a second time: for each copy of each placement its state, and what was asked for."""

    def __init__(self, found: dict[str, Any]) -> None:
        self.state: dict[tuple[int, str, int], str] = {}
        self.of = found["of"]
        #: which piece a placement is of, and whether a copy of it is turned over; of what has no side nothing
        self.what: dict[tuple[int, str, int], tuple[str, bool]] = {}
        self.add(found)
        self.asked = Counter(self.what.values())

    def add(self, found: dict[str, Any]) -> None:
        for step in found["steps"]:
            for copy in step["copies"]:
                spot = (step["round"], step["key"], copy["copy_number"])
                self.state.setdefault(spot, "waits")
                name = step["name"].split(" (")[0].split(",")[0]
                self.what[spot] = (name, copy["mirrored"] and name == "Sleeve")

    def check(self, found: dict[str, Any]) -> None:
        shown = {
            (step["round"], step["key"], copy["copy_number"]): copy["state"]
            for step in found["steps"]
            for copy in step["copies"]
        }
        assert shown == {key: state for key, state in self.state.items() if state != "left"}
        good, there = Counter[tuple[str, bool]](), Counter[tuple[str, bool]]()
        for spot, state in self.state.items():
            good[self.what[spot]] += state == "good"
            there[self.what[spot]] += state in ("good", "waits")
        counted = sum(min(good[what], count) for what, count in self.asked.items())
        assert found["good"] == counted and found["done"] == (counted == self.of)
        assert bool(found["owed"]) == any(there[what] < count for what, count in self.asked.items())


@pytest.mark.parametrize("seed", range(6))
def test_the_tally_stays_right(seed: int, tmp_path: Path, skirt_data: Path, application: Application) -> None:
    chance = random.Random(seed)
    shutil.copy(skirt_data, tmp_path)
    database = Database(tmp_path)
    refused = agreed = 0
    with served_with(application, database) as person:
        more_pieces(person)
        person.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
        person.lay(1, seconds=1)
        found = begun(person)
        book = Book(found)
        for _ in range(45):
            step = chance.choice(found["steps"])
            copy = chance.choice(step["copies"])["copy_number"]
            key = (step["round"], step["key"])
            copies = [spot for spot in book.state if spot[:2] == key]
            states = {book.state[spot] for spot in copies}
            do = chance.choice(["cut", "cut", "cut", "not cut", "fault", "found", "reload", "restart", "again", "go"])
            if do == "reload":
                found = Person(application).ask("GET", at(1))
            elif do == "restart":
                # the same data behind another set of connections, as after the program was ended
                application.services.database.close()
                database = Database(tmp_path)
                application.services.database = database
                found = cut(person)
            elif do == "go":
                found = person.ask("PUT", at(1, "/at"), round=step["round"], key=step["key"])
            elif do == "again":
                if not found["owed"]:
                    continue
                ways = [
                    way
                    for way in try_ways(person)["ways"]
                    if way["state"] == "does" and way["kind"] in ("beside", "rest")
                ]
                if not ways:
                    continue
                way = chance.choice(ways)
                found = person.ask("POST", at(1, "/again"), 201, way=way["key"])
                if way["kind"] == "rest":
                    for spot, state in book.state.items():
                        if state == "waits":
                            book.state[spot] = "left"
                book.add(found)
            else:
                kind = chance.choice(FAULTS) if do == "fault" else do
                mine = book.state[(*key, copy)]
                later = any(spot[0] > step["round"] for spot in book.state)
                may = {
                    "cut": states == {"waits"},
                    "not cut": states == {"good"} and not later,
                    "found": mine in FAULTS,
                }.get(kind, mine in ("good", *FAULTS))
                body = {"round": key[0], "key": key[1], "kind": kind, "copy_number": copy, "really": True}
                answer = person.client.post(f"/api{at(1, '/deeds')}", json=body, base_url="http://127.0.0.1")
                assert answer.status_code == (200 if may else 422), (kind, states, answer.get_json())
                agreed += may
                refused += not may
                if may:
                    found = answer.get_json()
                    for spot in copies if kind in ("cut", "not cut") else [(*key, copy)]:
                        book.state[spot] = {"cut": "good", "found": "good", "not cut": "waits"}.get(kind, kind)
            book.check(found)
            assert cut(person) == found or do in ("reload", "restart")
    assert agreed > 5 and refused > 3


def test_two_devices_cut_one_piece_once(skirt: Person) -> None:
    skirt.lay(1, seconds=1)
    one = begun(skirt)["steps"][0]
    other = Person(skirt.app)
    deed(skirt, one)
    told = other.refused("POST", at(1, "/deeds"), round=one["round"], key=one["key"], kind="cut")
    assert told["message"] == "That is cut already."
