"""Taking back, doing again; and two windows that change one entry."""

from __future__ import annotations

from typing import Any

import pytest

from ...conftest import Person


def read(person: Person) -> Any:
    return person.ask("GET", "/projects/1")


def at(person: Person, window: str, method: str, path: str, seen: int | None = None, **body: Any) -> Any:
    headers = {"X-Window": window} | ({} if seen is None else {"X-Seen": str(seen)})
    return person.client.open(f"/api{path}", method=method, json=body, base_url="http://127.0.0.1", headers=headers)


FLAW = {"x": "30 cm", "y": "20 cm", "w": "1 cm", "h": "1 cm", "what": "slub"}
CHANGES = [
    ("PATCH", "/projects/1", {"name": "Other"}),
    ("PATCH", "/projects/1/cloth", {"margin_low": "2 cm"}),
    ("PATCH", "/projects/1/cloth", {"width_readings": ["100 cm", "101", "100"]}),
    ("PATCH", "/projects/1/cloth", {"flaws": [FLAW]}),
    ("PATCH", "/projects/1/purchase", {"spare": "20 cm"}),
    ("PUT", "/projects/1/swatch", {"warp": [["25 cm", "24"]] * 3, "weft": [["25", "24.5"]] * 3}),
    ("PATCH", "/pieces/1", {"name": "Cuff"}),
    ("DELETE", "/pieces/1", {}),
    ("PUT", "/pieces/1/cuts/1", {"copies": 4}),
    ("POST", "/projects/1/offers", {"name": "Market", "width": "140 cm", "price": "9"}),
    ("POST", "/projects/1/list", {"kind": "other", "name": "Buttons"}),
    ("POST", "/projects/1/uses", {"role": "lining", "name": "Satin"}),
    ("POST", "/cloths/1/washes", {"how": "40 °C"}),
    ("DELETE", "/projects/1", {}),
]


@pytest.mark.parametrize(("method", "path", "body"), CHANGES, ids=[f"{m} {p}" for m, p, _ in CHANGES])
def test_what_was_done_is_taken_back_and_done_again(skirt: Person, method: str, path: str, body: Any) -> None:
    before = [skirt.ask("GET", f"/projects/1{more}") for more in ("", "/offers", "/list", "/shrink", "/true")]
    skirt.ask(method, path, **body)
    of = "" if (method, path) == ("DELETE", "/projects/1") else "?project=1"

    def now() -> Any:
        return [skirt.ask("GET", f"/projects/1{more}") for more in ("", "/offers", "/list", "/shrink", "/true")]

    changed = None if not of else now()
    assert changed != before
    told = skirt.ask("POST", f"/undo{of}")
    assert now() == before and told["done"]["what"]
    assert skirt.ask("GET", f"/undo{of}")["again"]["what"] == told["done"]["what"]
    skirt.ask("POST", f"/redo{of}")
    if of:
        assert now() == changed
    else:
        skirt.ask("GET", "/projects/1", 404)
    skirt.ask("POST", f"/undo{of}")
    assert now() == before


def test_everything_can_be_taken_back_to_an_empty_home(skirt: Person) -> None:
    steps = 0
    while skirt.ask("GET", "/undo?project=1")["back"] is not None:
        skirt.ask("POST", "/undo?project=1")
        steps += 1
    assert steps >= 4 and skirt.ask("GET", "/projects")["projects"] == []
    while skirt.ask("GET", "/undo?project=1")["again"] is not None:
        skirt.ask("POST", "/redo?project=1")
        steps -= 1
    assert steps == 0 and [p["name"] for p in read(skirt)["pieces"]] == ["Sleeve", "Band"]
    skirt.refused("POST", "/redo?project=1")


def test_an_older_step_is_taken_back_from_the_log_unless_something_stands_on_it(skirt: Person) -> None:
    skirt.ask("PATCH", "/pieces/1", name="Cuff")
    skirt.ask("PATCH", "/projects/1", name="Other")
    lines = skirt.ask("GET", "/projects/1/log")["entries"]
    added = next(line for line in lines if line["kind"] == "piece-added" and "Sleeve" in line["what"])
    renamed = next(line for line in lines if line["kind"] == "piece-changed")
    told = skirt.ask("POST", f"/changes/{added['change']}/undo?project=1", 409)
    assert "Changed the piece “Cuff”" in told["message"]
    skirt.ask("POST", f"/changes/{renamed['change']}/undo?project=1")
    skirt.ask("POST", f"/changes/{added['change']}/undo?project=1")
    assert [p["name"] for p in read(skirt)["pieces"]] == ["Band"] and read(skirt)["name"] == "Other"
    kept = {line["id"]: line for line in skirt.ask("GET", "/projects/1/log")["entries"]}
    assert not kept[added["id"]]["stands"] and not kept[renamed["id"]]["stands"]
    assert kept[max(kept)]["what"] == "Taken back: Added the piece “Sleeve”, 2 to cut."
    skirt.ask("POST", f"/changes/{added['change']}/undo?project=1", 409)
    skirt.ask("POST", "/changes/99999/undo", 404)


def test_what_another_window_changed_is_not_overwritten(skirt: Person) -> None:
    seen = int(at(skirt, "one", "GET", "/projects/1").headers["X-News"])
    assert at(skirt, "two", "PATCH", "/projects/1/cloth", seen, margin_low="2 cm").status_code == 200
    told = at(skirt, "one", "PATCH", "/projects/1/cloth", seen, margin_low="3 cm")
    assert told.status_code == 409 and told.json["code"] == "changed_elsewhere"
    assert told.json["both"] == [{"path": "margin_low", "name": "near selvage", "theirs": "2.0 cm", "mine": "3.0 cm"}]
    assert read(skirt)["cloth"]["margin_low"]["mm"] == 20
    # another entry of the same cloth was not changed there, and the same value is no quarrel
    assert at(skirt, "one", "PATCH", "/projects/1/cloth", seen, margin_high="3 cm").status_code == 200
    assert at(skirt, "one", "PATCH", "/projects/1/cloth", seen, margin_low="2 cm").status_code == 200
    # shown the new one, the person may say so again; what the window itself did is no other's
    now = int(at(skirt, "one", "GET", "/news").headers["X-News"])
    assert now > seen
    for width in ("3 cm", "4 cm"):
        assert at(skirt, "one", "PATCH", "/projects/1/cloth", now, margin_low=width).status_code == 200


def test_what_another_window_changed_is_not_thrown_away(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/cloth", flaws=[FLAW])
    seen = int(at(skirt, "one", "GET", "/news").headers["X-News"])
    at(skirt, "two", "PATCH", "/projects/1/cloth", seen, flaws=[{**FLAW, "what": "hole"}])
    assert at(skirt, "one", "PATCH", "/projects/1/cloth", seen, flaws=[]).status_code == 409
    assert at(skirt, "two", "PATCH", "/pieces/1", seen, name="Cuff").status_code == 200
    assert at(skirt, "one", "DELETE", "/pieces/2", seen).status_code == 200
