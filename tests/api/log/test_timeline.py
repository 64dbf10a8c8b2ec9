"""The timeline: of a garment, a cloth, everything; searched, filtered, grouped; noted and taken away as a table."""

from __future__ import annotations

import base64
import csv
import io
from datetime import UTC, datetime, timedelta
from typing import Any
from urllib.parse import urlencode

import pytest
from PIL import Image

from idle_selvage.store.models import LogEntry

from ...conftest import Person, data_of


def timeline(person: Person, **asked: Any) -> list[list[dict[str, Any]]]:
    found: list[list[dict[str, Any]]] = person.ask("GET", f"/log/lines?{urlencode(asked)}")["groups"]
    return found


def lines(person: Person, **asked: Any) -> list[str]:
    return [one["what"] for group in timeline(person, **asked) for one in group]


def picture() -> str:
    out = io.BytesIO()
    Image.new("RGB", (40, 30), "#884422").save(out, "JPEG")
    return base64.b64encode(out.getvalue()).decode()


def test_of_a_garment_of_a_cloth_and_of_everything(skirt: Person) -> None:
    skirt.ask("POST", "/projects", name="Second")
    cloth = skirt.ask("GET", "/projects/1")["uses"][0]["cloth_id"]
    skirt.ask("PATCH", f"/cloths/{cloth}", name="Windowpane")
    every = lines(skirt)
    own, of_cloth = lines(skirt, project=1), lines(skirt, cloth=cloth)
    assert any("Second" in one for one in every) and not any("Second" in one for one in own)
    assert set(own) < set(every) and set(of_cloth) <= set(every) and of_cloth
    # a cloth that no garment uses has its lines too
    lone = skirt.ask("POST", "/cloths", 201, name="Remnant of linen")["id"]
    assert lines(skirt, cloth=lone) == ["Put Remnant of linen into the cupboard."]
    assert lines(skirt)[0] == "Put Remnant of linen into the cupboard."


def test_what_was_done_to_a_cloth_of_two_garments_stands_once(skirt: Person) -> None:
    cloth = skirt.ask("GET", "/projects/1")["uses"][0]["cloth_id"]
    skirt.ask("POST", "/projects", name="Second")
    second = skirt.ask("GET", "/projects/2")["id"]
    skirt.ask("POST", f"/projects/{second}/uses", role="lining", cloth_id=cloth)
    before = len(lines(skirt))
    skirt.ask("PATCH", f"/cloths/{cloth}", style_number="4711")
    assert len(lines(skirt)) == before + 1
    assert len([one for one in lines(skirt, project=1)]) and lines(skirt, project=1)[0] == lines(skirt, project=2)[0]


def test_searched_and_filtered(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/purchase", spare="7 cm")
    assert all("spare" in one.lower() for one in lines(skirt, text="SPARE")) and lines(skirt, text="SPARE")
    assert lines(skirt, text="spare nonsense") == []
    # as the reader reads it: in her units
    skirt.ask("PATCH", "/projects/1/true", now={"offset": "1 in", "side": "far"})
    skirt.ask("POST", "/projects/1/true/tests")
    assert lines(skirt, text="fold test 2.5") and not lines(skirt, text="fold test 1 in")
    skirt.ask("PATCH", "/settings", system="imperial")
    assert lines(skirt, text="fold test 1 in")
    stages = {one["stage"] for group in timeline(skirt, project=1) for one in group}
    assert {"plan", "cloth", "shrink"} <= stages
    for stage in stages:
        assert {one["stage"] for group in timeline(skirt, project=1, stage=stage) for one in group} == {stage}
    skirt.refused("GET", "/log/lines?since=yesterday")
    skirt.refused("GET", "/log/lines?lines=0")


def test_days_are_those_of_the_reader(skirt: Person) -> None:
    """Half past eleven at night in UTC is the next day, two hours east."""
    with data_of(skirt.app).begin() as session:
        session.add(LogEntry(project_id=1, stage="log", kind="note", values={"text": "late"},
                             at=datetime(2026, 3, 1, 23, 30, tzinfo=UTC)))  # fmt: skip
    assert lines(skirt, since="2026-03-01", until="2026-03-01") == ["late"]
    assert lines(skirt, since="2026-03-01", until="2026-03-01", minutes=120) == []
    assert lines(skirt, since="2026-03-02", until="2026-03-02", minutes=120) == ["late"]


@pytest.mark.parametrize("path", ["/api/log/lines", "/api/log.csv"])
@pytest.mark.parametrize(
    "asked", [{"minutes": 1440}, {"minutes": -1440}, {"until": "9999-12-31"}, {"since": "0001-01-01"}]
)
def test_a_day_or_a_clock_there_is_not_is_refused(skirt: Person, path: str, asked: dict[str, Any]) -> None:
    answer = skirt.client.get(path, query_string=asked)
    assert answer.status_code == 422, answer.get_data(as_text=True)
    assert [one["path"] for one in answer.get_json()["fields"]] == list(asked)


@pytest.mark.parametrize("asked", [{"since": "1900-01-01", "minutes": 900}, {"until": "2200-12-31", "minutes": -900}])
def test_the_first_and_the_last_day_can_be_asked_for(skirt: Person, asked: dict[str, Any]) -> None:
    assert skirt.client.get("/api/log/lines", query_string=asked).status_code == 200


def test_many_of_one_kind_are_one_group_and_some_are_not(skirt: Person) -> None:
    for spare in range(1, 4):
        skirt.ask("PATCH", "/projects/1/purchase", spare=f"{spare} cm")
    assert [len(group) for group in timeline(skirt, project=1)[:3]] == [1, 1, 1]
    for spare in range(4, 10):
        skirt.ask("PATCH", "/projects/1/purchase", spare=f"{spare} cm")
    groups = timeline(skirt, project=1)
    assert len(groups[0]) == 9 and all(one["kind"] == groups[0][0]["kind"] for one in groups[0])
    # an hour later is another time
    noon = datetime(2026, 3, 1, 12, tzinfo=UTC)
    with data_of(skirt.app).begin() as session:
        for minute in (0, 1, 2, 3, 63, 64, 65, 66):
            session.add(LogEntry(project_id=1, stage="cut", kind="cutting-begun", values={"copies": minute},
                                 at=noon + timedelta(minutes=minute)))  # fmt: skip
    assert [len(group) for group in timeline(skirt, project=1, stage="cut")] == [4, 4]


def test_so_many_at_a_time(skirt: Person) -> None:
    whole = [one["id"] for group in timeline(skirt) for one in group]
    found: list[int] = []
    before: int | None = None
    while True:
        part = skirt.ask("GET", "/log/lines?" + urlencode({"lines": 3, **({"before": before} if before else {})}))
        found += [one["id"] for group in part["groups"] for one in group]
        before = part["earlier"]
        if before is None:
            break
    assert found == whole


def test_a_note_of_ones_own_with_a_photo(skirt: Person) -> None:
    told = skirt.ask("POST", "/log/notes", 201, text="  The  {hem} flares; \n press it again. ", project=1,
                     photo=picture())  # fmt: skip
    assert told["what"] == "The {hem} flares; press it again." and told["photo"] and told["change"] is None
    assert lines(skirt, project=1)[0] == told["what"]
    answer = skirt.client.get(f"/api/log/lines/{told['id']}/photo", base_url="http://127.0.0.1")
    assert answer.status_code == 200 and Image.open(io.BytesIO(answer.get_data())).size == (40, 30)
    other = skirt.ask("POST", "/log/notes", 201, text="soft", cloth=1)
    assert not other["photo"]
    skirt.ask("GET", f"/log/lines/{other['id']}/photo", 404)
    assert skirt.ask("POST", "/log/notes", 201, text="of nothing in particular")["project_id"] is None
    assert "Write what" in skirt.refused("POST", "/log/notes", text="  ")["message"]
    assert "2000" in skirt.refused("POST", "/log/notes", text="x" * 2001)["message"]
    assert "not a photo" in skirt.refused("POST", "/log/notes", text="a", photo="bm90aGluZw==")["message"]
    skirt.ask("POST", "/log/notes", 404, text="a", project=99)


@pytest.mark.parametrize("text", ["=1+1", "plain", 'a "quoted", one'])
def test_the_lines_as_a_table(skirt: Person, text: str) -> None:
    skirt.ask("POST", "/log/notes", 201, text=text, project=1)
    answer = skirt.client.get("/api/log.csv?project=1", base_url="http://127.0.0.1")
    rows = list(csv.DictReader(io.StringIO(answer.get_data(as_text=True))))
    assert len(rows) == len(lines(skirt, project=1))
    assert rows[0]["what"] == ("'=1+1" if text == "=1+1" else text) and rows[0]["garment"] == "Skirt"
    kept = skirt.client.get(f"/api/log.csv?{urlencode({'project': 1, 'text': 'zebra'})}", base_url="http://127.0.0.1")
    assert len(kept.get_data(as_text=True).strip().splitlines()) == 1
