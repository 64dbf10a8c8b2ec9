"""Laying by hand over the API: every gesture is kept, told and taken back; the lay is followed by what is bought."""

from __future__ import annotations

import json
from typing import Any

import pytest

from idle_selvage.core.lay.check import check_lay
from idle_selvage.jobs import laying

from ...conftest import STEPS, Person
from .test_laying import run


@pytest.fixture
def at_table(skirt: Person) -> Person:
    run(skirt)
    return skirt


def lay(person: Person) -> dict[str, Any]:
    found: dict[str, Any] = person.ask("GET", "/projects/1/lay")["lay"]
    return found


def do(person: Person, **gesture: Any) -> dict[str, Any]:
    number = gesture.pop("lay_id", None) or lay(person)["lay_id"]
    found: dict[str, Any] = person.ask("POST", f"/projects/1/lays/{number}/hand", **gesture)["lay"]
    return found


def near(person: Person, keys: list[str], x: float, y: float, **more: Any) -> dict[str, Any]:
    asked = {"lay_id": lay(person)["lay_id"], "x": x, "y": y, **more}
    query = "&".join([f"{name}={value}" for name, value in asked.items()] + [f"keys={key}" for key in keys])
    found: dict[str, Any] = person.ask("GET", f"/projects/1/lay/near?{query}")
    return found


def by_key(found: dict[str, Any]) -> dict[str, dict[str, Any]]:
    return {shape["pinned"]: shape for shape in found["pinned"]["shapes"]}


def test_a_piece_is_carried_to_the_nearest_place_and_left_there(at_table: Person) -> None:
    before = lay(at_table)
    key = before["pinned"]["shapes"][0]["pinned"]
    place = near(at_table, [key], before["length"]["mm"] + 200, 100)
    assert place["there"] and place["outline"] is None
    after = do(at_table, do="move", keys=[key], x=place["x"], y=place["y"], section=place["section"])
    assert by_key(after)[key]["origin"] == pytest.approx([place["x"], place["y"]], abs=1e-3)
    assert after["own"] == "By hand" and after["length"]["mm"] > before["length"]["mm"]
    # what is bought follows the lay she goes by
    bought = at_table.ask("GET", "/projects/1")["tally"]
    assert next(t for t in bought if t["key"] == "lay")["figure"]["text"] == after["length"]["text"]
    # the one that was found is still there
    assert {a["own"] for a in after["alternatives"]} == {True, False}
    problem = at_table.client.get("/api/projects/1/lay-problem.json", base_url="http://127.0.0.1").get_json()
    made = at_table.client.get("/api/projects/1/lay.json", base_url="http://127.0.0.1").get_json()
    assert check_lay(problem, made) == []


def test_a_place_on_another_piece_is_refused(at_table: Person) -> None:
    shapes = lay(at_table)["pinned"]["shapes"]
    first, second = shapes[0], shapes[1]
    x, y = second["origin"]
    number = lay(at_table)["lay_id"]
    told = at_table.refused(
        "POST", f"/projects/1/lays/{number}/hand", do="move", keys=[first["pinned"]], x=x, y=y, section=0
    )
    assert "no room" in told["message"] and told["code"] == "cannot_move"
    assert lay(at_table)["own"] == "", "nothing was changed"


def test_undo_after_many_changes_gives_the_first_lay_back(at_table: Person) -> None:
    before = lay(at_table)
    key = before["pinned"]["shapes"][0]["pinned"]
    for gesture in (
        {"do": "nudge", "keys": [key], "x": 500, "y": 0},
        {"do": "nudge", "keys": [key], "x": 1, "y": 0},
        {"do": "lock", "keys": [key]},
        {"do": "lock", "keys": [key]},
        {"do": "aside", "keys": [key]},
        {"do": "take", "piece": key.split("·")[0]},
    ):
        do(at_table, **gesture)
    changed = lay(at_table)
    assert changed["tray"] == [] and changed["own"]
    for _ in range(6):
        at_table.ask("POST", "/undo?project=1")
    assert lay(at_table) == before
    for _ in range(6):
        at_table.ask("POST", "/redo?project=1")
    assert lay(at_table)["pinned"] == changed["pinned"]


def test_a_change_in_the_middle_cannot_be_taken_out(at_table: Person) -> None:
    key = lay(at_table)["pinned"]["shapes"][0]["pinned"]
    do(at_table, do="nudge", keys=[key], x=300, y=0)
    change = at_table.ask("GET", "/undo?project=1")["back"]["change"]
    do(at_table, do="nudge", keys=[key], x=1, y=0)
    told = at_table.ask("POST", f"/changes/{change}/undo?project=1", 409)
    assert "later stands on it" in told["message"]


def test_what_lies_on_the_tray_is_warned_of_until_it_is_meant(at_table: Person) -> None:
    key = lay(at_table)["pinned"]["shapes"][0]["pinned"]
    found = do(at_table, do="aside", keys=[key])
    (aside,), (broken,) = found["tray"], found["broken"]
    assert aside["count"] >= 1 and broken["kind"] == "count" and not broken["meant"]
    assert found["bound"]["mm"] == 0, "nothing is known of a lay that leaves something out"
    garment = at_table.ask("GET", "/projects/1")
    assert broken["told"] in [w["text"] for w in garment["warnings"]]
    assert {s["name"]: s["state"] for s in garment["stages"]}["lay"] == "look-again"
    found = do(at_table, do="accept", sign=broken["sign"])
    assert found["broken"][0]["meant"]
    assert broken["told"] not in [w["text"] for w in at_table.ask("GET", "/projects/1")["warnings"]]
    assert not do(at_table, do="refuse", sign=broken["sign"])["broken"][0]["meant"]
    number = lay(at_table)["lay_id"]
    at_table.refused("POST", f"/projects/1/lays/{number}/hand", do="accept", sign="nothing of the kind")


def test_off_its_grain_on_purpose_is_told_with_what_it_costs(at_table: Person) -> None:
    key = next(s["pinned"] for s in lay(at_table)["pinned"]["shapes"] if s["layers"] == 1)
    found = do(at_table, do="turn", keys=[key], by=3)
    (broken,) = found["broken"]
    assert broken["kind"] == "turn" and "3" in broken["told"] and broken["keys"] == [key]
    assert "twist by about" in broken["cost"] and by_key(found)[key]["broken"] == [broken["sign"]]


def test_the_ground_that_is_lit_is_told(at_table: Person) -> None:
    found = lay(at_table)
    key = found["pinned"]["shapes"][0]["pinned"]
    bands = at_table.ask("GET", f"/projects/1/lay/light?lay_id={found['lay_id']}&keys={key}")["bands"]
    assert bands and all(a < b for band in bands for a, b in band["runs"])


def test_a_piece_from_the_tray_is_asked_for_by_its_name(at_table: Person) -> None:
    found = lay(at_table)
    key = found["pinned"]["shapes"][0]["pinned"]
    piece = key.split("·")[0]
    at_table.refused("GET", f"/projects/1/lay/near?lay_id={found['lay_id']}&piece={piece}&x=1&y=1")
    number = do(at_table, do="aside", keys=[key])["lay_id"]
    place = at_table.ask("GET", f"/projects/1/lay/near?lay_id={number}&piece={piece}&x=5000&y=100&within=5")
    assert place["there"] and len(place["outline"]) > 2
    after = do(at_table, do="move", piece=piece, x=place["x"], y=place["y"], section=place["section"])
    assert after["tray"] == [] and after["broken"] == []


def test_lays_of_ones_own_are_named_kept_and_put_away(at_table: Person) -> None:
    key = lay(at_table)["pinned"]["shapes"][0]["pinned"]
    do(at_table, do="nudge", keys=[key], x=300, y=0)
    number = do(at_table, do="rename", name="The print in the middle")["lay_id"]
    at_table.refused("POST", f"/projects/1/lays/{number}/hand", do="rename", name=" ")
    # laying again finds others, and hers stays the one that is gone by
    job = at_table.ask("POST", "/projects/1/lays", 202, seconds=1)["id"]
    laying.run(at_table.app.services.database, job, STEPS)
    found = lay(at_table)
    assert found["own"] == "The print in the middle" and len(found["alternatives"]) > 1
    empty = do(at_table, do="empty")
    assert empty["pinned"]["shapes"] == [] and empty["own"] == "From the tray" and empty["length"]["mm"] == 0
    told = at_table.refused("POST", f"/projects/1/lays/{empty['lay_id']}/hand", do="rename", name=found["own"])
    assert "Another lay is called" in told["message"]
    away = do(at_table, do="away")
    assert "From the tray" not in [a["label"] for a in away["alternatives"]]
    at_table.ask("POST", "/undo?project=1")
    assert "From the tray" in [a["label"] for a in lay(at_table)["alternatives"]]


def test_lays_are_compared(at_table: Person) -> None:
    key = lay(at_table)["pinned"]["shapes"][0]["pinned"]
    do(at_table, do="nudge", keys=[key], x=900, y=0)
    rows = at_table.ask("GET", "/projects/1/lay/compare")["lays"]
    assert sum(row["chosen"] for row in rows) == 1 and {row["own"] for row in rows} == {True, False}
    own = next(row for row in rows if row["own"])
    shortest = min(rows, key=lambda row: row["length"]["mm"])
    assert own["to_buy"]["value"] > shortest["to_buy"]["value"] and own["broken"] == []
    assert own["left"] and own["left"][0]["along"]["mm"] >= 100


@pytest.mark.parametrize("how", ["along", "anywhere"])
def test_closing_up_is_a_change_like_any_other(at_table: Person, how: str) -> None:
    before = lay(at_table)
    shapes = before["pinned"]["shapes"]
    last = max(shapes, key=lambda s: max(x for x, _ in s["outline"]))
    fast = next(s for s in shapes if s is not last)["pinned"]
    do(at_table, do="lock", keys=[fast])
    loose = do(at_table, do="nudge", keys=[last["pinned"]], x=700, y=0)
    job = at_table.ask("POST", f"/projects/1/lays/{loose['lay_id']}/close", 202, how=how, seconds=1)["id"]
    laying.run(at_table.app.services.database, job, STEPS)
    after = lay(at_table)
    assert after["lay_id"] == loose["lay_id"] and after["length"]["mm"] < loose["length"]["mm"] - 100
    assert by_key(after)[fast]["origin"] == by_key(loose)[fast]["origin"]
    at_table.ask("POST", "/undo?project=1")
    assert lay(at_table)["length"] == loose["length"]


def test_what_a_search_finds_for_a_lay_that_went_on_is_left(at_table: Person) -> None:
    last = max(lay(at_table)["pinned"]["shapes"], key=lambda s: max(x for x, _ in s["outline"]))["pinned"]
    loose = do(at_table, do="nudge", keys=[last], x=700, y=0)
    job = at_table.ask("POST", f"/projects/1/lays/{loose['lay_id']}/close", 202, how="anywhere", seconds=1)["id"]
    after = do(at_table, do="lock", keys=[last])
    laying.run(at_table.app.services.database, job, STEPS)
    assert lay(at_table)["pinned"] == after["pinned"]
    assert any("left: it was changed" in e["what"] for e in at_table.ask("GET", "/projects/1/log")["entries"])


def test_a_change_of_the_cloth_is_looked_at_again_and_only_what_breaks_is_laid_anew(at_table: Person) -> None:
    shapes = lay(at_table)["pinned"]["shapes"]
    key = shapes[0]["pinned"]
    own = do(at_table, do="lock", keys=[key])
    assert own["stale"] == []
    # a flaw under the first piece
    x0, y0 = shapes[1]["outline"][0]
    xs, ys = zip(*shapes[1]["outline"], strict=True)
    middle = ((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)
    flaw = {"x": middle[0] + 60, "y": middle[1] + 30, "w": 20, "h": 20}
    at_table.ask("PATCH", "/projects/1/cloth", flaws=[flaw])
    found = lay(at_table)
    assert found["stale"] and (x0, y0) is not None
    told = [b for b in found["broken"] if b["kind"] == "flaw"]
    assert told and told[0]["keys"], found["broken"]
    number = found["lay_id"]
    at_table.refused("POST", f"/projects/1/lays/{number}/close", how="anywhere")
    job = at_table.ask("POST", f"/projects/1/lays/{number}/close", 202, how="mend", seconds=1)["id"]
    laying.run(at_table.app.services.database, job, STEPS)
    mended = lay(at_table)
    assert mended["lay_id"] != number and mended["stale"] == [] and mended["broken"] == []
    kept = [k for k in by_key(found) if k not in {key for b in told for key in b["keys"]}]
    there = [s["origin"] for s in mended["pinned"]["shapes"]]
    for k in kept:
        assert any(by_key(found)[k]["origin"] == pytest.approx(one, abs=0.01) for one in there), "what is right stays"


def test_a_lay_from_outside_is_taken_in(at_table: Person) -> None:
    made = at_table.client.get("/api/projects/1/lay.json", base_url="http://127.0.0.1").get_json()
    found = at_table.ask("POST", "/projects/1/lay/outside", text=json.dumps(made))["lay"]
    assert found["own"] == "Taken in" and found["broken"] == []
    assert found["length"]["mm"] == pytest.approx(made["length"], abs=0.01)
    fewer = {**made, "laid": made["laid"][1:]}
    found = at_table.ask("POST", "/projects/1/lay/outside", text=json.dumps(fewer))["lay"]
    assert found["own"] == "Taken in 2" and [b["kind"] for b in found["broken"]] == ["count"]


@pytest.mark.parametrize(
    ("change", "told"),
    [
        (lambda m: "{", "no JSON"),
        (lambda m: [], "no lay"),
        (lambda m: {**m, "format": "other"}, "no lay"),
        (lambda m: {k: v for k, v in m.items() if k != "sections"}, "not complete"),
        (lambda m: {**m, "laid": [{**m["laid"][0], "x": "far"}]}, "not complete"),
        (lambda m: {**m, "laid": [{**m["laid"][0], "x": 1e12}]}, "no length on a cloth"),
        (lambda m: {**m, "laid": [{**m["laid"][0], "section": 4}]}, "lies on no section"),
        (lambda m: {**m, "laid": [{**m["laid"][0], "piece": "sail"}]}, "this garment has not"),
        (lambda m: {**m, "laid": [m["laid"][0], m["laid"][0]]}, "overlap"),
        (lambda m: {**m, "sections": [{**m["sections"][0], "fold": "knot"}]}, "not known"),
        (lambda m: {**m, "laid": 7}, "not complete"),
    ],
)
def test_a_file_that_is_no_lay_of_these_pieces_is_refused(at_table: Person, change: Any, told: str) -> None:
    made = at_table.client.get("/api/projects/1/lay.json", base_url="http://127.0.0.1").get_json()
    wrong = change(made)
    text = wrong if isinstance(wrong, str) else json.dumps(wrong)
    assert told in at_table.refused("POST", "/projects/1/lay/outside", text=text)["message"]


def test_another_window_is_told_that_the_lay_was_changed(at_table: Person) -> None:
    found = lay(at_table)
    key = found["pinned"]["shapes"][0]["pinned"]
    own = do(at_table, do="nudge", keys=[key], x=300, y=0)
    seen = at_table.client.get("/api/projects/1/lay", base_url="http://127.0.0.1").headers["X-News"]
    url = f"/api/projects/1/lays/{own['lay_id']}/hand"
    body = {"do": "nudge", "keys": [key], "x": 1, "y": 0}
    first = at_table.client.post(
        url, json=body, headers={"X-Window": "one", "X-Seen": seen}, base_url="http://127.0.0.1"
    )
    assert first.status_code == 200
    second = at_table.client.post(
        url, json=body, headers={"X-Window": "two", "X-Seen": seen}, base_url="http://127.0.0.1"
    )
    assert second.status_code == 409
