"""Files of pieces: looked into, confirmed, kept; written again."""

from __future__ import annotations

import base64
from typing import Any

import pytest

from idle_selvage.formats.reading import take_in
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.formats.writing import write

from ...conftest import Person

SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="600mm" viewBox="0 0 400 600">'
    '<g class="piece copies-2 pair"><title>Front</title><path d="M20 20 H200 C240 200 260 300 200 560 H20 Z"/>'
    '<line class="grainline" x1="100" y1="500" x2="100" y2="80"/></g>'
    '<g class="piece"><title>Cuff</title><rect x="280" y="20" width="90" height="240"/>'
    '<line class="grainline" x1="320" y1="240" x2="320" y2="40"/></g></svg>'
)


def file(data: bytes, name: str) -> dict[str, Any]:
    return {"file": base64.b64encode(data).decode(), "file_name": name}


def look(person: Person, data: bytes, name: str, **more: Any) -> Any:
    return person.ask("POST", "/plan/taking-in", 200, **file(data, name), **more)


def piece(number: int, name: str, **more: Any) -> dict[str, Any]:
    return {"number": number, "name": name, **more}


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_looked_into_first_and_kept_as_confirmed(person: Person, kind: str) -> None:
    person.ask("POST", "/projects", 201, name="Shirt")
    data = write(read_svg(SVG.encode()).what, kind)
    found = look(person, data, f"pieces.{kind}")
    assert sorted(one["name"] for one in found["pieces"]) == ["Cuff", "Front"]
    assert found["lines"] and all(len(one["cut"]) >= 4 for one in found["pieces"])
    assert person.ask("GET", "/projects/1")["pieces"] == [], "nothing is kept before it is confirmed"
    front = next(one for one in found["pieces"] if one["name"] == "Front")
    told = person.ask(
        "POST", "/projects/1/pieces/taken-in", 201, **file(data, f"pieces.{kind}"),
        pieces=[piece(front["number"], "Front left", copies=4, pair=True, seam="15 mm")],
    )  # fmt: skip
    (kept,) = told["project"]["pieces"]
    assert kept["name"] == "Front left" and kept["copies"] == 4 and kept["pair"] and kept["seam"]["mm"] == 15.0
    assert "Read 1 piece from" in person.ask("GET", "/projects/1/log")["entries"][0]["what"]


def test_a_piece_goes_to_the_cloth_it_is_confirmed_for(person: Person) -> None:
    person.ask("POST", "/projects", 201, name="Shirt")
    use = person.ask("POST", "/projects/1/uses", role="lining", name="Lawn")["uses"][1]["id"]
    data = SVG.encode()
    told = person.ask(
        "POST", "/projects/1/pieces/taken-in", 201, **file(data, "a.svg"),
        pieces=[piece(0, "Front", copies=2, pair=True, use_id=use), piece(1, "Cuff")],
    )  # fmt: skip
    cuts = {one["name"]: [cut["use_id"] for cut in one["cuts"]] for one in told["project"]["pieces"]}
    assert cuts["Front"] == [use] and cuts["Cuff"] != [use]


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_a_lining_that_is_cut_shorter_is_so_elsewhere_too(person: Person, kind: str) -> None:
    person.ask("POST", "/projects", 201, name="Jacket")
    use = person.ask("POST", "/projects/1/uses", role="lining", name="Lawn")["uses"][1]["id"]
    person.ask("POST", "/projects/1/pieces/taken-in", 201, **file(SVG.encode(), "a.svg"),
               pieces=[piece(0, "Front", copies=2, pair=True, use_id=use)])  # fmt: skip
    person.ask("PUT", f"/pieces/1/cuts/{use}", shorter="20 mm")
    person.ask("PATCH", "/projects/1/cloth", width_readings=["150 cm"])
    told = person.client.get(f"/api/projects/1/pieces.file?kind={kind}&use={use}", base_url="http://127.0.0.1")
    assert told.status_code == 200, told.get_data(as_text=True)
    (read,) = look(person, told.get_data(), f"lining.{kind}")["pieces"]
    # a lay problem holds the line that is cut
    assert read["shorter"]["mm"] == (0.0 if kind == "json" else 20.0)
    assert max(x for x, _ in read["cut"]) - min(x for x, _ in read["cut"]) == pytest.approx(520.0, abs=0.1)
    person.ask("POST", "/projects", 201, name="Another")
    kept = person.ask("POST", "/projects/2/pieces/taken-in", 201, **file(told.get_data(), f"lining.{kind}"),
                      pieces=[piece(0, "Front", copies=2, pair=True)])["project"]["pieces"]  # fmt: skip
    assert kept[0]["cuts"][0]["shorter"]["mm"] == read["shorter"]["mm"]


def test_a_file_that_cuts_more_off_than_there_is_says_so(person: Person) -> None:
    told = look(person, SVG.replace("copies-2 pair", "copies-2 pair shorter-90cm").encode(), "a.svg")
    assert [one["name"] for one in told["pieces"]] == ["Cuff"]
    assert any("no longer one piece" in one["why"] for one in told["not_read"])


def test_what_cannot_be_is_refused_with_a_sentence(person: Person) -> None:
    person.ask("POST", "/projects", 201, name="Shirt")
    for data, name in (
        (b"", "a.svg"),
        (b"nonsense", "a.txt"),
        (b"%PDF-1.4 and no more", "a.pdf"),
        (b"PK\3\4", "a.zip"),
    ):
        told = person.refused("POST", "/plan/taking-in", **file(data, name))
        assert told["message"].endswith(".") and told["fields"][0]["path"] == "file"
    assert "base64" in person.refused("POST", "/plan/taking-in", file="%%%", file_name="a.svg")["message"]
    at = "/projects/1/pieces/taken-in"
    data = SVG.encode()
    assert "no piece number 8" in person.refused("POST", at, **file(data, "a.svg"), pieces=[piece(7, "X")])["message"]
    assert "no such cloth" in person.refused(
        "POST", at, **file(data, "a.svg"), pieces=[piece(0, "X", copies=2, use_id=99)]
    )["message"]  # fmt: skip
    assert "even number" in person.refused(
        "POST", at, **file(data, "a.svg"), pieces=[piece(0, "X", copies=3, pair=True)]
    )["message"]  # fmt: skip
    person.ask("POST", at, 201, **file(data, "a.svg"), pieces=[piece(0, "Front", copies=2)])
    again = person.refused("POST", at, **file(data, "a.svg"), pieces=[piece(0, "Front", copies=2)])
    assert again["code"] == "again"
    person.ask("POST", at, 201, **file(data, "a.svg"), pieces=[piece(0, "Front", copies=2)], twice="instead")
    assert len(person.ask("GET", "/projects/1")["pieces"]) == 1


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_a_garment_goes_out_in_the_size_it_is_cut_in(person: Person, kind: str) -> None:
    """Where a format holds one size only, it is the chosen one and not the one the points were told in."""
    person.ask("POST", "/projects", 201, name="Shirt")
    at = "/projects/1/pieces/taken-in"
    told = person.ask("POST", at, 201, **file(SVG.encode(), "a.svg"), pieces=[piece(1, "Cuff")])["project"]["pieces"][0]
    points = person.ask("GET", f"/pieces/{told['id']}/draft")["points"]
    grades = [{"key": p["key"], "along": 20 if p["along"]["mm"] > 100 else 0, "across": 0} for p in points]
    person.ask("PUT", f"/pieces/{told['id']}/sizes", sizes=["S", "M", "L"], base="S", grades=grades)
    person.ask("PATCH", "/projects/1", size="L")
    data = person.client.get(f"/api/projects/1/pieces.file?kind={kind}", base_url="http://127.0.0.1").get_data()
    (found,) = take_in(data, f"a.{kind}").pieces
    xs = [x for x, _ in found.piece.outline]
    assert max(xs) - min(xs) == pytest.approx(240.0 if found.sizes else 280.0, abs=0.1)
    assert [one.size for one in found.sizes] == (["S", "M", "L"] if kind in ("svg", "dxf") else [])


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_the_pieces_of_a_garment_go_out_and_come_in_again(person: Person, kind: str) -> None:
    person.ask("POST", "/projects", 201, name="Shirt")
    at = f"/api/projects/1/pieces.file?kind={kind}"
    assert person.client.get(at, base_url="http://127.0.0.1").status_code == 422, "there are no pieces yet"
    person.ask(
        "POST", "/projects/1/pieces/taken-in", 201, **file(SVG.encode(), "a.svg"),
        pieces=[piece(0, "Front", copies=2, pair=True), piece(1, "Cuff", copies=2)],
    )  # fmt: skip
    answer = person.client.get(at, base_url="http://127.0.0.1")
    assert answer.status_code == 200 and f"pieces.{kind}" in answer.headers["Content-Disposition"]
    found = take_in(answer.get_data(), f"a.{kind}")
    assert sorted(one.name for one in found.pieces) == ["Cuff", "Front"]
    assert [one.how.copies for one in found.pieces] == [2, 2]
