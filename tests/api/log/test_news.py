"""News: nothing is asked of the data before something was written."""

from __future__ import annotations

import json
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from sqlalchemy import event

from ...conftest import Person, data_of, until


def test_a_page_waits_and_hears_of_another_s_change(skirt: Person) -> None:
    told = skirt.ask("GET", "/news")
    database = data_of(skirt.app)

    def wait() -> Any:
        address = f"/api/news?since={told['rung']}&wait=30"
        return skirt.app.test_client().get(address, base_url="http://127.0.0.1", headers={"X-Window": "a"}).get_json()

    with ThreadPoolExecutor(1) as pool:
        heard = pool.submit(wait)
        assert until(lambda: len(database.bell._waiting) == 1)
        asked: list[str] = []
        event.listen(database.engine, "before_cursor_execute", lambda *given: asked.append(given[2]))
        assert not heard.done() and asked == [], "who waits asks nothing"
        skirt.client.patch(
            "/api/projects/1", json={"note": "new"}, base_url="http://127.0.0.1", headers={"X-Window": "b"}
        )
        news = heard.result(timeout=20)
    assert news["rung"] > told["rung"] and news["newest"] > told["newest"]


def test_a_reading_of_the_tape_rings(person: Person) -> None:
    before = person.ask("GET", "/news")
    sent = person.ask("POST", "/tape/readings", 201, value=248.5)
    after = person.ask("GET", f"/news?since={before['rung']}&wait=30")
    assert after["tape"] == sent["id"] > before["tape"] and after["rung"] > before["rung"]


def test_an_answer_to_a_change_brings_what_can_be_taken_back(skirt: Person) -> None:
    def change(of: str, path: str = "/api/projects/1", **body: Any) -> str | None:
        answer = skirt.client.patch(path, json=body, base_url="http://127.0.0.1", headers={"X-List": of})
        return answer.headers.get("X-Undo")

    told = change("1", note="für das Konzert")
    assert told is not None and told.isascii()
    assert json.loads(told) == skirt.ask("GET", "/undo?project=1") and json.loads(told)["back"] is not None
    assert json.loads(change("house", "/api/cloths/1", place="the shelf") or "") == skirt.ask("GET", "/undo")
    assert change("house", note=5) is None, "nothing was changed"
    for wrong in ("", "0x1", "²", "1" * 30):
        assert change(wrong, note="again") is None
    assert (
        "X-Undo"
        not in skirt.client.get("/api/projects/1", base_url="http://127.0.0.1", headers={"X-List": "1"}).headers
    )
